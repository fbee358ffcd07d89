// Lanes to begin with, and what a curve can move.

import { attributeOf, patchedFixtures, realWords, snaps, type Channel } from '@hovlix/core/rig';
import type { Kit } from '@hovlix/core/light';
import { rigInUse, type Show } from '@hovlix/core/show';
import {
  lookLanes,
  speedOfValue,
  type ActionLane,
  type CurveLane,
  type CurveTarget,
  type HitLane,
  type Lane,
  type LookLane,
  type Song,
} from '@hovlix/core/song';
import { freshId } from '../../../host/fresh-id';
import { KINDS, WORDS } from './words';

export type Template = keyof typeof KINDS;
export const TEMPLATES = (Object.keys(KINDS) as Template[]).map((value) => {
  const [name, does] = KINDS[value];
  return { value, name, does };
});

/** A name that no lane of the song has: “Rhythm”, “Rhythm 2”. */
function freeName(song: Song, name: string): string {
  const taken = new Set(song.lanes.map((lane) => lane.name));
  let found = name;
  for (let n = 2; taken.has(found); n++) found = `${name} ${n}`;
  return found;
}

/** @param kit what a lane of hits plays. */
export function laneOf(template: Template, song: Song, show: Show, kit: Kit | undefined): Lane | undefined {
  const { name } = TEMPLATES.find(({ value }) => value === template)!;
  const base = { id: freshId() as Lane['id'], name: freeName(song, name) };
  const role = show.roles[0]?.id;
  const looks = (more: Partial<LookLane>): LookLane => ({
    ...base,
    type: 'looks',
    blend: 'highest',
    clips: [],
    ...more,
  });
  switch (template) {
    case 'looks':
      return looks({});
    case 'motion':
      return looks({ only: { families: ['aim'] } });
    case 'tint':
      return looks({ only: { families: ['colour'] } });
    case 'punches':
      return looks({ blend: 'replace' });
    case 'rhythm':
      return kit && role ? ({ ...base, type: 'hits', kit: kit.id, role, notes: [] } satisfies HitLane) : undefined;
    case 'actions':
      return { ...base, type: 'actions', actions: [] } satisfies ActionLane;
    case 'swell':
      return { ...base, type: 'curve', target: { on: 'all' }, blend: 'scale', points: [] } satisfies CurveLane;
  }
}

export type TargetChoice = { readonly value: string; readonly name: string; readonly target: CurveTarget };

/** Attributes with a control of their own, which curves leave alone: wheels jump, shutters strobe, aims are places. */
const LEFT_OUT = new Set(['Dimmer', 'Pan', 'Tilt', 'Shutter1', 'Gobo1', 'Color1', 'Reserved', 'LampControl']);

/** What a curve can move in this rig: all levels, a role's attributes, the fader of a lane. */
export function targetsOf(show: Show, song: Song): readonly TargetChoice[] {
  const rig = rigInUse(show);
  const patched = new Map(patchedFixtures(rig, show.profiles).map((one) => [one.fixture.id as string, one]));
  const byRole = show.roles.flatMap((role) => {
    const cast = rig.casting.find((one) => one.role === role.id)?.fixtures ?? [];
    const channels = cast.flatMap((id) => patched.get(id)?.mode.channels ?? []);
    const names = channels
      .filter((channel) => !LEFT_OUT.has(channel.attribute) && !snaps(channel))
      .map(({ attribute }) => ({ Zoom: 'zoom', Fog1: 'haze' })[attribute] ?? attribute);
    return [...new Set(['level', ...names])].map((attribute) =>
      choice({ on: 'role', role: role.id, attribute }, `${role.name}: ${attributeName(attribute)}`),
    );
  });
  const faders = song.lanes
    .filter((lane) => lane.type !== 'curve')
    .map((lane) => choice({ on: 'lane', lane: lane.id }, WORDS.faderOf(lane.name)));
  const waves = [null, ...song.lanes.filter(({ type }) => type === 'looks' || type === 'actions')].flatMap((lane) =>
    (['speed', 'size'] as const).map((on) => {
      const target = { on, lane: lane?.id ?? null };
      return choice(target, waveWords(song, target));
    }),
  );
  return [choice({ on: 'all' }, WORDS.allLampsLevel), ...byRole, ...faders, ...waves];
}

const laneName = (song: Song, lane: string): string =>
  song.lanes.find(({ id }) => id === lane)?.name ?? WORDS.laneThatIsGone;

type OfWaves = Extract<CurveTarget, { readonly on: 'speed' | 'size' }>;

function waveWords(song: Song, { on, lane }: OfWaves): string {
  const whose = lane === null ? WORDS.allLanes : WORDS.lane(laneName(song, lane));
  return on === 'speed' ? WORDS.speedOf(whose) : WORDS.sizeOf(whose);
}

/** The channels that a curve sets: those of its attribute, of the lamps of its role in this rig. */
export function channelsOf(show: Show, { target, blend }: CurveLane): readonly Channel[] {
  if (target.on !== 'role' || blend !== 'replace') return [];
  const rig = rigInUse(show);
  const cast = new Set(rig.casting.find((one) => one.role === target.role)?.fixtures);
  return patchedFixtures(rig, show.profiles)
    .filter(({ fixture }) => cast.has(fixture.id))
    .flatMap(({ mode }) => mode.channels.filter(({ attribute }) => attribute === target.attribute));
}

/**
 * A height of a curve in the unit of what it moves: “80 %”, “× 1.5”, “38 rpm”. One that scales or adds is a part.
 * @param channels those it sets, see {@link channelsOf}.
 */
export function heightWords(target: CurveTarget, channels: readonly Channel[], value: number): string {
  if (target.on === 'speed') return `× ${Math.round(speedOfValue(value) * 100) / 100}`;
  return realWords(channels, value);
}

const choice = (target: CurveTarget, name: string): TargetChoice => ({ value: keyOf(target), name, target });

const keyOf = (target: CurveTarget): string =>
  target.on === 'role'
    ? `${target.role}/${target.attribute}`
    : 'lane' in target
      ? `${target.on} ${target.lane}`
      : target.on;

const OURS: Readonly<Record<string, string>> = { level: 'level', zoom: 'zoom', haze: 'haze' };
const attributeName = (attribute: string): string => OURS[attribute] ?? attributeOf(attribute).name.toLowerCase();

export const chosenTarget = keyOf;

/** What a curve moves, in words: “Movers: zoom”. */
export function targetWords(show: Show, song: Song, target: CurveTarget): string {
  if (target.on === 'all') return WORDS.allLampsLevel;
  if (target.on === 'speed' || target.on === 'size') return waveWords(song, target);
  if (target.on === 'lane') return WORDS.faderOf(laneName(song, target.lane));
  const role = show.roles.find(({ id }) => id === target.role)?.name ?? WORDS.roleThatIsGone;
  return `${role}: ${attributeName(target.attribute)}`;
}

/** The lane that looks are laid on where none is chosen. */
export const firstLookLane = (song: Song): Lane => lookLanes(song)[0] ?? song.lanes[0]!;
