// What a screen and its conductor say to each other: the same words for a worker and for a socket.

import { z } from 'zod';
import { OpsShape } from '../change';
import { ConnectCommand } from '../connect';
import { GESTURES, Source } from '../gig';
import { CHAIN_KEPT, Command } from '../show';
import { seconds } from '../units';
import { Action, Entry } from './actions';
import { Right } from './rights';
import { LiveState } from './live-state';

/** Raised when a message changes its meaning; both sides name theirs in their first one. */
export const PROTOCOL = 14;

/** A show on the wire is checked by `readShow` where it is taken in, so that a problem can be put in words. */
const ShowJson = z.record(z.string(), z.unknown());

const ChangeId = z.string().min(1).max(80);
/** The changes a copy of a show came by, the last one last: see `core/src/show/copy.ts`. */
const ChainShape = z.array(ChangeId).min(1).max(CHAIN_KEPT);
const ChangeShape = z.strictObject({ id: ChangeId, command: Command });
const ShowId = z.string().min(1).max(80);
const ScreenName = z.string().min(1).max(60);

export const FromScreen = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('hello'),
    protocol: z.literal(PROTOCOL),
    screen: ScreenName,
    /** The show this screen has open, and the last change of it that was confirmed. */
    show: z.strictObject({ id: ShowId, head: ChangeId }).nullable(),
  }),
  z.strictObject({ type: z.literal('ping'), sent: z.number() }),
  /** `at` is when it was pressed, by the conductor's clock as this screen knows it: one that comes too late is not played. */
  z.strictObject({ type: z.literal('act'), action: Action, at: z.number().optional() }),
  z.strictObject({ type: z.literal('edit'), show: ShowId, change: ChangeShape }),
  /** What a gesture has led to so far, over the show as it is; null when it is over. */
  z.strictObject({ type: z.literal('preview'), show: ShowId, ops: OpsShape.nullable() }),
  /** Another show for every screen and for the stage. With `ifNone`, only where the conductor has none. */
  z.strictObject({ type: z.literal('put-on'), show: ShowJson, chain: ChainShape, ifNone: z.boolean().optional() }),
  /** A change to the connections of the conductor's computer. */
  z.strictObject({ type: z.literal('connections-edit'), command: ConnectCommand }),
  /** Wants to see the levels of a universe as they go out; null for none any more. */
  z.strictObject({ type: z.literal('watch'), universe: z.number().int().min(1).max(63999).nullable() }),
  /** What is touched next on the gear of the conductor's computer is told to this screen, and does nothing else. */
  z.strictObject({ type: z.literal('learn'), on: z.boolean() }),
]);
export type FromScreen = z.input<typeof FromScreen>;

export const ToScreen = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('welcome'),
    protocol: z.literal(PROTOCOL),
    now: z.number().transform(seconds),
    state: LiveState,
    /** The show the conductor plays, if any. */
    show: z.strictObject({ id: z.string(), head: z.string() }).nullable(),
    /** What this screen may do, and the name of its device; null on the conductor's own computer. */
    may: Right,
    device: z.string().nullable(),
  }),
  z.strictObject({ type: z.literal('pong'), sent: z.number(), now: z.number().transform(seconds) }),
  /** Said every second, so that a dead line is noticed; with how the conductor's computer is, where it is one. */
  z.strictObject({
    type: z.literal('beat'),
    screens: z.number().int(),
    status: z.record(z.string(), z.unknown()).optional(),
  }),
  z.strictObject({ type: z.literal('may'), may: Right }),
  z.strictObject({ type: z.literal('entries'), entries: z.array(Entry) }),
  /** The whole show: to a screen that joins or put it on, or, with `by`, to all others as somebody put it on. */
  z.strictObject({
    type: z.literal('show'),
    show: ShowJson,
    chain: z.array(z.string()),
    by: z.string().optional(),
  }),
  z.strictObject({ type: z.literal('changes'), show: z.string(), changes: z.array(ChangeShape) }),
  /** An edit the show could not be kept with. */
  z.strictObject({ type: z.literal('refused-edit'), id: z.string(), why: z.string() }),
  /** An edit that was said twice: it has its place. */
  z.strictObject({ type: z.literal('again'), id: z.string() }),
  z.strictObject({ type: z.literal('preview'), screen: z.string(), show: z.string(), ops: OpsShape.nullable() }),
  z.strictObject({ type: z.literal('connections'), connections: z.record(z.string(), z.unknown()) }),
  /** 512 levels of one universe as they leave, two hexadecimal digits each. */
  z.strictObject({
    type: z.literal('levels'),
    universe: z.number(),
    levels: z.string().length(1024),
    /** Another program's light is in them, so no screen can compute them by itself. */
    merged: z.boolean(),
  }),
  /** A press that came too late to be played. */
  z.strictObject({ type: z.literal('late'), action: z.string() }),
  /** A switch plugged into the conductor's computer changed: whether its contact is closed, and counts as held. */
  z.strictObject({
    type: z.literal('felt'),
    control: z.string(),
    down: z.boolean(),
    held: z.boolean(),
    gestures: z.array(z.enum(GESTURES)),
  }),
  /** What a gesture on it did, in words. */
  z.strictObject({ type: z.literal('happened'), control: z.string(), gesture: z.enum(GESTURES), words: z.string() }),
  z.strictObject({ type: z.literal('learned'), source: Source }),
  /** Somebody's device went, and what it held was let go. */
  z.strictObject({ type: z.literal('left'), name: z.string() }),
  z.strictObject({ type: z.literal('refused'), why: z.string() }),
]);
export type ToScreen = z.input<typeof ToScreen>;
export type Told = z.infer<typeof ToScreen>;

/** A message from text, or a sentence that says what is wrong with it and where. */
export function readMessage<T>(
  schema: z.ZodType<T>,
  text: string,
): { readonly ok: true; readonly value: T } | { readonly ok: false; readonly why: string } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { ok: false, why: 'The message is not JSON.' };
  }
  const parsed = schema.safeParse(json);
  if (parsed.success) return { ok: true, value: parsed.data };
  const issue = parsed.error.issues[0]!;
  return { ok: false, why: `The message is wrong at ${issue.path.join('.') || 'the top'}: ${issue.message}.` };
}

/**
 * How far the conductor's clock is ahead of this one's, from exchanges of pings. The quickest there and back counts, as its
 * halves differ least (D. L. Mills, RFC 5905, clause 10: clock filter).
 * @returns seconds: the offset, and the doubt, which is how far off it can be at most: half of that exchange, Infinity
 *   where there was none.
 */
export function clockOf(
  exchanges: readonly { readonly sent: number; readonly now: number; readonly received: number }[],
): { readonly offset: number; readonly doubt: number } {
  let doubt = Infinity;
  let offset = 0;
  for (const { sent, now, received } of exchanges) {
    if ((received - sent) / 2 >= doubt) continue;
    doubt = (received - sent) / 2;
    offset = now - (sent + received) / 2;
  }
  return { offset, doubt };
}
