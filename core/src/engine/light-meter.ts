// How much light a frame's bytes make, of the whole rig: what flash safety goes by at its last stage. What it knows of
// a rig lies in flat rows, as it is read for each frame that goes out.

import { lightOfMix, linearFromChromaticity, mixerFor, type Mixer } from '../colour';
import { amountAtPlace } from '../rig';
import {
  HEADS_AT_ONCE,
  ROWS_AT_ONCE,
  type ChannelKind,
  type ChannelWriter,
  type Head,
  type HeadPlan,
  type LightMeter,
} from './parts';

const DIMMER = 0;
const EMITTER = 1;
const FILTER = 2;
const DIRECT = 3;
const SHUTTER = 4;
const SLOT = 5;
const WHOLE = 6;
const HUE = 7;
const SATURATION = 8;

const KINDS: Partial<Readonly<Record<ChannelKind, number>>> = {
  dimmer: DIMMER,
  emitter: EMITTER,
  filter: FILTER,
  hue: HUE,
  saturation: SATURATION,
  direct: DIRECT,
  effect: DIRECT,
  shutter: SHUTTER,
  slot: SLOT,
  whole: WHOLE,
};
/** Channels that move the beam and leave its light as it is. */
const MOVING: ReadonlySet<ChannelKind> = new Set<ChannelKind>(['pan', 'tilt', 'zoom', 'gobo', 'haze']);

/** What a rig gives at most, and from which channels. Yields every millisecond or so. */
export function* lightMeter(
  heads: readonly Head[],
  plans: readonly HeadPlan[],
  shares: Float64Array,
): Generator<void, LightMeter> {
  const rows: Row[] = [];
  const starts = new Int32Array(plans.length + 1);
  const lit = new Set<number>();
  const colours: Float64Array[] = [];
  for (const [head, plan] of plans.entries()) {
    if (head % HEADS_AT_ONCE === 0) yield;
    if (heads[head]!.profile.kind !== 'hazer')
      for (const writer of plan.writers) {
        rows.push(...rowsOf(writer, plan));
        if (!MOVING.has(writer.kind))
          for (const place of [writer.coarse, writer.fine, writer.ultra]) if (place >= 0) lit.add(place);
      }
    starts[head + 1] = rows.length;
    colours.push(coloursOf(heads[head]!, plan));
  }
  const meter = {
    starts,
    kinds: new Uint8Array(rows.length),
    places: new Int32Array(rows.length * 3),
    given: new Float64Array(rows.length * 3),
    shutters: new Float64Array(rows.length * 5),
    amounts: rows.map(({ writer: { amounts } }) => amounts),
    slots: rows.map(({ writer }) => writer.slots),
    colours,
    shares,
    mixes: Uint8Array.from(plans, ({ mixer, writers }) =>
      mixer === null ? 0 : writers.some(({ kind }) => kind === 'hue') ? BY_HUE : 1,
    ),
    bare: Uint8Array.from(plans, ({ mixer, writers }) =>
      Number(
        !mixer && writers.every(({ kind }) => kind !== 'dimmer') && writers.some(({ kind }) => KINDS[kind] === DIRECT),
      ),
    ),
    further: Uint8Array.from(heads, ({ cell }) => Number(cell > 0)),
    lit: Int32Array.from(lit),
  };
  for (const [row, { writer, kind, light }] of rows.entries()) {
    if (row % ROWS_AT_ONCE === 0) yield;
    meter.kinds[row] = kind;
    meter.places.set([writer.coarse, writer.fine, writer.ultra], row * 3);
    if (writer.kind === 'shutter') meter.shutters.set(writer.shutter.subarray(0, 5), row * 5);
    else meter.shutters[row * 5] = writer.kind === 'slot' ? writer.shutter[5]! : -1;
    if (light) meter.given.set(light, row * 3);
  }
  return meter;
}

type Row = { readonly writer: ChannelWriter; readonly kind: number; readonly light: Float64Array | null };

/** Of a channel that makes light, what it does and what it gives at most. One between two whites takes one as it gives the other. */
function rowsOf(writer: ChannelWriter, { mixer }: HeadPlan): readonly Row[] {
  if (writer.kind === 'warmth' && mixer)
    return [
      { writer, kind: FILTER, light: lightOf(mixer, WARM) },
      { writer, kind: EMITTER, light: lightOf(mixer, COLD) },
    ];
  const kind = KINDS[writer.kind];
  if (kind === undefined) return [];
  return [
    { writer, kind, light: mixer && (kind === EMITTER || kind === FILTER) ? lightOf(mixer, writer.param) : null },
  ];
}

/** Places of the two whites among the drives of their mixer, see `mixerFor`. */
const WARM = 3;
const COLD = 4;

