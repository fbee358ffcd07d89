// The same attribute of many lamps, and of many looks or steps at once, each as a fader.

import type { Casting, Fixture } from '../rig/schema';
import { clamp } from '../units';
import { saidTo, type Saying } from './draft';
import { numberAt, type Drive } from './drive';
import type { LookValue } from './schema';
import { lampsOf, whosOf } from './who';

type Values = readonly LookValue[];

/** What faders move: our own numbers by name, any other attribute by its GDTF name as a part of its channel. */
const NUMBERS = ['level', 'zoom', 'strobe', 'haze'] as const;
const isNumber = (attribute: string): attribute is (typeof NUMBERS)[number] => NUMBERS.some((one) => one === attribute);

/** Where faders stand: for each look or step, for each lamp; undefined where it is left alone. */
export type Faders = readonly (readonly (number | undefined)[])[];

/** How one fader takes others along: not at all, to where it is, or by as much as it moves. */
export type Together = 'alone' | 'same' | 'apart';

/** What values say of one attribute of some lamps. What is no number, such as a named range, counts as left alone. */
export function fadersIn(
  values: Values,
  lamps: readonly Fixture['id'][],
  attribute: string,
  casting: readonly Casting[],
): readonly (number | undefined)[] {
  const found = new Map<string, number | undefined>();
  for (const value of values) {
    const drive = isNumber(attribute) ? value[attribute] : value.more?.[attribute];
    if (!drive) continue;
    const meant = lampsOf(value, casting);
    meant.forEach((lamp, place) =>
      found.set(lamp, isNumeric(drive) ? numberAt(drive, place, meant.length) : undefined),
    );
  }
  return lamps.map((lamp) => found.get(lamp));
}

function isNumeric(drive: Drive<unknown>): drive is Drive<number> {
  const said = drive.type === 'hold' ? [drive.value] : drive.type === 'fan' ? [drive.from, drive.to] : drive.values;
  return said.every((one) => typeof one === 'number');
}

/**
 * What is to be said after one lamp's fader was moved to `to`, in all looks or steps; undefined for lamps that are told
 * nothing, so that a fan goes on over those that stay. Those that keep their distances stop together where
 * the first of them meets an end, and what is left alone stays so.
 */
export function fadersMoved(
  faders: Faders,
  lamp: number,
  to: number,
  together: Together,
  [low, high]: readonly [number, number],
): Faders {
  const at = clamp(to, low, high);
  if (together === 'same') return faders.map((set) => set.map(() => at));
  if (together === 'alone') return faders.map((set) => set.map((_, i) => (i === lamp ? at : undefined)));
  const from = faders.map((set) => set[lamp]).find((value) => value !== undefined);
  // Nothing to keep a distance from: it is told for the first time.
  if (from === undefined) return fadersMoved(faders, lamp, to, 'alone', [low, high]);
  const all = faders.flat().filter((value) => value !== undefined);
  const by = clamp(at - from, low - Math.min(...all), high - Math.max(...all));
  return faders.map((set) => set.map((value) => (value === undefined ? undefined : value + by)));
}

/** Values that say of one attribute what faders do; lamps that stand alike are told together. */
export function withFaders(
  values: Values,
  lamps: readonly Fixture['id'][],
  attribute: string,
  faders: readonly (number | undefined)[],
  casting: readonly Casting[],
): Values {
  const alike = new Map<number, Fixture['id'][]>();
  lamps.forEach((lamp, i) => {
    const value = faders[i];
    if (value !== undefined) alike.set(value, [...(alike.get(value) ?? []), lamp]);
  });
  return [...alike].reduce<Values>(
    (before, [value, some]) =>
      whosOf(some, casting).reduce((said, who) => saidTo(said, who, sayingOf(attribute, value), casting), before),
    values,
  );
}

function sayingOf(attribute: string, value: number): Saying {
  const drive = { type: 'hold', value } as const;
  return isNumber(attribute) ? { [attribute]: drive } : { more: { [attribute]: drive } };
}
