// What all screens share: the conductor, the show it plays, and the one order of its edits.

import { conductor, type Action, type Conductor, type Entry, type LiveState } from '../live';
import { wordsFor } from '../problem';
import {
  diff,
  laid,
  legal,
  ordered,
  orderOf,
  readShow,
  type Chain,
  type Change,
  type Ops,
  type Order,
  type Show,
} from '../show';
import type { Seconds } from '../units';

/** A show and the changes it came by. */
export type Running = { readonly show: Show; readonly chain: Chain };

export type Session = {
  readonly conductor: Conductor;
  readonly order: () => Order | undefined;
  /** The show as the stage shows it: with what is only a gesture yet. */
  readonly shown: () => Show | undefined;
  readonly act: (who: string, action: Action, at?: Seconds) => Entry;
  /** Puts a whole show on, or says what is wrong with it and keeps the one before. */
  readonly putOn: (json: unknown, chain: Chain) => string | undefined;
  /** Gives a change its place; `again` where it has one already. */
  readonly edit: (change: Change) => 'done' | 'again' | { readonly why: string };
  /** What a screen's gesture has led to so far, over the show; null when it is over. */
  readonly preview: (screen: string, ops: Ops | null) => void;
};

export type Following = {
  readonly entry: (entry: Entry) => void;
  /** A whole show that is new here. */
  readonly show: (show: Show) => void;
  /** What changed of it, and what it is now. */
  readonly changed: (ops: Ops, show: Show) => void;
  /** The show as it is to be kept: without what is only a gesture yet. */
  readonly keep: (running: Running) => void;
};

/**
 * @param now the conductor's clock: seconds that only rise. @param follow the output and the running copy.
 * @param from what was conducted last, if anything. @param live what was pressed until then.
 */
export function session(now: () => Seconds, follow: Following, from?: Running, live?: LiveState): Session {
  const orders = conductor(now, live);
  const previews = new Map<string, Ops>();
  let known = new WeakSet<object>();
  let order: Order | undefined;
  /** The show with the gestures of all screens: what the stage shows. */
  let shown: Show | undefined;

  const take = (running: Running) => {
    known = new WeakSet();
    previews.clear();
    order = orderOf(running.show, running.chain);
    shown = running.show;
    legal(running.show, known);
    follow.show(running.show);
  };
  const show = () => {
    if (!order || !shown) return;
    let next = order.show;
    for (const [screen, ops] of previews) {
      const { after } = laid(next, ops, { force: true });
      // A gesture that leads where no show can be is not shown; whose it is will hear of it when it ends.
      if (legal(after, known).ok) next = after;
      else previews.delete(screen);
    }
    const ops = diff(shown, next);
    shown = next;
    if (ops.length > 0) follow.changed(ops, next);
  };
  if (from) take(from);

  return {
    conductor: orders,
    order: () => order,
    shown: () => shown,
    act(who, action, at) {
      const entry = orders.submit(who, action, at);
      follow.entry(entry);
      return entry;
    },
    putOn(json, chain) {
      const read = readShow(json, 'the show from the screen');
      if (!read.ok) return wordsFor(read.problem);
      take({ show: read.value, chain });
      follow.keep({ show: read.value, chain });
      return undefined;
    },
    edit(change) {
      if (!order) return { why: 'No show is on.' };
      const result = ordered(order, change, known);
      if (!result.done) return result.again ? 'again' : { why: wordsFor(result.problem) };
      order = result.order;
      show();
      follow.keep(order);
      return 'done';
    },
    preview(screen, ops) {
      if (!order || (ops === null && !previews.has(screen))) return;
      if (ops) previews.set(screen, ops);
      else previews.delete(screen);
      show();
    },
  };
}
