// What lamps can follow in a song: loudness in sixteen bands a hundred times a second, and every drum stroke.

import { failed, ok, type Problem, type Result } from '../problem';
import { LOUDNESS_BANDS } from './bands';
import { DRUMS, drumDetector, strengthsOf, type Drum } from './drums';

/** Moments of envelopes a second. */
export const ENVELOPE_RATE = 100;

/** Strokes of one drum: rising moments in seconds, and how strong each is, 0…1. */
export type StrokeList = { readonly times: Float64Array; readonly strengths: Float64Array };

export type Envelopes = {
  readonly frames: number;
  /** Bytes of loudness (see `dbOf`), sixteen a frame, low to high. */
  readonly levels: Uint8Array;
  readonly strokes: Readonly<Record<Drum, StrokeList>>;
};

/** Moments of strokes by drum, rising, in seconds. */
export type StrokeTimes = Readonly<Record<Drum, Float64Array>>;

/**
 * @param times when each drum is struck, where that is known better than loudness tells; else it is heard out of it.
 */
export function envelopesOf(levels: Uint8Array, times?: StrokeTimes): Envelopes {
  const frames = Math.floor(levels.length / LOUDNESS_BANDS);
  if (!times) return { frames, levels, strokes: heardIn(levels, frames) };
  const list = (drum: Drum): StrokeList => ({ times: times[drum], strengths: strengthsOf(drum, times[drum], levels) });
  return { frames, levels, strokes: { kick: list('kick'), snare: list('snare'), hat: list('hat') } };
}

/** Hears a song through for its drums. */
function heardIn(levels: Uint8Array, frames: number): Envelopes['strokes'] {
  const detector = drumDetector();
  const heard: Record<Drum, [number, number][]> = { kick: [], snare: [], hat: [] };
  for (let frame = 0; frame <= frames; frame++) {
    // One more frame at the end, so that a stroke in the last one is told.
    const strokes = detector.hear(levels, Math.min(frame, frames - 1) * LOUDNESS_BANDS, frame / ENVELOPE_RATE);
    for (const drum of DRUMS) {
      const last = heard[drum].at(-1)?.[0] ?? -1;
      if (strokes[drum] > 0 && detector.began[drum] > last) heard[drum].push([detector.began[drum], strokes[drum]]);
    }
  }
  const list = (drum: Drum): StrokeList => ({
    times: Float64Array.from(heard[drum], ([at]) => at),
    strengths: Float64Array.from(heard[drum], ([, strength]) => strength),
  });
  return { kick: list('kick'), snare: list('snare'), hat: list('hat') };
}

const MAGIC = 0x48564558;
const VERSION = 1;
const HEAD = 24;
/** Moments of strokes are kept in milliseconds: 24 bits of them are 4.6 hours. */
const STROKE_TICKS = 1000;

/**
 * As bytes: `HVEX`, version, bands, frames a second, then the counts of frames and of each drum's strokes (all 32 bits,
 * little end first but for the name), the levels, and for each stroke its moment in milliseconds (24 bits) and strength (8).
 * Levels stand band by band, each as its difference from the moment before, round the byte: deflated, they take three fifths
 * of what they take frame by frame.
 */
export function writeEnvelopes({ frames, levels, strokes }: Envelopes): Uint8Array<ArrayBuffer> {
  const counts = DRUMS.map((drum) => strokes[drum].times.length);
  const body = HEAD + frames * LOUDNESS_BANDS;
  const bytes = new Uint8Array(body + counts.reduce((sum, count) => sum + count * 4, 0));
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC);
  view.setUint16(4, VERSION, true);
  view.setUint8(6, LOUDNESS_BANDS);
  view.setUint8(7, ENVELOPE_RATE);
  view.setUint32(8, frames, true);
  counts.forEach((count, i) => view.setUint32(12 + i * 4, count, true));
  for (let band = 0, at = HEAD; band < LOUDNESS_BANDS; band++)
    for (let frame = 0, before = 0; frame < frames; frame++, at++) {
      const level = levels[frame * LOUDNESS_BANDS + band]!;
      bytes[at] = level - before;
      before = level;
    }
  let at = body;
  for (const drum of DRUMS) {
    strokes[drum].times.forEach((time, i) => {
      view.setUint32(
        at,
        (Math.round(time * STROKE_TICKS) & 0xffffff) | (Math.round(strokes[drum].strengths[i]! * 255) << 24),
        true,
      );
      at += 4;
    });
  }
  return bytes;
}

/** Reads what `writeEnvelopes` wrote, trusting nothing. @param name what to call it in a problem's words. */
export function readEnvelopes(bytes: Uint8Array, name: string): Result<Envelopes> {
  const told = headOf(bytes, name);
  if (!told.ok) return told;
  const { frames, strokes } = told.value;
  return ok({ frames, levels: levelsOf(bytes, frames), strokes });
}

/** What keeps `readEnvelopes` from reading some bytes, found out without reading the levels, which are most of them. */
export function faultOfEnvelopes(bytes: Uint8Array, name: string): Problem | undefined {
  const told = headOf(bytes, name);
  return told.ok ? undefined : told.problem;
}

/** All but the levels. */
function headOf(bytes: Uint8Array, name: string): Result<Pick<Envelopes, 'frames' | 'strokes'>> {
  const wrong = (detail: string) => failed({ code: 'bad-value', name, path: 'its envelopes', detail } as const);
  if (bytes.length < HEAD) return failed({ code: 'cut-short', name, detail: 'its envelopes end in their head' });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0) !== MAGIC) return wrong('they do not begin as envelopes do');
  if (view.getUint16(4, true) !== VERSION) return wrong(`version ${view.getUint16(4, true)} is not known`);
  if (view.getUint8(6) !== LOUDNESS_BANDS || view.getUint8(7) !== ENVELOPE_RATE) return wrong('other bands or rate');
  const frames = view.getUint32(8, true);
  const counts = DRUMS.map((_, i) => view.getUint32(12 + i * 4, true));
  const body = HEAD + frames * LOUDNESS_BANDS;
  if (bytes.length !== body + counts.reduce((sum, count) => sum + count * 4, 0))
    return failed({ code: 'cut-short', name, detail: `its envelopes should have ${frames} frames` });
  let at = body;
  const lists = counts.map((count): StrokeList => {
    const times = new Float64Array(count);
    const strengths = new Float64Array(count);
    for (let i = 0; i < count; i++, at += 4) {
      const word = view.getUint32(at, true);
      times[i] = (word & 0xffffff) / STROKE_TICKS;
      strengths[i] = (word >>> 24) / 255;
    }
    return { times, strengths };
  });
  if (lists.some(({ times }) => times.some((time, i) => i > 0 && time <= times[i - 1]!)))
    return wrong('strokes fall back');
  const [kick, snare, hat] = lists as [StrokeList, StrokeList, StrokeList];
  return ok({ frames, strokes: { kick, snare, hat } });
}

function levelsOf(bytes: Uint8Array, frames: number): Uint8Array {
  const levels = new Uint8Array(frames * LOUDNESS_BANDS);
  for (let band = 0, at = HEAD; band < LOUDNESS_BANDS; band++)
    for (let frame = 0, level = 0; frame < frames; frame++, at++) {
      level = (level + bytes[at]!) & 0xff;
      levels[frame * LOUDNESS_BANDS + band] = level;
    }
  return levels;
}
