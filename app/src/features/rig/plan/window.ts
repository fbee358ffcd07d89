// Which stretch of the room is in sight, and how metres become pixels. Pure, so that the plan's arithmetic can be tested.

import type { Extent } from '@hovlix/core/rig';

/** Pixels a metre, and the metres at the picture's middle. */
export type Window = { readonly scale: number; readonly x: number; readonly y: number };
export type Size = { readonly width: number; readonly height: number };

/** All of it in sight, as large as it can be. */
export function fitted({ left, right, low, high }: Extent, { width, height }: Size): Window {
  const scale = Math.min(width / (right - left), height / (high - low));
  return { scale, x: (left + right) / 2, y: (low + high) / 2 };
}

export const pixelX = (window: Window, { width }: Size, metres: number) =>
  width / 2 + (metres - window.x) * window.scale;
export const pixelY = (window: Window, { height }: Size, metres: number) =>
  height / 2 - (metres - window.y) * window.scale;
export const metresX = (window: Window, { width }: Size, pixels: number) =>
  window.x + (pixels - width / 2) / window.scale;
export const metresY = (window: Window, { height }: Size, pixels: number) =>
  window.y - (pixels - height / 2) / window.scale;

const NEAREST = 400;

/**
 * The window after two fingers moved from one place to another: what was under them stays under them. Never so far out
 * that the room is a dot, and never off its edge: the middle of the picture stays inside what there is to see.
 */
export function pinched(
  window: Window,
  size: Size,
  all: Extent,
  from: { readonly x: number; readonly y: number; readonly apart: number },
  to: { readonly x: number; readonly y: number; readonly apart: number },
): Window {
  const least = fitted(all, size).scale * 0.6;
  const scale = Math.min(NEAREST, Math.max(least, (window.scale * to.apart) / (from.apart || 1)));
  const [mx, my] = [metresX(window, size, from.x), metresY(window, size, from.y)];
  const x = mx - (to.x - size.width / 2) / scale;
  const y = my + (to.y - size.height / 2) / scale;
  return {
    scale,
    x: Math.min(all.right, Math.max(all.left, x)),
    y: Math.min(all.high, Math.max(all.low, y)),
  };
}

/** Where a dragged lamp or aim wants to snap: to one of these lines if it is nearer than `within`, else as it is. */
export function nearestLine(value: number, lines: readonly number[], within: number): number | undefined {
  const best = lines.reduce<number | undefined>(
    (a, b) => (a === undefined || Math.abs(b - value) < Math.abs(a - value) ? b : a),
    undefined,
  );
  return best !== undefined && Math.abs(best - value) <= within ? best : undefined;
}
