// What some lamps can have on faders, worked out without React.

import { attributeOf, realWords, snaps, type Channel, type Patched } from '@hovlix/core/rig';

/** One attribute that faders move, and the lamps that have it. */
export type FaderKind = {
  readonly attribute: string;
  readonly name: string;
  readonly lamps: readonly Patched[];
  /** What it says is multiplied by this to be shown, in this unit. */
  readonly scale: number;
  readonly unit: string;
  readonly high: number;
  /** Where it is while it is left alone. */
  readonly rest: number;
};

const percent = { scale: 100, unit: '%', high: 1 };

const channelsOf = ({ mode }: Patched, attribute: string): readonly Channel[] =>
  mode.channels.filter((channel) => channel.attribute === attribute);

/** Has a fader under a name of ours, or no fader: aims are places. */
const ELSEWHERE = new Set(['Dimmer', 'Zoom', 'Fog1', 'Pan', 'Tilt', 'Shutter1', 'Reserved']);

/** Level first, then what shapes beam and rate, then each further attribute that can fade. */
export function faderKinds(lamps: readonly Patched[]): readonly FaderKind[] {
  const having = (attribute: string) => lamps.filter((lamp) => channelsOf(lamp, attribute).length > 0);
  const further = lamps
    .flatMap(({ mode }) => mode.channels)
    .filter((channel) => !ELSEWHERE.has(channel.attribute) && !snaps(channel))
    .map(({ attribute }) => attribute);
  const kinds: readonly FaderKind[] = [
    { ...percent, attribute: 'level', name: 'Level', lamps, rest: 0 },
    { ...percent, attribute: 'zoom', name: 'Zoom', lamps: having('Zoom'), rest: 0.5 },
    { attribute: 'strobe', name: 'Strobe', lamps: having('Shutter1'), scale: 1, unit: 'Hz', high: 30, rest: 0 },
    { ...percent, attribute: 'haze', name: 'Fog', lamps: having('Fog1'), rest: 0 },
    ...[...new Set(further)].map((attribute) => ({
      ...percent,
      attribute,
      name: attributeOf(attribute).name,
      lamps: having(attribute),
      rest: attributeOf(attribute).home,
    })),
  ];
  return kinds.filter((kind) => kind.lamps.length > 0);
}

/** What a fader's place means in its lamp, where that is more than a part: “38 rpm”. */
export function meaningOf({ attribute }: FaderKind, lamp: Patched, value: number): string | undefined {
  const words = realWords(channelsOf(lamp, attribute), value);
  return words.endsWith('%') ? undefined : words;
}
