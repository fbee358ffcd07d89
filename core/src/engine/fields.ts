// What every head carries while light is worked out: fields of one or more numbers a head, decided as one.

/** Places of the fields that every program has; one for each further attribute of the rig's lamps follows. */
export const LEVEL = 0;
/** OKLab L, a, b */
export const COLOUR = 1;
/** Pan and tilt in degrees from the middle, then the stage point they reach, in metres. */
export const AIM = 2;
/** Degrees of pan and tilt that figures add to the aim. */
export const MOVE = 3;
/** Hz */
export const STROBE = 4;
/** Slot of the gobo wheel */
export const GOBO = 5;
/** 0…1 */
export const ZOOM = 6;
/** 0…1 */
export const HAZE = 7;
/** Slot of the colour wheel that comes nearest to the wanted colour */
export const SLOT = 8;

type FieldKind = { readonly name: string; readonly home: readonly number[]; readonly snap: boolean };

/** Home: dark, white, straight on, open, half wide. Level is apart: it merges by height. */
export const FIELDS: readonly FieldKind[] = [
  { name: 'level', home: [0], snap: false },
  { name: 'colour', home: [1, 0, 0], snap: false },
  { name: 'aim', home: [0, 0, 0, 0, 0], snap: false },
  { name: 'move', home: [0, 0], snap: false },
  { name: 'strobe', home: [0], snap: true },
  { name: 'gobo', home: [0], snap: true },
  { name: 'zoom', home: [0.5], snap: false },
  { name: 'haze', home: [0], snap: false },
  { name: 'slot', home: [0], snap: true },
];

/**
 * One field over all heads. `values` are sums weighted by `weights` until a frame is finished; the `lane` ones gather
 * one lane or chase before it is laid over the rest.
 */
export type Field = {
  readonly name: string;
  readonly width: number;
  readonly home: readonly number[];
  /** By head: 1 where this head jumps in this field. */
  readonly snaps: Uint8Array;
  readonly values: Float64Array;
  readonly weights: Float64Array;
  readonly laneValues: Float64Array;
  readonly laneWeights: Float64Array;
  /** What was laid of light that gives way, while what takes its place is laid: see `mixKept`. */
  readonly keptValues: Float64Array;
  readonly keptWeights: Float64Array;
  /** Whether anything spoke here in this frame, and in the lane being gathered. */
  touched: boolean;
  laneTouched: boolean;
  /**
   * The lowest layer of which anything shows in this frame: one above it sets every head that can be set. The
   * song's lanes are 0 and on, looks that are on -1.
   */
  shows: number;
};

/** The layer of looks that are on, and that of everything above a song. */
export const STANDING = -1;
export const ABOVE = 1e9;

export function fieldOf(kind: FieldKind, heads: number, snaps: (head: number) => boolean): Field {
  const width = kind.home.length;
  const values = new Float64Array(heads * width);
  for (let i = 0; i < values.length; i++) values[i] = kind.home[i % width]!;
  return {
    name: kind.name,
    width,
    home: kind.home,
    snaps: Uint8Array.from({ length: heads }, (_, head) => Number(snaps(head))),
    values,
    weights: new Float64Array(heads),
    laneValues: new Float64Array(heads * width),
    laneWeights: new Float64Array(heads),
    keptValues: new Float64Array(heads * width),
    keptWeights: new Float64Array(heads),
    touched: false,
    laneTouched: false,
    shows: STANDING,
  };
}
