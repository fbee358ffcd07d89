// The way back: what the bytes that go out make the lamps do. Pictures are drawn from this, so they cannot flatter.

import { lightOfMix, linearFromChromaticity } from '../colour';
import type { Chromaticity } from '../colour';
import type { ChannelWriter, Program } from './program';

/** Numbers per head: r, g, b (linear light, 1 = full), pan, tilt (degrees), zoom 0…1, strobe Hz, gobo slot, haze 0…1. */
export const LAMP_STRIDE = 9;

/** An array for `readLamps`. */
export function lampsFor(program: Program): Float32Array<ArrayBuffer> {
  return new Float32Array(program.heads.length * LAMP_STRIDE);
}

/** Fills `out` (`LAMP_STRIDE` numbers per head) with what a frame's bytes mean. Allocates nothing but on its first call. */
export function readLamps(program: Program, frame: Uint8Array, out: Float32Array): void {
  const { solve: mix, linear } = program.scratch;
  for (let head = 0; head < program.plans.length; head++) {
    const plan = program.plans[head]!;
    const { profile, fixture } = program.heads[head]!;
    const at = head * LAMP_STRIDE;
    let level = 1;
    let slot = 0;
    let open = 1;
    out.fill(0, at, at + LAMP_STRIDE);
    out[at + 5] = 0.5;
    for (let i = 0; i < plan.writers.length; i++) {
      const writer = plan.writers[i]!;
      const value = readChannel(writer, frame);
      if (writer.kind === 'dimmer') level = value;
      else if (writer.kind === 'emitter') mix[writer.param] = value;
      else if (writer.kind === 'filter') mix[writer.param] = 1 - value;
      else if (writer.kind === 'pan') out[at + 3] = (value - 0.5) * writer.param;
      else if (writer.kind === 'tilt') out[at + 4] = (value - 0.5) * writer.param;
      else if (writer.kind === 'zoom') out[at + 5] = value;
      else if (writer.kind === 'gobo') out[at + 7] = nearestValue(writer.slots, value * 255);
      else if (writer.kind === 'slot') slot = nearestValue(writer.slots, value * 255);
      else if (writer.kind === 'haze') out[at + 8] = value;
      else if (writer.kind === 'shutter') {
        const strobing = writer.shutter[1]! >= 0 && inside(value * 255, writer.shutter[1]!, writer.shutter[2]!);
        if (strobing) out[at + 6] = strobeHz(writer.shutter, value * 255);
        else if (Math.abs(value * 255 - writer.shutter[0]!) > 20) open = 0;
      }
    }
    if (profile.kind === 'hazer') continue;
    if (plan.mixer) lightOfMix(plan.mixer, mix, linear);
    else setLight(profile.colours[slot]?.colour ?? fixture.gel, linear);
    for (let k = 0; k < 3; k++) out[at + k] = Math.max(0, linear[k]!) * level * open;
  }
}

/** Whether a strobing lamp is lit at a moment: half of each cycle. For pictures; the lamp keeps its own time. */
export function isStrobeLit(hz: number, at: number): boolean {
  return hz <= 0 || (at * hz) % 1 < 0.5;
}

const lights = new WeakMap<Chromaticity, readonly [number, number, number]>();
const WHITE: Chromaticity = { x: 0.3127, y: 0.329 };

function setLight(colour: Chromaticity = WHITE, out: Float64Array): void {
  let light = lights.get(colour);
  if (!light) {
    const { r, g, b } = linearFromChromaticity(colour);
    lights.set(colour, (light = [r, g, b]));
  }
  out[0] = light[0];
  out[1] = light[1];
  out[2] = light[2];
}

function readChannel(writer: ChannelWriter, frame: Uint8Array): number {
  if (writer.coarse < 0) return 0;
  const coarse = frame[writer.coarse]!;
  if (writer.fine < 0) return coarse / 255;
  if (writer.ultra < 0) return (coarse * 256 + frame[writer.fine]!) / 65535;
  return (coarse * 65536 + frame[writer.fine]! * 256 + frame[writer.ultra]!) / 16777215;
}

function nearestValue(slots: Float64Array, dmx: number): number {
  let best = 0;
  for (let i = 1; i < slots.length; i++) if (Math.abs(slots[i]! - dmx) < Math.abs(slots[best]! - dmx)) best = i;
  return best;
}

function inside(dmx: number, from: number, to: number): boolean {
  return dmx >= Math.min(from, to) - 0.5 && dmx <= Math.max(from, to) + 0.5;
}

function strobeHz(shutter: Float64Array, dmx: number): number {
  const share = (dmx - shutter[1]!) / (shutter[2]! - shutter[1]! || 1);
  return shutter[3]! + share * (shutter[4]! - shutter[3]!);
}
