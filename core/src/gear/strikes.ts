// Notes as they are struck, by pads, keys or MIDI: what comes within one frame goes to the conductor together.

import { isFaint } from '../engine/faint';
import { clockAt, strikeBook, type StrikeBook, type Stroke } from '../live';
import type { BareHost } from './host';

/** As often as light leaves: two strokes of one note in a frame cannot be told apart. */
const FRAME_MS = 1000 / 44;
/** The conductor takes so many at once. */
const MOST = 256;

/** @returns what takes each stroke; a velocity of 0 lets go of its note. */
export function strikes(host: BareHost): (stroke: Stroke, velocity: number) => void {
  let book: StrikeBook | undefined;
  /** The first stroke leaves at once; those that follow within a frame wait for its end. */
  const send = (wait: number) =>
    void host.time.after(wait, () => {
      const notes = book?.take() ?? [];
      const moment = host.moment();
      if (notes.length === 0 || !moment) return void (book = undefined);
      const { safety } = moment.show;
      const { pulse } = clockAt(moment);
      const limit = safety.on ? { most: safety.most } : {};
      for (let at = 0; at < notes.length; at += MOST)
        host.act({ type: 'notes', notes: notes.slice(at, at + MOST), pulse, ...limit });
      send(FRAME_MS);
    });
  return (stroke, velocity) => {
    if (!book) {
      book = strikeBook();
      send(0);
    }
    const show = host.moment()?.show;
    book.strike(stroke, velocity, (hit) => show !== undefined && isFaint(show, stroke.role, hit));
  };
}
