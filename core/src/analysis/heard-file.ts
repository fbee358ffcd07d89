// What was heard in a recording, as bytes to keep beside it: a few kilobytes a minute, so that it can be read in another
// way without being listened to again.

import { failed, ok, type Result } from '../problem';
import type { Heard } from './grid';
import { ACTIVATION_RATE } from './network';

const MAGIC = 0x48564844;
const VERSION = 1;
const HEAD = 12;
const OUTPUTS = ['beat', 'downbeat', 'section'] as const;
/** Log odds are kept in steps of a tenth, ±12.7. */
const STEPS = 10;

/** Head: “HVHD”, u16 version, u8 activations a second, u8 bits: beats divide in three, bars of three are 6/8; u32 frames; then one signed byte for each. */
export function writeHeard({ odds, compound, sixEight }: Heard): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEAD + odds.frames * OUTPUTS.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC);
  view.setUint16(4, VERSION, true);
  view.setUint8(6, ACTIVATION_RATE);
  view.setUint8(7, (compound ? 1 : 0) | (sixEight ? 2 : 0));
  view.setUint32(8, odds.frames, true);
  OUTPUTS.forEach((output, row) =>
    odds[output].forEach((value, i) =>
      view.setInt8(HEAD + row * odds.frames + i, Math.max(-127, Math.min(127, Math.round(value * STEPS)))),
    ),
  );
  return bytes;
}

/** Reads what `writeHeard` wrote, trusting nothing. @param name what to call it in a problem's words. */
export function readHeard(bytes: Uint8Array, name: string): Result<Heard> {
  const wrong = (detail: string) => failed({ code: 'bad-value', name, path: 'what was heard', detail } as const);
  if (bytes.length < HEAD) return failed({ code: 'cut-short', name, detail: 'what was heard ends in its head' });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0) !== MAGIC) return wrong('it does not begin as it should');
  if (view.getUint16(4, true) !== VERSION) return wrong(`version ${view.getUint16(4, true)} is not known`);
  if (view.getUint8(6) !== ACTIVATION_RATE) return wrong('another rate');
  const frames = view.getUint32(8, true);
  if (bytes.length !== HEAD + frames * OUTPUTS.length)
    return failed({ code: 'cut-short', name, detail: `what was heard should have ${frames} frames` });
  const row = (at: number) =>
    Float32Array.from({ length: frames }, (_, i) => view.getInt8(HEAD + at * frames + i) / STEPS);
  return ok({
    compound: (view.getUint8(7) & 1) === 1,
    sixEight: (view.getUint8(7) & 2) === 2,
    odds: { frames, beat: row(0), downbeat: row(1), section: row(2) },
  });
}
