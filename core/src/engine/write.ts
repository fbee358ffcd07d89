// A head's numbers as bytes. What the writers of all heads need lies in flat arrays, one row a channel: as objects spread
// over memory, 14,000 of them took twice the time.

import { linearFromOkLabAt, solveMixOf } from '../colour';
import type { Seconds } from '../units';
import { AIM, COLOUR, GOBO, HAZE, LEVEL, MOVE, SLOT, STROBE, ZOOM } from './fields';
import { type Program } from './program';
import { MIX, ROWS_AT_ONCE, type ChannelKind, type HeadPlan, type WriterTable } from './parts';

const REST = 0;
const DIMMER = 1;
const EMITTER = 2;
const DIRECT = 3;
const FILTER = 4;
const PAN = 5;
const TILT = 6;
const SHUTTER = 7;
const GOBO_SLOT = 8;
const COLOUR_SLOT = 9;
const ZOOMS = 10;
const FOGS = 11;
const HUE = 12;
const SATURATION = 13;
const WARMTH = 14;

const CODES: Readonly<Record<ChannelKind, number>> = {
  rest: REST,
  whole: REST,
  effect: REST,
  dimmer: DIMMER,
  emitter: EMITTER,
  direct: DIRECT,
  filter: FILTER,
  hue: HUE,
  saturation: SATURATION,
  warmth: WARMTH,
  pan: PAN,
  tilt: TILT,
  shutter: SHUTTER,
  gobo: GOBO_SLOT,
  slot: COLOUR_SLOT,
  zoom: ZOOMS,
  haze: FOGS,
};

export function* writerTable(plans: readonly HeadPlan[]): Generator<void, WriterTable> {
  const all = plans.flatMap(({ writers }) => writers);
  const table = {
    starts: new Int32Array(plans.length + 1),
    kinds: new Uint8Array(all.length),
    places: new Int32Array(all.length * 3),
    params: new Float64Array(all.length),
    rests: new Float64Array(all.length * 4),
    masters: new Uint8Array(all.length),
    partly: new Uint8Array(all.length),
    amounts: new Float64Array(all.length * 3),
  };
  plans.forEach(({ writers }, head) => (table.starts[head + 1] = table.starts[head]! + writers.length));
  for (const [row, writer] of all.entries()) {
    const { kind, coarse, fine, ultra, param, home, low, high, dark, masters, amounts } = writer;
    if (row % ROWS_AT_ONCE === 0) yield;
    table.kinds[row] = CODES[kind];
    table.places.set([coarse, fine, ultra], row * 3);
    table.params[row] = param;
    table.rests.set([home, low, high, dark], row * 4);
    table.masters[row] = Number(masters);
    if (!amounts || kind === 'whole') continue;
    table.partly[row] = 1;
    table.amounts.set([amounts.none, amounts.least, amounts.most], row * 3);
  }
  return {
    ...table,
    slots: all.map(({ slots }) => slots),
    shutters: all.map(({ shutter }) => shutter),
    owns: all.map(({ own }) => own),
  };
}

/**
 * Writes one head's channels; its values lie in the program's fields, its masters in the scratch. What is on its way to a
 * channel is in `now`: numbers that functions pass to each other are put on the heap, 450 KB a frame of 64 universes.
 */
export function writeHead(program: Program, head: number, dark: number, at: Seconds, out: Uint8Array): void {
  const { fields, table, scratch } = program;
  const { now } = scratch;
  const plan = program.plans[head]!;
  const lit = !plan.strobesByLevel || isLit(fields[STROBE]!.values[head]!, at);
  now[OWN] = lit ? fields[LEVEL]!.values[head]! : 0;
  now[MASTERED] = now[OWN]! * scratch.masters[head]!;
  const isDark = !plan.freeOfBlackout && dark >= 0.5;
  if (plan.mixer) mixColour(program, head);
  const end = table.starts[head + 1]!;
  for (let row = table.starts[head]!; row < end; row++) {
    now[LEVEL_HERE] = table.masters[row] === 1 ? now[MASTERED]! : now[OWN]!;
    const darkens = isDark ? table.rests[row * 4 + 3]! : -1;
    if (darkens >= 0) now[VALUE] = darkens;
    else findValue(program, row, head, plan.dimsEmitters);
    writeChannel(table.places, row * 3, now, out);
  }
}

