// Notes as they are struck here, by pads, keys or MIDI: what comes within one frame goes to the conductor together.

import { isFaint } from '@hovlix/core/engine';
import { hitsOf, type Kit } from '@hovlix/core/light';
import type { NoteStroke } from '@hovlix/core/live';
import { clockNow } from './gestures';
import type { Hovlix } from './hovlix';

type Stroke = { readonly kit: Kit; readonly role: NoteStroke['role']; readonly note: number };

/** As often as light leaves: two strokes of one note in a frame cannot be told apart. */
const FRAME_MS = 1000 / 44;
/** The conductor takes so many at once. */
const MOST = 256;

type Waiting = { strokes: Map<string, NoteStroke>; lifts: Map<string, NoteStroke> };
const waiting = new WeakMap<Hovlix, Waiting>();

/** @param velocity 0…1; 0 lets go of the note. */
export function strike(app: Hovlix, { kit, role, note }: Stroke, velocity: number): void {
  let batch = waiting.get(app);
  if (!batch) {
    waiting.set(app, (batch = { strokes: new Map(), lifts: new Map() }));
    send(app, batch, 0);
  }
  const show = app.document.store.getState().history?.show;
  for (const hit of hitsOf(kit, note)) {
    const faint = show !== undefined && isFaint(show, role, hit);
    const stroke: NoteStroke = { kit: kit.id, role, hit: hit.id, note, velocity, ...(hit.choke ? { choke: hit.choke } : {}), ...(faint ? { faint } : {}) }; // prettier-ignore
    const key = `${kit.id}/${role}/${hit.id}/${note}`;
    const before = batch.strokes.get(key);
    if (velocity <= 0) batch.lifts.set(key, stroke);
    // Of several in a frame the hardest is the one that is seen; struck anew, a note that was let go sounds on.
    else {
      if (!before || before.velocity < velocity) batch.strokes.set(key, stroke);
      batch.lifts.delete(key);
    }
  }
}

/** The first stroke leaves at once; those that follow within a frame wait for its end. */
function send(app: Hovlix, batch: Waiting, wait: number): void {
  setTimeout(() => {
    const notes = [...batch.strokes.values(), ...batch.lifts.values()];
    batch.strokes.clear();
    batch.lifts.clear();
    if (notes.length === 0) return void waiting.delete(app);
    const { pulse } = clockNow(app);
    const safety = app.document.store.getState().history?.show.safety;
    const limit = safety?.on ? { most: safety.most } : {};
    for (let at = 0; at < notes.length; at += MOST)
      app.conducting.act({ type: 'notes', notes: notes.slice(at, at + MOST), pulse, ...limit });
    send(app, batch, FRAME_MS);
  }, wait);
}
