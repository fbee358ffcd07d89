// The one order of all edits of the show that is on: what the conductor keeps.

import { CHAIN_KEPT, headOf, type Chain, type Change } from './copy';
import { edit, type Edited } from './edits';
import { legal, type Known } from './legal';
import type { Problem } from '../problem';
import type { Show } from './schema';

export type Order = {
  readonly show: Show;
  readonly chain: Chain;
  /** Changes at the end of the chain, for screens that missed some. */
  readonly tail: readonly Change[];
};

const TAIL_KEPT = 500;

export const orderOf = (show: Show, chain: Chain): Order => ({ show, chain, tail: [] });

export type Ordered =
  | { readonly done: true; readonly order: Order; readonly edited: Edited }
  /** It is in its place already: said twice by a screen whose line broke in between. */
  | { readonly done: false; readonly again: true }
  | { readonly done: false; readonly again: false; readonly problem: Problem };

/** Gives a change its place, or says why the show could not be kept with it. One that changes nothing has a place too. */
export function ordered(order: Order, change: Change, known: Known): Ordered {
  if (order.chain.includes(change.id)) return { done: false, again: true };
  const edited = edit(order.show, change.command);
  const checked = legal(edited.show, known);
  if (!checked.ok) return { done: false, again: false, problem: checked.problem };
  const chain = [...order.chain, change.id].slice(-CHAIN_KEPT);
  return { done: true, order: { show: edited.show, chain, tail: [...order.tail, change].slice(-TAIL_KEPT) }, edited };
}

/** What a copy at `head` has missed; undefined where that is no longer known and it needs the whole show. */
export function since({ chain, tail }: Order, head: string): readonly Change[] | undefined {
  if (headOf(chain) === head) return [];
  const at = chain.lastIndexOf(head);
  const missed = chain.length - 1 - at;
  return at < 0 || missed > tail.length ? undefined : tail.slice(tail.length - missed);
}
