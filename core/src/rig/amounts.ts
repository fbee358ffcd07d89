// Channels that do several things: where in them more is brighter, and where a shutter lets the light through.

import { clamp } from '../units';
import type { Channel, Range } from './schema';

/** Where in a channel its amounts lie, as parts of all of it: none at all, next to none, and the most; `least` may lie above. */
export type Amounts = { readonly none: number; readonly least: number; readonly most: number };

/** A range that is no amount, though it was read as one from what a manual says of it; and a channel that only strobes. */
const STROBES = /strob|flash|blitz/i;
const SHUTS = /shut|dim|blend/i;

/**
 * The amounts of a channel that does something else with the rest of its values, as a dimmer does that strobes at its upper
 * end; null where all of it is amounts, or nobody said. Several ranges side by side are one.
 */
export function amountsOf(channel: Channel): Amounts | null {
  const levels = channel.ranges
    .filter(({ does, name = '' }) => does === 'level' && !STROBES.test(name))
    .sort((a, b) => a.from - b.from);
  const [first] = levels;
  if (!first) return null;
  let { from, to } = first;
  for (const next of levels) if (next.from === to + 1 && rises(next) === rises(first)) to = next.to;
  const open = channel.ranges.find(({ does }) => does === 'open');
  if (rises(first) && open?.from === to + 1) to = open.to;
  if (!rises(first)) [from, to] = [to, from];
  const closed = channel.ranges.find(({ does }) => does === 'closed');
  // Where nothing is said of 0 a lamp is dark there.
  const none = closed ? closed.from : channel.ranges.some((range) => range.from === 0) ? from : 0;
  const all = from === to || (from === 0 && to === 255 && none === 0);
  return all ? null : { none: none / 255, least: from / 255, most: to / 255 };
}

const rises = ({ low = 0, high = 1 }: Range): boolean => high >= low;

/** Whether a channel is called a strobe, and not a shutter. */
export const onlyStrobes = ({ name = '' }: Channel): boolean => STROBES.test(name) && !SHUTS.test(name);

/**
 * The DMX value (0…255) at which a shutter lets the light through. Many only strobe: what such a one calls “off” or “no
 * function” is open, and one of which nothing else is said is open at 0.
 */
export function openOf(channel: Channel): number {
  const { ranges, home } = channel;
  const middle = ({ from, to }: Range) => Math.round((from + to) / 2);
  const does = (what: Range['does']) => ranges.find((range) => range.does === what);
  const open = does('open');
  if (open) return middle(open);
  const rest = Math.round((home ?? 0) * 255);
  if (ranges.length === 0) return onlyStrobes(channel) ? 0 : rest;
  const level = ranges.findLast((range) => range.does === 'level');
  // One that closes by degrees and rests at 0 is open at the end that is said to be the higher one.
  if (level && rest === 0) return (level.high ?? 1) >= (level.low ?? 0) ? level.to : level.from;
  const there = ranges.find(({ from, to }) => rest >= from && rest <= to)?.does;
  if (there !== 'strobe' && there !== 'closed') return rest;
  const still = does('nothing') ?? (does('strobe') && does('closed'));
  return still ? middle(still) : rest;
}

/** An amount of 0…1 as a part of its channel. */
export const placeOfAmount = ({ none, least, most }: Amounts, amount: number): number =>
  amount <= 0 ? none : least + Math.min(1, amount) * (most - least);

/** The inverse; values that are no amount count as the one they lie next to, as lamps shine on while they strobe. */
export function amountAtPlace({ none, least, most }: Amounts, place: number): number {
  return Math.abs(place - none) < 1e-3 ? 0 : clamp((place - least) / (most - least), 0, 1);
}
