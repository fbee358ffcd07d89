// Numbers that must never be swapped by accident carry their unit in their type.

declare const unit: unique symbol;
type Unit<Name extends string> = number & { readonly [unit]: Name };

/** A moment or a length of time, in seconds. Moments count from the start of the timeline; negative is before it. */
export type Seconds = Unit<'Seconds'>;

/** A place in the music or a length of it, in quarter notes. Not bars, not ticks. Zero is the first downbeat. */
export type Beats = Unit<'Beats'>;

/** A channel's place in its universe, 1–512, as people write it. Its index in a buffer is `address - 1`. */
export type Address = Unit<'Address'>;

/** A Hovlix universe, 1–63999 (the range of E1.31, clause 6.2.7). */
export type Universe = Unit<'Universe'>;

declare const kind: unique symbol;

/** The stable name of one record. It never changes and is never used again. */
export type Id<Kind extends string> = string & { readonly [kind]: Kind };

export const seconds = (value: number): Seconds => value as Seconds;
export const beats = (value: number): Beats => value as Beats;
export const id = <Kind extends string>(value: string): Id<Kind> => value as Id<Kind>;

/** @throws RangeError outside 1–512 or when not a whole number. */
export function address(value: number): Address {
  if (!Number.isInteger(value) || value < 1 || value > 512)
    throw new RangeError(`Address must be a whole number from 1 to 512, got: ${value}`);
  return value as Address;
}

/** @throws RangeError outside 1–63999 or when not a whole number. */
export function universe(value: number): Universe {
  if (!Number.isInteger(value) || value < 1 || value > 63999)
    throw new RangeError(`Universe must be a whole number from 1 to 63999, got: ${value}`);
  return value as Universe;
}

/** `value` held within `[low, high]`. */
export function clamp(value: number, low: number, high: number): number {
  return value < low ? low : value > high ? high : value;
}
