// How much each screen may say in a second, so that nobody keeps the conductor from the others.

import type { Seconds } from '../units';

/** A screen may send so many messages a second; a dragged fader sends 60. */
const MOST_PER_SECOND = 300;
/** All devices together may say so much; then each has an equal share of it. The conductor's own computer has its own. */
const MOST_OF_DEVICES = 600;
/** A message counts once, and once more for every so many characters: whoever says much says it less often. */
const CHARACTERS = 8192;
/** But one message never counts for more than this: the largest show, and an edit of a whole song, have to get in. */
const LONGEST = 150;
/** A whole show is checked from end to end. */
export const WHOLE_SHOW = 100;

export const weightOf = (text: string): number => 1 + Math.min(LONGEST, text.length / CHARACTERS);

/** What was said within a second. */
type Said = { from: number; count: number };

export type Allowance = {
  /** @returns whether that is too much, and whether it is the first of this second that is. */
  readonly spend: (weight: number) => 'fine' | 'first' | 'too much';
};

export type Allowances = {
  /** Of one line: those of a device share what it may say. Undefined is the conductor's own computer. */
  readonly of: (device: string | undefined) => Allowance;
  /** The last line of a device has gone. */
  readonly forget: (device: string) => void;
};

export function allowances(now: () => Seconds): Allowances {
  /** By device, as one device may have several lines; and by all of them. */
  const saidBy = new Map<string, Said>();
  const devices: Said = { from: -Infinity, count: 0 };
  const spend = (said: Said, isDevice: boolean, weight: number) => {
    const at = now();
    if (at - said.from >= 1) Object.assign(said, { from: at, count: 0 });
    if (isDevice && at - devices.from >= 1) Object.assign(devices, { from: at, count: 0 });
    const before = said.count;
    said.count += weight;
    if (isDevice) devices.count += weight;
    const share = MOST_OF_DEVICES / Math.max(1, saidBy.size);
    const most = isDevice && devices.count > MOST_OF_DEVICES ? Math.min(MOST_PER_SECOND, share) : MOST_PER_SECOND;
    if (said.count <= most) return 'fine';
    return before <= most ? 'first' : 'too much';
  };
  return {
    of(device) {
      const said = (device === undefined ? undefined : saidBy.get(device)) ?? { from: now(), count: 0 };
      if (device !== undefined) saidBy.set(device, said);
      return { spend: (weight) => spend(said, device !== undefined, weight) };
    },
    forget: (device) => void saidBy.delete(device),
  };
}
