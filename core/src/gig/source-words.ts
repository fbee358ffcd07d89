// Where a control is heard from, in words.

import { noteName } from '../light/drum-kit';
import type { Source } from './control';

const KEYS: Readonly<Record<string, string>> = {
  PageDown: 'Page Down',
  PageUp: 'Page Up',
  ArrowLeft: 'Left arrow',
  ArrowRight: 'Right arrow',
  ArrowUp: 'Up arrow',
  ArrowDown: 'Down arrow',
};

/** “note C2 on channel 10, from Floor board”. Programs and banks are said counted from 1 and from 0. */
export function sourceWords(source: Source | null): string {
  if (!source) return 'not learned yet';
  if (source.by === 'key') return `key ${keyName(source)}`;
  if (source.by === 'button') return `game button ${source.button + 1}`;
  if (source.by === 'osc') return `OSC ${source.address}`;
  const channel = source.channel === null ? 'any channel' : `channel ${source.channel}`;
  const from = source.device === null ? '' : `, ${source.device}`;
  return `${messageWords(source)}, ${channel}${from}`;
}

/** What is printed on a key. */
export const keyName = ({ code, sign }: Extract<Source, { by: 'key' }>): string =>
  sign ?? KEYS[code] ?? code.replace(/^Key|^Digit/, '');

function messageWords(source: Exclude<Source, { by: 'key' | 'button' | 'osc' }>): string {
  switch (source.by) {
    case 'note':
      return `note ${noteName(source.number)}`;
    case 'control':
      return `control ${source.number}`;
    case 'program':
      return programWords(source.number, source.bank);
    case 'bend':
      return 'pitch bend';
    case 'pressure':
      return 'pressure';
  }
}

/** Gear counts from 1 or from 0: both are said. */
export function programWords(number: number, bank: number | null): string {
  return `program ${number + 1} (from 0: ${number})${bank === null ? '' : `, bank ${bank}`}`;
}
