// Controls: what is pressed or turned, and what it does. A switch of a pedal, a key, a pad or knob of a MIDI device.

import { z } from 'zod';
import { idOf, Name } from '../rig/schema';
import { Acts, type Act } from './act';

const Channel = z.number().int().min(1).max(16).nullable();
const Seven = z.number().int().min(0).max(127);

export const MOST_FULL = 1e9;

/** Letters that an address may have (Open Sound Control 1.0, "OSC Addresses"): none that a pattern is made of. */
export const OscAddress = z
  .string()
  .min(2)
  .max(200)
  .regex(/^\/[!-~]*$/, 'an address begins with a slash and has no spaces')
  .regex(/^[^#*,?[\]{}]*$/, 'an address has none of # * , ? [ ] { }');

/** Where a control is heard from. A channel of null is any channel, a device of null any device. */
export const Source = z.discriminatedUnion('by', [
  /**
   * A key by its place on the keyboard (UI Events, `code`), as foot switches with a USB or Bluetooth plug send. The sign is
   * the letter that is printed on it, where keyboards of the United States have another.
   */
  z.strictObject({ by: z.literal('key'), code: z.string().min(1).max(40), sign: z.string().min(1).max(2).optional() }),
  /** A button of a game controller (Gamepad API). */
  z.strictObject({ by: z.literal('button'), button: z.number().int().min(0).max(63) }),
  z.strictObject({ by: z.literal('note'), device: z.string().max(120).nullable(), channel: Channel, number: Seven }),
  z.strictObject({
    by: z.literal('control'),
    device: z.string().max(120).nullable(),
    channel: Channel,
    number: Seven,
    /** What its values mean: its position, how far it was turned, two messages for 14 bits, or each one a press. */
    sends: z.enum(['absolute', 'relative', 'fine', 'toggle']).default('absolute'),
  }),
  /** Program numbers count from 0 here. A bank of null is any bank. */
  z.strictObject({
    by: z.literal('program'),
    device: z.string().max(120).nullable(),
    channel: Channel,
    number: Seven,
    bank: z.number().int().min(0).max(16383).nullable(),
  }),
  z.strictObject({ by: z.literal('bend'), device: z.string().max(120).nullable(), channel: Channel }),
  z.strictObject({ by: z.literal('pressure'), device: z.string().max(120).nullable(), channel: Channel }),
  z.strictObject({
    by: z.literal('osc'),
    address: OscAddress,
    /** What it sends at its upper end. */
    full: z.number().min(0.001).max(MOST_FULL).default(1),
    /** What its values mean: its position, or each one that is not low a press. */
    sends: z.enum(['absolute', 'toggle']).default('absolute'),
  }),
]);
export type Source = z.infer<typeof Source>;

export const GESTURES = ['press', 'double', 'hold', 'release'] as const;
export type Gesture = (typeof GESTURES)[number];

/** What each gesture of a switch does. Without `double` and `hold`, a press acts at once. */
export const Does = z.strictObject({
  press: Acts.default([]),
  double: Acts.default([]),
  hold: Acts.default([]),
  release: Acts.default([]),
});
export type Does = z.infer<typeof Does>;

/** What a knob takes by hand of a role, or where that is null of the chosen ones; a colour goes round the circle of hues. */
export const HAND_TURNS = ['level', 'colour', 'strobe', 'zoom', 'haze'] as const;

/** A value that a knob, a fader or an expression pedal moves. A role of null is the grand master. */
export const Turns = z.discriminatedUnion('turn', [
  z.strictObject({ turn: z.literal('master'), role: idOf<'Role'>().nullable() }),
  /** Speed of waves and chases, of all or of one look or chase, from a quarter to four times. */
  z.strictObject({ turn: z.literal('speed'), look: idOf<'Look'>().optional() }),
  /** How long fades take, from nothing to twice as long as they say. */
  z.strictObject({ turn: z.literal('fades') }),
  z.strictObject({ turn: z.literal('hand'), role: idOf<'Role'>().nullable(), what: z.enum(HAND_TURNS) }),
  /** Beats a minute of the free clock, 60 to 180. */
  z.strictObject({ turn: z.literal('tempo') }),
]);
export type Turns = z.infer<typeof Turns>;

const common = {
  id: idOf<'Control'>(),
  name: Name,
  /** Null until it was learned. */
  source: Source.nullable(),
};

export const Control = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('switch'),
    ...common,
    /** The pedal it is on; without, it is a control by itself. */
    pedal: idOf<'Pedal'>().optional(),
    /** Normally closed: what is sent as a press is a release. */
    closed: z.boolean().optional(),
    /** A press acts as the foot goes down, also where a hold is assigned: then both are done. */
    eager: z.boolean().optional(),
    does: Does,
    /** What it does in certain banks instead. */
    banks: z
      .array(z.strictObject({ bank: idOf<'Bank'>(), does: Does }))
      .max(64)
      .optional(),
  }),
  z.strictObject({
    kind: z.literal('fader'),
    ...common,
    turns: Turns,
    /** Its two ends, 0…1 of what it moves; low may be above high. */
    low: z.number().min(0).max(1).default(0),
    high: z.number().min(0).max(1).default(1),
    curve: z.enum(['even', 'gentle', 'steep']).default('even'),
    /** It moves nothing until it has come to where the value is. */
    soft: z.boolean().default(true),
  }),
]);
export type Control = z.infer<typeof Control>;
export type SwitchControl = Extract<Control, { kind: 'switch' }>;
export type FaderControl = Extract<Control, { kind: 'fader' }>;

