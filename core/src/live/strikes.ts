// Notes as they are struck on one screen: what comes within one frame goes to the conductor together.

import { hitsOf, type Kit } from '../light';
import type { Hit } from '../light/hit';
import type { NoteStroke } from './notes';

export type Stroke = { readonly kit: Kit; readonly role: NoteStroke['role']; readonly note: number };

export type StrikeBook = {
  /** @param velocity 0…1; 0 lets go of the note. @param isFaint whether a hit changes too little light to be a flash. */
  readonly strike: (stroke: Stroke, velocity: number, isFaint: (hit: Hit) => boolean) => void;
  /** What came in since it was taken last, strokes before lifts. */
  readonly take: () => readonly NoteStroke[];
};

export function strikeBook(): StrikeBook {
  const strokes = new Map<string, NoteStroke>();
  const lifts = new Map<string, NoteStroke>();
  return {
    strike({ kit, role, note }, velocity, isFaint) {
      for (const hit of hitsOf(kit, note)) {
        const stroke: NoteStroke = {
          kit: kit.id,
          role,
          hit: hit.id,
          note,
          velocity,
          ...(hit.choke ? { choke: hit.choke } : {}),
          ...(isFaint(hit) ? { faint: true } : {}),
        };
        const key = `${kit.id}/${role}/${hit.id}/${note}`;
        const before = strokes.get(key);
        if (velocity <= 0) lifts.set(key, stroke);
        // Of several in a frame the hardest is the one that is seen; struck anew, a note that was let go sounds on.
        else {
          if (!before || before.velocity < velocity) strokes.set(key, stroke);
          lifts.delete(key);
        }
      }
    },
    take() {
      const notes = [...strokes.values(), ...lifts.values()];
      strokes.clear();
      lifts.clear();
      return notes;
    },
  };
}
