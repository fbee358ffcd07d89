// Switches, keys, knobs and pedals: what comes in from them, what it means, and what was done last.

import {
  askedFor,
  contactOf,
  doesIn,
  felt,
  FOOT_AWAY,
  hasGesture,
  hears,
  NO_GRIP,
  placeHeard,
  sameSource,
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
} from '../gig';
import { banksAt, heldAs, pressWords, turnAction, turnPlace, type Action, type Moment } from '../live';
import type { GearHost } from './host';
import { learning } from './learning';

/** What a press did, in words, for a second or so. */
export type Happened = {
  readonly control: string;
  readonly gesture: Gesture;
  readonly words: string;
  readonly at: number;
};

/** A switch changed, by the clock of where it is plugged in; with the gestures that came of it. */
export type Felt = {
  readonly control: string;
  /** Whether its contact is closed, and whether that counts as a foot on it: bouncing does not. */
  readonly down: boolean;
  readonly held: boolean;
  readonly at: number;
  readonly gestures: readonly Gesture[];
};

export type ControlSurface = {
  /**
   * A key or a button changed. @param at when, by the clock: a page that was busy hears of it late.
   * @returns whether a control took it.
   */
  readonly key: (source: Source, down: boolean, at?: number) => boolean;
  /**
   * A message of MIDI or OSC came in. @param touched false for what comes by itself: nothing learns it.
   * @returns whether a control took it.
   */
  readonly message: (heard: Heard, at?: number, touched?: boolean) => boolean;
  /**
   * What moves without a control: within a frame the first is done at once, and the last as the frame is over.
   * @param key one for each thing that moves. @param act who does it, where that is not the host.
   */
  readonly move: (key: string, does: Move, act?: GearHost['act']) => void;
  /** A switch on the screen, as the on-screen foot controller has them. */
  readonly foot: (control: string, down: boolean, at?: number) => void;
  /** The window is left: keys that come up elsewhere are not told. */
  readonly leave: () => void;
  /**
   * The next thing that is pressed is taken for this, and does nothing else; null ends that. A controller may be told once
   * more: where it is not let go within two seconds, as one whose messages are each a press (`sends` is 'toggle'), and where
   * it goes on with the same step, as an endless knob ('relative').
   */
  readonly learn: (take: ((source: Source) => void) | null) => void;
};

/** Is asked as it is done: what is on may have changed. */
export type Move = (moment: Moment) => Action | undefined;

type Start = {
  readonly host: GearHost;
  /** In seconds; gestures are told apart by it. */
  readonly clock: () => number;
  readonly onFelt: (felt: Felt) => void;
  readonly onHappened: (happened: Happened) => void;
};

