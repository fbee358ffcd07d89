// A control learns where it is heard from: by touching it, whatever it sends as it is touched.

import { contactOf, hears, sourceOf, type Heard, type Source } from '../gig';
import type { Timers } from './host';

type Take = (source: Source) => void;

export type Learning = {
  /** See `ControlSurface.learn`. */
  readonly learn: (take: Take | null) => void;
  /** Something that has no values was pressed. @returns whether it was learned. */
  readonly pressed: (source: Source) => boolean;
  /** A message of MIDI or OSC came in. @returns whether it was learned. */
  readonly message: (heard: Heard) => boolean;
};

/** What was learned of something that sends values, while it may still turn out to be of another kind. */
type Young = {
  readonly source: Extract<Source, { by: 'control' | 'osc' }>;
  readonly take: Take;
  /** What it sent first, 0…127, and how often since. */
  readonly raw: number;
  readonly count: number;
  readonly forget: () => void;
};

/** @param clock in seconds. */
export function learning({ after }: Pick<Timers, 'after'>, clock: () => number): Learning {
  let learns: Take | null = null;
  let young: Young | undefined;
  let faint: { readonly key: string; readonly ticks: number; readonly at: number } | undefined;

  const pressed = (source: Source): boolean => {
    const take = learns;
    learns = null;
    take?.(source);
    return take !== null;
  };
  const grown = () => {
    young?.forget();
    young = undefined;
  };
  /** What is learned from a message: what hardly says anything is a pedal at rest, or an endless knob that is turned up. */
  const sourceMeant = (heard: Heard): Source | undefined => {
    if (heard.by === 'note' && !heard.down) return undefined;
    const source = sourceOf(heard);
    if (!('value' in heard) || heard.value > FAINT) return source;
    if (source.by !== 'control' || source.sends !== 'absolute') return undefined;
    const key = JSON.stringify(source);
    const before = faint?.key === key ? faint.ticks : 0;
    faint = { key, ticks: heard.value > 0 ? before + 1 : 0, at: clock() };
    return faint.ticks < TICKS ? undefined : { ...source, sends: 'relative' };
  };
  /** One that is closed at rest goes down first, and up as the foot lifts: no more comes of that step. */
  const cameUp = (source: Source) => faint?.key === JSON.stringify(source) && clock() - faint.at < LIFT_MS / 1000;

  /** Many a switch says nothing as it is let go, or says it with the next press. */
  const wentUp = (source: Young['source'], raw: number, take: Take) => {
    const forget = after(LIFT_MS, () => {
      young = undefined;
      take({ ...source, sends: 'toggle' });
    });
    young = { source, take, raw, count: 1, forget };
  };
  const hearAgain = ({ source, take, raw, count }: Young, heard: Heard) => {
    if (source.by === 'control' && rawOf(heard) === raw && isStep(raw)) {
      if (count + 1 < TICKS) return void (young = { ...young!, count: count + 1 });
      grown();
      take({ ...source, sends: 'relative' });
    } else if (contactOf(source, heard) === false) grown();
  };

  return {
    learn(take) {
      learns = take;
      if (!take) return;
      faint = undefined;
      grown();
    },
    pressed,
    message(heard) {
      if (young && hears(young.source, heard)) hearAgain(young, heard);
      const take = learns;
      const source = take && sourceMeant(heard);
      if (!source || !pressed(source)) return false;
      const hasValues = source.by === 'control' || source.by === 'osc';
      if (hasValues && source.sends === 'absolute' && contactOf(source, heard) === true && !cameUp(source))
        wentUp(source, rawOf(heard), take);
      return true;
    },
  };
}

const rawOf = (heard: Heard): number => ('value' in heard ? Math.round(heard.value * 127) : 0);
/** A step up or down of an endless knob that counts from 64. */
const isStep = (raw: number): boolean => raw !== 64 && Math.abs(raw - 64) <= 3;

/** So little may come from a pedal at rest. */
const FAINT = 0.05;
/** An endless knob sends the same for each step; so many of them, and nothing between, are one. */
const TICKS = 3;
/** Whoever is asked to step on it and let go has done so by then. */
const LIFT_MS = 2000;
