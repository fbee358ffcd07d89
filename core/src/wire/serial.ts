// DMX512 over a serial port. Plain: ANSI E1.11-2008 (R2018), the port itself makes break and mark-after-break. Framed: the
// interface makes them, and is told the slots in a frame of start 0x7E, label, length (low byte first), data, end 0xE7.

import type { Seconds } from '../units';
import { seconds } from '../units';

/** 250,000 baud, eight data bits, no parity, two stop bits (E1.11, clause 8). */
export const DMX_BAUD = 250_000;

/** Shortest break and mark-after-break a transmitter may make (E1.11, table 6). Longer ones, up to a second, are allowed. */
export const DMX_BREAK: Seconds = seconds(92e-6);
export const DMX_MARK_AFTER_BREAK: Seconds = seconds(12e-6);

/** Time that break, start code and 512 slots of 11 bits take on the cable. */
export const DMX_FRAME: Seconds = seconds(92e-6 + 12e-6 + (513 * 11) / DMX_BAUD);

const FRAME_START = 0x7e;
const FRAME_END = 0xe7;
const LABEL_SEND_DMX = 6;
/** Longest data a frame may announce: more is taken for noise. */
const LONGEST = 600;

/** The slots as a plain adapter sends them: the zero start code, then the levels. */
export function encodeDmxSlots(levels: Uint8Array): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(1 + levels.length);
  bytes.set(levels, 1);
  return bytes;
}

/** A “send DMX” frame for a framed interface: start code and levels under label 6. */
export function encodeDmxFrame(levels: Uint8Array): Uint8Array<ArrayBuffer> {
  const count = levels.length + 1;
  const bytes = new Uint8Array(5 + count);
  bytes[0] = FRAME_START;
  bytes[1] = LABEL_SEND_DMX;
  bytes[2] = count & 255;
  bytes[3] = count >> 8;
  bytes.set(levels, 5);
  bytes[bytes.length - 1] = FRAME_END;
  return bytes;
}

/** Lays new levels into bytes made by either of the two. Allocates nothing. */
export function updateDmx(bytes: Uint8Array, kind: 'plain' | 'framed', levels: Uint8Array): void {
  bytes.set(levels, kind === 'plain' ? 1 : 5);
}

export type SerialReader = {
  /** Takes bytes as they arrive, cut anywhere. `at` in seconds. */
  readonly take: (bytes: Uint8Array, at: number) => void;
  readonly bad: () => number;
};

/** Finds frames of a framed interface in a stream. Noise before, between and within them is skipped and counted. */
export function framedReader(found: (levels: Uint8Array) => void): SerialReader {
  let held = new Uint8Array(0);
  let bad = 0;
  return {
    take(bytes) {
      const all = new Uint8Array(held.length + bytes.length);
      all.set(held);
      all.set(bytes, held.length);
      let i = 0;
      while (i < all.length) {
        if (all[i] !== FRAME_START) {
          i++;
          bad++;
          continue;
        }
        if (all.length - i < 5) break;
        const count = all[i + 2]! | (all[i + 3]! << 8);
        const whole = count + 5;
        if (count > LONGEST) {
          i++;
          bad++;
          continue;
        }
        if (all.length - i < whole) break;
        if (all[i + whole - 1] !== FRAME_END) {
          i++;
          bad++;
          continue;
        }
        if (all[i + 1] === LABEL_SEND_DMX && count > 0 && all[i + 4] === 0) found(all.slice(i + 5, i + 4 + count));
        i += whole;
      }
      held = all.slice(i);
    },
    bad: () => bad,
  };
}

/** Quiet of this long between two bytes begins a new frame where the break itself cannot be seen. */
const GAP = 0.002;
/** Slots of the frames we send: a start code and 512 levels. */
const SLOTS = 513;

/**
 * Finds the frames of a plain adapter in a stream that carries no breaks, as a pseudo-terminal does: by their length,
 * and after a quiet moment anew. A break made of one slow zero byte before the start code is left out.
 */
export function plainReader(found: (levels: Uint8Array) => void): SerialReader {
  let held = new Uint8Array(0);
  let last = -Infinity;
  let bad = 0;
  return {
    take(bytes, at) {
      if (at - last > GAP && held.length > 0) {
        bad += held.length;
        held = new Uint8Array(0);
      }
      last = at;
      const all = new Uint8Array(held.length + bytes.length);
      all.set(held);
      all.set(bytes, held.length);
      let i = 0;
      while (all.length - i >= SLOTS) {
        const slow = all.length - i === SLOTS + 1 && all[i] === 0 && all[i + 1] === 0 ? 1 : 0;
        if (all[i] === 0) found(all.slice(i + slow + 1, i + slow + SLOTS));
        else bad += SLOTS;
        i += SLOTS + slow;
      }
      held = all.slice(i);
    },
    bad: () => bad,
  };
}
