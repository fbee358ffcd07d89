// What of a song will not come out as it was meant, in this rig: said before the night.

import { counted, tidy } from '../counted';
import { hitsOf, leastFor, lengthOf, type Chase, type Hit, type Look } from '../light';
import { own } from '../own';
import { attributeOf, patchedFixtures, snaps } from '../rig';
import {
  barSpan,
  lookLanes,
  playingLanes,
  pointBefore,
  type Clip,
  type HitLane,
  type LookLane,
  type Song,
  MOST_STARTED,
  type ActionLane,
} from '../song';
import { barAt, beatAt, beatOfBar, tempoAt, timeAt } from '../time';
import { beats, seconds } from '../units';
import { rigInUse, type Show } from './schema';
import { rolesIn, valuesIn } from './roles-used';

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
  const lanes = song.lanes.flatMap((lane) =>
    lane.type === 'hits' ? hitRemarks(show, song, lane, cast) : lane.type === 'actions' ? startRemarks(lane) : [],
  );
  clips.push(...fightRemarks(song, plays), ...snapRemarks(show, song, plays));
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

/** So long two fades must meet to be seen, in beats. */
const SEEN = 0.25;

/**
 * A look that still goes out on one lane while another comes in over it on a second, on the same role: as neither is
 * full, the light dips between them. On one lane they would crossfade.
 */
function fightRemarks(song: Song, plays: ReadonlyMap<string, Playable>): readonly SongRemark[] {
  type Fade = {
    readonly lane: LookLane;
    readonly play: Playable;
    readonly roles: ReadonlySet<string>;
    readonly from: number;
    readonly to: number;
  };
  const [outs, ins]: [Fade[], Fade[]] = [[], []];
  for (const lane of playingLanes(lookLanes(song)))
    lane.clips.forEach((clip, i) => {
      const play = clip.look ? plays.get(clip.look) : undefined;
      if (!play) return;
      const only = lane.only?.roles;
      const roles = new Set(litRoles(play, plays).filter((role) => !only || only.some((one) => one === role)));
      const joined = lane.clips[i + 1] !== undefined && lane.clips[i + 1]!.from - clip.to < 1e-3;
      const follows = i > 0 && clip.from - lane.clips[i - 1]!.to < 1e-3;
      const fade = { lane, play, roles };
      if (!joined) outs.push({ ...fade, from: clip.to - (clip.fadeOut ?? play.fadeOut), to: clip.to });
      if (!follows) ins.push({ ...fade, from: clip.from, to: clip.from + (clip.fadeIn ?? play.fadeIn) });
    });
  ins.sort((a, b) => a.from - b.from);
  const starts = ins.map(({ from }) => from);
  return outs.flatMap((out) => {
    // Those that begin while it goes out.
    const first = pointBefore(starts, starts.length, out.from - 1e-9) + 1;
    for (let k = first; k < ins.length && ins[k]!.from < out.to - SEEN; k++) {
      const one = ins[k]!;
      const together = Math.min(out.to, one.to) - one.from;
      if (one.lane === out.lane || together < SEEN || ![...one.roles].some((role) => out.roles.has(role))) continue;
      const text = `${out.play.name} on ${out.lane.name} still goes out while ${one.play.name} comes in on ${one.lane.name}: the light dips between them.`;
      return [{ bar: barAt(song.meter, beats(one.from)).bar, text }];
    }
    return [];
  });
}

/** The roles whose level a look, or a chase with the looks of its steps, sets. */
function litRoles(play: Playable, plays: ReadonlyMap<string, Playable>): readonly string[] {
  return [...new Set(valuesIn(play, plays).flatMap(({ role, level }) => (role && level ? [role] : [])))];
}

