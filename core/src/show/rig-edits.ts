// What a user can do to rooms, parts, aims and types beside adding and changing lamps.

import type { Draft } from 'immer';
import { z } from 'zod';
import { put, remove } from '../change/change';
import { never } from '../problem';
import { Aim, Casting, Name, Picture, Shape, idOf, type Rig } from '../rig/schema';
import type { Look } from '../light/schema';
import type { Show } from './schema';

const inRig = { rig: idOf<'Rig'>() };
const aPart = { part: idOf<'Part'>() };

export const RIG_COMMANDS = [
  z.strictObject({ type: z.literal('rename-rig'), ...inRig, name: Name }),
  /** The last rig of a show stays. */
  z.strictObject({ type: z.literal('remove-rig'), ...inRig }),
  /** Another room comes into use, with everybody's parts there. */
  z.strictObject({ type: z.literal('recast'), ...inRig, casting: z.array(Casting).max(200) }),
  z.strictObject({ type: z.literal('put-shape'), ...inRig, shape: Shape }),
  z.strictObject({ type: z.literal('remove-shape'), ...inRig, shape: idOf<'Shape'>() }),
  z.strictObject({ type: z.literal('set-picture'), ...inRig, picture: Picture.nullable() }),
  z.strictObject({ type: z.literal('rename-part'), ...aPart, name: Name }),
  /** In no rig and in no look any more; what looks say to it goes with it. */
  z.strictObject({ type: z.literal('remove-part'), ...aPart }),
  /** One part goes into another, in every rig and in every look; where both speak, the one that stays is heard. */
  z.strictObject({ type: z.literal('merge-parts'), ...aPart, into: idOf<'Part'>() }),
  z.strictObject({ type: z.literal('move-part'), ...aPart, to: z.number().int().min(0) }),
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
    case 'rename-part': {
      const part = show.parts.find((candidate) => candidate.id === command.part);
      if (part) part.name = command.name;
      return;
    }
    case 'remove-part':
      remove(show.parts, command.part);
      for (const room of show.rigs) room.casting = room.casting.filter((cast) => cast.part !== command.part);
      for (const spoken of spokenIn(show)) spoken.values = spoken.values.filter(({ part }) => part !== command.part);
      for (const kit of show.kits) kit.channels = kit.channels.filter(({ part }) => part !== command.part);
      return;
    case 'merge-parts':
      return mergeParts(show, command);
    case 'move-part': {
      const from = show.parts.findIndex((part) => part.id === command.part);
      const [moved] = from >= 0 ? show.parts.splice(from, 1) : [];
      if (moved) show.parts.splice(command.to, 0, moved);
      return;
    }
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
  rig.casting = casting.map(({ part, fixtures }) => ({ part, fixtures: fixtures.filter((id) => lamps.has(id)) }));
  show.rig = rig.id;
}

function mergeParts(show: Draft<Show>, { part, into }: { part: string; into: string }): void {
  const kept = show.parts.find((candidate) => candidate.id === into);
  if (!kept || part === into || !show.parts.some((candidate) => candidate.id === part)) return;
  for (const rig of show.rigs) {
    const gone = rig.casting.find((cast) => cast.part === part);
    if (!gone) continue;
    const cast = rig.casting.find((one) => one.part === into);
    if (cast) cast.fixtures.push(...gone.fixtures.filter((fixture) => !cast.fixtures.includes(fixture)));
    else rig.casting.push({ part: kept.id, fixtures: gone.fixtures });
    rig.casting = rig.casting.filter((one) => one.part !== part);
  }
  for (const spoken of spokenIn(show)) {
    const heard = spoken.values.some((value) => value.part === into);
    spoken.values = spoken.values.flatMap((value) => {
      if (value.part !== part) return [value];
      return heard ? [] : [{ ...value, part: kept.id }];
    });
  }
  for (const kit of show.kits)
    kit.channels = kit.channels.map((one) => (one.part === part ? { ...one, part: kept.id } : one));
  remove(show.parts, part);
}

/** Everything that says something to parts: looks, and the steps of chases. */
function spokenIn(show: Draft<Show>): readonly { values: Draft<Look>['values'] }[] {
  return [...show.looks, ...show.chases.flatMap((chase) => chase.steps)];
}
