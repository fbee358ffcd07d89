// Switches, keys, knobs and pedals of this screen: what comes in from them, what it means, and what was done last.

import { createStore, type StoreApi } from 'zustand/vanilla';
import {
  contactOf,
  doesIn,
  felt,
  FOOT_AWAY,
  hasGesture,
  hears,
  NO_GRIP,
  sameSource,
  sourceOf,
  turned,
  USUAL_TIMES,
  wakeAt,
  type Act,
  type Control,
  type FaderControl,
  type Foot,
  type Gesture,
  type Grip,
  type Heard,
  type Source,
  type SwitchControl,
  type Wanted,
} from '@hovlix/core/gig';
import { banksAt, heldAs, pressWords, turnAction, turnPlace } from '@hovlix/core/live';
import { momentOf, momentOfPress } from '../conduct/moment';
import { localSeconds } from '../conduct/local-clock';
import { doActs, type Playing } from './act';

/** What a press did, in words, for a second or so. */
export type Happened = {
  readonly control: string;
  readonly gesture: Gesture;
  readonly words: string;
  readonly at: number;
};

export type ControlsState = {
  /** Set while a control learns: the next thing that is pressed is taken for it, and does nothing else. */
  readonly learns: ((source: Source) => void) | null;
  readonly happened: Happened | null;
  /** Switches that are down now. */
  readonly down: readonly string[];
}; // prettier-ignore

/** A switch changed, in seconds of this screen's clock; with the gestures that came of it. */
export type Felt = { readonly control: string; readonly down: boolean; readonly at: number; readonly gestures: readonly Gesture[] }; // prettier-ignore

export type Controls = {
  readonly store: StoreApi<ControlsState>;
  /** A key or a button changed. @returns whether a control took it. */
  readonly key: (source: Source, down: boolean) => boolean;
  /** MIDI came in. @returns whether a control took it. */
  readonly midi: (heard: Heard) => boolean;
  /** A switch on the screen, as the on-screen foot controller has them. */
  readonly foot: (control: string, down: boolean) => void;
  /** The window is left: keys that come up elsewhere are not told. */
  readonly leave: () => void;
  readonly learn: (take: ((source: Source) => void) | null) => void;
  readonly onFelt: (take: (felt: Felt) => void) => () => void;
};

