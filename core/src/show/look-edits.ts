// What a user can do to looks and chases.

import type { Draft } from 'immer';
import { z } from 'zod';
import { moveBefore, put, remove } from '../change';
import { never } from '../problem';
import { idOf } from '../rig/schema';
import { Bank } from '../light/bank';
import { Kit } from '../light/hit';
import { Chase, Look } from '../light/schema';
import { forgotten } from './gig-edits';
import type { Show } from './schema';

export const LOOK_COMMANDS = [
  z.strictObject({ type: z.literal('store-look'), look: Look }),
  z.strictObject({ type: z.literal('store-chase'), chase: Chase }),
  /** A look or a chase. Clips and pads of it go too; steps of chases that stood on it keep what it said. */
  z.strictObject({ type: z.literal('remove-look'), look: idOf<'Look'>() }),
  /** A look or a chase to stand before another of its like; null is the end. */
  z.strictObject({ type: z.literal('move-look'), look: idOf<'Look'>(), before: idOf<'Look'>().nullable() }),
  z.strictObject({ type: z.literal('store-kit'), kit: Kit }),
  z.strictObject({ type: z.literal('remove-kit'), kit: idOf<'Kit'>() }),
  z.strictObject({ type: z.literal('store-bank'), bank: Bank }),
  z.strictObject({ type: z.literal('remove-bank'), bank: idOf<'Bank'>() }),
] as const;
export type LookCommand = z.infer<(typeof LOOK_COMMANDS)[number]>;

export function applyToLooks(show: Draft<Show>, command: LookCommand): void {
  switch (command.type) {
    case 'store-look':
      return put(show.looks, command.look);
    case 'store-chase':
      return put(show.chases, command.chase);
    case 'remove-look':
      return removeLook(show, command.look);
    case 'move-look':
      if (!moveBefore(show.looks, command.look, command.before)) moveBefore(show.chases, command.look, command.before);
      return;
    case 'store-kit':
      return put(show.kits, command.kit);
    case 'remove-kit':
      forgotten(show, 'kit', command.kit);
      return void remove(show.kits, command.kit);
    case 'store-bank':
      return put(show.banks, command.bank);
    case 'remove-bank':
      forgotten(show, 'bank', command.bank);
      return void remove(show.banks, command.bank);
    default:
      return never(command);
  }
}

function removeLook(show: Draft<Show>, id: Look['id']): void {
  const gone = show.looks.find((look) => look.id === id);
  for (const chase of show.chases)
    for (const step of chase.steps)
      if (step.look === id) {
        step.values = [...(gone?.values ?? []), ...step.values].slice(-200);
        delete step.look;
      }
  for (const bank of show.banks) bank.pads = bank.pads.filter(({ look }) => look !== id);
  forgotten(show, 'look', id);
  remove(show.looks, id);
  remove(show.chases, id);
  for (const song of show.songs) if (song.ending?.then === 'look' && song.ending.look === id) delete song.ending;
  for (const song of show.songs)
    for (const lane of song.lanes)
      if (lane.type === 'looks') lane.clips = lane.clips.filter((clip) => clip.look !== id);
      else if (lane.type === 'actions')
        lane.actions = lane.actions.filter(({ does }) => !('look' in does) || does.look !== id);
}
