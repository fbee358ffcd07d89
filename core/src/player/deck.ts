// A deck of the stand-in for a DJ player: a track that plays faster or slower, is cued, looped and jumped about in.

import { z } from 'zod';
import { DeckTrack } from '../gig/known-track';
import { looped, songAt, songTimeAt, type SongClock } from '../live';
import { clamp, seconds, type Seconds } from '../units';
import type { DeckWord } from './words';

/** As far as the pitch fader goes. */
export const PITCH_MOST = 0.16;

/** A track with its beat, as the stand-in plays it. */
export const LoadedTrack = DeckTrack.extend({
  /** At its own speed; 0 where nobody knows. */
  bpm: z.number().min(0).max(400),
  /** Where its first beat is, in seconds. */
  firstBeat: z.number().min(-60).max(3600),
});
export type LoadedTrack = z.infer<typeof LoadedTrack>;

const Place = z.number().min(-10).max(36_000);

export const DeckCommand = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('load'), track: LoadedTrack }),
  z.strictObject({ do: z.literal('eject') }),
  z.strictObject({ do: z.literal('play') }),
  /** Stands where it is, and is cued there. */
  z.strictObject({ do: z.literal('pause') }),
  /** Back to where it was cued, and paused. */
  z.strictObject({ do: z.literal('cue') }),
  z.strictObject({ do: z.literal('go'), to: Place }),
  /** The wheel: so many seconds forward, or back. */
  z.strictObject({ do: z.literal('jog'), by: z.number().min(-60).max(60) }),
  z.strictObject({ do: z.literal('pitch'), by: z.number().min(-PITCH_MOST).max(PITCH_MOST) }),
  /** Comes round from here after so many beats; null goes on. */
  z.strictObject({ do: z.literal('loop'), beats: z.number().min(0.25).max(64).nullable() }),
  z.strictObject({ do: z.literal('level'), level: z.number().min(0).max(1) }),
]);
export type DeckCommand = z.infer<typeof DeckCommand>;

export type Deck = SongClock & {
  readonly track: LoadedTrack | null;
  readonly cue: number;
  /** How much of it is heard, 0…1. */
  readonly level: number;
};

export const EMPTY_DECK: Deck = {
  track: null,
  playing: false,
  songTime: seconds(0),
  at: seconds(0),
  rate: 1,
  cue: 0,
  level: 1,
};

/** A beat's length where nobody knows it, in seconds. */
const SOME_BEAT = 0.5;

/** The deck at a moment. At its track's end it stops. */
export function deckAt(deck: Deck, now: Seconds): Deck {
  const here = { ...songAt(deck, now), at: now };
  const end = deck.track?.length ?? 0;
  return here.playing && here.songTime >= end ? { ...here, playing: false, songTime: seconds(end) } : here;
}

export function deckAfter(before: Deck, command: DeckCommand, now: Seconds): Deck {
  const deck = deckAt(before, now);
  const { rate, level } = deck;
  const to = (place: number): Deck => {
    const songTime = seconds(clamp(place, 0, deck.track?.length ?? 0));
    const inside = deck.loop !== undefined && songTime >= deck.loop.from && songTime < deck.loop.to;
    return { ...(inside ? deck : looped(deck, null)), songTime };
  };
  switch (command.do) {
    case 'load':
      return { ...EMPTY_DECK, at: now, rate, level, track: command.track };
    case 'eject':
      return { ...EMPTY_DECK, at: now, rate, level };
    case 'play':
      return { ...deck, playing: deck.track !== null && deck.songTime < deck.track.length };
    case 'pause':
      return { ...deck, playing: false, cue: deck.playing ? deck.songTime : deck.cue };
    case 'cue':
      return { ...to(deck.cue), playing: false };
    case 'go':
      return to(command.to);
    case 'jog':
      return to(deck.songTime + command.by);
    case 'pitch':
      return { ...deck, rate: 1 + command.by };
    case 'loop': {
      if (command.beats === null) return looped(deck, null);
      const beat = deck.track && deck.track.bpm > 0 ? 60 / deck.track.bpm : SOME_BEAT;
      const from = deck.songTime;
      return looped(deck, { from, to: seconds(from + command.beats * beat) });
    }
    case 'level':
      return { ...deck, level: command.level };
  }
}

/** Where the deck is, as it is told to others. */
export function placeOf(deck: Deck, number: number, now: Seconds): DeckWord {
  const { playing, rate, track } = deckAt(deck, now);
  const position = playing ? songTimeAt(deck, now) : deckAt(deck, now).songTime;
  const { bpm = 0, firstBeat = 0 } = track ?? {};
  return {
    deck: number,
    says: 'at',
    position,
    rate: playing ? rate : 0,
    bpm,
    beat: ((position - firstBeat) * bpm) / 60,
  };
}

/** The beat of the deck that is heard most, and how long it takes from one to the next; undefined where none plays to a beat. */
export function beatOfDecks(
  decks: readonly Deck[],
  now: Seconds,
): { readonly deck: number; readonly beat: number; readonly length: Seconds } | undefined {
  let best = -1;
  decks.forEach((deck, i) => {
    const { playing, track, level } = deckAt(deck, now);
    if (playing && track && track.bpm > 0 && level > (decks[best]?.level ?? 0)) best = i;
  });
  const deck = decks[best];
  if (!deck?.track) return undefined;
  const place = placeOf(deck, best + 1, now);
  return place.says === 'at'
    ? { deck: best + 1, beat: place.beat, length: seconds(60 / (deck.track.bpm * deck.rate)) }
    : undefined;
}
