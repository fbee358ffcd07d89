// Banks: looks and chases as pads, in the order in which one goes through them.

import { z } from 'zod';
import { Acts } from '../gig/act';
import { idOf, Name } from '../rig/schema';
import { PRESSES } from './presses';
import type { Chase, Look } from './schema';

export const Pad = z.strictObject({
  /** A look or a chase. */
  look: idOf<'Look'>(),
  press: z.enum(PRESSES).default('toggle'),
  /** Of the pads with the same number, one is on at a time. */
  group: z.number().int().min(1).max(8).optional(),
  /** Left out when one goes on to the next. */
  skip: z.boolean().optional(),
  /** It waits for the next beat or bar line, and is armed until then. */
  waits: z.enum(['beat', 'bar']).optional(),
  /** What else is done when it is pressed. */
  also: Acts.optional(),
});
export type Pad = z.infer<typeof Pad>;

/** What comes after the last pad: nothing, the first again, or the first of the next bank. */
export const BANK_ENDS = ['stop', 'wrap', 'next'] as const;

export const Bank = z.strictObject({
  id: idOf<'Bank'>(),
  name: Name,
  pads: z.array(Pad).max(200),
  end: z.enum(BANK_ENDS).default('stop'),
});
export type Bank = z.infer<typeof Bank>;

type Banked = {
  readonly banks: readonly Bank[];
  readonly looks: readonly Look[];
  readonly chases: readonly Chase[];
};

/** The banks of a show; one of everything by its number, where nobody made any. */
export function banksOf({ banks, looks, chases }: Banked): readonly Bank[] {
  if (banks.length > 0) return banks;
  const all = [...looks, ...chases].sort((a, b) => a.number - b.number);
  const pads = all.slice(0, 200).map(({ id }) => Pad.parse({ look: id }));
  return [Bank.parse({ id: 'all', name: 'All looks', pads })];
}

export type Place = { readonly bank: Bank; readonly pad: Pad };

/**
 * The pad that comes next, or before, skipping those left out; undefined where it ends.
 * @param at the look one is at; where it is not in the bank, next is the first and previous the last.
 */
export function padAfter(banks: readonly Bank[], bank: Bank, at: string | null, way: 1 | -1): Place | undefined {
  const played = bank.pads.filter(({ skip, look }) => !skip || look === at);
  const from = played.findIndex(({ look }) => look === at);
  const goal = from < 0 ? (way > 0 ? 0 : played.length - 1) : from + way;
  const pad = played[goal];
  if (pad && !pad.skip) return { bank, pad };
  if (bank.end === 'stop' || played.length === 0) return undefined;
  const place = banks.findIndex(({ id }) => id === bank.id);
  const after = bank.end === 'next' ? banks[place + way] : bank;
  const pads = after?.pads.filter(({ skip }) => !skip) ?? [];
  const edge = way > 0 ? pads[0] : pads.at(-1);
  return after && edge ? { bank: after, pad: edge } : undefined;
}
