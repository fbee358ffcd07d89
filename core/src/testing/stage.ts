// A stage for tests: looks put on the test show, what is pressed, and what comes to the wire of it.

import type { z } from 'zod';
import { Look, type LookValue } from '../light';
import { AT_REST, reduced, type Action, type LiveState } from '../live';
import { compile, frameFor, render, type Sounds } from '../engine';
import { edit, type Show } from '../show';
import { id, seconds } from '../units';
import { testShow } from './show';

export type ValueIn = z.input<typeof LookValue>;

export const look = (values: ValueIn[], more: object = {}): Look =>
  Look.parse({ id: 'new', number: 9, name: 'New', fadeIn: 0, fadeOut: 0, values, ...more });
export const withLooks = (...looks: Look[]): Show =>
  looks.reduce((show, one) => edit(show, { type: 'store-look', look: one }).show, testShow());
export const hold = <T>(value: T) => ({ type: 'hold' as const, value });
export const wave = (on: string, more: object): NonNullable<ValueIn['waves']>[number] => ({
  type: 'wave',
  on,
  shape: 'triangle',
  low: 0,
  high: 1,
  span: { beats: 4 },
  ...more,
});

export const press = (state: LiveState, action: Action, at: number, who = 't'): LiveState =>
  reduced(state, { seq: state.seq + 1, at: seconds(at), who, action });
/** The look `new` is on. The free clock counts 120 a minute: a beat is half a second. */
export const on = (at = 0): LiveState => press(AT_REST, { type: 'look-on', look: id('new'), fade: seconds(0) }, at);

export function player(show: Show, sounds?: Sounds) {
  const program = compile(show, undefined, sounds);
  const frame = frameFor(program);
  return (live: LiveState, at: number): Uint8Array => {
    render(program, live, seconds(at), frame);
    return Uint8Array.from(frame);
  };
}

/** As the test show is patched: A dims at 1; B is RGB at 10; the spot is in universe 2; the bar's cells are at 100. */
export const dimmerA = (bytes: Uint8Array) => bytes[0]! / 255;
export const brightB = (bytes: Uint8Array) => Math.max(bytes[9]!, bytes[10]!, bytes[11]!) / 255;
export const panSpot = (bytes: Uint8Array) => ((bytes[512]! * 256 + bytes[513]!) / 65535 - 0.5) * 540;
export const tiltSpot = (bytes: Uint8Array) => ((bytes[514]! * 256 + bytes[515]!) / 65535 - 0.5) * 250;
