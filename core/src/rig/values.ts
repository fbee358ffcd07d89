// Between a channel's bytes and what they mean: whole values of one to three bytes, and the ranges inside them.

import { clamp } from '../units';
import type { Patched } from './patch';
import { amountsOf, placeOfAmount } from './amounts';
import { testValue } from './attributes';
import { bounds } from './geometry';
import type { Channel, Range } from './schema';

/** A value of 0…1 as `count` bytes (1 to 3), coarse first, rounded once at the finest. Values outside are held. */
export function bytesOfValue(value: number, count: number): readonly number[] {
  const most = 256 ** count - 1;
  const whole = Math.round(clamp(value, 0, 1) * most);
  return Array.from({ length: count }, (_, i) => Math.floor(whole / 256 ** (count - 1 - i)) % 256);
}

/** The inverse of `bytesOfValue`. */
export function valueOfBytes(bytes: readonly number[]): number {
  return bytes.reduce((sum, byte) => sum * 256 + byte, 0) / (256 ** bytes.length - 1);
}

/** The range a DMX value of the coarse byte (0…255) lies in; the first where two claim it; none in a gap. */
export function rangeAt(channel: Channel, dmx: number): Range | undefined {
  return channel.ranges.find((range) => dmx >= Math.min(range.from, range.to) && dmx <= Math.max(range.from, range.to));
}

/**
 * The DMX value (0…255, not rounded) that gives a physical one, in the range's unit: Hz, rpm or degrees. Held at the
 * range's ends. A range without `low` and `high` means 0 to 1.
 */
export function dmxOfPhysical({ from, to, low = 0, high = 1 }: Range, physical: number): number {
  if (high === low) return (from + to) / 2;
  return from + clamp((physical - low) / (high - low), 0, 1) * (to - from);
}

/** The inverse of `dmxOfPhysical`, held at the ends too. */
export function physicalOfDmx({ from, to, low = 0, high = 1 }: Range, dmx: number): number {
  if (from === to) return (low + high) / 2;
  return low + clamp((dmx - from) / (to - from), 0, 1) * (high - low);
}

/** Channels held by hand, see the `hold-channels` action. */
export type Held = { readonly universe: number; readonly address: number; readonly value: number };

/** What is wanted of a lamp by hand; what is left out is left to the show. */
export type ByHand = {
  /** Degrees from the middle, as the motors turn, inside range and limits. */
  readonly pan?: number;
  readonly tilt?: number;
  /** 0…1, in white: every channel that lights the lamp, shutter and wheels included. */
  readonly level?: number;
};

/** The channels that do what is wanted of a lamp. Those past 512 are left out. */
export function heldFor({ fixture, profile, mode }: Patched, wanted: ByHand): readonly Held[] {
  const [panLow, panHigh, tiltLow, tiltHigh] = bounds({ ...profile, limits: fixture.limits });
  const turn = {
    Pan: wanted.pan === undefined ? undefined : clamp(wanted.pan, panLow, panHigh) / (profile.panRange || 1),
    Tilt: wanted.tilt === undefined ? undefined : clamp(wanted.tilt, tiltLow, tiltHigh) / (profile.tiltRange || 1),
  };
  const dimmed = mode.channels.some(({ attribute }) => attribute === 'Dimmer');
  return mode.channels.flatMap((channel) => {
    const value = wantedValue(channel, turn, fixture, wanted.level, dimmed);
    if (value === undefined) return [];
    const bytes = bytesOfValue(value, channel.at.length);
    return channel.at.flatMap((place, i) => {
      const address = fixture.address + place - 1;
      return address > 512 ? [] : [{ universe: fixture.universe as number, address, value: bytes[i]! }];
    });
  });
}

function wantedValue(
  channel: Channel,
  turn: { readonly Pan: number | undefined; readonly Tilt: number | undefined },
  fixture: Patched['fixture'],
  level: number | undefined,
  dimmed: boolean,
): number | undefined {
  const { attribute } = channel;
  if (attribute === 'Pan' || attribute === 'Tilt') {
    const other = attribute === 'Pan' ? 'Tilt' : 'Pan';
    const motor = fixture.swapPanTilt ? other : attribute;
    const share = turn[motor];
    const inverted = motor === 'Pan' ? fixture.panInvert : fixture.tiltInvert;
    return share === undefined ? undefined : 0.5 + (inverted ? -share : share);
  }
  if (level === undefined) return undefined;
  const lit = testValue(channel);
  if (lit === null) return undefined;
  const [isDimmer, isEmitter] = [attribute === 'Dimmer', attribute.startsWith('ColorAdd_')];
  const dims = dimmed ? isDimmer : isEmitter;
  const amounts = channel.test === undefined && (isDimmer || isEmitter) ? amountsOf(channel) : null;
  if (amounts) return placeOfAmount(amounts, dims ? level : lit > 0 ? 1 : 0);
  return dims ? lit * level : lit;
}

/** The first and last address of a lamp, and how many channels that is; the last may lie past 512. */
export function spanOf({ fixture, mode }: Patched): { readonly from: number; readonly count: number } {
  return { from: fixture.address, count: mode.channels.reduce((most, { at }) => Math.max(most, ...at), 0) };
}
