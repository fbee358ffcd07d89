// Every change to a show has a name and is plain data. What it changed is told by ops, which can be taken back.

import type { Draft } from 'immer';
import { z } from 'zod';
import { changed, laid, OpsShape, put, remove, type Ops } from '../change';
import { Casting, Fixture, Name, Role, Profile, Rig, idOf } from '../rig/schema';
import { applyToRig, RIG_COMMANDS } from './rig-edits';
import { applyToLooks, LOOK_COMMANDS } from './look-edits';
import { applyToGig, GIG_COMMANDS } from './gig-edits';
import { applyToLanes, LANE_COMMANDS } from './lane-edits';
import { applyToSongs, SONG_COMMANDS } from './song-edits';
import { Safety, type Show } from './schema';

const SIMPLE = [
  z.strictObject({ type: z.literal('rename-show'), name: Name }),
  z.strictObject({ type: z.literal('set-safety'), safety: Safety }),
  z.strictObject({ type: z.literal('add-profile'), profile: Profile }),
  z.strictObject({ type: z.literal('add-rig'), rig: Rig }),
  z.strictObject({ type: z.literal('choose-rig'), rig: idOf<'Rig'>() }),
  z.strictObject({ type: z.literal('patch-fixtures'), rig: idOf<'Rig'>(), fixtures: z.array(Fixture).min(1) }),
  /** Lamps of one type, the type itself where the show has it not, and the role they are cast in. */
  z.strictObject({
    type: z.literal('add-lamps'),
    rig: idOf<'Rig'>(),
    profile: Profile,
    fixtures: z.array(Fixture).min(1).max(512),
    role: Role,
  }),
  z.strictObject({ type: z.literal('remove-lamps'), rig: idOf<'Rig'>(), fixtures: z.array(idOf<'Fixture'>()).min(1) }),
  z.strictObject({ type: z.literal('add-role'), role: Role }),
  z.strictObject({ type: z.literal('cast-role'), rig: idOf<'Rig'>(), casting: Casting }),
  ...RIG_COMMANDS,
  ...LOOK_COMMANDS,
  ...GIG_COMMANDS,
  ...SONG_COMMANDS,
  ...LANE_COMMANDS,
] as const;

type Simple = z.infer<(typeof SIMPLE)[number]>;

/**
 * Values as somebody saw and changed them, and what takes a change back: laid on only where they still stand as they
 * were seen. `of` is what was done, for its words.
 */
const Adjust = z.strictObject({ type: z.literal('adjust'), of: z.string().min(1).max(40), ops: OpsShape });

/** What a user can do to a show. Each member is named by what was done. */
export const Command = z.discriminatedUnion('type', [
  ...SIMPLE,
  Adjust,
  /** Several that are one act; it is called by the name of the first. */
  z.strictObject({
    type: z.literal('together'),
    commands: z
      .array(z.discriminatedUnion('type', [...SIMPLE, Adjust]))
      .min(1)
      .max(500),
  }),
]);
export type Command = z.infer<typeof Command>;
/** One that can be a part of several. */
export type OneCommand = Exclude<Command, { type: 'together' }>;

/** What was done, in one word of the list above; "one-" before it where several could have been meant and one was. */
export function nameOf(command: Command): string {
  switch (command.type) {
    case 'adjust':
      return command.of;
    case 'together':
      return nameOf(command.commands[0]!);
    case 'move-clips':
    case 'change-clips':
    case 'remove-clips':
      return one(command.type, command.clips);
    case 'put-notes':
    case 'remove-notes':
      return one(command.type, command.notes);
    case 'remove-points':
      return one(command.type, command.points);
    case 'put-actions':
    case 'remove-actions':
      return one(command.type, command.actions);
    case 'patch-fixtures':
    case 'remove-lamps':
    case 'add-lamps':
      return one(command.type, command.fixtures);
    default:
      return command.type;
  }
}

const one = (type: string, of: readonly unknown[]): string => (of.length === 1 ? `one-${type}` : type);

export type Edited = {
  readonly show: Show;
  /** What it changed; none where it found nothing to do. */
  readonly ops: Ops;
  /** What of an adjustment did not fit any more. */
  readonly missed: Ops;
};

/** The show after a command. A command that names something that is gone changes nothing. Pure: the same everywhere. */
export function edit(show: Show, command: Command): Edited {
  if (command.type === 'adjust') {
    const { after, missed } = laid(show, command.ops);
    const gone = new Set(missed);
    return { show: after, ops: command.ops.filter((op) => !gone.has(op)), missed };
  }
  if (command.type === 'together') {
    let all: Edited = { show, ops: [], missed: [] };
    for (const one of command.commands) {
      const next = edit(all.show, one);
      all = { show: next.show, ops: [...all.ops, ...next.ops], missed: [...all.missed, ...next.missed] };
    }
    return all;
  }
  const { after, ops } = changed(show, (draft) => apply(draft, command));
  return { show: after, ops, missed: [] };
}

