// The show that is open: one's own edits on top of what the conductor confirmed, what can be taken back, and where each
// change goes (journal, conductor, light).

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Problem } from '@hovlix/core/problem';
import {
  acted,
  confirmed,
  confirmedAll,
  copyOf,
  diff,
  edit,
  headOf,
  keptSteps,
  laid,
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
  type OneCommand,
  type Copy,
  type History,
  type Ops,
  type Outcome,
  type Show,
} from '@hovlix/core/show';
import { freshId } from '../fresh-id';
import type { Line, Repository } from './repository';

export type DocumentState = {
  /** As this screen sees it, with its own edits; null until a show is open. */
  readonly show: Show | null;
  readonly copy: Copy | null;
  readonly steps: History;
  /** The last thing storage said against it; null while all is kept. */
  readonly problem: Problem | null;
};

/** Whoever draws the show: a whole one that is new, or what changed of it. Gestures of all screens are in it. */
export type Follower = (change: { readonly show: Show } | { readonly ops: Ops }, show: Show) => void;

/** Where edits are put in order. */
export type Leader = {
  readonly edit: (show: string, change: Change) => void;
  /** What a gesture has led to so far; null when it is over. */
  readonly preview: (show: string, ops: Ops | null) => void;
};

export type Document = {
  readonly store: StoreApi<DocumentState>;
  /** Opens a copy. Kept in the store at once, unless `keep` is false. One that lies `aside` does not open next time. */
  readonly open: (
    copy: Copy,
    options?: { readonly keep?: boolean; readonly aside?: boolean },
  ) => Promise<Problem | undefined>;
  /** Closes what is open: nothing is. */
  readonly close: () => void;
  /** @returns the id of the change, to take back just that one. While a gesture goes on, its steps become one. */
  readonly make: (command: Command) => string | undefined;
  /** Several commands that are one act. */
  readonly together: (commands: readonly OneCommand[]) => string | undefined;
  readonly undo: (id?: string) => void;
  readonly redo: () => void;
  /** What takes back the newest edit of this moment, and no later one. */
  readonly takingBack: () => () => void;
  /** A finger went down: edits are one gesture until it is up, and seen as they are made. */
  readonly press: () => void;
  readonly lift: () => void;
  /** Edits go to whoever keeps the order; without, this screen does that itself. */
  readonly follow: (leader: Leader | undefined) => void;
  /** Changes in their places. Those of other shows are none of ours. */
  readonly take: (show: string, changes: readonly Change[]) => void;
  /** The whole show from the conductor. @returns the copy that had grown apart, where there is one to keep. */
  readonly rejoin: (show: Show, chain: Chain, options?: { readonly aside?: boolean }) => Copy | undefined;
  /** The line to the leader broke: what is not confirmed yet is sent again when it is back. */
  readonly lineBroke: () => void;
  /** Sends what is not confirmed yet. */
  readonly resend: () => void;
  /** The same, for the first changes after a line broke. */
  readonly resendOnce: () => void;
  /** An edit that has its place already. */
  readonly forget: (id: string) => void;
  /** An edit that is not to be: it is taken off, and what came after it is laid anew. */
  readonly refuse: (id: string) => void;
  readonly preview: (screen: string, show: string, ops: Ops | null) => void;
  /** When all that was made so far is written, or refused. */
  readonly written: () => Promise<unknown>;
  readonly onChange: (follower: Follower) => () => void;
  /** Is told what of one's own edits did not fit any more when it got its place. */
  readonly onMissed: (take: (outcome: Outcome, of: string) => void) => void;
};

/** After so many journal lines the whole show is written anew. */
const JOURNAL_LINES = 60;
/** A gesture is shown to the conductor this often. */
const PREVIEW_MS = 40;

