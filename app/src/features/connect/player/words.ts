// What the DJ player's card and its stand-in say.

import type { PlayerReport } from '@hovlix/core/connect';
import { counted } from '@hovlix/core/counted';
import { capital } from '../../../ui/capital';
import { clockText } from '../../../ui/clock-text';

type Deck = PlayerReport['decks'][number];

/** A speed of 1.06 as +6.0 %. */
export const pitch = (rate: number): string => {
  const percent = (rate - 1) * 100;
  return `${percent < -0.05 ? '−' : '+'}${Math.abs(percent).toFixed(1)} %`;
};

export const artistAndTitle = ({ title, by }: { readonly title: string; readonly by: string }): string =>
  [title || 'Without a title', by].filter(Boolean).join(' · ');

/** Where several players are heard, each deck with the address of its own. */
export const deckName = ({ deck, from }: Deck, all: readonly Deck[]): string =>
  all.every((one) => one.from === from) ? `deck ${deck}` : `deck ${deck} of ${from}`;

export function deckWords({ state, leads, position, rate }: Deck): string {
  if (state === 'none') return 'Loaded.';
  if (state === 'stands') return `Paused at ${clockText(position)}.`;
  if (state === 'lost') return `No signal. Continuing from ${clockText(position)} at ${pitch(rate)}.`;
  return `${clockText(position)}, ${pitch(rate)}${leads ? '. The light follows it.' : '.'}`;
}

export const PLAYER = {
  title: 'DJ player',
  off: 'Songs can follow the tracks on your decks: faster, slower, looped or cut. The player, or a program beside it, reports its position over OSC.',
  listen: 'Listen to a player',
  follows: 'Songs follow the player',
  silent: (port: number) => `Nothing heard yet. Send to this computer, UDP port ${port}. Everyone on this network can.`,
  tryIt: 'Try it with the stand-in',
  port: 'UDP port',
  portHint: 'The player sends here.',
  portOfOsc: 'OSC for presses is heard at this port. Choose another.',
  unknown: 'Look for other tracks',
  unknownHint: 'Turned on while a track plays that is not one of your songs. The tempo follows its beat.',
  nothing: 'Nothing',
  songOf: (deck: string) => `Song on ${deck}`,
  none: 'None of my songs',
  notYet: 'Not found: choose one',
  found: { file: 'Found by its file.', title: 'Found by title, artist and length.', kept: 'Remembered.' },
  bad: (count: number, last: string | null) =>
    `${counted(count, 'message')} could not be read. The last: ${last ?? 'unknown'}.`,
} as const;

export const STAND_IN = {
  title: 'DJ player stand-in',
  what: 'Two decks to try without a player. They send the same messages as a real one.',
  alone: 'The decks run on the computer. Start Hovlix there with ./start.',
  noDecks: 'The decks do not answer. They run with the demo: start Hovlix with ./start.',
  deaf: 'Hovlix does not listen to a player.',
  listen: 'Listen',
  deck: (number: number) => `Deck ${number}`,
  empty: 'Load a track from the list below.',
  load: (number: number, title: string) => `Load ${title} on deck ${number}`,
  tracks: 'Tracks',
  file: 'Load a file on deck 1',
  clock: 'Send MIDI clock from the decks',
  level: 'Level',
  pitch: 'Pitch',
  position: 'Position',
  cue: 'Cue',
  loop: 'Loop, in beats',
  noLoop: 'Off',
  back: '− beat',
  forward: '+ beat',
} as const;

export const WORDS = {
  pause: 'Pause',
  play: 'Play',
  listening: 'Listening',
  listen: 'Listen',
  deck: (deck: string, part: string) => `${capital(deck)}: ${part}`,
};
