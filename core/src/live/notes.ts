// Notes that sound: struck, let go, cut off by others. The log knows no lengths, so the newest are kept and no more.

import { own } from '../own';
import { z } from 'zod';
import { idOf } from '../rig/schema';
import { seconds, type Seconds } from '../units';

const Moment = z.number().transform(seconds);

/** One stroke of one hit of a kit on a role; a velocity of 0 lets go of the note. */
export const NoteStroke = z.strictObject({
  kit: idOf<'Kit'>(),
  role: idOf<'Role'>(),
  hit: idOf<'Hit'>(),
  note: z.number().int().min(0).max(127),
  velocity: z.number().min(0).max(1),
  /** The hit's choke group. */
  choke: z.number().int().min(1).max(8).optional(),
  /** It changes too little of the rig's light to be a flash. */
  faint: z.boolean().optional(),
});
export type NoteStroke = z.infer<typeof NoteStroke>;

export const Sounding = z.strictObject({
  kit: idOf<'Kit'>(),
  role: idOf<'Role'>(),
  hit: idOf<'Hit'>(),
  note: z.number(),
  velocity: z.number(),
  choke: z.number().optional(),
  at: Moment,
  /** Seconds of a beat when it was struck. */
  pulse: z.number(),
  /** The screen it was struck on. */
  by: z.string(),
  /** How often this hit was struck on this role before. */
  order: z.number().int(),
  /** When the note was let go, and when another hit cut it off. */
  lifted: Moment.optional(),
  choked: Moment.optional(),
  /** It came too soon after one that counts for where flashes are limited. */
  crowded: z.boolean().optional(),
});
export type Sounding = z.infer<typeof Sounding>;

/** More notes than this do not sound at once: the oldest go first, whatever they are. */
export const MOST_SOUNDING = 128;

type Notes = {
  readonly sounding: readonly Sounding[];
  readonly struck: Readonly<Record<string, number>>;
  /** When notes were struck within the last second that were flashes and had room, rising. */
  readonly flashes: readonly Seconds[];
};

/** So many flashes may be within any second where nobody says else (WCAG 2.2, success criterion 2.3.1). */
const MOST_FLASHES = 3;

/** Notes of one chord are one flash. */
const CHORD_SECONDS = 0.03;

const keyOf = ({ kit, role, hit }: { kit: string; role: string; hit: string }) => `${kit}/${role}/${hit}`;

/** Whether one more flash has room at a moment: the flashes of the second before it, and whether it belongs to one of them. */
export function roomFor<Moment extends number>(flashes: readonly Moment[], at: number, most: number) {
  const recent = flashes.filter((one) => at - one < 1);
  const chord = recent.some((one) => at - one <= CHORD_SECONDS);
  return { recent, chord, room: chord || recent.length < most };
}

/** What sounds after more strokes at one moment. @param most flashes that may be within a second. */
export function notesWith(
  before: Notes,
  strokes: readonly NoteStroke[],
  pulse: number,
  at: Seconds,
  by: string,
  most = MOST_FLASHES,
): Notes {
  let sounding = [...before.sounding];
  const struck = { ...before.struck };
  const { recent, chord, room } = roomFor(before.flashes, at, most);
  for (const { velocity, choke, faint = false, ...stroke } of strokes) {
    const same = (one: Sounding) => keyOf(one) === keyOf(stroke) && one.note === stroke.note;
    if (velocity <= 0) {
      sounding = sounding.map((one) => (same(one) && one.lifted === undefined ? { ...one, lifted: at } : one));
      continue;
    }
    const chokes = (one: Sounding) =>
      choke !== undefined && one.choke === choke && one.kit === stroke.kit && one.role === stroke.role;
    // The one before it may still ring while this one rises; those before that have nothing to add.
    const last = sounding.findLast(same);
    const order = own(struck, keyOf(stroke)) ?? 0;
    struck[keyOf(stroke)] = order + 1;
    sounding = [
      ...sounding
        .filter((one) => !same(one) || one === last)
        .map((one) => (chokes(one) && one.choked === undefined ? { ...one, choked: at } : one))
        .map((one) => (same(one) && one.lifted === undefined ? { ...one, lifted: at } : one)),
      {
        ...stroke,
        velocity,
        ...(choke === undefined ? {} : { choke }),
        at,
        by,
        pulse,
        order,
        ...(room || faint ? {} : { crowded: true }),
      },
    ].slice(-MOST_SOUNDING);
  }
  const any = strokes.some(({ velocity, faint }) => velocity > 0 && !faint);
  return { sounding, struck, flashes: any && room && !chord ? [...recent, at] : recent };
}
