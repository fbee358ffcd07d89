// What a screen and its conductor say to each other: the same words for a worker and for a socket.

import { z } from 'zod';
import { seconds } from '../units';
import { Action, Entry } from './actions';
import { LiveState } from './state';

/** Raised when a message changes its meaning; both sides name theirs in their first one. */
export const PROTOCOL = 6;

/** A show on the wire is checked by `readShow` where it is taken in, so that a problem can be put in words. */
const ShowJson = z.record(z.string(), z.unknown());
const PatchShape = z.strictObject({
  op: z.enum(['add', 'replace', 'remove']),
  path: z.array(z.union([z.string().max(80), z.number().int().min(0)])).max(20),
  value: z.unknown().optional(),
});

/** How many edits a show has seen: of two copies of a show, the one with more is the later. */
const Revision = z.number().int().min(0);

export const FromScreen = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('hello'),
    protocol: z.literal(PROTOCOL),
    screen: z.string().min(1).max(60),
    /** The show this screen has open, if any. */
    show: z.strictObject({ id: z.string().max(80), revision: Revision }).nullable(),
    /** The last entry it has seen, to get only the tail. */
    seq: z.number().int().min(0).optional(),
  }),
  z.strictObject({ type: z.literal('ping'), sent: z.number() }),
  z.strictObject({ type: z.literal('act'), action: Action }),
  z.strictObject({ type: z.literal('show'), show: ShowJson, revision: Revision }),
  z.strictObject({ type: z.literal('edit'), patches: z.array(PatchShape).max(20000), revision: Revision }),
  /** A change to the connections of the conductor's computer. */
  z.strictObject({ type: z.literal('connections-edit'), patches: z.array(PatchShape).max(2000), revision: Revision }),
  /** Wants to see the levels of a universe as they go out; null for none any more. */
  z.strictObject({ type: z.literal('watch'), universe: z.number().int().min(1).max(63999).nullable() }),
]);
export type FromScreen = z.input<typeof FromScreen>;

export const ToScreen = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('welcome'),
    protocol: z.literal(PROTOCOL),
    now: z.number().transform(seconds),
    state: LiveState,
    /** The show the conductor plays, if any. */
    show: z.strictObject({ id: z.string(), revision: Revision }).nullable(),
  }),
  z.strictObject({ type: z.literal('pong'), sent: z.number(), now: z.number().transform(seconds) }),
  z.strictObject({ type: z.literal('entries'), entries: z.array(Entry) }),
  z.strictObject({ type: z.literal('show'), show: ShowJson, revision: Revision }),
  z.strictObject({ type: z.literal('edit'), patches: z.array(PatchShape), revision: Revision }),
  z.strictObject({
    type: z.literal('connections'),
    connections: z.record(z.string(), z.unknown()),
    revision: Revision,
  }),
  /** 512 levels of one universe as they leave, two hexadecimal digits each. */
  z.strictObject({
    type: z.literal('levels'),
    universe: z.number(),
    levels: z.string().length(1024),
    /** Another program's light is in them, so no screen can compute them by itself. */
    merged: z.boolean(),
  }),
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
 * Best guess of the conductor's clock minus our own, from ping exchanges. The exchange with the shortest way there and
 * back counts, as its halves differ least (D. L. Mills, RFC 5905, clause 10: clock filter).
 */
export function clockOffset(
  exchanges: readonly { readonly sent: number; readonly now: number; readonly received: number }[],
): number {
  let best = Infinity;
  let offset = 0;
  for (const { sent, now, received } of exchanges) {
    if (received - sent >= best) continue;
    best = received - sent;
    offset = now - (sent + received) / 2;
  }
  return offset;
}
