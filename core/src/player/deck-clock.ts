// Where a deck of a player is by now: from places that are told many times a second, each a little late.

import { seconds, type Seconds } from '../units';
import type { Place } from './words';

export type DeckClock = {
  readonly take: (place: Place, at: Seconds) => void;
  /** Before anything was told `none`; silent while it played `lost`, and carried on. */
  readonly state: (now: Seconds) => 'none' | 'plays' | 'stands' | 'lost';
  readonly positionAt: (now: Seconds) => Seconds;
  readonly rate: () => number;
  /** Of the track at its own speed; 0 where it is not told. */
  readonly bpm: () => number;
  /** Where a beat of the track fell, by the host's clock, and which it was. */
  readonly beatAt: (now: Seconds) => number;
  readonly heardAt: () => Seconds;
};

/** The line is that of the place that came least late within this, in seconds. */
const WINDOW = 0.6;
/** A place so far ahead of the line was jumped to; and one so far behind it, in seconds. */
const JUMPED = 0.03;
/** One that is less behind than this may be late: only a second one says it was a jump. */
const MAY_BE_LATE = 0.15;
/** Speeds so near to each other are the same. */
const SAME_RATE = 1e-4;
const LOST_SECONDS = 0.3;

type Told = { readonly at: number; readonly zero: number };

export function deckClock(): DeckClock {
  /** `zero` is where the deck would have been at 0 of the host's clock: the higher, the less late it came. */
  let told: Told[] = [];
  let zero = 0;
  let last: Place | undefined;
  let heard = -Infinity;
  let behind = false;

  const positionAt = (now: number) => {
    if (!last) return 0;
    return last.rate === 0 ? last.position : zero + now * last.rate;
  };
  const begin = (place: Place, at: number) => {
    zero = place.position - at * place.rate;
    told = [{ at, zero }];
    behind = false;
  };
  return {
    take(place, at) {
      const before = last;
      const expected = positionAt(at);
      last = place;
      heard = at;
      if (!before || before.rate === 0 || Math.abs(before.rate - place.rate) > SAME_RATE) return begin(place, at);
      if (place.rate === 0) return;
      const off = place.position - expected;
      const late = off < -JUMPED && off > -MAY_BE_LATE && !behind;
      if (late) return void (behind = true);
      if (Math.abs(off) > JUMPED) return begin(place, at);
      behind = false;
      told = [...told.filter((one) => at - one.at < WINDOW), { at, zero: place.position - at * place.rate }];
      zero = Math.max(...told.map((one) => one.zero));
    },
    state(now) {
      if (!last) return 'none';
      if (last.rate === 0) return 'stands';
      return now - heard > LOST_SECONDS ? 'lost' : 'plays';
    },
    positionAt: (now) => seconds(positionAt(now)),
    rate: () => last?.rate ?? 0,
    bpm: () => last?.bpm ?? 0,
    beatAt(now) {
      if (!last) return 0;
      return last.beat + ((positionAt(now) - last.position) * last.bpm) / 60;
    },
    heardAt: () => seconds(heard),
  };
}