/** Places in `now`: the level before and after masters, the one this channel goes by, and the value it gets, 0…1. */
const OWN = 0;
const MASTERED = 1;
const LEVEL_HERE = 2;
const VALUE = 3;

/** Solves a head's emitters, unless they were solved for this very colour before: the answer does not depend on that. */
function mixColour(program: Program, head: number): void {
  const { mixes, mixed, linear } = program.scratch;
  const colour = program.fields[COLOUR]!.values;
  const at = head * 3;
  if (mixed[at] === colour[at] && mixed[at + 1] === colour[at + 1] && mixed[at + 2] === colour[at + 2]) return;
  for (let k = 0; k < 3; k++) mixed[at + k] = colour[at + k]!;
  linearFromOkLabAt(colour, at, linear);
  solveMixOf(program.plans[head]!.mixer!, linear, mixes, head * MIX);
}

/** Whether a strobe made by level is lit: the first half of each cycle, counted from the clock's zero. */
function isLit(hz: number, at: number): boolean {
  return hz <= 0 || (((at * hz) % 1) + 1) % 1 < 0.5;
}

/** The share of the channel's full range: what a look says to it by name, as far as it says so, over what it does else. */
function findValue(program: Program, row: number, head: number, dims: boolean): void {
  const own = program.table.owns[row]!;
  const { now } = program.scratch;
  const weight = own !== null && own.touched ? own.weights[head]! : 0;
  if (weight < 1) {
    findUsual(program, row, head, dims);
    if (program.table.partly[row] === 1) takePart(program.table.amounts, row * 3, now);
  }
  if (own === null || weight <= 0) return;
  const kind = program.table.kinds[row]!;
  const dimmed = dims && (kind === EMITTER || kind === DIRECT) ? now[LEVEL_HERE]! : 1;
  now[VALUE] = own.values[head]! * dimmed + (weight < 1 ? (1 - weight) * now[VALUE]! : 0);
}

function findUsual(program: Program, row: number, head: number, dims: boolean): void {
  const { fields, table, scratch } = program;
  const { now } = scratch;
  switch (table.kinds[row]!) {
    case EMITTER:
      now[VALUE] = scratch.mixes[head * MIX + table.params[row]!]! * (dims ? now[LEVEL_HERE]! : 1);
      return;
    case DIMMER:
      now[VALUE] = now[LEVEL_HERE]!;
      return;
    case DIRECT:
      now[VALUE] = table.params[row] === 1 ? now[LEVEL_HERE]! : table.rests[row * 4]!;
      return;
    case PAN:
      now[VALUE] = fields[AIM]!.values[head * 5]! + fields[MOVE]!.values[head * 2]!;
      return turn(table, row, now);
    case TILT:
      now[VALUE] = fields[AIM]!.values[head * 5 + 1]! + fields[MOVE]!.values[head * 2 + 1]!;
      return turn(table, row, now);
    case FILTER:
      now[VALUE] = 1 - scratch.mixes[head * MIX + table.params[row]!]!;
      return;
    case HUE:
      return hue(scratch.mixes, head * MIX, now);
    case SATURATION:
      return saturation(scratch.mixes, head * MIX, now);
    case WARMTH:
      return coldness(scratch.mixes, head * MIX + 3, now);
    case SHUTTER:
      now[VALUE] = fields[STROBE]!.values[head]!;
      return strobe(table.shutters[row]!, now);
    case GOBO_SLOT:
      now[VALUE] = fields[GOBO]!.values[head]!;
      return slot(table.slots[row]!, now);
    case COLOUR_SLOT:
      if (shutsAt(table.shutters[row]!, now)) return;
      now[VALUE] = fields[SLOT]!.values[head]!;
      return slot(table.slots[row]!, now);
    case ZOOMS:
      now[VALUE] = fields[ZOOM]!.values[head]!;
      return;
    case FOGS:
      now[VALUE] = fields[HAZE]!.values[head]!;
      return;
    default:
      now[VALUE] = table.rests[row * 4]!;
  }
}

