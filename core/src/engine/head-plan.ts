// Which bytes a head owns and how its numbers become them.

import { own } from '../own';
import { EMITTERS, isPrimary, mixerFor, type EmitterName, type MeasuredEmitters, type Mixer } from '../colour';
import {
  amountsOf,
  bounds,
  mountRotation,
  openOf,
  snaps,
  type Channel,
  type Mode,
  type Profile,
  type Range,
} from '../rig';
import { FIELDS, type Field } from './fields';
import { MIX, type ChannelKind, type Head, type HeadPlan } from './parts';

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
  const dimmer = mine.some((channel) => channel.attribute === 'Dimmer' && dims(channel, head));
  const mixing = mixingOf(mine, head);
  const undimmed = isUndimmed(head.mode);
  const [panLow, panHigh, tiltLow, tiltHigh] = bounds({ ...head.profile, limits: head.fixture.limits });
  const base = universes.indexOf(head.fixture.universe) * 512 + head.fixture.address - 1;
  return {
    mixer: mixing.mixer,
    dimsEmitters: !dimmer,
    // A shutter before the whole lamp strobes its cells too.
    strobesByLevel:
      head.profile.strobesByLevel && !head.mode.channels.some((channel) => channel.attribute === 'Shutter1'),
    freeOfMaster: head.fixture.freeOfMaster === true,
    freeOfBlackout: head.fixture.freeOfBlackout === true,
    writers: mine.map((channel) => {
      const place = (at: number | undefined) =>
        at === undefined || head.fixture.address + at - 1 > 512 ? -1 : base + at - 1;
      const kind = kindOf(channel, head, mixing);
      const amounts = AMOUNTS.has(kind) ? amountsOf(channel) : null;
      return {
        kind,
        head: index,
        coarse: place(channel.at[0]),
        fine: place(channel.at[1]),
        ultra: place(channel.at[2]),
        param: paramOf(kind, channel, head, mixing.order),
        // Before cells that dim themselves it stays open.
        home: kind === 'whole' ? (amounts?.most ?? 1) : (channel.home ?? 0),
        amounts: amounts && FROM_END_TO_END.has(kind) ? { ...amounts, none: amounts.least } : amounts,
        low: kind === 'pan' ? panLow : tiltLow,
        high: kind === 'pan' ? panHigh : tiltHigh,
        masters: channel.masters !== false,
        // What lasers draw stands in no relation to a level, but in the dark it is dark.
        dark: channel.dark ?? (kind === 'effect' ? 0 : -1),
        slots: slotValues(channel.ranges),
        shutter: shutterValues(channel, undimmed),
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

/** Channels that are written as amounts, and may do something else at other values. */
const AMOUNTS: ReadonlySet<ChannelKind> = new Set<ChannelKind>([
  'dimmer',
  'whole',
  'emitter',
  'filter',
  'hue',
  'saturation',
  'warmth',
  'zoom',
  'haze',
]);
/** Of these, those whose 0 is one of two ends, and not nothing. */
const FROM_END_TO_END: ReadonlySet<ChannelKind> = new Set<ChannelKind>(['hue', 'saturation', 'warmth', 'zoom']);

const PRIMARIES = ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'] as const satisfies readonly EmitterName[];

/** How a cell of a lamp mixes colour; a cell of undefined is the whole lamp. Null where it does not mix. */
export function mixerOf({ profile, mode }: Pick<Head, 'profile' | 'mode'>, cell: number | undefined): Mixer | null {
  return mixingOf(channelsOf(mode, cell), { profile }).mixer;
}

const channelsOf = (mode: Mode, cell: number | undefined): readonly Channel[] =>
  mode.channels.filter((channel) => channel.cell === cell);

const mixingModes = new WeakMap<Mode, boolean>();

/** Whether lamps mix colour in this mode: a colour wheel before what mixes stays open unless it is named itself. */
export function mixesColour(head: Pick<Head, 'profile' | 'mode'>): boolean {
  const before = mixingModes.get(head.mode);
  if (before !== undefined) return before;
  const mixes = [undefined, 0].some((cell) => {
    const { mixer } = mixingOf(channelsOf(head.mode, cell), head);
    return mixer !== null && mixer.between === null;
  });
  mixingModes.set(head.mode, mixes);
  return mixes;
}

type Mixing = {
  /** What stands for the mix where it is not said emitter by emitter. */
  readonly by: 'emitters' | 'filters' | 'hue' | 'warmth';
  readonly mixer: Mixer | null;
  /** Emitters as the mixer counts them: red, green and blue first, then the others in channel order. */
  readonly order: readonly (EmitterName | null)[];
};

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
  const names = [...new Set(channels.map((channel) => channel.attribute).filter(isEmitter))];
  const whole = PRIMARIES.every((name) => names.includes(name));
  const has = (name: string) => channels.some(({ attribute }) => attribute === name);
  // Cyan, magenta and yellow take away what red, green and blue would not give.
  if (!whole && FILTERS.every(has)) return { by: 'filters', mixer: mixerFor(PRIMARIES), order: [] };
  if (!whole && HUES.every(has)) return { by: 'hue', mixer: mixerFor(PRIMARIES), order: [] };
  // A white between a warm and a cold one. Before a wheel it is a further filter, and left alone.
  if (names.length === 0 && has('CTC') && head.profile.colours.length === 0)
    return { by: 'warmth', mixer: mixerFor(WHITES, measuredIn(head)), order: [] };
  const further = names.filter((name) => !whole || !isPrimary(name)).slice(0, MIX - PRIMARIES.length);
  const mixed = whole ? [...PRIMARIES, ...further] : further;
  const mixer = mixed.length > 0 ? mixerFor(mixed, measuredIn(head)) : null;
  return { by: 'emitters', mixer, order: whole ? mixed : [null, null, null, ...further] };
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
const HUES = ['HSB_Hue', 'HSB_Saturation'] as const;
const WHITES = ['ColorAdd_WW', 'ColorAdd_CW'] as const satisfies readonly EmitterName[];

export function isEmitter(attribute: string): attribute is EmitterName {
  return Object.hasOwn(EMITTERS, attribute);
}

/** Whether a dimmer follows the level: that of a lamp, or of a cell, but not one before all cells of a bar that dim themselves. */
function dims(dimmer: Channel, { cells, mode }: Head): boolean {
  if (cells === 1 || dimmer.cell !== undefined) return true;
  return !mode.channels.some(
    ({ cell, attribute }) => cell !== undefined && (attribute === 'Dimmer' || isEmitter(attribute)),
  );
}

function kindOf(channel: Channel, head: Head, { by, order }: Mixing): ChannelKind {
  const { attribute } = channel;
  if (by === 'filters' && FILTERS.some((name) => name === attribute)) return 'filter';
  if (by === 'hue' && attribute === 'HSB_Hue') return 'hue';
  if (by === 'hue' && attribute === 'HSB_Saturation') return 'saturation';
  if (by === 'warmth' && attribute === 'CTC') return 'warmth';
  if (isEmitter(attribute) && order.includes(attribute)) return 'emitter';
  if (attribute === 'Dimmer') return dims(channel, head) ? 'dimmer' : 'whole';
  if (attribute === 'Pan') return head.fixture.swapPanTilt ? 'tilt' : 'pan';
  if (attribute === 'Tilt') return head.fixture.swapPanTilt ? 'pan' : 'tilt';
  if (attribute === 'Shutter1') return 'shutter';
  if (attribute === 'Gobo1') return 'gobo';
  if (attribute === 'Color1') return 'slot';
  if (attribute === 'Zoom') return 'zoom';
  if (attribute === 'Fog1') return 'haze';
  if (EFFECT.test(attribute) && isUndimmed(head.mode)) return 'effect';
  // Emitters outside the mix, UV above all, shine with the level where there is no dimmer before them.
  if (attribute.startsWith('ColorAdd_')) return 'direct';
  return 'rest';
}

function paramOf(kind: ChannelKind, channel: Channel, head: Head, order: Mixing['order']): number {
  // A motor that runs the other way round turns by a range below zero.
  if (kind === 'pan') return head.profile.panRange * (head.fixture.panInvert ? -1 : 1);
  if (kind === 'tilt') return head.profile.tiltRange * (head.fixture.tiltInvert ? -1 : 1);
  if (kind === 'filter') return FILTERS.findIndex((name) => name === channel.attribute);
  if (kind === 'emitter') return order.findIndex((name) => name === channel.attribute);
  if (kind === 'direct') return Number(isBare(head.mode));
  return 0;
}

function slotValues(ranges: readonly Range[]): Float64Array {
  const slots = ranges.filter((range) => range.does === 'slot' || range.does === 'open');
  const most = slots.reduce((n, range) => Math.max(n, (range.slot ?? 0) + 1), 1);
  const values = new Float64Array(most);
  for (const range of slots) values[range.slot ?? 0] = Math.round((range.from + range.to) / 2);
  return values;
}

/** Lamps that nothing dims, such as small scanners and lasers: what they have of a shutter, or of effects, makes them dark. */
const isUndimmed = ({ channels }: Mode): boolean =>
  channels.every(({ attribute }) => attribute !== 'Dimmer' && !attribute.startsWith('ColorAdd_'));

/** All light of a blacklight is ultraviolet: it is asked for with the level. */
const isBare = ({ channels }: Mode): boolean =>
  channels.every(({ attribute }) => attribute !== 'Dimmer' && !isEmitter(attribute));

/** What a lamp makes by itself, as a laser its figures. */
const EFFECT = /^Effects\d/;

/** See `ChannelWriter`. @param shuts whether it is closed where the lamp has no level. */
function shutterValues(channel: Channel, shuts: boolean): Float64Array {
  const closed = shuts ? channel.ranges.find((range) => range.does === 'closed') : undefined;
  const strobe = channel.ranges.find((range) => range.does === 'strobe');
  return Float64Array.of(
    openOf(channel),
    strobe?.from ?? -1,
    strobe?.to ?? -1,
    strobe?.low ?? 1,
    strobe?.high ?? 20,
    closed?.from ?? -1,
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
