// Building a fixture type: channels put in, paired, packed, flagged. Pure functions from one mode or type to the next.

import { attributeOf, usualChannel } from './attributes';
import type { Chart } from './chart';
import { footprint } from './patch';
import type { Channel, Mode, Profile } from './schema';

/** A type to begin with: one mode, one dimmer. */
export function blankType(id: string): Profile {
  return {
    id: id as Profile['id'],
    maker: 'My own',
    model: 'New type',
    label: 'New',
    kind: 'par',
    beamAngle: 25,
    panRange: 0,
    tiltRange: 0,
    output: 1,
    colours: [],
    gobos: [],
    emitters: [],
    strobesByLevel: true,
    modes: [{ id: 'm1' as Mode['id'], name: '1 channel', channels: [usualChannel('Dimmer', [1])] }],
  };
}

/** A copy of a type under an id of its own. */
export function copyOfType(type: Profile, id: string): Profile {
  return { ...type, id: id as Profile['id'], model: `${type.model}, copy`.slice(0, 120) };
}

/** A type from a manual's chart: what the text did not say stays as it was. @param keep whether other modes stay. */
export function typeFromChart(type: Profile, chart: Chart, mode: Mode['id']): Profile {
  const length = chart.channels.reduce((most, { at }) => Math.max(most, ...at), 0);
  const has = (attribute: string) => chart.channels.some((channel) => channel.attribute === attribute);
  const moves = has('Pan') || has('Tilt');
  const kind: Profile['kind'] = moves
    ? has('Gobo1')
      ? 'moving spot'
      : 'moving wash'
    : has('Fog1')
      ? 'hazer'
      : chart.channels.some(({ cell }) => cell !== undefined)
        ? 'bar'
        : type.kind;
  return {
    ...type,
    kind,
    panRange: chart.panRange ?? (moves ? type.panRange || 540 : type.panRange),
    tiltRange: chart.tiltRange ?? (moves ? type.tiltRange || 270 : type.tiltRange),
    colours: chart.colours.length > 0 ? chart.colours : type.colours,
    gobos: chart.gobos.length > 0 ? [...chart.gobos] : type.gobos,
    modes: type.modes.map((one) =>
      one.id === mode ? { ...one, name: `${length} channels`, channels: [...chart.channels] } : one,
    ),
  };
}

/** A channel of an attribute put into a mode's order at `index`, at the first place that is free. */
export function withChannel(mode: Mode, attribute: string, index: number): Mode {
  const taken = new Set(mode.channels.flatMap(({ at }) => at));
  let place = 1;
  while (taken.has(place)) place++;
  const channels = [...mode.channels];
  channels.splice(index, 0, usualChannel(attribute, [Math.min(512, place)]));
  return { ...mode, channels };
}

/**
 * Two or three channels as one of 16 or 24 bits: the first chosen keeps its name, ranges and values, and the others
 * become its finer bytes. Undefined where they are not two or three, or have too many bytes together.
 */
export function paired(mode: Mode, indices: readonly number[]): Mode | undefined {
  const chosen = indices.map((i) => mode.channels[i]).filter((one): one is Channel => one !== undefined);
  const at = chosen.flatMap((channel) => channel.at);
  const [first] = chosen;
  if (!first || chosen.length < 2 || at.length > 3) return undefined;
  const channels = mode.channels.flatMap((channel) =>
    channel === first ? [{ ...first, at }] : chosen.includes(channel) ? [] : [channel],
  );
  return { ...mode, channels };
}

/** The finer bytes of a channel as channels of their own again. */
export function unpaired(mode: Mode, index: number): Mode {
  const channels = mode.channels.flatMap((channel, i) =>
    i === index
      ? channel.at.map((place, k) => (k === 0 ? { ...channel, at: [place] } : usualChannel('Reserved', [place])))
      : [channel],
  );
  return { ...mode, channels };
}

/** Places side by side from 1 in the order in which the channels are shown. */
export function packedPlaces(mode: Mode): Mode {
  let next = 1;
  return { ...mode, channels: mode.channels.map((channel) => ({ ...channel, at: channel.at.map(() => next++) })) };
}

/** The channel that turns each wheel. */
const WHEELS = { colours: 'Color1', gobos: 'Gobo1' } as const;

/**
 * A slot taken off a wheel, by its place on it from 0: the ranges of the slots behind it go with them, and one that chose it
 * does nothing.
 */
export function withoutSlot(type: Profile, wheel: keyof typeof WHEELS, index: number): Profile {
  const moved = (range: Channel['ranges'][number]) => {
    const { slot = range.does === 'open' ? 0 : -1, ...rest } = range;
    if (slot < index) return range;
    return slot === index ? { ...rest, does: 'nothing' as const } : { ...range, slot: slot - 1 };
  };
  const modes = type.modes.map((mode) => ({
    ...mode,
    channels: mode.channels.map((channel) =>
      channel.attribute === WHEELS[wheel] ? { ...channel, ranges: channel.ranges.map(moved) } : channel,
    ),
  }));
  return { ...type, modes, [wheel]: type[wheel].filter((_, i) => i !== index) };
}

/** Flags set on some channels at once. */
export function withFlags(
  mode: Mode,
  indices: readonly number[],
  flags: Pick<Partial<Channel>, 'snap' | 'masters'>,
): Mode {
  const chosen = new Set(indices);
  return { ...mode, channels: mode.channels.map((channel, i) => (chosen.has(i) ? { ...channel, ...flags } : channel)) };
}

/** What would make a mode work otherwise than its maker means, in words: places used twice, past 512, ranges that overlap. */
export function modeFaults(mode: Mode): readonly string[] {
  const faults: string[] = [];
  const taken = new Map<number, string>();
  const nameOf = (channel: Channel) => channel.name ?? attributeOf(channel.attribute).name;
  for (const channel of mode.channels) {
    for (const place of channel.at) {
      const other = taken.get(place);
      if (other !== undefined) faults.push(`${other} and ${nameOf(channel)} are both at place ${place}.`);
      taken.set(place, nameOf(channel));
    }
    const sorted = [...channel.ranges].sort((a, b) => a.from - b.from);
    sorted.forEach((range, i) => {
      const next = sorted[i + 1];
      if (range.to < range.from)
        faults.push(`${nameOf(channel)}: a range ends at ${range.to}, before its start ${range.from}.`);
      else if (next && next.from <= range.to) faults.push(`${nameOf(channel)}: two ranges claim value ${next.from}.`);
    });
  }
  if (footprint(mode) > 512) faults.push(`It needs ${footprint(mode)} channels; a universe has 512.`);
  return faults;
}
