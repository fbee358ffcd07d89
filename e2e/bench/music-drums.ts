// How well the strokes of drums are heard, where a recording's truth or a MIDI file beside it says what was played.

import { readMidi, type MidiMusic } from '@hovlix/core/midi';
import { DRUMS, type Drum, type Envelopes } from '@hovlix/core/music';
import { wordsFor } from '@hovlix/core/problem';

/** Notes of General MIDI's percussion key map. */
const NOTES: Readonly<Record<Drum, readonly number[]>> = { kick: [35, 36], snare: [38, 40], hat: [42, 44, 46] };
/** MIDI's tenth channel. */
const PERCUSSION = 10;
/** A stroke that is so near to one that was played is it, in seconds; everything before `FROM` is left out. */
const NEAR = 0.05;
const FROM = 5;

/** When each drum was struck, in seconds; and where something sounds like it, so that hearing it is neither right nor wrong. */
export type Played = Readonly<Partial<Record<Drum | `unsure_${Drum}`, readonly number[]>>>;

/** F-measure of each drum that is played at all. */
export function drumScores(played: Played, { strokes }: Envelopes): Readonly<Partial<Record<Drum, number>>> {
  const scores: Partial<Record<Drum, number>> = {};
  for (const drum of DRUMS) {
    const right = (played[drum] ?? []).filter((at) => at >= FROM);
    const heard = [...strokes[drum].times].filter((at) => at >= FROM);
    if (right.length > 0) scores[drum] = matched(right, heard, played[`unsure_${drum}`] ?? []);
  }
  return scores;
}

/** What a MIDI file has drums play. @throws where it cannot be read. */
export function playedIn(midi: Uint8Array, name: string): Played {
  const read = readMidi(midi, name);
  if (!read.ok) throw new Error(wordsFor(read.problem));
  return Object.fromEntries(DRUMS.map((drum) => [drum, momentsOf(read.value, NOTES[drum])]));
}

/** Rising, in seconds; notes struck together are one. */
function momentsOf(music: MidiMusic, notes: readonly number[]): readonly number[] {
  const played = music.parts
    .filter(({ channel }) => channel === PERCUSSION)
    .flatMap((part) => part.notes.filter(({ note }) => notes.includes(note)))
    .map(({ at }) => (music.timed ? at : secondsAt(music, at)))
    .sort((a, b) => a - b);
  return played.filter((at, i) => i === 0 || at - played[i - 1]! > 0.01);
}

function secondsAt({ tempo }: MidiMusic, beat: number): number {
  let time = 0;
  for (let i = 0; i < tempo.length; i++) {
    const { at, pulse } = tempo[i]!;
    const end = Math.min(beat, tempo[i + 1]?.at ?? Infinity);
    if (end > at) time += (end - at) * pulse;
  }
  return time;
}

/** Each stroke is matched once at most. */
function matched(played: readonly number[], heard: readonly number[], unsure: readonly number[]): number {
  let [hits, k] = [0, 0];
  const strays = new Set(heard);
  for (const at of played) {
    while (k < heard.length && heard[k]! < at - NEAR) k++;
    if (k < heard.length && heard[k]! <= at + NEAR) {
      hits++;
      strays.delete(heard[k++]!);
    }
  }
  const wrong = [...strays].filter((at) => !unsure.some((one) => Math.abs(one - at) < NEAR)).length;
  return (2 * hits) / (2 * hits + wrong + (played.length - hits));
}
