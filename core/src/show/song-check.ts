// What of a song will not come out as it was meant, in this rig: said before the night.

import { hitsOf, lengthOf, type Chase, type Look } from '../light';
import { barSpan, lookLanes, type Clip, type HitLane, type LookLane, type Song } from '../song';
import { barAt, beatAt, beatOfBar, tempoAt, timeAt } from '../time';
import { beats, seconds } from '../units';
import { rigInUse, type Show } from './schema';

/** Something to look at, at a bar; where it is about a whole lane, at none. */
export type SongRemark = { readonly bar: number | null; readonly text: string };

type Playable = Look | Chase;

/** Remarks on a song in the rig in use, by bars; at most `most`. Nothing of it is a fault: it may be wanted. */
export function songRemarks(show: Show, song: Song, most = 20): readonly SongRemark[] {
  const plays = new Map<string, Playable>([...show.looks, ...show.chases].map((one) => [one.id, one]));
  const cast = new Set(
    rigInUse(show).casting.flatMap(({ role, fixtures }) => (fixtures.length > 0 ? [role as string] : [])),
  );
  const clips = lookLanes(song).flatMap((lane) =>
    lane.clips.flatMap((clip, i) => clipRemarks(song, lane, clip, i, plays, cast)),
  );
  const lanes = song.lanes.flatMap((lane) => (lane.type === 'hits' ? hitRemarks(show, lane, cast) : []));
  const inOrder = clips.sort((a, b) => (a.bar ?? 0) - (b.bar ?? 0));
  return [...lanes, ...once(inOrder), ...endRemarks(song)].slice(0, most);
}

/** The same remark on many bars is one, at the first of them. */
function once(remarks: readonly SongRemark[]): readonly SongRemark[] {
  const times = new Map<string, { readonly bar: number | null; count: number }>();
  for (const { bar, text } of remarks) {
    const same = times.get(text);
    if (same) same.count++;
    else times.set(text, { bar, count: 1 });
  }
  return [...times].map(([text, { bar, count }]) => ({ bar, text: count > 1 ? `${text} ${count} times.` : text }));
}

const tidy = (number: number): string => String(Math.round(number * 100) / 100);
const counted = (number: number, word: string): string => `${tidy(number)} ${word}${number === 1 ? '' : 's'}`;

function clipRemarks(
  song: Song,
  { clips }: LookLane,
  clip: Clip,
  index: number,
  plays: ReadonlyMap<string, Playable>,
  cast: ReadonlySet<string>,
): readonly SongRemark[] {
  const play = clip.look ? plays.get(clip.look) : undefined;
  if (!play) return [];
  const { bar } = barAt(song.meter, clip.from);
  const length = clip.to - clip.from;
  const fadeIn = clip.fadeIn ?? play.fadeIn;
  // Where another clip follows at once it takes over, and this one has no fade out.
  const joined = clips[index + 1] !== undefined && clips[index + 1]!.from - clip.to < 1e-3;
  const fades = fadeIn + (joined ? 0 : (clip.fadeOut ?? play.fadeOut));
  const found: SongRemark[] = [];
  // Without a fade in it is full as it begins.
  if (fadeIn > 0 && fades > length + 1e-6)
    found.push({
      bar,
      text: `${play.name} lasts ${counted(length, 'beat')}, and its fades take ${tidy(fades)}: it is never full.`,
    });
  const roles = rolesIn(play, plays);
  if (roles.length > 0 && !roles.some((role) => cast.has(role)))
    found.push({ bar, text: `${play.name} lights no lamp in this rig: nobody plays its roles.` });
  const left = darkBeats(song, clip, play);
  if (left > 1e-3)
    found.push({ bar, text: `${play.name} stops before its bars do: the last ${counted(left, 'beat')} are dark.` });
  return found;
}

/** Roles that a look, or a chase with the looks of its steps, speaks to; none where it speaks to single lamps. */
function rolesIn(play: Playable, plays: ReadonlyMap<string, Playable>): readonly string[] {
  const looks = 'steps' in play ? play.steps.map(({ look }) => (look ? plays.get(look) : undefined)) : [play];
  const values = [
    ...looks.flatMap((one) => (one && 'values' in one ? one.values : [])),
    ...('steps' in play ? play.steps.flatMap((step) => step.values) : []),
  ];
  return values.some(({ lamps }) => lamps) ? [] : [...new Set(values.flatMap(({ role }) => role ?? []))];
}

/** Beats at the end of a clip in which its chase has come to its end; 0 or less where it goes on. */
export function darkBeats(song: Song, clip: Clip, play: Playable): number {
  if (!('steps' in play)) return 0;
  const length = lengthOf(play);
  const pace = play.pace === 'seconds' ? tempoAt(song.tempo, timeAt(song.tempo, clip.from)) / 60 : 1;
  return clip.to - clip.from - length * pace;
}

function hitRemarks(show: Show, lane: HitLane, cast: ReadonlySet<string>): readonly SongRemark[] {
  const { name, notes } = lane;
  if (notes.length === 0) return [];
  const kit = show.kits.find(({ id }) => id === lane.kit);
  if (!kit) return [{ bar: null, text: `Lane ${name}: its hit kit is gone. Choose another in Lanes.` }];
  if (!cast.has(lane.role)) return [{ bar: null, text: `Lane ${name}: no lamp plays its role in this rig.` }];
  const silent = notes.filter(({ note }) => hitsOf(kit, note).length === 0).length;
  return silent > 0 ? [{ bar: null, text: `Lane ${name}: nothing answers to ${counted(silent, 'note')}.` }] : [];
}

/** So many bars without light at the end are an ending: the music rings out. */
const RINGS_OUT = 2;

function endRemarks(song: Song): readonly SongRemark[] {
  const ends = song.lanes.flatMap((lane) =>
    lane.type === 'looks'
      ? lane.clips.map(({ to }) => to)
      : lane.type === 'hits'
        ? lane.notes.map(({ at, length }) => at + length)
        : [],
  );
  if (ends.length === 0) return [];
  const found: SongRemark[] = [];
  const { last } = barSpan(song);
  const light = ends.reduce((most, end) => Math.max(most, end), -Infinity);
  const end = beatAt(song.tempo, seconds(song.duration));
  const dark = barAt(song.meter, beats(light)).bar;
  if (light < beatOfBar(song.meter, last - RINGS_OUT + 1) - 1e-6)
    found.push({ bar: dark, text: `There is no light from bar ${dark + 1} on; the music goes on to bar ${last + 1}.` });
  const behind = lookLanes(song).flatMap(({ clips }) => clips.filter(({ from }) => from >= end)).length;
  if (behind > 0)
    found.push({
      bar: null,
      text: `${counted(behind, 'clip')} ${behind === 1 ? 'lies' : 'lie'} behind the end of the music.`,
    });
  return found;
}
