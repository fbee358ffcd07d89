// What the card of OSC says.

import type { OscReport } from '@hovlix/core/connect';

type Last = NonNullable<OscReport['last']>;

export const OSC = {
  title: 'OSC',
  off: 'Tablets and programs that run cues can press and move over the network what pedals and knobs do here.',
  listen: 'Listen to OSC',
  listening: 'Listening',
  listenShort: 'Listen',
  sendTo: 'Send to',
  everyone: 'Everyone on this network can.',
  onlyHere: 'This computer is in no network: only programs on it can send.',
  silent: 'Nothing heard yet.',
  port: 'UDP port for OSC',
  portHint: 'Tablets and programs send here.',
  answersAt: 'Answer at port',
  answersHint:
    'Where the tablet listens. Its buttons and faders that are bound then show what is on and where the values stand. Empty: no answers.',
  portOfPlayer: 'The DJ player is heard at this port. Choose another.',
  bad: (count: number, last: string | null) =>
    `${count.toLocaleString('en')} messages could not be read or done. The last: ${last ?? 'unknown'}.`,
  bind: 'Bind any address to a control',
  showWords: 'Show the addresses Hovlix knows',
  hideWords: 'Hide the addresses',
  words: 'Addresses Hovlix knows',
} as const;

export const messageText = ({ address, values }: Last): string => `${address} ${values}`.trim();

export function whatCame({ by, did, from, ago }: Last): string {
  const where = `from ${from}, ${agoText(ago)}`;
  if (by === 'nobody') return `Nothing is bound to it: learn it with a control. Came ${where}.`;
  if (by === 'control') return `A control took it. Came ${where}.`;
  return did === '' ? `Came ${where}.` : `${did}. Came ${where}.`;
}

const agoText = (ago: number): string =>
  ago < 2 ? 'just now' : ago < 120 ? `${Math.round(ago)} s ago` : `${Math.round(ago / 60)} min ago`;

/** Our own words, with what they do. docs/osc.md says more. */
export const KNOWN: readonly (readonly [address: string, does: string])[] = [
  ['/hovlix/go', 'On to the next stop of the set, or the next look of the bank'],
  ['/hovlix/back', 'One stop back'],
  ['/hovlix/look NAME', 'A look or chase on, by name or number; with 0 behind it off'],
  ['/hovlix/pad/3', 'A pad of the bank, by its place: 1 down, 0 up'],
  ['/hovlix/song TITLE', 'A song from its start'],
  ['/hovlix/play', 'Play, and /hovlix/pause'],
  ['/hovlix/section next', 'Another section: next, previous, again or last'],
  ['/hovlix/tap', 'Tap the tempo'],
  ['/hovlix/tempo 124', 'Beats a minute of the free clock'],
  ['/hovlix/master 0.8', 'Grand master, 0 to 1; of one role with its name first'],
  ['/hovlix/blackout 1', 'Dark, 0 back; without a number the other of both'],
  ['/hovlix/freeze 1', 'Freeze, 0 goes on'],
  ['/hovlix/release', 'Give back what is by hand'],
  ['/hovlix/all-off', 'Every look and chase off'],
];