/** Looks that fade in where something in them can only jump in this rig: gobos, wheels of colours, and what lamps say of their channels. */
function snapRemarks(show: Show, song: Song, plays: ReadonlyMap<string, Playable>): readonly SongRemark[] {
  const rig = rigInUse(show);
  const patched = new Map(patchedFixtures(rig, show.profiles).map((one) => [one.fixture.id as string, one]));
  const jumping = new Map(
    rig.casting.map(({ role, fixtures }) => {
      const channels = fixtures.flatMap((fixture) => patched.get(fixture)?.mode.channels ?? []);
      return [role as string, new Set(channels.filter(snaps).map(({ attribute }) => attribute))] as const;
    }),
  );
  const known = new Map<Playable, string | undefined>();
  const jumps = (play: Playable): string | undefined => {
    if (known.has(play)) return known.get(play);
    const found = valuesIn(play, plays).flatMap(({ role, gobo, colour, more }) => {
      const here = role && jumping.get(role);
      const names = [...(gobo ? ['Gobo1'] : []), ...(colour ? ['Color1'] : []), ...Object.keys(more ?? {})];
      return here ? names.filter((name) => here.has(name) && own(play.snaps, name) !== false) : [];
    });
    const text = found[0] && attributeOf(found[0]).name.toLowerCase();
    known.set(play, text);
    return text;
  };
  return lookLanes(song).flatMap(({ clips }) =>
    clips.flatMap((clip) => {
      const play = clip.look ? plays.get(clip.look) : undefined;
      // Only where a fade was asked for on this clip: a look's own usual fade says nothing about its gobo.
      const what = play && (clip.fadeIn ?? 0) > 0 ? jumps(play) : undefined;
      const { bar } = barAt(song.meter, clip.from);
      return what ? [{ bar, text: `${play!.name} fades in, but its ${what} jumps: this lamp cannot fade it.` }] : [];
    }),
  );
}

/** Beats at the end of a clip in which its chase has come to its end; 0 or less where it goes on. */
export function darkBeats(song: Song, clip: Clip, play: Playable): number {
  if (!('steps' in play)) return 0;
  const length = lengthOf(play);
  const pace = play.pace === 'seconds' ? tempoAt(song.tempo, timeAt(song.tempo, clip.from)) / 60 : 1;
  return clip.to - clip.from - length * pace;
}

/** How long a hit lasts, at so many seconds a beat. */
const secondsOf = ({ attack, hold, release }: Hit, pulse: number): number =>
  [attack, hold, release].reduce((sum, time) => sum + ('beats' in time ? time.beats * pulse : time.seconds), 0);

/** How long light must last to be seen on the quickest lamp of a role. */
function leastSeen(show: Show, role: string): number {
  const rig = rigInUse(show);
  const cast = new Set<string>(rig.casting.find((one) => one.role === role)?.fixtures);
  const lamps = patchedFixtures(rig, show.profiles).filter(({ fixture }) => cast.has(fixture.id));
  return lamps.reduce((least, { profile }) => Math.min(least, leastFor(profile.kind)), Infinity);
}

function hitRemarks(show: Show, song: Song, lane: HitLane, cast: ReadonlySet<string>): readonly SongRemark[] {
  const { name, notes } = lane;
  if (notes.length === 0) return [];
  const kit = show.kits.find(({ id }) => id === lane.kit);
  if (!kit) return [{ bar: null, text: `Lane ${name}: its hit kit is gone. Choose another in Lanes.` }];
  if (!cast.has(lane.role)) return [{ bar: null, text: `Lane ${name}: no lamp plays its role in this rig.` }];
  const pulse = 60 / tempoAt(song.tempo, timeAt(song.tempo, notes[0]!.at));
  const least = leastSeen(show, lane.role);
  const numbers = [...new Set(notes.map(({ note }) => note))];
  const answers = new Map(numbers.map((note) => [note, hitsOf(kit, note)]));
  const short = [...new Set([...answers.values()].flat())].find((hit) => !hit.held && secondsOf(hit, pulse) < least);
  if (short)
    return [
      {
        bar: null,
        text: `Lane ${name}: ${short.name} is over before it is seen. Give it a longer hold or release in its kit.`,
      },
    ];
  const silent = notes.filter(({ note }) => answers.get(note)!.length === 0).length;
  return silent > 0 ? [{ bar: null, text: `Lane ${name}: nothing answers to ${counted(silent, 'note')}.` }] : [];
}

function startRemarks({ name, actions }: ActionLane): readonly SongRemark[] {
  const started = new Set(
    actions.flatMap(({ does }) => (does.act === 'start' ? [`${does.look} ${does.role ?? ''}`] : [])),
  );
  if (started.size <= MOST_STARTED) return [];
  return [
    {
      bar: null,
      text: `Lane ${name}: it starts ${started.size} different looks; only the first ${MOST_STARTED} come on.`,
    },
  ];
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