/** The linear light of one emitter of a mixer at full. */
function lightOf(mixer: Mixer, emitter: number): Float64Array {
  const light = new Float64Array(3);
  alone[emitter] = 1;
  lightOfMix(mixer, alone, light);
  alone[emitter] = 0;
  return light;
}
const alone = new Float64Array(16);

const WHITE = { x: 0.3127, y: 0.329 };
/**
 * Linear red, green and blue of each slot of a lamp's wheel; of a lamp without one, of its gel or of what it is. Before
 * what mixes any colour there is nothing.
 */
function coloursOf({ profile, fixture: { gel } }: Head, { mixer, writers }: HeadPlan): Float64Array {
  const bare = mixer && (!mixer.between || !gel) && !writers.some(({ kind }) => kind === 'slot');
  if (bare) return Float64Array.of(1, 1, 1);
  const all = profile.colours.length > 0 ? profile.colours.map(({ colour }) => colour) : [undefined];
  return Float64Array.from(
    all.flatMap((colour) => {
      const { r, g, b } = linearFromChromaticity(colour ?? gel ?? WHITE);
      return [r, g, b];
    }),
  );
}

/** Red is saturated from this share of red, green and blue on (WCAG 2.2, "general flash and red flash thresholds"). */
const SATURATED = 0.8;

/** What `readLight` finds of a head, in `lamp`: linear red, green and blue as they shine, and the strobe in Hz. */
export const RED = 0;
export const GREEN = 1;
export const BLUE = 2;
export const HZ = 3;
/** On the way there: the levels of the head and of its lamp, whether the shutter is open, the slot, bare emitters. */
const LEVEL = 4;
const WHOLE_LEVEL = 5;
const OPEN = 6;
const SLOT_NOW = 7;
const BARE = 8;
const HUE_NOW = 9;
const SATURATION_NOW = 10;
export const lamp = new Float64Array(11);
/** What a head is that mixes by hue and saturation, in `mixes`. */
const BY_HUE = 2;

/** Reads one head; the cells of a lamp must be read one after the other, from its first. Allocates nothing. */
export function readLight(meter: LightMeter, frame: Uint8Array, head: number): void {
  // The shutter and the dimmer of a lamp are before all of its cells.
  if (meter.further[head] === 0) {
    lamp[OPEN] = 1;
    lamp[WHOLE_LEVEL] = 1;
    lamp[HZ] = 0;
  }
  lamp.fill(0, RED, HZ);
  lamp[LEVEL] = 1;
  lamp[SLOT_NOW] = 0;
  lamp[BARE] = 0;
  for (let row = meter.starts[head]!; row < meter.starts[head + 1]!; row++) readRow(meter, frame, row);
  const colour = meter.colours[head]!;
  const slot = lamp[SLOT_NOW]! * 3 < colour.length ? lamp[SLOT_NOW]! * 3 : 0;
  if (meter.mixes[head] === BY_HUE) mixByHue();
  if (meter.mixes[head]! > 0) for (let k = 0; k < 3; k++) lamp[k] = lamp[k]! * colour[slot + k]!;
  else {
    const level = meter.bare[head] === 1 ? Math.min(1, lamp[BARE]!) : 1;
    for (let k = 0; k < 3; k++) lamp[k] = colour[slot + k]! * level;
  }
  const level = lamp[LEVEL]! * lamp[WHOLE_LEVEL]! * lamp[OPEN]!;
  for (let k = 0; k < 3; k++) lamp[k] = Math.max(0, lamp[k]!) * level;
}

/** Drives of red, green and blue by a hue and a saturation (A. R. Smith 1978, “Color gamut transform pairs”), and their light. */
function mixByHue(): void {
  for (let k = 0; k < 3; k++) {
    const around = (lamp[HUE_NOW]! * 6 + 5 - 2 * k) % 6;
    driven[k] = 1 - lamp[SATURATION_NOW]! * Math.max(0, Math.min(around, 4 - around, 1));
  }
  for (let at = 0; at < 9; at++) {
    const k = (at / 3) | 0;
    lamp[k] = lamp[k]! + USUAL[at]! * driven[at % 3]!;
  }
}
const driven = new Float64Array(3);
const USUAL = mixerFor(['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B']).columns;

