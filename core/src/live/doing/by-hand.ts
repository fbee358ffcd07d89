// What is taken by hand, in words.

import { SWATCHES } from '../../colour';
import type { Act } from '../../gig';
import type { LampsDo, LookValue } from '../../light';
import { patchedFixtures, type Patched } from '../../rig';
import { rigInUse, type Show } from '../../show';

type Hand = Pick<Extract<Act, { act: 'hand' }>, 'values' | 'hold'>;

/** The gobos of the first lamp that has a wheel: those of a role are alike, or nobody knows what a slot shows. */
export const gobosOf = (lamps: readonly Patched[]) =>
  lamps.find(({ profile }) => profile.gobos.length > 0)?.profile.gobos ?? [];

/** What is taken by hand, in words: “Movers: Crowd”, “Front wash: Amber”, “Hazer: haze 100 %, 5 s”. */
export function handWords(show: Show, { values, hold: length }: Hand): string {
  const lines = values.map((value) => {
    const who = value.role ? (show.roles.find(({ id }) => id === value.role)?.name ?? 'a role that is gone') : 'lamps';
    const said = saidIn(show, value);
    return said ? `${who}: ${said}` : who;
  });
  const words = [...new Set(lines)].join(', ');
  return `${lines.some((line) => line.includes(': ')) ? '' : 'By hand: '}${words}${length ? `, ${length} s` : ''}`;
}

/** What the chosen roles take, in words: “Chosen: Red”. */
export function chosenWords(show: Show, does: LampsDo): string {
  return `Chosen: ${saidIn(show, does) || 'several values'}`;
}

/** Of a value that says one thing to all its lamps, what; empty where it says more. */
function saidIn(show: Show, { role, pick: _, lamps: __, ...said }: Partial<LookValue>): string {
  const keys = Object.keys(said);
  if (keys.length !== 1) return '';
  const { aim, colour, gobo, haze, level } = said;
  if (aim?.type === 'hold') return 'aim' in aim.value ? aimName(show, aim.value.aim) : 'an aim';
  if (colour?.type === 'hold') return swatchName(colour.value);
  if (gobo?.type === 'hold') return goboName(show, role, gobo.value);
  if (haze?.type === 'hold') return `haze ${Math.round(haze.value * 100)} %`;
  if (level?.type === 'hold') return `${Math.round(level.value * 100)} %`;
  return '';
}

const aimName = ({ aims }: Show, id: string): string =>
  aims.find((aim) => aim.id === id)?.name ?? 'an aim that is gone';

function swatchName({ x, y }: { readonly x: number; readonly y: number }): string {
  return SWATCHES.find(({ colour }) => Math.hypot(colour.x - x, colour.y - y) < 1e-6)?.name ?? 'a colour';
}

function goboName(show: Show, role: string | undefined, slot: number): string {
  const rig = rigInUse(show);
  const cast = rig.casting.find((one) => one.role === role)?.fixtures ?? [];
  const lamps = patchedFixtures(rig, show.profiles).filter(({ fixture }) => cast.includes(fixture.id));
  const name = gobosOf(lamps)[slot]?.name;
  return name ? `gobo ${name}` : `gobo ${slot}`;
}
