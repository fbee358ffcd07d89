// The look in the making: what is in hand, said to the lamps that are chosen, shown on stage as it is shaped.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { saidTo, whosOf, type LookValue, type Saying, type Who } from '@hovlix/core/light';
import type { Casting, Fixture, Role } from '@hovlix/core/rig';
import { rigInUse } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import type { Document } from './document';

type Values = readonly LookValue[];

export type DraftState = {
  /** What it began from, if anything: a look, or a step of a chase. */
  readonly look: string | null;
  readonly values: Values;
  readonly past: readonly Values[];
  readonly future: readonly Values[];
  /** The lamps that are chosen, and the roles by whose name they were. */
  readonly chosen: readonly Fixture['id'][];
  readonly preferred: readonly string[];
};

export type Draft = {
  readonly store: StoreApi<DraftState>;
  /** Takes values in hand; null begins with nothing, or with what is in hand already. */
  readonly open: (from: { readonly id: string; readonly values: Values } | null) => void;
  readonly choose: (chosen: readonly Fixture['id'][], preferred?: readonly string[]) => void;
  /** The choice as roles and places. */
  readonly whos: () => readonly Who[];
  /** Says something to the chosen lamps. With `gesture`, changes of one drag are one step to undo. */
  readonly say: (saying: Saying, gesture?: string) => void;
  /** With `gesture`, as `say`. */
  readonly put: (values: Values, gesture?: string) => void;
  readonly undo: () => boolean;
  readonly redo: () => boolean;
  /** Gives back what one role was told; whatever else is in hand stays. */
  readonly letGoOf: (role: Role['id'], fade: number) => void;
  /** Lets go: nothing is in hand any more. */
  readonly close: (fade?: number) => void;
};

const EMPTY: DraftState = { look: null, values: [], past: [], future: [], chosen: [], preferred: [] };
const KEPT_STEPS = 100;
/** Hands go out this often while something is dragged: as often as a frame leaves, more or less. */
const SEND_MS = 30;
/** A pause of this length ends a gesture. */
const GESTURE_MS = 700;

export function draft(document: Document, conducting: Conducting): Draft {
  const store = createStore<DraftState>(() => EMPTY);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let lastGesture = { name: '', at: 0 };
  const casting = (): readonly Casting[] => {
    const { show } = document.store.getState();
    return show ? rigInUse(show).casting : [];
  };
  const send = () => {
    timer ??= setTimeout(() => {
      timer = undefined;
      const { values } = store.getState();
      if (values.length > 0) conducting.act({ type: 'hand', values: [...values], only: true });
      else conducting.act({ type: 'release', fade: seconds(0) });
    }, SEND_MS);
  };
  const put = (values: Values, gesture = '') => {
    const { values: before, past } = store.getState();
    const now = Date.now();
    const same = gesture !== '' && gesture === lastGesture.name && now - lastGesture.at < GESTURE_MS;
    lastGesture = { name: gesture, at: now };
    store.setState({ values, past: same ? past : [...past, before].slice(-KEPT_STEPS), future: [] });
    send();
  };
  const whos = () => {
    const { chosen, preferred } = store.getState();
    return whosOf(chosen, casting(), preferred);
  };
  return {
    store,
    open(look) {
      const state = store.getState();
      if (look && state.look === look.id && state.values.length > 0) return;
      // What was said before the conductor answered is said again.
      if (!look && state.look === null && state.past.length > 0) return send();
      const inHand = conducting.store
        .getState()
        .live.hands.filter((one) => one.on)
        .map(({ value }) => value);
      const values = look ? look.values : inHand;
      const { chosen, preferred } = state.chosen.length > 0 ? state : onlyRole(casting());
      store.setState({ ...EMPTY, chosen, preferred, look: look?.id ?? null, values });
      if (look) send();
    },
    choose: (chosen, preferred = []) => store.setState({ chosen, preferred }),
    whos,
    say(saying, gesture) {
      const room = casting();
      put(
        whos().reduce((values, who) => saidTo(values, who, saying, room), store.getState().values),
        gesture,
      );
    },
    put: (values, gesture) => put(values, gesture),
    undo() {
      const { past, values, future } = store.getState();
      const before = past.at(-1);
      if (!before) return false;
      store.setState({ values: before, past: past.slice(0, -1), future: [values, ...future] });
      lastGesture = { name: '', at: 0 };
      send();
      return true;
    },
    redo() {
      const { past, values, future } = store.getState();
      const [after, ...rest] = future;
      if (!after) return false;
      store.setState({ values: after, past: [...past, values], future: rest });
      send();
      return true;
    },
    letGoOf(role, fade) {
      const { values } = store.getState();
      const left = values.filter((value) => value.role !== role);
      if (left.length < values.length)
        store.setState({ values: left, past: [...store.getState().past, values].slice(-KEPT_STEPS), future: [] });
      conducting.act({ type: 'release', role, fade: seconds(fade) });
    },
    close(fade = 0) {
      clearTimeout(timer);
      timer = undefined;
      store.setState({ ...EMPTY });
      conducting.act({ type: 'release', fade: seconds(fade) });
    },
  };
}

/** Where one role alone has lamps, nobody is asked who is meant. */
function onlyRole(casting: readonly Casting[]): Pick<DraftState, 'chosen' | 'preferred'> {
  const [first, ...others] = casting.filter(({ fixtures }) => fixtures.length > 0);
  return first && others.length === 0 ? { chosen: first.fixtures, preferred: [first.role] } : EMPTY;
}
