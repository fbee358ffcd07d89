// Which bytes a head owns and how its numbers become them.

import { own } from '../own';
import { EMITTERS, isPrimary, mixerFor, type EmitterName, type MeasuredEmitters, type Mixer } from '../colour';
import { bounds, mountRotation, snaps, type Channel, type Profile, type Range } from '../rig';
import { FIELDS, type Field } from './fields';
import type { ChannelKind, Head, HeadPlan } from './parts';

/** @param index the head's row in the program. */
export function headPlan(
  head: Head,
  index: number,
  universes: readonly number[],
  ownFields: ReadonlyMap<string, number>,
  fields: readonly Field[],
): HeadPlan {
  const mine = head.mode.channels.filter((channel) =>
    channel.cell === undefined ? head.cell === 0 : channel.cell === head.cell,
  );
  const dimmer = mine.some((channel) => channel.attribute === 'Dimmer' && head.cells === 1);
  const names = mine.map((channel) => channel.attribute).filter(isEmitter);
  // The mixer counts red, green and blue first, then whites and ambers in channel order.
  const order = [...PRIMARIES, ...names.filter((name) => !isPrimary(name))];
  const { mixes, filters, mixer } = mixingOf(mine, head);
  const [panLow, panHigh, tiltLow, tiltHigh] = bounds({ ...head.profile, limits: head.fixture.limits });
  const base = universes.indexOf(head.fixture.universe) * 512 + head.fixture.address - 1;
  return {
    mixer,
    dimsEmitters: !dimmer,
    // A shutter before the whole lamp strobes its cells too.
    strobesByLevel:
      head.profile.strobesByLevel && !head.mode.channels.some((channel) => channel.attribute === 'Shutter1'),
    freeOfMaster: head.fixture.freeOfMaster === true,
    freeOfBlackout: head.fixture.freeOfBlackout === true,
    writers: mine.map((channel) => {
      const place = (at: number | undefined) =>
        at === undefined || head.fixture.address + at - 1 > 512 ? -1 : base + at - 1;
      const kind = kindOf(channel, head, mixes, filters);
      return {
        kind,
        head: index,
        coarse: place(channel.at[0]),
        fine: place(channel.at[1]),
        ultra: place(channel.at[2]),
        param: paramOf(kind, channel, head, order),
        // A bar dims by its cells, so its own dimmer stays open.
        home: channel.attribute === 'Dimmer' && head.cells > 1 ? 1 : (channel.home ?? 0),
        low: kind === 'pan' ? panLow : tiltLow,
        high: kind === 'pan' ? panHigh : tiltHigh,
        masters: channel.masters !== false,
        dark: channel.dark ?? -1,
        slots: slotValues(channel.ranges),
        shutter: shutterValues(channel),
        own: fields[ownFields.get(channel.attribute) ?? -1] ?? null,
      };
    }),
    turning:
      head.profile.panRange > 0
        ? {
            rotation: mountRotation(head.mount),
            place: Float64Array.of(head.mount.x, head.mount.y, head.mount.z),
            bounds: Float64Array.of(panLow, panHigh, tiltLow, tiltHigh),
          }
        : null,
  };
}

const PRIMARIES = ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'] as const satisfies readonly EmitterName[];

/** How a cell of a lamp mixes colour; a cell of undefined is the whole lamp. Null where it does not mix. */
export function mixerOf({ profile, mode }: Pick<Head, 'profile' | 'mode'>, cell: number | undefined): Mixer | null {
  return mixingOf(
    mode.channels.filter((channel) => channel.cell === cell),
    { profile },
  ).mixer;
}

type Mixing = { readonly mixes: boolean; readonly filters: boolean; readonly mixer: Mixer | null };

/** Lamps of one type mix alike: their mixers are worked out once for each list of channels. */
const mixings = new WeakMap<Profile, Map<string, Mixing>>();

function mixingOf(channels: readonly Channel[], head: Pick<Head, 'profile'>): Mixing {
  const known = mixings.get(head.profile) ?? new Map<string, Mixing>();
  mixings.set(head.profile, known);
  const key = channels.map(({ attribute }) => attribute).join();
  const before = known.get(key) ?? mixingFor(channels, head);
  known.set(key, before);
  return before;
}

