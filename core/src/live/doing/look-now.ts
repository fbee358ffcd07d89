// What is on, as a look of its own.

import { saidTo, type LookValue } from '../../light';
import type { Casting } from '../../rig/schema';
import type { Moment } from '../press';
import { isOn } from '../standing';

/**
 * What looks that are on and hands say together, the later over the earlier, as far as they speak to the same lamps.
 * Chases move on by themselves and are not among it, nor is what a song does.
 */
export function valuesNow({ show, live, now }: Moment, casting: readonly Casting[]): readonly LookValue[] {
  const looks = live.standing.filter((one) => isOn(one, now)).flatMap(({ look }) => show.looks.find(({ id }) => id === look)?.values ?? []); // prettier-ignore
  const hands = live.hands.filter(({ on }) => on).map(({ value }) => value);
  return [...looks, ...hands].reduce<readonly LookValue[]>((values, { role, pick, lamps, more, ...said }) => {
    const who = { ...(role === undefined ? { lamps } : { role }), ...(pick ? { pick } : {}) };
    return saidTo(values, who, { ...said, ...(more ? { more } : {}) }, casting);
  }, []);
}
