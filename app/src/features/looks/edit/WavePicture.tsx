// A wave over the cast as it runs now: its shape, and a dot for each lamp where that lamp is.

import { useEffect, useRef } from 'react';
import { figureAt, heightAt, rankOf, type Wave } from '@hovlix/core/light';
import { runAt } from '@hovlix/core/live';
import { clockNow } from '../../../host/conduct/gestures';
import { useHovlix } from '../../../host/hovlix';
import { eachFrame } from '../../../ui/each-frame';
import { usePalette } from '../../../ui/palette';
import { WORDS } from './words';

const WIDTH = 300;
const HEIGHT = 96;
const EDGE = 10;

export function WavePicture({ wave, count }: { readonly wave: Wave; readonly count: number }) {
  const app = useHovlix();
  const palette = usePalette();
  const dots = useRef<SVGGElement>(null);
  useEffect(() => {
    const out = new Float64Array(2);
    const draw = () => {
      const now = app.conducting.now();
      const beat = runAt(app.conducting.store.getState().live.speed, clockNow(app).beat);
      const turns = ('beats' in wave.span ? beat / wave.span.beats : now / wave.span.seconds) + wave.offset;
      [...(dots.current?.children ?? [])].forEach((dot, place) => {
        const { rank, of } = rankOf(wave, place, count);
        const own = turns - (wave.turn * rank) / of;
        const [x, y] = placeOf(wave, own, place, count, out);
        dot.setAttribute('cx', x.toFixed(1));
        dot.setAttribute('cy', y.toFixed(1));
      });
    };
    return eachFrame(draw);
  }, [app, wave, count]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={WORDS.waveOverAs(count, count === 1 ? 'lamp' : 'lamps')}
      style={{ width: '100%', background: palette.sunken, borderRadius: 14 }}
    >
      {/* Who wanders goes nowhere twice: there is no path to draw. */}
      {wave.shape !== 'wander' && <path d={pathOf(wave)} fill="none" stroke={palette.faint} strokeWidth={2} />}
      <g ref={dots}>
        {Array.from({ length: Math.min(count, 64) }, (_, i) => (
          <circle key={i} r={count > 24 ? 3 : 6} fill={palette.doing} />
        ))}
      </g>
    </svg>
  );
}

/** Where a lamp's dot is, after so many turns. */
function placeOf(
  wave: Wave,
  turns: number,
  place: number,
  count: number,
  out: Float64Array,
): readonly [number, number] {
  if (wave.type === 'move') {
    figureAt(wave.shape, turns, wave.seed ?? 0, place, out, 0);
    const side = wave.flip && place >= count / 2 ? -1 : 1;
    const scale = Math.min(
      (WIDTH - 2 * EDGE) / Math.max(1, wave.width),
      (HEIGHT - 2 * EDGE) / Math.max(1, wave.height),
    );
    return [WIDTH / 2 + out[0]! * wave.width * scale * side, HEIGHT / 2 - out[1]! * wave.height * scale];
  }
  const phase = turns - Math.floor(turns);
  const height = heightAt(wave.shape, turns, wave.width, wave.points ?? [], wave.seed ?? 0, place);
  return [EDGE + phase * (WIDTH - 2 * EDGE), yOf(wave, height)];
}

function yOf(wave: Exclude<Wave, { type: 'move' }>, height: number): number {
  const upside = wave.type === 'wave' && wave.low > wave.high;
  return HEIGHT - EDGE - (upside ? 1 - height : height) * (HEIGHT - 2 * EDGE);
}

function pathOf(wave: Wave): string {
  const out = new Float64Array(2);
  const points = Array.from({ length: 121 }, (_, i) => {
    if (wave.type === 'move') return placeOf(wave, i / 120, 0, 1, out);
    const turns = Math.min(i / 120, 0.9999);
    return [
      EDGE + turns * (WIDTH - 2 * EDGE),
      yOf(wave, heightAt(wave.shape, turns, wave.width, wave.points ?? [], wave.seed ?? 0, 0)),
    ] as const;
  });
  return `M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}`;
}
