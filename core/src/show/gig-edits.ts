// What a user can do to set lists, pedals and controls; and what these forget when something they name is removed.

import type { Draft } from 'immer';
import { z } from 'zod';
import { moveBefore, put, remove } from '../change';
import type { Act } from '../gig/act';
import { Control, GESTURES, Pedal, type Does, type FaderControl } from '../gig/control';
import { TimedEvent } from '../gig/event';
import { KnownTrack, MOST_KNOWN, sameTrack } from '../gig/known-track';
import { SetList } from '../gig/set';
import { never } from '../problem';
import { idOf } from '../rig/schema';
import type { Show } from './schema';

export const GIG_COMMANDS = [
  z.strictObject({ type: z.literal('store-set'), set: SetList }),
  z.strictObject({ type: z.literal('remove-set'), set: idOf<'Set'>() }),
  /** Tonight's. */
  z.strictObject({ type: z.literal('choose-set'), set: idOf<'Set'>() }),
  z.strictObject({ type: z.literal('store-pedal'), pedal: Pedal }),
  /** With its switches. */
  z.strictObject({ type: z.literal('remove-pedal'), pedal: idOf<'Pedal'>() }),
  z.strictObject({ type: z.literal('store-control'), control: Control }),
  z.strictObject({ type: z.literal('remove-control'), control: idOf<'Control'>() }),
  /** To stand before another; null is the end. */
  z.strictObject({ type: z.literal('move-control'), control: idOf<'Control'>(), before: idOf<'Control'>().nullable() }),
  z.strictObject({ type: z.literal('store-event'), event: TimedEvent }),
  z.strictObject({ type: z.literal('remove-event'), event: idOf<'Event'>() }),
  /** A track of a player is that song, or none. */
  z.strictObject({ type: z.literal('know-track'), known: KnownTrack }),
  z.strictObject({ type: z.literal('forget-track'), track: idOf<'KnownTrack'>() }),
  /** What comes on while a track plays that is none of the songs; null for nothing. */
  z.strictObject({ type: z.literal('choose-unknown'), look: idOf<'Look'>().nullable() }),
] as const;
export type GigCommand = z.infer<(typeof GIG_COMMANDS)[number]>;

export function applyToGig(show: Draft<Show>, command: GigCommand): void {
  switch (command.type) {
    case 'store-set':
      return put(show.sets, command.set);
    case 'remove-set':
      remove(show.sets, command.set);
      if (show.set === command.set) delete show.set;
      return;
    case 'choose-set':
      if (show.sets.some(({ id }) => id === command.set)) show.set = command.set;
      return;
    case 'store-pedal':
      return put(show.pedals, command.pedal);
    case 'remove-pedal':
      show.controls = show.controls.filter((one) => one.kind === 'fader' || one.pedal !== command.pedal);
      return remove(show.pedals, command.pedal);
    case 'store-control':
      return put(show.controls, command.control);
    case 'remove-control':
      return remove(show.controls, command.control);
    case 'move-control':
      return void moveBefore(show.controls, command.control, command.before);
    case 'store-event':
      return put(show.events, command.event);
    case 'remove-event':
      return remove(show.events, command.event);
    case 'know-track':
      return knowTrack(show, command.known);
    case 'forget-track':
      if (show.player) remove(show.player.tracks, command.track);
      return;
    case 'choose-unknown':
      show.player ??= { tracks: [] };
      if (command.look === null) delete show.player.unknown;
      else show.player.unknown = command.look;
      return;
    default:
      return never(command);
  }
}

/** The last word on a track counts; of too many the oldest is forgotten. */
function knowTrack(show: Draft<Show>, known: KnownTrack): void {
  show.player ??= { tracks: [] };
  const { tracks } = show.player;
  const before = tracks.findIndex((one) => sameTrack(one.track, known.track));
  if (before >= 0) tracks[before] = { ...known, id: tracks[before]!.id };
  else tracks.push(known);
  if (tracks.length > MOST_KNOWN) tracks.shift();
}

/** What can be removed while sets and controls name it. */
export type Named = 'look' | 'song' | 'bank' | 'kit' | 'role';

