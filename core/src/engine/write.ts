// A head's numbers as bytes. What the writers of all heads need lies in flat arrays, one row a channel: as objects spread
// over memory, 14,000 of them took twice the time.

import { linearFromOkLab, solveMix } from '../colour';
import { clamp, type Seconds } from '../units';
import { AIM, COLOUR, GOBO, HAZE, LEVEL, MOVE, SLOT, STROBE, ZOOM, type Field } from './fields';
import { MIX, type ChannelKind, type HeadPlan, type Program } from './program';

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

const CODES: Readonly<Record<ChannelKind, number>> = { rest: REST, dimmer: DIMMER, emitter: EMITTER, direct: DIRECT, filter: FILTER, pan: PAN, tilt: TILT, shutter: SHUTTER, gobo: GOBO_SLOT, slot: COLOUR_SLOT, zoom: ZOOMS, haze: FOGS }; // prettier-ignore

/** The channel writers of all heads: those of head i are the rows `[starts[i], starts[i + 1])`. */
export type WriterTable = {
  readonly starts: Int32Array;
  readonly kinds: Uint8Array;
  /** Coarse, fine and ultra place by row, and the range of emitters or degrees: see `ChannelWriter`. */
  readonly places: Int32Array;
  readonly params: Float64Array;
  /** Home, low, high, dark by row. */
  readonly rests: Float64Array;
  readonly masters: Uint8Array;
  readonly slots: readonly Float64Array[];
  readonly shutters: readonly Float64Array[];
  /** A field in which a look may speak to this channel by its name. */
  readonly owns: readonly (Field | null)[];
};

export function writerTable(plans: readonly HeadPlan[]): WriterTable {
  const all = plans.flatMap(({ writers }) => writers);
  const table = {
    starts: new Int32Array(plans.length + 1),
    kinds: new Uint8Array(all.length),
    places: new Int32Array(all.length * 3),
    params: new Float64Array(all.length),
    rests: new Float64Array(all.length * 4),
    masters: new Uint8Array(all.length),
  };
  plans.forEach(({ writers }, head) => (table.starts[head + 1] = table.starts[head]! + writers.length));
  all.forEach(({ kind, coarse, fine, ultra, param, home, low, high, dark, masters }, row) => {
    table.kinds[row] = CODES[kind];
    table.places.set([coarse, fine, ultra], row * 3);
    table.params[row] = param;
    table.rests.set([home, low, high, dark], row * 4);
    table.masters[row] = Number(masters);
  });
  return {
    ...table,
    slots: all.map(({ slots }) => slots),
    shutters: all.map(({ shutter }) => shutter),
    owns: all.map(({ own }) => own),
  };
}

/** Writes one head's channels; its values lie in the program's fields, its masters in the scratch. */
export function writeHead(program: Program, head: number, dark: number, at: Seconds, out: Uint8Array): void {
  const { fields, table } = program;
  const plan = program.plans[head]!;
  const lit = !plan.strobesByLevel || isLit(fields[STROBE]!.values[head]!, at);
  const own = lit ? fields[LEVEL]!.values[head]! : 0;
  const level = own * program.scratch.masters[head]!;
  const isDark = !plan.freeOfBlackout && dark >= 0.5;
  if (plan.mixer) mixColour(program, head);
  const end = table.starts[head + 1]!;
  for (let row = table.starts[head]!; row < end; row++) {
    const darkens = isDark ? table.rests[row * 4 + 3]! : -1;
    const followed = table.masters[row] === 1 ? level : own;
    const value = darkens >= 0 ? darkens : channelValue(program, row, head, followed, plan.dimsEmitters);
    writeChannel(table.places, row * 3, value, out);
  }
}

/** Solves a head's emitters, unless they were solved for this very colour before: the answer does not depend on that. */
function mixColour(program: Program, head: number): void {
  const { mixes, mixed, linear } = program.scratch;
  const colour = program.fields[COLOUR]!.values;
  const at = head * 3;
  const L = colour[at]!;
  const a = colour[at + 1]!;
  const b = colour[at + 2]!;
  if (mixed[at] === L && mixed[at + 1] === a && mixed[at + 2] === b) return;
  mixed[at] = L;
  mixed[at + 1] = a;
  mixed[at + 2] = b;
  linearFromOkLab(L, a, b, linear);
  solveMix(program.plans[head]!.mixer!, linear[0]!, linear[1]!, linear[2]!, mixes, head * MIX);
}

/** Whether a strobe made by level is lit: the first half of each cycle, counted from the clock's zero. */
function isLit(hz: number, at: number): boolean {
  return hz <= 0 || (((at * hz) % 1) + 1) % 1 < 0.5;
}

/** 0…1 of the channel's full range: what a look says to it by name, as far as it says so, over what it does else. */
function channelValue(program: Program, row: number, head: number, level: number, dims: boolean): number {
  const own = program.table.owns[row]!;
  if (own === null || !own.touched || own.weights[head]! <= 0) return usualValue(program, row, head, level, dims);
  const kind = program.table.kinds[row]!;
  const dimmed = dims && (kind === EMITTER || kind === DIRECT) ? level : 1;
  const left = 1 - own.weights[head]!;
  const usual = left > 0 ? usualValue(program, row, head, level, dims) : 0;
  return own.values[head]! * dimmed + left * usual;
}

function usualValue(program: Program, row: number, head: number, level: number, dims: boolean): number {
  const { fields, table, scratch } = program;
  switch (table.kinds[row]!) {
    case EMITTER:
      return scratch.mixes[head * MIX + table.params[row]!]! * (dims ? level : 1);
    case DIMMER:
      return level;
    case PAN:
      return turnValue(table, row, fields[AIM]!.values[head * 5]! + fields[MOVE]!.values[head * 2]!);
    case TILT:
      return turnValue(table, row, fields[AIM]!.values[head * 5 + 1]! + fields[MOVE]!.values[head * 2 + 1]!);
    case FILTER:
      return 1 - scratch.mixes[head * MIX + table.params[row]!]!;
    case SHUTTER:
      return shutterValue(table.shutters[row]!, fields[STROBE]!.values[head]!);
    case GOBO_SLOT:
      return slotValue(table.slots[row]!, fields[GOBO]!.values[head]!);
    case COLOUR_SLOT:
      return slotValue(table.slots[row]!, fields[SLOT]!.values[head]!);
    case ZOOMS:
      return fields[ZOOM]!.values[head]!;
    case FOGS:
      return fields[HAZE]!.values[head]!;
    default:
      return table.rests[row * 4]!;
  }
}

function turnValue({ rests, params }: WriterTable, row: number, degrees: number): number {
  return 0.5 + clamp(degrees, rests[row * 4 + 1]!, rests[row * 4 + 2]!) / params[row]!;
}

function slotValue(slots: Float64Array, wanted: number): number {
  const slot = Math.round(wanted);
  return slots[slot < slots.length ? slot : 0]! / 255;
}

function shutterValue(shutter: Float64Array, hz: number): number {
  if (hz <= 0 || shutter[1]! < 0) return shutter[0]! / 255;
  const share = (hz - shutter[3]!) / (shutter[4]! - shutter[3]! || 1);
  const held = share < 0 ? 0 : share > 1 ? 1 : share;
  return (shutter[1]! + held * (shutter[2]! - shutter[1]!)) / 255;
}

/** A value of 0…1 as one, two or three bytes, coarse first; rounded once, at the finest byte there is. */
function writeChannel(places: Int32Array, at: number, value: number, out: Uint8Array): void {
  const coarse = places[at]!;
  if (coarse < 0) return;
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
