// Somebody who edits a show, alone or with others, as a screen does it.

import {
  acted,
  confirmed,
  confirmedAll,
  copyOf,
  NO_HISTORY,
  proposed,
  redoing,
  refusedChange,
  rejoined,
  settled,
  undoing,
  type Chain,
  type Change,
  type Command,
  type Copy,
  type History,
  type Outcome,
  type Show,
} from '../show';

export type Person = {
  readonly copy: () => Copy;
  readonly show: () => Show;
  readonly history: () => History;
  /** What travels; undefined where nothing was changed. */
  readonly make: (command: Command) => Change | undefined;
  readonly undo: () => Change | undefined;
  readonly redo: () => Change | undefined;
  /** A change in its place, from the conductor. */
  readonly take: (change: Change) => Outcome | undefined;
  readonly refuse: (id: string) => void;
  readonly rejoin: (show: Show, chain: Chain) => boolean;
};

/** @param alone confirms for itself, as where no server conducts. */
export function person(name: string, show: Show, alone = true): Person {
  let copy = copyOf(show);
  let history = NO_HISTORY;
  let count = 0;
  const send = (id: string, command: Command, after?: History): Change | undefined => {
    const next = proposed(copy, id, command);
    history = after ?? (next.change ? acted(history, id, next.change.command, next.edited) : history);
    copy = alone ? confirmedAll(next.copy) : next.copy;
    return next.change;
  };
  const fresh = () => `${name}-${++count}`;
  const step = (of: typeof undoing | typeof redoing): Change | undefined => {
    const id = fresh();
    const step = of(history, id);
    return step && send(id, step.command, step.history);
  };
  return {
    copy: () => copy,
    show: () => copy.show,
    history: () => history,
    make: (command) => send(fresh(), command),
    undo: () => step(undoing),
    redo: () => step(redoing),
    take(change) {
      const next = confirmed(copy, change);
      copy = next.copy;
      if (next.own) history = settled(history, next.own);
      return next.own;
    },
    refuse: (id) => void (copy = refusedChange(copy, id)),
    rejoin(theirs, chain) {
      const next = rejoined(copy, { show: theirs, chain });
      if (next === 'parted') return false;
      copy = next;
      return true;
    },
  };
}