/** From an amount to the part of the channel where amounts lie. */
function takePart(amounts: Float64Array, at: number, now: Float64Array): void {
  const amount = now[VALUE]!;
  const least = amounts[at + 1]!;
  now[VALUE] = amount <= 0 ? amounts[at]! : least + (amount > 1 ? 1 : amount) * (amounts[at + 2]! - least);
}

/** From drives of red, green and blue to the hue that has them, red at 0, green at a third (A. R. Smith 1978, “Color gamut transform pairs”). */
function hue(mixes: Float64Array, at: number, now: Float64Array): void {
  const r = mixes[at]!;
  const g = mixes[at + 1]!;
  const b = mixes[at + 2]!;
  const most = Math.max(r, g, b);
  const spread = most - Math.min(r, g, b);
  if (spread <= 1e-6) now[VALUE] = 0;
  else if (most === r) now[VALUE] = ((g - b) / spread / 6 + 1) % 1;
  else if (most === g) now[VALUE] = ((b - r) / spread + 2) / 6;
  else now[VALUE] = ((r - g) / spread + 4) / 6;
}

/** From the same drives to how far their colour is from white. */
function saturation(mixes: Float64Array, at: number, now: Float64Array): void {
  // The strongest drive of a mix is at full.
  now[VALUE] = 1 - Math.min(mixes[at]!, mixes[at + 1]!, mixes[at + 2]!);
}

/** From drives of a warm and a cold white to the place between them, 1 being all cold. */
function coldness(mixes: Float64Array, at: number, now: Float64Array): void {
  const warm = mixes[at]!;
  const cold = mixes[at + 1]!;
  now[VALUE] = cold < warm ? cold / 2 : 1 - warm / 2;
}

/** From degrees to a share of the motor's range. */
function turn({ rests, params }: WriterTable, row: number, now: Float64Array): void {
  const low = rests[row * 4 + 1]!;
  const high = rests[row * 4 + 2]!;
  const degrees = now[VALUE]!;
  now[VALUE] = 0.5 + (degrees < low ? low : degrees > high ? high : degrees) / params[row]!;
}

/** From a slot's number to its value. */
function slot(slots: Float64Array, now: Float64Array): void {
  const wanted = Math.round(now[VALUE]!);
  now[VALUE] = slots[wanted < slots.length ? wanted : 0]! / 255;
}

/** A lamp that nothing dims is dark by what shuts it. @returns whether it is shut now. */
function shutsAt(shutter: Float64Array, now: Float64Array): boolean {
  const shuts = shutter[5]! >= 0 && now[LEVEL_HERE]! <= 0;
  if (shuts) now[VALUE] = shutter[5]! / 255;
  return shuts;
}

/** From Hz to the shutter's value. */
function strobe(shutter: Float64Array, now: Float64Array): void {
  const hz = now[VALUE]!;
  if (shutsAt(shutter, now)) return;
  if (hz <= 0 || shutter[1]! < 0) {
    now[VALUE] = shutter[0]! / 255;
    return;
  }
  const share = (hz - shutter[3]!) / (shutter[4]! - shutter[3]! || 1);
  const held = share < 0 ? 0 : share > 1 ? 1 : share;
  now[VALUE] = (shutter[1]! + held * (shutter[2]! - shutter[1]!)) / 255;
}

/** A value of 0…1 as one, two or three bytes, coarse first; rounded once, at the finest byte there is. */
function writeChannel(places: Int32Array, at: number, now: Float64Array, out: Uint8Array): void {
  const coarse = places[at]!;
  if (coarse < 0) return;
  const value = now[VALUE]!;
  const held = value < 0 ? 0 : value > 1 ? 1 : value;
  const fine = places[at + 1]!;
  if (fine < 0) {
    out[coarse] = (held * 255 + 0.5) | 0;
    return;
  }
  const ultra = places[at + 2]!;
  if (ultra < 0) {
    const word = (held * 65535 + 0.5) | 0;
    out[coarse] = word >> 8;
    out[fine] = word & 255;
    return;
  }
  const word = (held * 16777215 + 0.5) | 0;
  out[coarse] = word >> 16;
  out[fine] = (word >> 8) & 255;
  out[ultra] = word & 255;
}
