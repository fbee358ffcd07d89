// OSC that comes in, as what controls hear: the first number of a message is its value.

import { OscAddress, type HeardOsc } from '../gig';
import type { OscMessage } from '../wire';

/** @returns undefined where its address is a pattern, or no control could be bound to it. */
export function heardOsc({ address, values }: OscMessage): HeardOsc | undefined {
  if (!OscAddress.safeParse(address).success) return undefined;
  const value = oscNumber(values[0]);
  return value === undefined ? { by: 'osc', address } : { by: 'osc', address, value };
}

/** True and false count as 1 and 0; undefined for what is no number. */
export function oscNumber(value: OscMessage['values'][number] | undefined): number | undefined {
  if (typeof value === 'boolean') return value ? 1 : 0;
  return typeof value === 'number' && Number.isFinite(value) ? value : undefined;
}
