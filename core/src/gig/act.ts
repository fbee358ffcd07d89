// What a pedal, a key, a MIDI control or a pad can do. One list for all of them.

import { z } from 'zod';
import { PRESSES } from '../light/presses';
import { LampsDo, LookValue } from '../light/schema';
import { idOf } from '../rig/schema';

/** Done so many beats after the ones before it in its list. */
const later = { after: z.number().min(0).max(64).optional() };

export const WAYS = ['next', 'previous'] as const;

export const Act = z.discriminatedUnion('act', [
  /** A look or a chase, as a pad would. */
  z.strictObject({ act: z.literal('look'), look: idOf<'Look'>(), press: z.enum(PRESSES).default('toggle'), ...later }),
  /** Whatever pad is at this place of the bank that is chosen, counted from 1. */
  z.strictObject({ act: z.literal('pad'), place: z.number().int().min(1).max(200), ...later }),
  /** The next or previous look of the bank. */
  z.strictObject({ act: z.literal('go'), way: z.enum(WAYS), ...later }),
  z.strictObject({ act: z.literal('bank'), bank: idOf<'Bank'>(), ...later }),
  z.strictObject({ act: z.literal('turn-bank'), way: z.enum(WAYS), ...later }),
  /** One stop on in the set, or back. */
  z.strictObject({ act: z.literal('stop'), way: z.enum(WAYS), ...later }),
  /** The next or previous entry of the set, whatever its stops. */
  z.strictObject({ act: z.literal('entry'), way: z.enum(WAYS), ...later }),
  /** The song that is chosen. `restart` plays it from its start. */
  z.strictObject({ act: z.literal('song'), does: z.enum(['toggle', 'play', 'pause', 'restart']), ...later }),
  /** Plays a certain song from its start. */
  z.strictObject({ act: z.literal('play'), song: idOf<'Song'>(), ...later }),
  /** To another section of the song: from the next bar line on. */
  z.strictObject({ act: z.literal('section'), to: z.enum(['next', 'previous', 'again', 'last']), ...later }),
  /** The section one is in comes again and again, until this is done once more. */
  z.strictObject({ act: z.literal('loop'), ...later }),
  z.strictObject({ act: z.literal('tap'), ...later }),
  z.strictObject({ act: z.literal('tempo'), to: z.enum(['faster', 'slower', 'half', 'double', 'one']), ...later }),
  /** Moves the beats of the free clock, in seconds; below 0 they come earlier. */
  z.strictObject({ act: z.literal('nudge'), by: z.number().min(-0.5).max(0.5), ...later }),
  z.strictObject({
    act: z.literal('master'),
    /** Null is the grand master. */
    role: idOf<'Role'>().nullable(),
    level: z.number().min(0).max(1),
    ...later,
  }),
  z.strictObject({ act: z.literal('blackout'), to: z.enum(['toggle', 'on', 'off']), ...later }),
  /** All light stays as it is now, or goes on. */
  z.strictObject({ act: z.literal('freeze'), to: z.enum(['toggle', 'on', 'off']), ...later }),
  /** Master output: are we sending at all? */
  z.strictObject({ act: z.literal('sending'), to: z.enum(['toggle', 'on', 'off']), ...later }),
  z.strictObject({ act: z.literal('release'), ...later }),
  /** Every look and chase that is on goes off. */
  z.strictObject({ act: z.literal('all-off'), ...later }),
  z.strictObject({
    act: z.literal('hit'),
    kit: idOf<'Kit'>(),
    role: idOf<'Role'>(),
    note: z.number().int().min(0).max(127),
    ...later,
  }),
  /** Waves and chases run this much faster or slower than now. */
  z.strictObject({ act: z.literal('speed'), to: z.enum(['half', 'double', 'normal']), ...later }),
  /** Takes values by hand: a colour, an aim, a gobo of a role; for so many seconds, or until they are released. */
  z.strictObject({
    act: z.literal('hand'),
    values: z.array(LookValue).min(1).max(40),
    hold: z.number().min(0.1).max(600).optional(),
    ...later,
  }),
  /** Chooses a role for what is done next to the chosen ones: alone, or beside those that are; again, it is not. Null: none. */
  z.strictObject({ act: z.literal('choose'), role: idOf<'Role'>().nullable(), beside: z.boolean(), ...later }),
  /** The chosen roles take this by hand, beside what else they have in hand. */
  z.strictObject({ act: z.literal('chosen'), does: LampsDo, ...later }),
  /** What hurts by accident, on the lamps of a role that can: a first press arms it, a second one soon after does it. */
  z.strictObject({
    act: z.literal('lamps'),
    role: idOf<'Role'>(),
    does: z.enum(['reset', 'lamp on', 'lamp off']),
    ...later,
  }),
  /** The screen that the pedal is on takes no touch, or takes it again. */
  z.strictObject({ act: z.literal('lock'), to: z.enum(['toggle', 'on', 'off']), ...later }),
  /** What is on by pads and by hand becomes a look of its own. */
  z.strictObject({ act: z.literal('store'), ...later }),
]);
export type Act = z.infer<typeof Act>;

/** So much one press may do. */
export const MOST_ACTS = 16;
export const Acts = z.array(Act).max(MOST_ACTS);