/** Commands that put values in the place of others: two people who do that at once must not overwrite one another. */
const OVERWRITES: ReadonlySet<Simple['type']> = new Set<Simple['type']>([
  'rename-show',
  'set-safety',
  'add-profile',
  'patch-fixtures',
  'add-role',
  'cast-role',
  'rename-rig',
  'put-shape',
  'set-picture',
  'rename-role',
  'add-aim',
  'store-look',
  'store-chase',
  'store-kit',
  'store-bank',
  'rename-song',
  'mark-section',
  'fade-clip',
  'change-clip',
  'set-lane',
  'set-bars',
  'set-sections',
  'set-ending',
  'choose-rig',
  'set-music',
  'set-tracks',
  'set-markers',
  'store-set',
  'choose-set',
  'store-pedal',
  'store-control',
  'know-track',
  'choose-unknown',
]);

/**
 * A command as it travels: where it overwrites values it becomes the very values that differ from those its author saw.
 * All others (laying a clip, removing a look) are worked out anew on whatever the show has become.
 */
export function travelling(show: Show, command: Command): Command {
  if (command.type !== 'together') return travellingAlone(show, command);
  let seen = show;
  const commands = command.commands.map((one) => {
    const travels = travellingAlone(seen, one);
    seen = edit(seen, one).show;
    return travels;
  });
  return { type: 'together', commands };
}

function travellingAlone(show: Show, command: OneCommand): OneCommand {
  if (command.type === 'adjust' || !OVERWRITES.has(command.type)) return command;
  return { type: 'adjust', of: command.type, ops: [...edit(show, command).ops] };
}

function apply(show: Draft<Show>, command: Simple): void {
  switch (command.type) {
    case 'rename-show':
      show.name = command.name;
      return;
    case 'set-safety':
      show.safety = command.safety;
      return;
    case 'add-profile':
      return put(show.profiles, command.profile);
    case 'add-rig':
      return put(show.rigs, command.rig);
    case 'choose-rig':
      if (show.rigs.some((rig) => rig.id === command.rig)) show.rig = command.rig;
      return;
    case 'patch-fixtures': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      if (rig) for (const fixture of command.fixtures) put(rig.fixtures, fixture);
      return;
    }
    case 'add-lamps': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      if (!rig) return;
      if (!show.profiles.some((profile) => profile.id === command.profile.id)) show.profiles.push(command.profile);
      if (!show.roles.some((role) => role.id === command.role.id)) show.roles.push(command.role);
      for (const fixture of command.fixtures) put(rig.fixtures, fixture);
      const cast = rig.casting.find((casting) => casting.role === command.role.id);
      const ids = command.fixtures.map((fixture) => fixture.id);
      if (cast) cast.fixtures.push(...ids.filter((id) => !cast.fixtures.includes(id)));
      else rig.casting.push({ role: command.role.id, fixtures: ids });
      return;
    }
    case 'remove-lamps': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      if (!rig) return;
      for (const gone of command.fixtures) {
        remove(rig.fixtures, gone);
        for (const casting of rig.casting) {
          const at = casting.fixtures.indexOf(gone);
          if (at >= 0) casting.fixtures.splice(at, 1);
        }
      }
      return;
    }
    case 'add-role':
      return put(show.roles, command.role);
    case 'cast-role': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      const at = rig?.casting.findIndex((casting) => casting.role === command.casting.role) ?? -1;
      if (at >= 0) rig!.casting[at] = command.casting;
      else rig?.casting.push(command.casting);
      return;
    }
    case 'store-look':
    case 'store-bank':
    case 'remove-bank':
    case 'store-kit':
    case 'remove-kit':
    case 'store-chase':
    case 'remove-look':
    case 'move-look':
      return applyToLooks(show, command);
    case 'store-set':
    case 'remove-set':
    case 'choose-set':
    case 'store-pedal':
    case 'remove-pedal':
    case 'store-control':
    case 'remove-control':
    case 'move-control':
    case 'store-event':
    case 'remove-event':
    case 'know-track':
    case 'forget-track':
    case 'choose-unknown':
      return applyToGig(show, command);
    case 'add-song':
    case 'remove-song':
    case 'rename-song':
    case 'set-music':
    case 'set-tracks':
    case 'set-markers':
    case 'set-passage':
    case 'set-ending':
    case 'move-song':
    case 'scale-tempo':
    case 'shift-bars':
    case 'move-bars':
    case 'set-meter':
    case 'steady-tempo':
    case 'set-bars':
    case 'set-sections':
    case 'mark-section':
    case 'unmark-section':
      return applyToSongs(show, command);
    case 'add-lane':
    case 'remove-lane':
    case 'move-lane':
    case 'set-lane':
    case 'lay-clip':
    case 'clear-bars':
    case 'copy-bars':
    case 'shift-light':
    case 'swap-bars':
    case 'fade-clip':
    case 'change-clip':
    case 'move-clip':
    case 'move-clips':
    case 'remove-clips':
    case 'change-clips':
    case 'put-actions':
    case 'remove-actions':
    case 'put-notes':
    case 'remove-notes':
    case 'put-points':
    case 'remove-points':
    case 'draw-curve':
      return applyToLanes(show, command);
    default:
      return applyToRig(show, command);
  }
}
