// Hits: what a note does in light, and kits of them.

import { z } from 'zod';
import { Chroma, idOf, Name, type Profile } from '../rig/schema';
import { chance } from './chance';
import { Pick } from './places';
import { Setting } from './schema';

const Note = z.number().int().min(0).max(127);
const Unit = z.number().min(0).max(1);

/** How long a stretch of a hit takes: in beats of the clock when it is struck, or in seconds. */
export const HitTime = z.union([
  z.strictObject({ beats: z.number().min(0).max(64) }),
  z.strictObject({ seconds: z.number().min(0).max(60) }),
]);
export type HitTime = z.infer<typeof HitTime>;

/** Who answers: all that are meant, the next of them each time, the one that belongs to the note, or one by chance. */
export const SPREADS = ['all', 'next', 'note', 'chance'] as const;
export const HIT_CURVES = ['straight', 'smooth', 'sharp'] as const;

export const Hit = z.strictObject({
  id: idOf<'Hit'>(),
  name: Name,
  /** The notes it answers to, `low` to `high`, MIDI numbers (60 is middle C). */
  low: Note,
  high: Note,
  /** Which places of the role; without, all. */
  pick: Pick.optional(),
  spread: z.enum(SPREADS).default('all'),
  /** What it asks for at its height. What is left out is left alone. */
  level: Unit.optional(),
  colour: Chroma.optional(),
  more: z.record(z.string().min(1).max(60), Setting).optional(),
  attack: HitTime,
  hold: HitTime,
  release: HitTime,
  curve: z.enum(HIT_CURVES).default('straight'),
  /** How much a soft stroke takes away: at 1 the velocity is the height, at 0 all strokes are alike. */
  velocity: Unit.default(1),
  /** Of hits with the same number, a new one cuts off the ones before it. */
  choke: z.number().int().min(1).max(8).optional(),
  /** Stays for as long as the note is held; without, it runs its course. */
  held: z.boolean().optional(),
  /** Whether its level only adds to what is there, or takes its place. */
  blend: z.enum(['highest', 'replace']).default('highest'),
});
export type Hit = z.infer<typeof Hit>;

/** Hits that go together, to be played on any role; and the roles that play it from MIDI, by channel. */
export const Kit = z.strictObject({
  id: idOf<'Kit'>(),
  name: Name,
  hits: z.array(Hit).max(128),
  channels: z.array(z.strictObject({ channel: z.number().int().min(1).max(16), role: idOf<'Role'>() })).max(64),
});
export type Kit = z.infer<typeof Kit>;

/** The hits of a kit that answer to a note. */
export function hitsOf(kit: Kit, note: number): readonly Hit[] {
  return kit.hits.filter(({ low, high }) => note >= Math.min(low, high) && note <= Math.max(low, high));
}

/** A choked hit goes out this quickly, in seconds: at once, but not with a tear. */
export const CHOKE_SECONDS = 0.04;

/** Two frames of DMX at 44 a second: what is shorter may fall between them. */
const TWO_FRAMES = 0.045;
/** A halogen lamp takes about this long to be seen at all: its filament has to glow. */
const FILAMENT = 0.25;

/** How long light must be asked of a lamp for it to be seen, in seconds. */
export function leastFor(kind: Profile['kind']): number {
  return kind === 'dimmer' ? FILAMENT : TWO_FRAMES;
}

/** A hit in seconds. */
export type Strike = {
  readonly attack: number;
  readonly hold: number;
  readonly release: number;
  readonly held: boolean;
  readonly curve: Hit['curve'];
};

/** @param least seconds it must last in all: what is shorter holds for longer. */
export function strikeOf({ attack, hold, release, held, curve }: Hit, pulse: number, least: number): Strike {
  const inSeconds = (time: HitTime) => ('beats' in time ? time.beats * pulse : time.seconds);
  const [rise, stay, fall] = [inSeconds(attack), inSeconds(hold), inSeconds(release)];
  return { attack: rise, hold: Math.max(stay, least - rise - fall), release: fall, held: held === true, curve };
}

/**
 * How high a hit is, 0…1.
 * @param since seconds since it was struck. @param lifted seconds from then until the note was let go, Infinity for
 * not yet. @param choked likewise, until it was cut off.
 */
export function heightOfHit(strike: Strike, since: number, lifted: number, choked: number): number {
  if (since < 0) return 0;
  const { attack, hold, release, held } = strike;
  const ends = held ? Math.max(lifted, hold) : attack + hold;
  const rising = (at: number) => (at >= attack ? 1 : at / attack);
  let height = rising(Math.min(since, ends));
  if (since > ends) height = release > 0 ? height * Math.max(0, 1 - (since - ends) / release) : 0;
  if (since > choked) height *= Math.max(0, 1 - (since - choked) / CHOKE_SECONDS);
  if (strike.curve === 'smooth') return height * height * (3 - 2 * height);
  return strike.curve === 'sharp' ? height * height : height;
}

/**
 * Which of `count` lamps answers; -1 for all of them.
 */
export function placeOfHit({ spread, low, high }: Hit, note: number, order: number, count: number): number {
  if (spread === 'all' || count <= 0) return -1;
  if (spread === 'next') return order % count;
  if (spread === 'note') return (note - Math.min(low, high)) % count;
  return Math.floor(chance(low * 128 + high, order, 0) * count);
}

/** What a soft stroke leaves of a hit's height, 0…1. */
export function strengthOf(hit: Hit, velocity: number): number {
  return 1 - hit.velocity * (1 - velocity);
}