function mixingFor(channels: readonly Channel[], head: Pick<Head, 'profile'>): Mixing {
  const names = channels.map((channel) => channel.attribute).filter(isEmitter);
  const mixes = PRIMARIES.every((name) => names.includes(name));
  // Cyan, magenta and yellow take away what red, green and blue would not give.
  const filters = !mixes && FILTERS.every((name) => channels.some(({ attribute }) => attribute === name));
  return { mixes, filters, mixer: mixes ? mixerFor(names, measuredIn(head)) : filters ? mixerFor(PRIMARIES) : null };
}

/** Emitter colours that the type gives itself. */
function measuredIn({ profile }: Pick<Head, 'profile'>): MeasuredEmitters {
  return Object.fromEntries(
    profile.emitters
      .filter(({ attribute }) => isEmitter(attribute))
      .map(({ attribute, colour }) => [attribute, colour]),
  );
}

const FILTERS = ['ColorSub_C', 'ColorSub_M', 'ColorSub_Y'] as const;

export function isEmitter(attribute: string): attribute is EmitterName {
  return Object.hasOwn(EMITTERS, attribute);
}

function kindOf(channel: Channel, head: Head, mixes: boolean, filters: boolean): ChannelKind {
  const { attribute } = channel;
  if (filters && FILTERS.some((name) => name === attribute)) return 'filter';
  if (mixes && isEmitter(attribute)) return 'emitter';
  if (attribute === 'Dimmer') return head.cells === 1 ? 'dimmer' : 'whole';
  if (attribute === 'Pan') return head.fixture.swapPanTilt ? 'tilt' : 'pan';
  if (attribute === 'Tilt') return head.fixture.swapPanTilt ? 'pan' : 'tilt';
  if (attribute === 'Shutter1') return 'shutter';
  if (attribute === 'Gobo1') return 'gobo';
  if (attribute === 'Color1') return 'slot';
  if (attribute === 'Zoom') return 'zoom';
  if (attribute === 'Fog1') return 'haze';
  // Emitters outside the mix, UV above all, shine with the level where there is no dimmer before them.
  if (attribute.startsWith('ColorAdd_')) return 'direct';
  return 'rest';
}

function paramOf(kind: ChannelKind, channel: Channel, head: Head, order: readonly EmitterName[]): number {
  // A motor that runs the other way round turns by a range below zero.
  if (kind === 'pan') return head.profile.panRange * (head.fixture.panInvert ? -1 : 1);
  if (kind === 'tilt') return head.profile.tiltRange * (head.fixture.tiltInvert ? -1 : 1);
  if (kind === 'filter') return FILTERS.findIndex((name) => name === channel.attribute);
  if (kind === 'emitter') return order.indexOf(channel.attribute as EmitterName);
  return 0;
}

function slotValues(ranges: readonly Range[]): Float64Array {
  const slots = ranges.filter((range) => range.does === 'slot' || range.does === 'open');
  const most = slots.reduce((n, range) => Math.max(n, (range.slot ?? 0) + 1), 1);
  const values = new Float64Array(most);
  for (const range of slots) values[range.slot ?? 0] = Math.round((range.from + range.to) / 2);
  return values;
}

function shutterValues({ ranges, home }: Channel): Float64Array {
  const open = ranges.find((range) => range.does === 'open');
  const level = ranges.findLast((range) => range.does === 'level');
  const strobe = ranges.find((range) => range.does === 'strobe');
  // Without a range that is open it rests where it is: that is open, but for one that closes by degrees and rests at 0,
  // which is open at the end that is said to be the higher one.
  const widest = level && !home ? ((level.high ?? 1) >= (level.low ?? 0) ? level.to : level.from) : undefined;
  return Float64Array.of(
    open ? Math.round((open.from + open.to) / 2) : (widest ?? Math.round((home ?? 0) * 255)),
    strobe?.from ?? -1,
    strobe?.to ?? -1,
    strobe?.low ?? 1,
    strobe?.high ?? 20,
  );
}

const FIELD_OF: Readonly<Record<string, string>> = {
  Dimmer: 'level',
  Pan: 'aim',
  Tilt: 'aim',
  Zoom: 'zoom',
  Fog1: 'haze',
  Color1: 'slot',
  Gobo1: 'gobo',
  Shutter1: 'strobe',
};

/** For each field of every program, whether this head jumps in it: as is usual, unless its type says so of a channel. */
export function snapsOf({ mode }: Head): readonly boolean[] {
  return FIELDS.map((field) => {
    const said = mode.channels.find(
      ({ attribute, snap }) =>
        snap !== undefined &&
        (own(FIELD_OF, attribute) ?? (isEmitter(attribute) ? 'colour' : undefined)) === field.name,
    );
    return said ? snaps(said) : field.snap;
  });
}
