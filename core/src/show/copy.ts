// One screen's copy of a show that others edit too: what the conductor confirmed, and on top what this screen did that
// it has not confirmed yet. What arrives goes below; what is pending is laid on it anew.

import { edit, travelling, type Command, type Edited } from './edits';
import type { Show } from './schema';

/** An edit as it travels, by the id its author gave it. */
export type Change = { readonly id: string; readonly command: Command };

/** The chain of changes a copy came by, the last one last: what a revision is known by. */
export type Chain = readonly string[];

export type Copy = {
  /** As confirmed. */
  readonly base: Show;
  readonly chain: Chain;
  /** Confirmed changes with their commands, as far back as they are known: the end of the chain. */
  readonly recent: readonly Change[];
  /** Done here, not confirmed yet, in order. */
  readonly pending: readonly Change[];
  /** `base` with `pending` laid on. */
  readonly show: Show;
};

/** So many links of a chain are kept: a screen that missed more than that gets the whole show. */
export const CHAIN_KEPT = 1000;
const RECENT_KEPT = 500;

/** Where every chain of a show begins that came from a file without one. */
export const ORIGIN = 'origin';

export function copyOf(base: Show, chain: Chain = [ORIGIN], pending: readonly Change[] = []): Copy {
  return shownAnew({ base, chain, recent: [], pending, show: base });
}

/** The change a copy is at. */
export const headOf = (chain: Chain): string => chain.at(-1) ?? ORIGIN;

function shownAnew(copy: Copy): Copy {
  return { ...copy, show: copy.pending.reduce((show, { command }) => edit(show, command).show, copy.base) };
}

/** An edit of this screen, shown at once. `change` is what travels; none where it finds nothing to do. */
export function proposed(
  copy: Copy,
  id: string,
  command: Command,
): { readonly copy: Copy; readonly change?: Change; readonly edited: Edited } {
  const change: Change = { id, command: travelling(copy.show, command) };
  const edited = edit(copy.show, change.command);
  if (edited.ops.length === 0) return { copy, edited };
  return { copy: { ...copy, pending: [...copy.pending, change], show: edited.show }, change, edited };
}

/** What came of a confirmed change of this screen's own: all of it, some, or nothing. */
export type Outcome = { readonly id: string; readonly edited: Edited };

/** A change in its place among all others, as the conductor confirmed it. */
export function confirmed(copy: Copy, change: Change): { readonly copy: Copy; readonly own?: Outcome } {
  if (copy.chain.includes(change.id)) return { copy };
  const own = copy.pending.some(({ id }) => id === change.id);
  const edited = edit(copy.base, change.command);
  const pending = own ? copy.pending.filter(({ id }) => id !== change.id) : copy.pending;
  const next: Copy = {
    base: edited.show,
    chain: [...copy.chain, change.id].slice(-CHAIN_KEPT),
    recent: [...copy.recent, change].slice(-RECENT_KEPT),
    pending,
    show: copy.show,
  };
  // The first of one's own comes back as it was shown: nothing has to be laid anew.
  const asShown = own && copy.pending[0]?.id === change.id;
  const after = asShown ? (pending.length === 0 ? { ...next, show: edited.show } : next) : shownAnew(next);
  return own ? { copy: after, own: { id: change.id, edited } } : { copy: after };
}

/** A change of this screen's own that the conductor would not take: it is gone, and what came after is laid anew. */
export function refusedChange(copy: Copy, id: string): Copy {
  return shownAnew({ ...copy, pending: copy.pending.filter((one) => one.id !== id) });
}

/** This screen is alone and confirms for itself. */
export function confirmedAll(copy: Copy): Copy {
  return copy.pending.reduce((now, change) => confirmed(now, change).copy, copy);
}

/**
 * A copy that comes back to its conductor. `joined` goes on from the conductor's, with what this screen did that is not
 * there yet; `parted` copies have no common end that either knows of: both are worth keeping.
 */
export function rejoined(copy: Copy, theirs: { readonly show: Show; readonly chain: Chain }): Copy | 'parted' {
  const { show: base, chain } = theirs;
  const known = new Set(chain);
  if (known.has(headOf(copy.chain))) {
    const pending = copy.pending.filter(({ id }) => !known.has(id));
    return shownAnew({ base, chain, recent: [], pending, show: base });
  }
  // The conductor has lost its last changes, as by a fall of power: this screen still has them.
  const from = copy.recent.findIndex((_, i) => placeBefore(copy, i) === headOf(chain));
  if (from < 0) return copy.pending.length === 0 && alike(copy.base, base) ? copyOf(base, chain) : 'parted';
  return shownAnew({ base, chain, recent: [], pending: [...copy.recent.slice(from), ...copy.pending], show: base });
}

/** The change that the `i`th of the recent ones was laid on. */
function placeBefore({ chain, recent }: Copy, i: number): string | undefined {
  return chain[chain.length - recent.length + i - 1];
}

const alike = (a: Show, b: Show) => JSON.stringify(a) === JSON.stringify(b);