export function document(repository: Repository): Document {
  const store = createStore<DocumentState>(() => ({ show: null, copy: null, steps: NO_HISTORY, problem: null }));
  const followers = new Set<Follower>();
  const previews = new Map<string, Ops>();
  let leader: Leader | undefined;
  let missed: (outcome: Outcome, of: string) => void = () => undefined;
  let writing: Promise<unknown> = Promise.resolve();
  let noting: Promise<unknown> = Promise.resolve();
  let lines = 0;
  /** What could be undone before the page was loaded is being read. */
  let bringing: Promise<void> | undefined;
  /** What followers have: the show with the gestures of all screens. */
  let shown: Show | null = null;
  /** A finger is down; what it has done so far, not an edit yet. */
  let pressed = false;
  /** The open show is only looked into, on this screen alone. */
  let aside = false;
  /** What is not confirmed was sent on the line there is. */
  let sent = false;
  let gesture: { readonly commands: readonly Command[]; readonly show: Show } | undefined;
  let previewTimer: ReturnType<typeof setTimeout> | undefined;

  /** A refusal is shown, and the work goes on in memory. */
  const tellOf = (done: Promise<Problem | undefined>) =>
    void done.then((problem) => store.setState({ problem: problem ?? null }));
  /** Whole shows are written one after the other. */
  const keep = (task: () => Promise<Problem | undefined>): Promise<Problem | undefined> => {
    const done = writing.then(task, task);
    writing = done;
    tellOf(done);
    return done;
  };
  /** So are edits, in their order, but never behind a whole show: that has to wait for other pages. */
  const note = (task: () => Promise<Problem | undefined>): void => {
    const done = noting.then(task, task);
    noting = done;
    tellOf(done);
  };
  /** What is only looked into is not what opens next time. */
  const save = (copy: () => Copy) => {
    const mark = !aside;
    return keep(() => repository.save(copy(), { current: mark }));
  };
  const current = () => store.getState().copy;

  const withGestures = (show: Show): Show => {
    let all = gesture?.show ?? show;
    for (const ops of previews.values()) all = laid(all, ops, { force: true }).after;
    return all;
  };
  const tell = (copy: Copy | null) => {
    if (!copy) return;
    const next = withGestures(copy.show);
    const before = shown;
    shown = next;
    if (before === next) return;
    const ops = before?.id === next.id ? diff(before, next) : undefined;
    if (ops?.length === 0) return;
    const change = ops ? { ops } : { show: next };
    for (const follower of followers) follower(change, next);
  };
  const set = (copy: Copy, steps: History = store.getState().steps) => {
    // What others did meanwhile goes below a gesture.
    if (gesture && copy.show !== current()?.show)
      gesture = { ...gesture, show: gesture.commands.reduce((show, one) => edit(show, one).show, copy.show) };
    // Whoever draws it hears of it first: a picture that is asked for on this news must not be one of before.
    tell(copy);
    store.setState({ copy, show: gesture?.show ?? copy.show, steps });
  };
  /** What could be undone before the page was loaded comes below what was done since. */
  const bringSteps = (id: string) => {
    const mine = repository.steps(id).then(
      ({ past, future }) => {
        const { show, steps } = store.getState();
        if (show?.id !== id) return;
        const fresh = steps.past.length > 0;
        store.setState({ steps: { past: [...past, ...steps.past], future: fresh ? steps.future : [...future] } });
      },
      () => undefined,
    );
    bringing = mine;
    void mine.then(() => {
      if (bringing === mine) bringing = undefined;
    });
  };
  /** Takes back what was done on this page, or waits for what was done on the page before. */
  const withSteps = (work: () => void) => {
    const { show, steps } = store.getState();
    if (bringing && steps.past.length === 0)
      void bringing.then(() => {
        if (store.getState().show?.id === show?.id) work();
      });
    else work();
  };
  /** @param steps what can be undone after an edit of this screen. */
  const journal = (copy: Copy, line: Line, steps?: History) => {
    note(() => repository.append(copy.show.id, line, steps && keptSteps(steps)));
    if (++lines < JOURNAL_LINES) return;
    lines = 0;
    void save(() => current() ?? copy);
  };

  /** An edit of this screen: shown at once, and on its way. */
  const propose = (id: string, command: Command, after?: History): string | undefined => {
    const copy = current();
    if (!copy) return undefined;
    const next = proposed(copy, id, command);
    if (!next.change) {
      if (after) store.setState({ steps: after });
      return undefined;
    }
    const steps = after ?? acted(store.getState().steps, id, next.change.command, next.edited);
    set(leader ? next.copy : confirmedAll(next.copy), steps);
    if (leader) {
      journal(next.copy, { type: 'made', ...next.change }, steps);
      leader.edit(copy.show.id, next.change);
    } else {
      journal(next.copy, { type: 'heard', ...next.change, after: headOf(copy.chain) }, steps);
      const found = next.edited.missed.length > 0;
      if (found) missed({ id, edited: next.edited }, command.type);
    }
    // The list of shows tells names and counts: they are written with the whole.
    if (named(copy.show, next.copy.show)) void save(() => current()!);
    return id;
  };

  const take = (change: Change, copy: Copy): Copy => {
    const next = confirmed(copy, change);
    if (next.copy === copy) return copy;
    const after = headOf(copy.chain);
    if (!next.own) journal(next.copy, { type: 'heard', ...change, after });
    else {
      const { steps } = store.getState();
      const left = settled(steps, next.own);
      if (left !== steps) store.setState({ steps: left });
      journal(next.copy, { type: 'confirmed', id: change.id, after }, left === steps ? undefined : left);
      if (next.own.edited.missed.length > 0 || next.own.edited.ops.length === 0) missed(next.own, nameOf(change));
    }
    return next.copy;
  };

  const sendPreview = () => {
    previewTimer ??= setTimeout(() => {
      previewTimer = undefined;
      const copy = current();
      if (gesture && copy) leader?.preview(copy.show.id, diff(copy.show, gesture.show));
    }, PREVIEW_MS);
  };
  const endGesture = () => {
    const done = gesture;
    gesture = undefined;
    clearTimeout(previewTimer);
    previewTimer = undefined;
    const copy = current();
    if (!done || !copy) return;
    const [first, ...more] = done.commands;
    // One command is itself; several become what they led to together.
    const of = first!.type === 'adjust' ? first!.of : first!.type;
    propose(freshId(), more.length === 0 ? first! : { type: 'adjust', of, ops: [...diff(copy.show, done.show)] });
    leader?.preview(copy.show.id, null);
    tell(current());
  };

  return {
    store,
    async open(copy, { keep: write = true, aside: only = false } = {}) {
      endGesture();
      aside = only;
      previews.clear();
      lines = 0;
      set(leader ? copy : confirmedAll(copy), NO_HISTORY);
      bringSteps(copy.show.id);
      return write ? save(() => current() ?? copy) : undefined;
    },
    close() {
      endGesture();
      shown = null;
      store.setState({ show: null, copy: null, steps: NO_HISTORY });
    },
    make(command) {
      const copy = current();
      if (!copy) return undefined;
      if (!pressed) return propose(freshId(), command);
      const from = gesture?.show ?? copy.show;
      const { show } = edit(from, command);
      if (show === from) return undefined;
      gesture = { commands: [...(gesture?.commands ?? []), command], show };
      tell(copy);
      store.setState({ show });
      sendPreview();
      return undefined;
    },
    together(commands) {
      endGesture();
      return propose(freshId(), { type: 'together', commands: [...commands] });
    },
    undo(wanted) {
      endGesture();
      withSteps(() => {
        const id = freshId();
        const step = undoing(store.getState().steps, id, wanted);
        if (step) propose(id, step.command, step.history);
      });
    },
    redo() {
      endGesture();
      withSteps(() => {
        const id = freshId();
        const step = redoing(store.getState().steps, id);
        if (step) propose(id, step.command, step.history);
      });
    },
    takingBack() {
      const id = store.getState().steps.past.at(-1)?.id;
      return () => id !== undefined && this.undo(id);
    },
    press: () => void (pressed = true),
    lift() {
      pressed = false;
      endGesture();
    },
    follow(next) {
      leader = next;
      const copy = current();
      if (!next && copy && copy.pending.length > 0) set(confirmedAll(copy));
    },
    take(show, changes) {
      const copy = current();
      if (!copy || copy.show.id !== show) return;
      set(changes.reduce((now, change) => take(change, now), copy));
    },
    rejoin(show, chain, { aside: only = false } = {}) {
      aside = only;
      const copy = current();
      if (!copy || copy.show.id !== show.id) {
        endGesture();
        previews.clear();
        const theirs = copyOf(show, chain);
        set(theirs, NO_HISTORY);
        bringSteps(show.id);
        void save(() => theirs);
        return undefined;
      }
      const next = rejoined(copy, { show, chain });
      const parted = next === 'parted' ? copy : undefined;
      const joined = next === 'parted' ? copyOf(show, chain) : next;
      set(joined, parted ? NO_HISTORY : store.getState().steps);
      void save(() => joined);
      return parted;
    },
    resend() {
      const copy = current();
      for (const change of copy?.pending ?? []) leader?.edit(copy!.show.id, change);
    },
    resendOnce() {
      if (sent) return;
      sent = true;
      this.resend();
    },
    lineBroke: () => void (sent = false),
    forget(id) {
      const copy = current();
      if (copy?.pending.some((one) => one.id === id)) set(refusedChange(copy, id));
    },
    refuse(id) {
      const copy = current();
      if (!copy?.pending.some((one) => one.id === id)) return;
      const without = (list: History['past']) => list.filter((step) => step.id !== id);
      const { past, future } = store.getState().steps;
      set(refusedChange(copy, id), { past: without(past), future: without(future) });
      void save(() => current()!);
    },
    preview(screen, show, ops) {
      if (current()?.show.id !== show) return;
      if (ops) previews.set(screen, ops);
      else previews.delete(screen);
      tell(current());
    },
    written: () => Promise.all([writing, noting]),
    onChange(follower) {
      followers.add(follower);
      if (shown) follower({ show: shown }, shown);
      return () => followers.delete(follower);
    },
    onMissed: (take) => void (missed = take),
  };
}

const nameOf = ({ command }: Change): string => (command.type === 'adjust' ? command.of : command.type);

const named = (before: Show, after: Show): boolean =>
  before.name !== after.name || before.songs.length !== after.songs.length || before.rigs !== after.rigs;
