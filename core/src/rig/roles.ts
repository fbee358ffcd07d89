// In which order lamps play their role, and which notes hit them.

import type { Fixture, Rig } from './schema';

export const ORDERS = ['left to right', 'front to back', 'top to bottom', 'by address', 'by number'] as const;
export type Order = (typeof ORDERS)[number];

/** The lamps' ids in an order; where two are alike in it, the one further left goes first, then the lower number. */
export function ordered(rig: Rig, lamps: readonly Fixture['id'][], order: Order): readonly Fixture['id'][] {
  const known = lamps.flatMap((id) => rig.fixtures.find((fixture) => fixture.id === id) ?? []);
  const first = (lamp: Fixture): number => {
    switch (order) {
      case 'left to right':
        return lamp.mount.x;
      case 'front to back':
        return lamp.mount.y;
      case 'top to bottom':
        return -lamp.mount.z;
      case 'by address':
        return lamp.universe * 512 + lamp.address;
      case 'by number':
        return lamp.number;
    }
  };
  return [...known]
    .sort((a, b) => first(a) - first(b) || a.mount.x - b.mount.x || a.number - b.number)
    .map((lamp) => lamp.id);
}

/** C3, counted so that middle C (60) is C4. */
const FIRST_NOTE = 48;

/** The note that hits a lamp: its own, else C3 for the first of the first role it plays, C#3 for the next, and so on. */
export function noteOf(rig: Rig, fixture: Fixture): number | undefined {
  if (fixture.note !== undefined) return fixture.note;
  const cast = rig.casting.find(({ fixtures }) => fixtures.includes(fixture.id));
  const note = cast ? FIRST_NOTE + cast.fixtures.indexOf(fixture.id) : 128;
  return note <= 127 ? note : undefined;
}

const STEPS = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];

/** 60 is C4. */
export function noteName(note: number): string {
  return `${STEPS[note % 12]}${Math.floor(note / 12) - 1}`;
}

/** A note from its name (“C#3”, “Db3”) or its number; undefined where it is neither or outside 0…127. */
export function noteFromText(text: string): number | undefined {
  const typed = /^\s*([A-Ga-g])([#♯b♭]?)(-?\d)\s*$/.exec(text);
  const bare = /^\s*(\d{1,3})\s*$/.exec(text);
  if (!typed && !bare) return undefined;
  const flat = typed?.[2] === 'b' || typed?.[2] === '♭';
  const sharp = typed?.[2] !== '' && !flat;
  const note = typed
    ? STEPS.indexOf(typed[1]!.toUpperCase()) + (sharp ? 1 : flat ? -1 : 0) + (Number(typed[3]) + 1) * 12
    : Number(bare![1]);
  return note >= 0 && note <= 127 ? note : undefined;
}
