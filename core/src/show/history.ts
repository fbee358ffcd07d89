// Undo and redo: two stacks of changes over one show.

import { edit, patched, type Change, type Command } from './edits';
import type { Show } from './schema';

const DEEPEST = 500;

export type History = {
  readonly show: Show;
  readonly past: readonly Change[];
  readonly future: readonly Change[];
};

export const historyOf = (show: Show): History => ({ show, past: [], future: [] });

/** After a user's command. One that changes nothing leaves no step behind. */
export function edited(history: History, command: Command): { readonly history: History; readonly change: Change } {
  const { show, change } = edit(history.show, command);
  if (change.patches.length === 0) return { history, change };
  return { history: { show, past: [...history.past, change].slice(-DEEPEST), future: [] }, change };
}

/** One step back. Without one, the same history and no change. */
export function undone(history: History): { readonly history: History; readonly change?: Change } {
  const change = history.past.at(-1);
  if (!change) return { history };
  const back: Change = { name: change.name, patches: change.inverse, inverse: change.patches };
  return {
    history: {
      show: patched(history.show, change.inverse),
      past: history.past.slice(0, -1),
      future: [...history.future, change],
    },
    change: back,
  };
}

/** One step forward again. Without one, the same history and no change. */
export function redone(history: History): { readonly history: History; readonly change?: Change } {
  const change = history.future.at(-1);
  if (!change) return { history };
  return {
    history: {
      show: patched(history.show, change.patches),
      past: [...history.past, change],
      future: history.future.slice(0, -1),
    },
    change,
  };
}

/** A change that came from elsewhere (another screen): it is laid on and enters no history. */
export function followed(history: History, show: Show): History {
  return { ...history, show };
}
