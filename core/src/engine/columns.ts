// The values every head carries while light is worked out: one row per head, one column per number.

export const LEVEL = 0;
/** OKLab L, a, b */
export const COLOUR = 1;
/** Degrees from the middle */
export const PAN = 4;
export const TILT = 5;
/** Hz */
export const STROBE = 6;
/** Slot of the gobo wheel */
export const GOBO = 7;
/** 0…1 */
export const ZOOM = 8;
/** 0…1 */
export const HAZE = 9;
/** Slot of the colour wheel, chosen when the show was compiled */
export const SLOT = 10;

export const COLUMNS = 11;

/** What is decided as one: which columns it has and whether it jumps or fades. Level stands apart: it merges by height. */
export const GROUPS = [
  { name: 'colour', first: COLOUR, count: 3, snap: false },
  { name: 'aim', first: PAN, count: 2, snap: false },
  { name: 'strobe', first: STROBE, count: 1, snap: true },
  { name: 'gobo', first: GOBO, count: 1, snap: true },
  { name: 'zoom', first: ZOOM, count: 1, snap: false },
  { name: 'haze', first: HAZE, count: 1, snap: false },
  { name: 'slot', first: SLOT, count: 1, snap: true },
] as const;

/** Bit of the level in a sheet's `has`; group g has bit g + 1. */
export const HAS_LEVEL = 1;

/** What a head does when nothing speaks to it: dark, white, straight on, open, half wide. */
export const HOME = Float64Array.of(0, 1, 0, 0, 0, 0, 0, 0, 0.5, 0, 0);