/** Whether an act cannot be done any more without what was removed. */
function names(act: Draft<Act>, kind: Named, gone: string): boolean {
  switch (act.act) {
    case 'look':
      return kind === 'look' && act.look === gone;
    case 'bank':
      return kind === 'bank' && act.bank === gone;
    case 'play':
      return kind === 'song' && act.song === gone;
    case 'master':
      return kind === 'role' && act.role === gone;
    case 'hit':
      return (kind === 'kit' && act.kit === gone) || (kind === 'role' && act.role === gone);
    case 'lamps':
    case 'choose':
      return kind === 'role' && act.role === gone;
    case 'hand':
      return kind === 'role' && act.values.every(({ role }) => role === gone);
    default:
      return false;
  }
}

/** Whether a knob moves what was removed. */
function moves({ turns }: Draft<FaderControl>, kind: Named, gone: string): boolean {
  if (turns.turn === 'speed') return kind === 'look' && turns.look === gone;
  return kind === 'role' && (turns.turn === 'master' || turns.turn === 'hand') && turns.role === gone;
}

/** Removes from sets, pads and controls what names something that is removed. Controls stay, and do less. */
export function forgotten(show: Draft<Show>, kind: Named, gone: string): void {
  const kept = (acts: Draft<Act>[]) =>
    acts.some((act) => names(act, kind, gone)) ? acts.filter((act) => !names(act, kind, gone)) : acts;
  for (const acts of everyActs(show)) acts.set(kept(acts.get()));
  const idle = (one: Draft<Control>) => one.kind === 'fader' && moves(one, kind, gone);
  if (show.controls.some(idle)) show.controls = show.controls.filter((one) => !idle(one));
  if (kind === 'role')
    for (const act of everyActs(show).flatMap((acts) => acts.get()))
      if (act.act === 'hand' && act.values.some(({ role }) => role === gone))
        act.values = act.values.filter(({ role }) => role !== gone);
  if (show.player && kind === 'song') show.player.tracks = show.player.tracks.filter(({ song }) => song !== gone);
  if (show.player && kind === 'look' && show.player.unknown === gone) delete show.player.unknown;
  if (kind === 'bank')
    for (const one of show.controls)
      if (one.kind === 'switch' && one.banks) one.banks = one.banks.filter(({ bank }) => bank !== gone);
  for (const set of show.sets) {
    const left = set.entries.filter(
      (entry) =>
        !(entry.kind === kind && (entry.kind === 'song' ? entry.song : entry.kind === 'look' && entry.look) === gone),
    );
    if (left.length < set.entries.length) set.entries = left;
    for (const entry of set.entries) {
      if (entry.kind !== 'song') continue;
      if (kind === 'bank' && entry.bank === gone) delete entry.bank;
      if (kind === 'look' && entry.start.with === 'look' && entry.start.look === gone) entry.start = { with: 'keep' };
    }
  }
}

/** Controls and pads name another role in the place of one. */
export function rolesOnControls(show: Draft<Show>, role: string, into: Show['roles'][number]['id']): void {
  for (const one of show.controls) {
    if (one.kind !== 'fader') continue;
    const { turns } = one;
    if ((turns.turn === 'master' || turns.turn === 'hand') && turns.role === role) turns.role = into;
  }
  for (const act of everyActs(show).flatMap((acts) => acts.get())) {
    if ((act.act === 'master' || act.act === 'hit' || act.act === 'lamps' || act.act === 'choose') && act.role === role)
      act.role = into;
    if (act.act === 'hand') for (const value of act.values) if (value.role === role) value.role = into;
  }
}

type ActList = { readonly get: () => Draft<Act>[]; readonly set: (acts: Draft<Act>[]) => void };

/** Each list of acts there is, to read and to replace. */
function everyActs(show: Draft<Show>): readonly ActList[] {
  const lists: ActList[] = [];
  const add = <Key extends string>(owner: Record<Key, Draft<Act>[]>, key: Key) =>
    lists.push({
      get: () => owner[key],
      set: (acts) => {
        if (acts !== owner[key]) owner[key] = acts;
      },
    });
  const addGestures = (does: Draft<Does>) => GESTURES.forEach((gesture) => add(does, gesture));
  for (const control of show.controls) {
    if (control.kind !== 'switch') continue;
    addGestures(control.does);
    for (const { does } of control.banks ?? []) addGestures(does);
  }
  for (const { pads } of show.banks) for (const pad of pads) if (has(pad, 'also')) add(pad, 'also');
  for (const event of show.events) {
    add(event, 'begins');
    add(event, 'ends');
  }
  return lists;
}

const has = <T extends object, Key extends keyof T>(
  owner: T,
  key: Key,
): owner is T & Record<Key, NonNullable<T[Key]>> => owner[key] !== undefined;