export function controlSurface({ host, clock, onFelt, onHappened }: Start): ControlSurface {
  const { after } = host.time;
  /** While something learns, what comes in is for that alone. */
  const { learn, pressed, message: learned } = learning(host.time, clock);
  /** With the moment up to which all is decided. */
  const feet = new Map<string, { foot: Foot; contact: boolean; upTo: number; sleep?: () => void }>();
  /** What was begun with a press and ends as the foot comes up. */
  const holding = new Map<string, readonly Act[]>();
  const grips = new Map<string, Grip>();

  const all = (): readonly Control[] => host.moment()?.show.controls ?? [];
  const bank = () => {
    const moment = host.press();
    return moment && banksAt(moment).bank?.id;
  };
  const timesOf = (control: SwitchControl) =>
    host.moment()?.show.pedals.find(({ id }) => id === control.pedal)?.times ?? USUAL_TIMES;

  const perform = (control: SwitchControl, gesture: Gesture, since: number) => {
    const does = doesIn(control, bank());
    if (gesture === 'release') {
      host.doActs(holding.get(control.id) ?? [], false, since);
      holding.delete(control.id);
    }
    const acts = does[gesture];
    if (acts.length === 0) return;
    const moment = host.press();
    const words = moment ? pressWords(moment, acts) : '';
    onHappened({ control: control.id, gesture, words, at: clock() });
    const lasting = moment ? acts.flatMap((act) => heldAs(moment, act) ?? []) : [];
    host.doActs(acts, true, since);
    // A press that is told when the foot has lifted already is a short one.
    if (!feet.get(control.id)?.foot.down) after(TAP_MS, () => host.doActs(lasting, false, clock()));
    else if (lasting.length > 0) holding.set(control.id, [...(holding.get(control.id) ?? []), ...lasting]);
  };

  const see = (control: SwitchControl, when: number) => {
    const state = feet.get(control.id)!;
    const at = (state.upTo = Math.max(state.upTo, when));
    state.sleep?.();
    const does = doesIn(control, bank());
    const wanted: Wanted = { double: hasGesture(does, 'double'), hold: hasGesture(does, 'hold'), eager: control.eager };
    const times = timesOf(control);
    const before = state.foot;
    const { foot, gestures } = felt(before, state.contact, at, times, wanted);
    state.foot = foot;
    onFelt({ control: control.id, down: state.contact, held: foot.down, at, gestures });
    for (const gesture of gestures) perform(control, gesture, gesture === 'press' ? wentDown(before, at) : at);
    const wake = wakeAt(foot, times, wanted);
    if (wake !== null) state.sleep = after(Math.max(0, (wake - clock()) * 1000), () => due(control.id, wake));
  };
  /** A timer of a page that was busy may come before what was pressed meanwhile: that is heard first. */
  const due = (id: string, wake: number) => {
    const state = feet.get(id);
    if (state && clock() - wake > BUSY) state.sleep = after(0, () => look(id, wake));
    else look(id, wake);
  };
  /** Looked at again as of the time that had come: the control may have changed or gone meanwhile. */
  const look = (id: string, wake: number) => {
    const control = all().find((one) => one.id === id);
    if (control?.kind === 'switch') see(control, wake);
    else feet.delete(id);
  };
  const edge = (control: SwitchControl, contact: boolean, at = clock()) => {
    const state = feet.get(control.id) ?? { foot: FOOT_AWAY, contact: false, upTo: -Infinity };
    feet.set(control.id, state);
    state.contact = control.closed ? !contact : contact;
    see(control, Math.min(at, clock()));
  };

  /** Knobs that move: what waits for the end of the frame. The first message leaves at once, of those that follow the last. */
  const moving = new Map<string, Move | null>();
  const move: ControlSurface['move'] = (key, does, act = host.act) => {
    if (moving.has(key)) return void moving.set(key, does);
    const moment = host.moment();
    const action = moment && does(moment);
    if (action) act(action);
    moving.set(key, null);
    after(FRAME_MS, () => {
      const waiting = moving.get(key);
      moving.delete(key);
      if (waiting) move(key, waiting, act);
    });
  };

  const turn = (control: FaderControl, heard: Pick<Heard, 'by'> & { readonly value: number }) => {
    const moment = host.moment();
    if (!moment) return;
    const position = turnPlace(moment, control.turns) ?? askedFor(control, heard.value);
    const step = turned(grips.get(control.id) ?? NO_GRIP, control, heard, position, clock());
    grips.set(control.id, step.grip);
    const { to } = step;
    if (to !== null) move(control.id, (now) => turnAction(now, control.turns, to));
  };

  return {
    key(source, down, at) {
      if (down && pressed(source)) return true;
      const bound = all().filter((one) => one.source && sameSource(one.source, source));
      for (const control of bound) if (control.kind === 'switch') edge(control, down, at);
      return bound.length > 0;
    },
    message(heard, at, touched = true) {
      if (touched && learned(heard)) return true;
      const bound = all().filter((one) => one.source && hears(one.source, heard));
      for (const control of bound) {
        if (control.kind === 'fader') {
          const value = control.source ? placeHeard(control.source, heard) : undefined;
          if (value !== undefined) turn(control, { by: heard.by, value });
          continue;
        }
        const contact = control.source ? contactOf(control.source, heard) : undefined;
        if (contact === 'tap') {
          // A message that only says “pressed” is a short press, however late it is heard.
          const down = Math.min(at ?? clock(), clock());
          const up = down + TAP_MS / 1000;
          edge(control, true, down);
          if (up <= clock()) edge(control, false, up);
          else after((up - clock()) * 1000, () => edge(control, false, up));
        } else if (contact !== undefined) edge(control, contact, at);
      }
      return bound.length > 0;
    },
    foot(id, down, at) {
      const control = all().find((one) => one.id === id);
      if (control?.kind === 'switch') edge({ ...control, closed: false }, down, at);
    },
    leave() {
      for (const [id, { contact }] of feet) {
        const control = all().find((one) => one.id === id);
        if (contact && control?.kind === 'switch' && control.source?.by === 'key')
          edge(control, control.closed ?? false);
      }
    },
    move,
    learn,
  };
}

/** When the press that is told at a moment began: one that may become a double press or a hold is told later. */
const wentDown = ({ pending }: Foot, at: number): number => (pending !== null && pending < at ? pending : at);

/** A timer that comes so much too late, in seconds, was held up. */
const BUSY = 0.02;
/** As often as light leaves. */
const FRAME_MS = 1000 / 44;
/** As short as a foot, longer than any bounce. */
const TAP_MS = 110;
