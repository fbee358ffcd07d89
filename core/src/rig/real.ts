// What a part of a channel means in the lamp, in units of the stage.

import type { Channel, Range } from './schema';
import { physicalOfDmx, rangeAt } from './values';

/** Units of `low` and `high` of ranges that have them. */
export const RANGE_UNITS: Partial<Readonly<Record<Range['does'], string>>> = {
  strobe: 'Hz',
  shake: 'Hz',
  rotate: 'rpm',
  index: '°',
};

const percent = (value: number) => `${Math.round(value * 100)} %`;

/** A value of a channel, 0…1: “38 rpm”, “Frost”, or “62 %” where no range says more. */
function realOf(channel: Channel, value: number): string {
  const dmx = value * 255;
  const range = rangeAt(channel, Math.round(dmx));
  if (!range) return percent(value);
  const unit = RANGE_UNITS[range.does];
  if (!unit || range.low === undefined || range.high === undefined) return range.name ?? percent(value);
  const real = physicalOfDmx(range, dmx);
  return `${Math.abs(real) < 10 ? Math.round(real * 10) / 10 : Math.round(real)} ${unit}`;
}

/** As `realOf` for channels of several lamps; a percentage where they differ. */
export function realWords(channels: readonly Channel[], value: number): string {
  const [first, ...others] = new Set(channels.map((channel) => realOf(channel, value)));
  return first === undefined || others.length > 0 ? percent(value) : first;
}
