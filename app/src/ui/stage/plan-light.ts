// The light of this very moment on a plan of the room, from above or from the audience.

import { LAMP_STRIDE } from '@hovlix/core/picture';
import type { StageHead } from '../../host/light/light-messages';
import { acrossOf, beamEnd, lampOf, lit, spread, stylesOf, type StyleCache } from './beams';

/** Metres to pixels: a metre's length, and where x = 0 and the upward axis = 0 lie. */
export type PlanView = {
  readonly scale: number;
  readonly x0: number;
  readonly y0: number;
  readonly from: 'above' | 'audience';
};

export type PlanPainter = (
  context: CanvasRenderingContext2D,
  size: { readonly width: number; readonly height: number },
  view: PlanView,
  lamps: Float32Array,
  at: number,
) => void;

export function planPainter(heads: readonly StageHead[]): PlanPainter {
  const all = heads.map(lampOf);
  const styles: StyleCache = new Map();
  const rgb = new Float64Array(4);
  return (context, { width, height }, view, lamps, at) => {
    context.clearRect(0, 0, width, height);
    context.globalCompositeOperation = 'lighter';
    const up = view.from === 'above' ? 1 : 2;
    for (let i = 0; i < all.length; i++) {
      const lamp = all[i]!;
      const { mount, kind } = lamp.head;
      if (kind === 'hazer' || !lit(lamps, i, at, rgb)) continue;
      const x = view.x0 + acrossOf(lamp.head) * view.scale;
      const y = view.y0 - (up === 1 ? mount.y : mount.z) * view.scale;
      const [full, half, low, none] = stylesOf(rgb, styles);
      if (kind === 'bar' || kind === 'strobe') {
        glow(context, x, y, view.scale * (kind === 'bar' ? 0.35 : 1.4), rgb[3]! * 0.7, [full, half, low, none]);
        continue;
      }
      beamEnd(lamp, lamps, i);
      const tx = view.x0 + lamp.to[0]! * view.scale;
      const ty = view.y0 - lamp.to[up]! * view.scale;
      const length = Math.hypot(lamp.to[0]! - mount.x, lamp.to[1]! - mount.y, lamp.to[2]! - mount.z);
      const radius = Math.max(5, length * spread(lamp, lamps, i) * view.scale);
      const along = Math.hypot(tx - x, ty - y);
      if (along > 3) {
        const [nx, ny] = [-(ty - y) / along, (tx - x) / along];
        const gradient = context.createLinearGradient(x, y, tx, ty);
        gradient.addColorStop(0, full);
        gradient.addColorStop(0.25, half);
        gradient.addColorStop(1, low);
        context.fillStyle = gradient;
        context.globalAlpha = rgb[3]! * 0.6;
        context.beginPath();
        context.moveTo(x - nx * 3, y - ny * 3);
        context.lineTo(tx - nx * radius, ty - ny * radius);
        context.lineTo(tx + nx * radius, ty + ny * radius);
        context.lineTo(x + nx * 3, y + ny * 3);
        context.fill();
      }
      const open = lamp.head.patterns[Math.round(lamps[i * LAMP_STRIDE + 7]!)] ?? 'open';
      if (up === 1)
        glow(context, tx, ty, radius * 1.25, rgb[3]! * (open === 'open' ? 0.75 : 0.45), [full, half, low, none]);
      glow(context, x, y, 12, rgb[3]!, [full, half, low, none]);
    }
    context.globalCompositeOperation = 'source-over';
    context.globalAlpha = 1;
  };
}

function glow(
  context: CanvasRenderingContext2D,
  x: number,
  y: number,
  radius: number,
  strength: number,
  [full, half, low, none]: readonly [string, string, string, string],
): void {
  const gradient = context.createRadialGradient(x, y, 0, x, y, radius);
  gradient.addColorStop(0, full);
  gradient.addColorStop(0.35, half);
  gradient.addColorStop(0.7, low);
  gradient.addColorStop(1, none);
  context.globalAlpha = strength;
  context.fillStyle = gradient;
  context.fillRect(x - radius, y - radius, radius * 2, radius * 2);
}
