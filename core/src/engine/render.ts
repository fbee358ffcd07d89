// One instant of light, as bytes.

import { linearFromOkLab, solveMix } from '../colour';
import type { LiveState } from '../live/state';
import type { Seconds } from '../units';
import { COLOUR, COLUMNS, GOBO, HAZE, LEVEL, PAN, SLOT, STROBE, TILT, ZOOM } from './columns';
import { blackoutAt, evaluate } from './evaluate';
import { rampAt } from '../light/ramp';
import { clamp } from '../units';
import type { ChannelWriter, HeadPlan, Program } from './program';
import { layTests } from './held-channels';

/**
 * Fills `out` (512 bytes per universe of the program, see `frameFor`) with the light of one instant.
 * A pure function of its arguments: the same bytes whenever and in whatever order it is called. Allocates nothing.
 * @param at the conductor's clock.
 */
export function render(program: Program, live: LiveState, at: Seconds, out: Uint8Array): void {
  evaluate(program, live, at);
  out.fill(0);
  const grand = grandAt(live, at);
  const dark = blackoutAt(live, at);
  for (let head = 0; head < program.plans.length; head++) writeHead(program, head, grand, dark, at, out);
  layTests(program.universes, live, at, out);
}

/** The grand master, 0…1. */
export function grandAt(live: LiveState, at: Seconds): number {
  return clamp(rampAt(live.master, at), 0, 1);
}

/** What the grand master and a blackout so dark (0…1) leave of a head's level. */
export function headMaster(plan: HeadPlan, grand: number, dark: number): number {
  return (plan.freeOfMaster ? 1 : grand) * (plan.freeOfBlackout ? 1 : 1 - dark);
}

/** Writes one head's channels; its values lie in the program's scratch. */
export function writeHead(
  program: Program,
  head: number,
  grand: number,
  dark: number,
  at: Seconds,
  out: Uint8Array,
): void {
  const { values, mix, linear, solve } = program.scratch;
  const plan = program.plans[head]!;
  const row = head * COLUMNS;
  const own = values[row + LEVEL]! * (plan.strobesByLevel && !isLit(values[row + STROBE]!, at) ? 0 : 1);
  const level = own * headMaster(plan, grand, dark);
  const isDark = !plan.freeOfBlackout && dark >= 0.5;
  if (plan.mixer) {
    linearFromOkLab(values[row + COLOUR]!, values[row + COLOUR + 1]!, values[row + COLOUR + 2]!, linear);
    solveMix(plan.mixer, linear[0]!, linear[1]!, linear[2]!, mix, solve);
  }
  for (let i = 0; i < plan.writers.length; i++) {
    const writer = plan.writers[i]!;
    const followed = writer.masters ? level : own;
    const value =
      isDark && writer.dark >= 0 ? writer.dark : channelValue(writer, values, row, followed, plan.dimsEmitters, mix);
    writeChannel(writer, value, out);
  }
}

/** Whether a strobe made by level is lit: the first half of each cycle, counted from the clock's zero. */
function isLit(hz: number, at: number): boolean {
  return hz <= 0 || (((at * hz) % 1) + 1) % 1 < 0.5;
}

/** 0…1 of the channel's full range. */
function channelValue(
  writer: ChannelWriter,
  values: Float64Array,
  row: number,
  level: number,
  dimsEmitters: boolean,
  mix: Float64Array,
): number {
  switch (writer.kind) {
    case 'rest':
      return writer.home;
    case 'dimmer':
      return level;
    case 'emitter':
      return mix[writer.param]! * (dimsEmitters ? level : 1);
    case 'filter':
      return 1 - mix[writer.param]!;
    case 'pan':
      return 0.5 + clamp(values[row + PAN]!, writer.low, writer.high) / writer.param;
    case 'tilt':
      return 0.5 + clamp(values[row + TILT]!, writer.low, writer.high) / writer.param;
    case 'shutter':
      return shutterValue(writer.shutter, values[row + STROBE]!);
    case 'gobo':
      return slotValue(writer.slots, values[row + GOBO]!);
    case 'slot':
      return slotValue(writer.slots, values[row + SLOT]!);
    case 'zoom':
      return values[row + ZOOM]!;
    case 'haze':
      return values[row + HAZE]!;
  }
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
function writeChannel(writer: ChannelWriter, value: number, out: Uint8Array): void {
  const held = value < 0 ? 0 : value > 1 ? 1 : value;
  if (writer.coarse < 0) return;
  if (writer.fine < 0) {
    out[writer.coarse] = Math.round(held * 255);
  } else if (writer.ultra < 0) {
    const word = Math.round(held * 65535);
    out[writer.coarse] = word >> 8;
    out[writer.fine] = word & 255;
  } else {
    const word = Math.round(held * 16777215);
    out[writer.coarse] = word >> 16;
    out[writer.fine] = (word >> 8) & 255;
    out[writer.ultra] = word & 255;
  }
}
