// Notes as they are struck here, by pads, keys or MIDI: what comes within one frame goes to the conductor together.

import { isFaint } from '@hovlix/core/picture';
import { strikeBook, type StrikeBook, type Stroke } from '@hovlix/core/live';
import { clockNow, type Stage } from '../conduct/gestures';

/** As often as light leaves: two strokes of one note in a frame cannot be told apart. */
const FRAME_MS = 1000 / 44;
/** The conductor takes so many at once. */
const MOST = 256;

const books = new WeakMap<object, StrikeBook>();

type Ear = (stroke: Stroke, velocity: number) => void;
const ears = new WeakMap<object, Set<Ear>>();

/** Hears every stroke of this screen as it is struck. @returns what ends that. */
export function onStrike({ conducting }: Stage, ear: Ear): () => void {
  const all = ears.get(conducting) ?? new Set();
  ears.set(conducting, all.add(ear));
  return () => void all.delete(ear);
}

/** @param velocity 0…1; 0 lets go of the note. */
export function strike(stage: Stage, stroke: Stroke, velocity: number): void {
  for (const ear of ears.get(stage.conducting) ?? []) ear(stroke, velocity);
  let book = books.get(stage.conducting);
  if (!book) {
    books.set(stage.conducting, (book = strikeBook()));
    send(stage, book, 0);
  }
  const { show } = stage.document.store.getState();
  book.strike(stroke, velocity, (hit) => show !== null && isFaint(show, stroke.role, hit));
}

/** The first stroke leaves at once; those that follow within a frame wait for its end. */
function send(stage: Stage, book: StrikeBook, wait: number): void {
  setTimeout(() => {
    const notes = book.take();
    if (notes.length === 0) return void books.delete(stage.conducting);
    const { pulse } = clockNow(stage);
    const safety = stage.document.store.getState().show?.safety;
    const limit = safety?.on ? { most: safety.most } : {};
    for (let at = 0; at < notes.length; at += MOST)
      stage.conducting.act({ type: 'notes', notes: notes.slice(at, at + MOST), pulse, ...limit });
    send(stage, book, FRAME_MS);
  }, wait);
}
