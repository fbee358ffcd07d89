// What was heard in a recording, as bytes to keep beside it: a few kilobytes a minute, so that it can be read in another
// way without being listened to again.

import { failed, ok, type Result } from '../problem';
import { COUNTS } from './felt';
import type { Heard } from './grid';
import { ACTIVATION_RATE } from './network';

const MAGIC = 0x48564844;
const VERSION = 2;
/** Version 1 has no changes of harmony. */
const OLDEST = 1;
const HEAD = 12;
const OUTPUTS = ['beat', 'downbeat', 'section'] as const;
/** Log odds are kept in steps of a tenth, ±12.7; changes of harmony in sixtieths. */
const STEPS = 10;
const CHANGE_STEPS = 60;

/** Head: “HVHD”, u16 version, u8 activations a second, u8 bits: beats divide in three, bars of three are 6/8, then in three bits how beats are counted, 0 for not known; u32 frames; then one signed byte for each of beat, downbeat, section, change. */
export function writeHeard({ odds, change, compound, sixEight, count }: Heard): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEAD + odds.frames * (OUTPUTS.length + 1));
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC);
  view.setUint16(4, VERSION, true);
  view.setUint8(6, ACTIVATION_RATE);
  view.setUint8(7, (compound ? 1 : 0) | (sixEight ? 2 : 0) | ((count ? COUNTS.indexOf(count) + 1 : 0) << 2));
  view.setUint32(8, odds.frames, true);
  const put = (row: number, values: Float32Array, steps: number) =>
    values.forEach((value, i) =>
      view.setInt8(HEAD + row * odds.frames + i, Math.max(-127, Math.min(127, Math.round(value * steps)))),
    );
  OUTPUTS.forEach((output, row) => put(row, odds[output], STEPS));
  put(OUTPUTS.length, change, CHANGE_STEPS);
  return bytes;
}

/** Reads what `writeHeard` wrote, trusting nothing. @param name what to call it in a problem's words. */
export function readHeard(bytes: Uint8Array, name: string): Result<Heard> {
  const wrong = (detail: string) => failed({ code: 'bad-value', name, path: 'what was heard', detail } as const);
  if (bytes.length < HEAD) return failed({ code: 'cut-short', name, detail: 'what was heard ends in its head' });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0) !== MAGIC) return wrong('it does not begin as it should');
  const version = view.getUint16(4, true);
  if (version < OLDEST || version > VERSION) return wrong(`version ${version} is not known`);
  if (view.getUint8(6) !== ACTIVATION_RATE) return wrong('another rate');
  const frames = view.getUint32(8, true);
  const rows = version === 1 ? OUTPUTS.length : OUTPUTS.length + 1;
  if (bytes.length !== HEAD + frames * rows)
    return failed({ code: 'cut-short', name, detail: `what was heard should have ${frames} frames` });
  const row = (at: number, steps = STEPS) =>
    Float32Array.from({ length: frames }, (_, i) => view.getInt8(HEAD + at * frames + i) / steps);
  return ok({
    compound: (view.getUint8(7) & 1) === 1,
    sixEight: (view.getUint8(7) & 2) === 2,
    odds: { frames, beat: row(0), downbeat: row(1), section: row(2) },
    count: COUNTS[((view.getUint8(7) >> 2) & 7) - 1],
    change: version === 1 ? new Float32Array() : row(OUTPUTS.length, CHANGE_STEPS),
  });
}