function readRow(meter: LightMeter, frame: Uint8Array, row: number): void {
  const kind = meter.kinds[row]!;
  if (kind === SHUTTER) return readShutter(meter.shutters, row * 5, bytesAt(meter.places, frame, row * 3) * 255);
  const place = bytesAt(meter.places, frame, row * 3);
  const amounts = meter.amounts[row]!;
  const value = amounts === null ? place : amountAtPlace(amounts, place);
  if (kind === DIMMER) lamp[LEVEL] = value;
  else if (kind === WHOLE) lamp[WHOLE_LEVEL] = value;
  else if (kind === HUE) lamp[HUE_NOW] = value;
  else if (kind === SATURATION) lamp[SATURATION_NOW] = value;
  else if (kind === DIRECT) lamp[BARE] = lamp[BARE]! + value;
  else if (kind === SLOT) {
    lamp[SLOT_NOW] = nearestSlot(meter.slots[row]!, value * 255);
    if (Math.abs(value * 255 - meter.shutters[row * 5]!) < 0.5) lamp[OPEN] = 0;
  } else {
    const drive = kind === FILTER ? 1 - value : value;
    for (let k = 0; k < 3; k++) lamp[k] = lamp[k]! + drive * meter.given[row * 3 + k]!;
  }
}

function readShutter(shutters: Float64Array, at: number, dmx: number): void {
  const from = shutters[at + 1]!;
  const to = shutters[at + 2]!;
  if (from >= 0 && dmx >= Math.min(from, to) - 0.5 && dmx <= Math.max(from, to) + 0.5)
    lamp[HZ] = shutters[at + 3]! + ((dmx - from) / (to - from || 1)) * (shutters[at + 4]! - shutters[at + 3]!);
  else if (Math.abs(dmx - shutters[at]!) > 20) lamp[OPEN] = 0;
}

/** What lies at a channel's places, 0…1; nothing where it has none. */
export function bytesAt(places: ArrayLike<number>, frame: Uint8Array, at: number): number {
  const coarse = places[at]!;
  const fine = places[at + 1]!;
  const ultra = places[at + 2]!;
  if (coarse < 0) return 0;
  if (fine < 0) return frame[coarse]! / 255;
  if (ultra < 0) return (frame[coarse]! * 256 + frame[fine]!) / 65535;
  return (frame[coarse]! * 65536 + frame[fine]! * 256 + frame[ultra]!) / 16777215;
}

/** The slot whose DMX value is nearest. */
export function nearestSlot(slots: Float64Array, dmx: number): number {
  let best = 0;
  for (let i = 1; i < slots.length; i++) if (Math.abs(slots[i]! - dmx) < Math.abs(slots[best]! - dmx)) best = i;
  return best;
}

/** Places in what `measure` fills: relative luminance, and how much saturated red there is. */
export const LUMINANCE = 0;
export const REDNESS = 1;
/** The luminance of lamps that strobe by themselves, and the quickest of their rates in Hz. */
export const STROBING = 2;
export const QUICKEST = 3;

/** Fills `out` with the rig's light as the bytes of a frame have it, all lamps at full white being 1. Allocates nothing. */
export function measure(meter: LightMeter, frame: Uint8Array, out: Float64Array): void {
  out.fill(0);
  for (let head = 0; head < meter.shares.length; head++) {
    readLight(meter, frame, head);
    const share = meter.shares[head]!;
    const r = lamp[RED]!;
    const g = lamp[GREEN]!;
    const b = lamp[BLUE]!;
    // Relative luminance of linear light (IEC 61966-2-1).
    const luminance = share * (0.2126 * r + 0.7152 * g + 0.0722 * b);
    if (luminance <= 0) continue;
    out[LUMINANCE] = out[LUMINANCE]! + luminance;
    if (r > g + b && r >= SATURATED * (r + g + b)) out[REDNESS] = out[REDNESS]! + share * (r - g - b);
    if (lamp[HZ]! <= 0) continue;
    out[STROBING] = out[STROBING]! + luminance;
    if (lamp[HZ]! > out[QUICKEST]!) out[QUICKEST] = lamp[HZ]!;
  }
}

/** Rewrites the bytes of every shutter that strobes quicker than `most` Hz; what cannot go so slowly shines. */
export function slowShutters({ kinds, places, shutters }: LightMeter, frame: Uint8Array, most: number): void {
  for (let row = 0; row < kinds.length; row++) {
    const coarse = places[row * 3]!;
    if (kinds[row] !== SHUTTER || coarse < 0) continue;
    lamp[HZ] = 0;
    readShutter(shutters, row * 5, bytesAt(places, frame, row * 3) * 255);
    if (lamp[HZ]! <= most + 1e-9) continue;
    const at = row * 5;
    const low = shutters[at + 3]!;
    const share = (most - low) / (shutters[at + 4]! - low || 1);
    const dmx =
      share < 0 || most <= 0
        ? shutters[at]!
        : shutters[at + 1]! + Math.min(1, share) * (shutters[at + 2]! - shutters[at + 1]!);
    // Towards the slow end, so that rounding does not make it quicker.
    frame[coarse] = shutters[at + 2]! >= shutters[at + 1]! ? Math.floor(dmx) : Math.ceil(dmx);
    if (places[row * 3 + 1]! >= 0) frame[places[row * 3 + 1]!] = 0;
  }
}
