// What a DJ player says of its decks, as OSC messages. The addresses are ours; docs/player.md has the table.

import { DeckTrack } from '../gig/known-track';
import { encodeOsc, type OscMessage } from '../wire';

export const MOST_DECKS = 4;

/** Where a deck is in its track, in seconds at the track's own speed. */
export type Place = {
  readonly position: number;
  /** 1 is the track's own speed; 0 is paused. */
  readonly rate: number;
  /** Of the track at its own speed; 0 where the player does not know. */
  readonly bpm: number;
  /** Beats of the track until here, counted from its first; whole numbers are on the beat. */
  readonly beat: number;
};

export type DeckWord =
  | { readonly deck: number; readonly says: 'track'; readonly track: DeckTrack }
  | ({ readonly deck: number; readonly says: 'at' } & Place)
  /** How much of it is heard, 0…1. */
  | { readonly deck: number; readonly says: 'level'; readonly level: number }
  | { readonly deck: number; readonly says: 'empty' };

/** What a message says; `undefined` for one that is not of a deck, or why it cannot be understood. */
export function readDeckWord({ address, values }: OscMessage): DeckWord | undefined | { readonly why: string } {
  const [, root, what, number, says, ...more] = address.split('/');
  if (root !== 'hovlix' || what !== 'deck') return undefined;
  const deck = Number(number);
  const wrong = (why: string) => ({ why: `“${address.slice(0, 80)}”: ${why}` });
  if (!Number.isInteger(deck) || deck < 1 || deck > MOST_DECKS || more.length > 0)
    return wrong(`decks have numbers from 1 to ${MOST_DECKS}`);
  if (says === 'empty') return { deck, says };
  if (says === 'level') {
    const [level] = values;
    return isIn(level, 0, 1) ? { deck, says, level } : wrong('a level is a number from 0 to 1');
  }
  if (says === 'track') {
    const [title, by, length, content] = values;
    const read = DeckTrack.safeParse({ title, by, length, ...(content ? { content } : {}) });
    if (read.success) return { deck, says, track: read.data };
    return wrong('title and artist are texts, then come seconds, then 64 digits of the file or nothing');
  }
  if (says === 'at') {
    const [position, rate, bpm = 0, beat = 0] = values;
    if (!isIn(position, -3600, 36_000)) return wrong('a position is in seconds');
    if (!isIn(rate, 0, 4)) return wrong('a speed is a number from 0 (paused) to 4');
    if (!isIn(bpm, 0, 400) || !isIn(beat, -1e6, 1e6)) return wrong('beats a minute lie from 0 to 400');
    return { deck, says, position, rate, bpm, beat };
  }
  return wrong('a deck says track, at, level or empty');
}

const isIn = (value: unknown, least: number, most: number): value is number =>
  typeof value === 'number' && value >= least && value <= most;

export function writeDeckWord(word: DeckWord): Uint8Array<ArrayBuffer> {
  const address = `/hovlix/deck/${word.deck}/${word.says}`;
  switch (word.says) {
    case 'track': {
      const { title, by, length, content } = word.track;
      return encodeOsc(address, 'ssfs', [title, by, length, content ?? '']);
    }
    case 'at':
      return encodeOsc(address, 'dffd', [word.position, word.rate, word.bpm, word.beat]);
    case 'level':
      return encodeOsc(address, 'f', [word.level]);
    case 'empty':
      return encodeOsc(address, '', []);
  }
}
