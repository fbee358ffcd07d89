// One instant of light, as bytes.

import { linearFromOkLab, solveMix } from '../colour';
import { rampAt } from '../light/ramp';
import type { LiveState } from '../live/state';
import { clamp, type Seconds } from '../units';
import { blackoutAt, evaluate } from './evaluate';
import { AIM, COLOUR, GOBO, HAZE, LEVEL, MOVE, SLOT, STROBE, ZOOM } from './fields';
import { layTests } from './held-channels';
import { MIX, type ChannelWriter, type HeadPlan, type Program } from './program';

/**
 * Fills `out` (512 bytes per universe of the program, see `frameFor`) with the light of one instant.
 * A pure function of its arguments: the same bytes whenever and in whatever order it is called. Allocates nothing.
 * @param at the conductor's clock.
 */
export function render(program: Program, live: LiveState, at: Seconds, out: Uint8Array): void {
  evaluate(program, live, at);
  out.fill(0);
  takeMasters(program, live, at);
  const dark = blackoutAt(live, at);
  for (let head = 0; head < program.plans.length; head++) writeHead(program, head, dark, at, out);
  layTests(program.universes, live, at, out);
}

/** Works out what grand master, part masters and blackout leave of each head's level. */
export function takeMasters(program: Program, live: LiveState, at: Seconds): void {
  const { masters } = program.scratch;
  const grand = clamp(rampAt(live.master, at), 0, 1);
  const dark = blackoutAt(live, at);
  for (let head = 0; head < masters.length; head++) masters[head] = headMaster(program.plans[head]!, grand, dark);
  for (let i = 0; i < live.partMasters.length; i++) {
    const { part, ramp } = live.partMasters[i]!;
    const level = clamp(rampAt(ramp, at), 0, 1);
    const cast = level < 1 ? program.casts.get(part) : undefined;
    if (cast) for (let k = 0; k < cast.length; k++) masters[cast[k]!] = masters[cast[k]!]! * level;
  }
}

/** What the grand master and a blackout so dark (0…1) leave of a head's level. */
function headMaster(plan: HeadPlan, grand: number, dark: number): number {
  return (plan.freeOfMaster ? 1 : grand) * (plan.freeOfBlackout ? 1 : 1 - dark);
}

/** Writes one head's channels; its values lie in the program's fields, its masters in the scratch. */
export function writeHead(program: Program, head: number, dark: number, at: Seconds, out: Uint8Array): void {
  const { fields } = program;
  const plan = program.plans[head]!;
  const lit = !plan.strobesByLevel || isLit(fields[STROBE]!.values[head]!, at);
  const own = lit ? fields[LEVEL]!.values[head]! : 0;
  const level = own * program.scratch.masters[head]!;
  const isDark = !plan.freeOfBlackout && dark >= 0.5;
  if (plan.mixer) mixColour(program, head);
  for (let i = 0; i < plan.writers.length; i++) {
    const writer = plan.writers[i]!;
    const followed = writer.masters ? level : own;
    const value = isDark && writer.dark >= 0 ? writer.dark : channelValue(writer, program, followed, plan.dimsEmitters);
    writeChannel(writer, value, out);
  }
}

/** Solves a head's emitters, unless they were solved for this very colour before: the answer does not depend on that. */
function mixColour(program: Program, head: number): void {
  const { mixes, mixed, linear } = program.scratch;
  const colour = program.fields[COLOUR]!.values;
  const at = head * 3;
  if (mixed[at] === colour[at] && mixed[at + 1] === colour[at + 1] && mixed[at + 2] === colour[at + 2]) return;
  for (let k = 0; k < 3; k++) mixed[at + k] = colour[at + k]!;
  linearFromOkLab(colour[at]!, colour[at + 1]!, colour[at + 2]!, linear);
  solveMix(program.plans[head]!.mixer!, linear[0]!, linear[1]!, linear[2]!, mixes, head * MIX);
}

/** Whether a strobe made by level is lit: the first half of each cycle, counted from the clock's zero. */
function isLit(hz: number, at: number): boolean {
  return hz <= 0 || (((at * hz) % 1) + 1) % 1 < 0.5;
}

/** 0…1 of the channel's full range: what a look says to it by name, as far as it says so, over what it does else. */
function channelValue(writer: ChannelWriter, program: Program, level: number, dimsEmitters: boolean): number {
  const { own, head } = writer;
  if (!own?.touched || own.weights[head]! <= 0) return usualValue(writer, program.fields, level, dimsEmitters, program);
  const dimmed = dimsEmitters && (writer.kind === 'emitter' || writer.kind === 'direct') ? level : 1;
  const left = 1 - own.weights[head]!;
  const usual = left > 0 ? usualValue(writer, program.fields, level, dimsEmitters, program) : 0;
  return own.values[head]! * dimmed + left * usual;
}

function usualValue(
  writer: ChannelWriter,
  fields: Program['fields'],
  level: number,
  dimsEmitters: boolean,
  program: Program,
): number {
  const { head, param } = writer;
  switch (writer.kind) {
    case 'rest':
    case 'direct':
      return writer.home;
    case 'dimmer':
      return level;
    case 'emitter':
      return program.scratch.mixes[head * MIX + param]! * (dimsEmitters ? level : 1);
    case 'filter':
      return 1 - program.scratch.mixes[head * MIX + param]!;
    case 'pan':
      return turnValue(fields[AIM]!.values[head * 5]! + fields[MOVE]!.values[head * 2]!, writer);
    case 'tilt':
      return turnValue(fields[AIM]!.values[head * 5 + 1]! + fields[MOVE]!.values[head * 2 + 1]!, writer);
    case 'shutter':
      return shutterValue(writer.shutter, fields[STROBE]!.values[head]!);
    case 'gobo':
      return slotValue(writer.slots, fields[GOBO]!.values[head]!);
    case 'slot':
      return slotValue(writer.slots, fields[SLOT]!.values[head]!);
    case 'zoom':
      return fields[ZOOM]!.values[head]!;
    case 'haze':
      return fields[HAZE]!.values[head]!;
  }
}

function turnValue(degrees: number, { low, high, param }: ChannelWriter): number {
  return 0.5 + clamp(degrees, low, high) / param;
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