/** Seconds that tell the gestures of a foot apart. */
export const Times = z.strictObject({
  /** A second press within this is a double press. */
  double: z.number().min(0.1).max(1.5),
  /** Held so long is a hold. */
  hold: z.number().min(0.2).max(3),
  /** Changes that follow within this are the contact bouncing. */
  bounce: z.number().min(0).max(0.1),
});
export type Times = z.infer<typeof Times>;

export const USUAL_TIMES: Times = { double: 0.35, hold: 0.7, bounce: 0.02 };

export const Pedal = z.strictObject({
  id: idOf<'Pedal'>(),
  name: Name,
  times: Times.default(USUAL_TIMES),
});
export type Pedal = z.infer<typeof Pedal>;

/** What a switch does where a bank is chosen. */
export function doesIn({ does, banks }: SwitchControl, bank: string | null | undefined): Does {
  return banks?.find((one) => one.bank === bank)?.does ?? does;
}

/** Whether something is assigned to a gesture, here or in some bank. */
export const hasGesture = (does: Does, gesture: Gesture): boolean => does[gesture].length > 0;

/** The acts of a switch with the banks it changes in, each once. */
export function allActs(control: Control): readonly Act[] {
  if (control.kind === 'fader') return [];
  const every = [control.does, ...(control.banks ?? []).map(({ does }) => does)];
  return every.flatMap((does) => GESTURES.flatMap((gesture) => does[gesture]));
}

/** Whether one thing that comes in would be heard as both. */
export function sameSource(a: Source, b: Source): boolean {
  const any = <T>(one: T | null, other: T | null) => one === null || other === null || one === other;
  if (a.by === 'key') return b.by === 'key' && a.code === b.code;
  if (a.by === 'button') return b.by === 'button' && a.button === b.button;
  if (a.by === 'osc') return b.by === 'osc' && a.address === b.address;
  if (b.by !== a.by || !any(a.device, b.device) || !any(a.channel, b.channel)) return false;
  if (a.by === 'bend' || a.by === 'pressure') return true;
  if (a.by === 'program') return b.by === 'program' && a.number === b.number && any(a.bank, b.bank);
  return 'number' in b && a.number === b.number;
}

/** Controls that are pressed by one and the same thing, in pairs. */
export function conflictsOf(controls: readonly Control[]): readonly (readonly [Control, Control])[] {
  return controls.flatMap((one, i) =>
    controls
      .slice(i + 1)
      .flatMap((other) =>
        one.source && other.source && sameSource(one.source, other.source) ? [[one, other] as const] : [],
      ),
  );
}
