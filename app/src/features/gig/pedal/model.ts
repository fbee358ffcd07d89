// What the strip at the foot of the page, and the page for two metres, say of the switches.

import type { Does, Gesture, SwitchControl } from '@hovlix/core/gig';
import { doesIn, hasGesture } from '@hovlix/core/gig';
import { banksAt, pressWords, type Moment } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';

/** The switches of the pedals, in the order of the pedals. */
export function footSwitches({ pedals, controls }: Pick<Show, 'pedals' | 'controls'>): readonly SwitchControl[] {
  const switches = controls.filter((one): one is SwitchControl => one.kind === 'switch' && one.pedal !== undefined);
  return pedals.flatMap(({ id }) => switches.filter(({ pedal }) => pedal === id));
}

/** What a switch does in the bank that is chosen. */
export const doesNow = (moment: Pick<Moment, 'show' | 'live'>, control: SwitchControl): Does =>
  doesIn(control, banksAt(moment).bank?.id);

/** In words, what a gesture will do now; empty where nothing. */
export function gestureWords(moment: Moment, control: SwitchControl, gesture: Gesture): string {
  const does = doesNow(moment, control);
  return hasGesture(does, gesture) ? pressWords(moment, does[gesture]) : '';
}