/** @param clock in seconds; gestures are told apart by it. */
export function controls(stage: Playing, clock: () => number = localSeconds): Controls {
  const store = createStore<ControlsState>(() => ({ learns: null, happened: null, down: [] }));
  const feet = new Map<string, { foot: Foot; contact: boolean; wake?: ReturnType<typeof setTimeout> }>();
  /** What was begun with a press and ends as the foot comes up. */
  const holding = new Map<string, readonly Act[]>();
  const grips = new Map<string, Grip>();
  const ears = new Set<(felt: Felt) => void>();

  const all = (): readonly Control[] => stage.document.store.getState().show?.controls ?? [];
  const bank = () => {
    const moment = momentOfPress(stage);
    return moment && banksAt(moment).bank?.id;
  };
  const timesOf = (control: SwitchControl) =>
    stage.document.store.getState().show?.pedals.find(({ id }) => id === control.pedal)?.times ?? USUAL_TIMES;

  const perform = (control: SwitchControl, gesture: Gesture) => {
    const does = doesIn(control, bank());
    if (gesture === 'release') {
      doActs(stage, holding.get(control.id) ?? [], false);
      holding.delete(control.id);
    }
    const acts = does[gesture];
    if (acts.length === 0) return;
    const moment = momentOfPress(stage);
    const words = moment ? pressWords(moment, acts) : '';
    store.setState({ happened: { control: control.id, gesture, words, at: clock() } });
    const lasting = moment ? acts.flatMap((act) => heldAs(moment, act) ?? []) : [];
    doActs(stage, acts);
    // A press that is told when the foot has lifted already is a short one.
    if (!feet.get(control.id)?.foot.down) setTimeout(() => doActs(stage, lasting, false), TAP_MS);
    else if (lasting.length > 0) holding.set(control.id, [...(holding.get(control.id) ?? []), ...lasting]);
  };

  const see = (control: SwitchControl, at: number) => {
    const state = feet.get(control.id)!;
    clearTimeout(state.wake);
    const does = doesIn(control, bank());
    const wanted: Wanted = { double: hasGesture(does, 'double'), hold: hasGesture(does, 'hold'), eager: control.eager };
    const times = timesOf(control);
    const { foot, gestures } = felt(state.foot, state.contact, at, times, wanted);
    state.foot = foot;
    for (const ear of ears) ear({ control: control.id, down: state.contact, at, gestures });
    for (const gesture of gestures) perform(control, gesture);
    const { down } = store.getState();
    if (down.includes(control.id) !== foot.down)
      store.setState({ down: foot.down ? [...down, control.id] : down.filter((id) => id !== control.id) });
    const wake = wakeAt(foot, times, wanted);
    if (wake !== null) state.wake = setTimeout(() => look(control.id), Math.max(0, (wake - clock()) * 1000));
  };
  /** Looked at again when its time has come: the control may have changed or gone meanwhile. */
  const look = (id: string) => {
    const control = all().find((one) => one.id === id);
    if (control?.kind === 'switch') see(control, clock());
    else feet.delete(id);
  };
  const edge = (control: SwitchControl, contact: boolean) => {
    const state = feet.get(control.id) ?? { foot: FOOT_AWAY, contact: false };
    feet.set(control.id, state);
    state.contact = control.closed ? !contact : contact;
    see(control, clock());
  };

  /** Knobs that move: what waits for the end of the frame. The first message leaves at once, of those that follow the last. */
  const moving = new Map<string, number | null>();
  const move = (control: FaderControl, to: number) => {
    if (moving.has(control.id)) return void moving.set(control.id, to);
    const moment = momentOf(stage);
    if (moment) stage.conducting.act(turnAction(moment, control.turns, to));
    moving.set(control.id, null);
    setTimeout(() => {
      const waiting = moving.get(control.id);
      moving.delete(control.id);
      if (typeof waiting === 'number') move(control, waiting);
    }, FRAME_MS);
  };

  const turn = (control: FaderControl, heard: Heard & { readonly value: number }) => {
    const moment = momentOf(stage);
    if (!moment) return;
    const step = turned(grips.get(control.id) ?? NO_GRIP, control, heard, turnPlace(moment, control.turns), clock());
    grips.set(control.id, step.grip);
    if (step.to !== null) move(control, step.to);
  };

  /** While something learns, what comes in is for that alone. */
  const learned = (source: Source): boolean => {
    const { learns } = store.getState();
    if (!learns) return false;
    store.setState({ learns: null });
    learns(source);
    return true;
  };

  return {
    store,
    key(source, down) {
      if (down && learned(source)) return true;
      const bound = all().filter((one) => one.source && sameSource(one.source, source));
      for (const control of bound) if (control.kind === 'switch') edge(control, down);
      return bound.length > 0;
    },
    midi(heard) {
      const begins = heard.by !== 'note' || heard.down;
      if (begins && (!('value' in heard) || heard.value > 0.05) && learned(sourceOf(heard))) return true;
      const bound = all().filter((one) => one.source && hears(one.source, heard));
      for (const control of bound) {
        if (control.kind === 'fader') {
          if ('value' in heard) turn(control, heard);
          continue;
        }
        const contact = control.source ? contactOf(control.source, heard) : undefined;
        if (contact === 'tap') {
          edge(control, true);
          // A message that only says “pressed” is a short press.
          setTimeout(() => edge(control, false), TAP_MS);
        } else if (contact !== undefined) edge(control, contact);
      }
      return bound.length > 0;
    },
    foot(id, down) {
      const control = all().find((one) => one.id === id);
      if (control?.kind === 'switch') edge({ ...control, closed: false }, down);
    },
    leave() {
      for (const [id, { contact }] of feet) {
        const control = all().find((one) => one.id === id);
        if (contact && control?.kind === 'switch' && control.source?.by === 'key') edge(control, control.closed ?? false);
      }
    },
    learn: (take) => store.setState({ learns: take }),
    onFelt(take) {
      ears.add(take);
      return () => void ears.delete(take);
    },
  }; // prettier-ignore
}

/** As often as light leaves. */
const FRAME_MS = 1000 / 44;
/** As short as a foot, longer than any bounce. */
const TAP_MS = 110;
