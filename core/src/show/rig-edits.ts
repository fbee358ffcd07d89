// What a user can do to rooms, roles, aims and types beside adding and changing lamps.

import type { Draft } from 'immer';
import { z } from 'zod';
import { moveBefore, put, remove } from '../change';
import { never } from '../problem';
import { Aim, Casting, Name, Picture, Shape, idOf, type Rig, type Role } from '../rig/schema';
import type { Look } from '../light/schema';
import { forgotten, rolesOnControls } from './gig-edits';
import type { Show } from './schema';

const inRig = { rig: idOf<'Rig'>() };
const aRole = { role: idOf<'Role'>() };

export const RIG_COMMANDS = [
  z.strictObject({ type: z.literal('rename-rig'), ...inRig, name: Name }),
  /** The last rig of a show stays. */
  z.strictObject({ type: z.literal('remove-rig'), ...inRig }),
  /** Another room comes into use, with everybody's roles there. */
  z.strictObject({ type: z.literal('recast'), ...inRig, casting: z.array(Casting).max(200) }),
  z.strictObject({ type: z.literal('put-shape'), ...inRig, shape: Shape }),
  z.strictObject({ type: z.literal('remove-shape'), ...inRig, shape: idOf<'Shape'>() }),
  z.strictObject({ type: z.literal('set-picture'), ...inRig, picture: Picture.nullable() }),
  z.strictObject({ type: z.literal('rename-role'), ...aRole, name: Name }),
  /** In no rig and in no look any more; what looks say to it goes with it. */
  z.strictObject({ type: z.literal('remove-role'), ...aRole }),
  /** One role goes into another, in every rig and in every look; where both set something, the one that stays counts. */
  z.strictObject({ type: z.literal('merge-roles'), ...aRole, into: idOf<'Role'>() }),
  /** To stand before another role; null is the end. */
  z.strictObject({ type: z.literal('move-role'), ...aRole, before: idOf<'Role'>().nullable() }),
  z.strictObject({ type: z.literal('add-aim'), aim: Aim }),
  z.strictObject({ type: z.literal('remove-aim'), aim: idOf<'Aim'>() }),
  /** A type that no lamp of any rig uses. */
  z.strictObject({ type: z.literal('remove-profile'), profile: idOf<'Profile'>() }),
] as const;
export type RigCommand = z.infer<(typeof RIG_COMMANDS)[number]>;

export function applyToRig(show: Draft<Show>, command: RigCommand): void {
  const rig = 'rig' in command ? show.rigs.find((candidate) => candidate.id === command.rig) : undefined;
  switch (command.type) {
    case 'rename-rig':
      if (rig) rig.name = command.name;
      return;
    case 'remove-rig':
      if (show.rigs.length < 2) return;
      remove(show.rigs, command.rig);
      if (show.rig === command.rig) show.rig = show.rigs[0]!.id;
      return;
    case 'recast':
      return recast(show, rig, command.casting);
    case 'put-shape':
      return rig && put(rig.shapes, command.shape);
    case 'remove-shape':
      return rig && remove(rig.shapes, command.shape);
    case 'set-picture':
      if (rig && command.picture) rig.picture = command.picture;
      else if (rig) delete rig.picture;
      return;
    case 'rename-role': {
      const role = show.roles.find((candidate) => candidate.id === command.role);
      if (role) role.name = command.name;
      return;
    }
    case 'remove-role':
      remove(show.roles, command.role);
      for (const room of show.rigs) room.casting = room.casting.filter((cast) => cast.role !== command.role);
      for (const play of playsIn(show)) play.values = play.values.filter(({ role }) => role !== command.role);
      for (const kit of show.kits) kit.channels = kit.channels.filter(({ role }) => role !== command.role);
      forgotten(show, 'role', command.role);
      return rolesOnLanes(show, command.role, null);
    case 'merge-roles':
      return mergeRoles(show, command);
    case 'move-role':
      return void moveBefore(show.roles, command.role, command.before);
    case 'add-aim':
      return put(show.aims, command.aim);
    case 'remove-aim':
      return remove(show.aims, command.aim);
    case 'remove-profile':
      if (show.rigs.some((room) => room.fixtures.some((fixture) => fixture.profile === command.profile))) return;
      return remove(show.profiles, command.profile);
    default:
      return never(command);
  }
}

function recast(show: Draft<Show>, rig: Draft<Rig> | undefined, casting: readonly Casting[]): void {
  if (!rig) return;
  const lamps = new Set(rig.fixtures.map((fixture) => fixture.id));
  rig.casting = casting.map(({ role, fixtures }) => ({ role, fixtures: fixtures.filter((id) => lamps.has(id)) }));
  show.rig = rig.id;
}

function mergeRoles(show: Draft<Show>, { role, into }: { role: string; into: string }): void {
  const kept = show.roles.find((candidate) => candidate.id === into);
  if (!kept || role === into || !show.roles.some((candidate) => candidate.id === role)) return;
  for (const rig of show.rigs) {
    const gone = rig.casting.find((cast) => cast.role === role);
    if (!gone) continue;
    const cast = rig.casting.find((one) => one.role === into);
    if (cast) cast.fixtures.push(...gone.fixtures.filter((fixture) => !cast.fixtures.includes(fixture)));
    else rig.casting.push({ role: kept.id, fixtures: gone.fixtures });
    rig.casting = rig.casting.filter((one) => one.role !== role);
  }
  for (const play of playsIn(show)) {
    const heard = play.values.some((value) => value.role === into);
    play.values = play.values.flatMap((value) => {
      if (value.role !== role) return [value];
      return heard ? [] : [{ ...value, role: kept.id }];
    });
  }
  for (const kit of show.kits)
    kit.channels = kit.channels.map((one) => (one.role === role ? { ...one, role: kept.id } : one));
  rolesOnLanes(show, role, kept.id);
  rolesOnControls(show, role, kept.id);
  remove(show.roles, role);
}

/**
 * What lanes of songs say to a role they say to another; null: to none. A filter of that role alone lets nothing
 * through, rather than all, when it is gone.
 */
function rolesOnLanes(show: Draft<Show>, role: string, into: Role['id'] | null): void {
  for (const lane of show.songs.flatMap(({ lanes }) => lanes)) {
    if (lane.type === 'looks' && lane.only?.roles?.some((one) => one === role)) {
      const others = lane.only.roles.filter((one) => one !== role && one !== into);
      const left = into === null ? others : [...others, into];
      if (left.length > 0) lane.only.roles = left;
    }
    if (into !== null && lane.type === 'hits' && lane.role === role) lane.role = into;
    if (into !== null && lane.type === 'curve' && lane.target.on === 'role' && lane.target.role === role)
      lane.target.role = into;
    if (lane.type === 'actions')
      lane.actions = lane.actions.flatMap((action) => {
        if (!('role' in action.does) || action.does.role !== role) return [action];
        return into === null ? [] : [{ ...action, does: { ...action.does, role: into } }];
      });
  }
}

/** Everything that says something to roles: looks, and the steps of chases. */
function playsIn(show: Draft<Show>): readonly { values: Draft<Look>['values'] }[] {
  return [...show.looks, ...show.chases.flatMap((chase) => chase.steps)];
}
