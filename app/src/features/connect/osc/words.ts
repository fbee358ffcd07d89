// What the card of OSC says.

import type { OscReport } from '@hovlix/core/connect';
import { counted } from '@hovlix/core/counted';

type Last = NonNullable<OscReport['last']>;

export const OSC = {
  title: 'OSC',
  off: 'Tablets and cue software can work Hovlix over the network, as pedals and knobs do here.',
  listen: 'Listen to OSC',
  listening: 'Listening',
  listenShort: 'Listen',
  sendTo: 'Send to',
  everyone: 'Everyone on this network can.',
  onlyHere: 'This computer is not connected to a network: only programs on it can send.',
  silent: 'Nothing heard yet.',
  port: 'UDP port for OSC',
  portHint: 'Tablets and programs send here.',
  answersAt: 'Reply port',
  answersHint: 'Where the tablet listens for the state of its bound buttons and faders; empty sends nothing.',
  portOfPlayer: 'The DJ player is heard at this port. Choose another.',
  bad: (count: number, last: string | null) =>
    `${counted(count, 'message')} could not be read or done. The last: ${last ?? 'unknown'}.`,
  bind: 'Bind an address',
  showWords: 'Show addresses',
  hideWords: 'Hide addresses',
  words: 'Addresses Hovlix knows',
} as const;

export const messageText = ({ address, values }: Last): string => `${address} ${values}`.trim();

export function whatCame({ by, did, from, ago }: Last): string {
  const where = `from ${from}, ${agoText(ago)}`;
  if (by === 'nobody') return `Not bound to a control yet. Received ${where}.`;
  if (by === 'control') return `Used by a control. Received ${where}.`;
  return did === '' ? `Received ${where}.` : `${did}. Received ${where}.`;
}

const agoText = (ago: number): string =>
  ago < 2 ? 'just now' : ago < 120 ? `${Math.round(ago)}\u00a0s ago` : `${Math.round(ago / 60)}\u00a0min ago`;

/** Our own words, with what they do. docs/osc.md says more. */
export const KNOWN: readonly (readonly [address: string, does: string])[] = [
  ['/hovlix/go', 'On to the next stop of the set, or to the next look of the bank'],
  ['/hovlix/back', 'Back by one stop'],
  ['/hovlix/look NAME', 'Turns a look or chase on, by name or number. Add 0 to turn it off.'],
  ['/hovlix/pad/3', 'Presses the third pad of the bank. 1 is down, 0 is up.'],
  ['/hovlix/song TITLE', 'Plays a song from its start'],
  ['/hovlix/play', 'Plays the song that is chosen'],
  ['/hovlix/pause', 'Pauses it'],
  ['/hovlix/section next', 'Goes to another section: next, previous, again or last'],
  ['/hovlix/tap', 'Taps the tempo'],
  ['/hovlix/tempo 124', 'Sets the tempo, in beats a minute'],
  [
    '/hovlix/master 0.8',
    'Moves the grand master, from 0 to 1. A role’s name before the level moves the master of that role.',
  ],
  ['/hovlix/blackout 1', '1 is dark, 0 is light again. Without a number it switches over.'],
  ['/hovlix/freeze 1', '1 freezes the light, 0 lets it go on. Without a number it switches over.'],
  ['/hovlix/release', 'Gives back what is by hand'],
  ['/hovlix/all-off', 'Turns every look and chase off'],
];
