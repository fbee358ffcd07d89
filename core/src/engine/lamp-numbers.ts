// How lamps are told in numbers, for whoever draws them.

/** Numbers per head: r, g, b (linear light, 1 = full), pan, tilt (degrees), zoom 0…1, strobe Hz, gobo slot, haze 0…1. */
export const LAMP_STRIDE = 9;

/** Each role is shown in so many strips, of its lamps in cast order: what is spread over them is seen as that. */
export const STRIPS = 3;

/** Whether a strobing lamp is lit at a moment: half of each cycle. For pictures; the lamp keeps its own time. */
export function isStrobeLit(hz: number, at: number): boolean {
  return hz <= 0 || (at * hz) % 1 < 0.5;
}
