// Every change to a show has a name and is plain data. Its inverse comes from the same place: patches.

import type { Draft } from 'immer';
import { z } from 'zod';
import { changed, put, remove, type ChangeOf } from '../change/change';
import { id, type Beats } from '../units';
import { Casting, Fixture, Name, Role, Profile, Rig, idOf } from '../rig/schema';
import { applyToRig, RIG_COMMANDS } from './rig-edits';
import { applyToLooks, LOOK_COMMANDS } from './look-edits';
import { Clip, Section, Song, type Lane } from '../song/schema';
import { clearedClips, laidClips } from '../song/lay';
import { Safety, type Show } from './schema';

export { patched } from '../change/change';

const inSong = { song: idOf<'Song'>() };
const onLane = { ...inSong, lane: idOf<'Lane'>() };

/** What a user can do to a show. Each member is named by what was done. */
export const Command = z.discriminatedUnion('type', [
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
  z.strictObject({ type: z.literal('add-song'), added: Song, at: z.number().int().min(0).optional() }),
  z.strictObject({ type: z.literal('remove-song'), ...inSong }),
  z.strictObject({ type: z.literal('rename-song'), ...inSong, title: Name }),
  z.strictObject({ type: z.literal('move-song'), ...inSong, to: z.number().int().min(0) }),
  z.strictObject({ type: z.literal('mark-section'), ...inSong, section: Section }),
  z.strictObject({ type: z.literal('unmark-section'), ...inSong, section: idOf<'Section'>() }),
  z.strictObject({ type: z.literal('lay-clip'), ...onLane, clip: Clip }),
  z.strictObject({ type: z.literal('clear-bars'), ...onLane, from: z.number(), to: z.number() }),
  z.strictObject({
    type: z.literal('fade-clip'),
    ...onLane,
    clip: idOf<'Clip'>(),
    fadeIn: z.number().min(0).max(256).optional(),
    fadeOut: z.number().min(0).max(256).optional(),
  }),
]);
export type Command = z.infer<typeof Command>;

export type Change = ChangeOf<Command['type']>;

/** The show after a command, and the change. A command that names something that is gone changes nothing. */
export function edit(show: Show, command: Command): { readonly show: Show; readonly change: Change } {
  const { after, change } = changed(show, command.type, (draft) => apply(draft, command));
  return { show: after, change };
}

function apply(show: Draft<Show>, command: Command): void {
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
    case 'add-song':
      if (!show.songs.some((song) => song.id === command.added.id))
        show.songs.splice(command.at ?? show.songs.length, 0, command.added);
      return;
    case 'remove-song':
      return remove(show.songs, command.song);
    case 'rename-song':
      return inThatSong(show, command.song, (song) => void (song.title = command.title));
    case 'move-song': {
      const from = show.songs.findIndex((song) => song.id === command.song);
      const [moved] = from >= 0 ? show.songs.splice(from, 1) : [];
      if (moved) show.songs.splice(command.to, 0, moved);
      return;
    }
    case 'mark-section':
      return inThatSong(show, command.song, (song) => {
        const others = song.sections.filter(
          (section) => section.id !== command.section.id && section.bar !== command.section.bar,
        );
        song.sections = [...others, command.section].sort((a, b) => a.bar - b.bar);
      });
    case 'unmark-section':
      return inThatSong(show, command.song, (song) => remove(song.sections, command.section));
    case 'lay-clip':
      return onThatLane(show, command, (lane) => {
        lane.clips = [...laidClips(lane.clips, command.clip, halfId)];
      });
    case 'clear-bars':
      return onThatLane(show, command, (lane) => {
        lane.clips = [...clearedClips(lane.clips, command.from as Beats, command.to as Beats, halfId)];
      });
    case 'fade-clip':
      return onThatLane(show, command, (lane) => {
        const clip = lane.clips.find((candidate) => candidate.id === command.clip);
        if (clip && command.fadeIn !== undefined) clip.fadeIn = command.fadeIn as Beats;
        if (clip && command.fadeOut !== undefined) clip.fadeOut = command.fadeOut as Beats;
      });
    default:
      return applyToRig(show, command);
  }
}

function inThatSong(show: Draft<Show>, song: string, change: (song: Draft<Song>) => void): void {
  const found = show.songs.find((candidate) => candidate.id === song);
  if (found) change(found);
}

function onThatLane(show: Draft<Show>, at: { song: string; lane: string }, change: (lane: Draft<Lane>) => void): void {
  inThatSong(show, at.song, (song) => {
    const lane = song.lanes.find((candidate) => candidate.id === at.lane);
    if (lane) change(lane);
  });
}

/** A clip cut in two keeps its id in front; the rear half's id follows from it and from where it was cut. */
function halfId(clip: Clip): Clip['id'] {
  return id<'Clip'>(`${clip.id.slice(0, 60)}/${Math.round(clip.to * 1000)}`);
}
