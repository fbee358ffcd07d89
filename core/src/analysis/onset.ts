// How strongly something begins in each frame.

import { NETWORK_BANDS, VALUES_PER_BYTE } from './network';

/** A rise is measured against two frames (20 ms) before, over neighbouring bands, so that vibrato is no onset. */
const LAG = 2;

/** Half-wave rectified rise of log energy, summed over the bands of each frame; 0 is nothing new. */
export function onsetStrength(bands: Uint8Array, frames: number): Float32Array {
  const onset = new Float32Array(frames);
  // Before the start there is silence, so a file that begins on the beat begins with an onset.
  const level = (frame: number, band: number) => (frame < 0 ? 0 : bands[frame * NETWORK_BANDS + band]!);
  for (let f = 0; f < frames; f++) {
    let sum = 0;
    for (let b = 0; b < NETWORK_BANDS; b++) {
      const before = f - LAG;
      const around = Math.max(
        level(before, b),
        level(before, Math.max(0, b - 1)),
        level(before, Math.min(NETWORK_BANDS - 1, b + 1)),
      );
      sum += Math.max(0, level(f, b) - around);
    }
    onset[f] = sum * VALUES_PER_BYTE;
  }
  return onset;
}
