// A small plan to tap where the light landed: named points, or any place on the floor.

import { useEffect, useMemo, useRef, useState } from 'react';
import { extentOf, snapped, type NamedPoint, type Patched, type Rig, type Tap } from '@hovlix/core/rig';
import { usePalette } from '../../../ui/palette';
import { Quiet } from '../../../ui/pieces';
import { ShapeMark, type Look } from '../plan/marks';
import { fitted, metresX, metresY, pixelX, pixelY } from '../plan/window';
import { WORDS } from './words';

type Props = {
  readonly rig: Rig;
  readonly lamp: Patched;
  readonly points: readonly NamedPoint[];
  readonly taps: readonly (Tap & { readonly name: string })[];
  readonly onPoint: (point: NamedPoint) => void;
};

const HEIGHT = 200;

export function LandingPlan({ rig, lamp, points, taps, onPoint }: Props) {
  const palette = usePalette();
  const area = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(340);
  useEffect(() => {
    const watch = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(200, Math.round(entry.contentRect.width))),
    );
    if (area.current) watch.observe(area.current);
    return () => watch.disconnect();
  }, []);
  const size = useMemo(() => ({ width, height: HEIGHT }), [width]);
  const view = useMemo(() => {
    return fitted(extentOf(rig, 'above', points), size);
  }, [rig, points, size]);
  const look: Look = useMemo(
    () => ({
      x: (m) => pixelX(view, size, m),
      y: (m) => pixelY(view, size, m),
      scale: view.scale,
      width: size.width,
      from: 'above',
      palette,
    }),
    [view, size, palette],
  );
  const { mount } = lamp.fixture;
  return (
    <div>
      <div
        ref={area}
        data-testid="landing"
        style={{
          height: HEIGHT,
          borderRadius: 14,
          overflow: 'hidden',
          background: palette.sunken,
          touchAction: 'none',
        }}
        onPointerUp={(event) => {
          const box = area.current!.getBoundingClientRect();
          const [px, py] = [event.clientX - box.left, event.clientY - box.top];
          const near = points
            .map((point) => ({ point, away: Math.hypot(look.x(point.x) - px, look.y(point.y) - py) }))
            .sort((a, b) => a.away - b.away)[0];
          if (near && near.away < 20) return onPoint(near.point);
          const [x, y] = [snapped(metresX(view, size, px), 0), snapped(metresY(view, size, py), 0)];
          onPoint({ id: `${x} ${y}`, name: WORDS.floorM(x.toFixed(1), y.toFixed(1)), x, y, z: 0 });
        }}
      >
        <svg width={width} height={HEIGHT} role="group" aria-label={WORDS.tapWhereLight}>
          {rig.shapes.map((shape) => (
            <ShapeMark key={shape.id} shape={shape} look={look} chosen={false} />
          ))}
          <rect x={look.x(mount.x) - 7} y={look.y(mount.y) - 7} width={14} height={14} rx={4} fill={palette.text} />
          {points.map((point) => {
            const tapped = taps.some(({ name }) => name === point.name);
            const [cx, cy] = [look.x(point.x), look.y(point.y)];
            return (
              <g
                key={point.id}
                role="button"
                tabIndex={0}
                aria-label={`${point.name}${tapped ? ', tapped' : ''}`}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  onPoint(point);
                }}
                style={{ cursor: 'pointer' }}
              >
                <rect x={cx - 22} y={cy - 22} width={44} height={44} fill="transparent" />
                <circle
                  cx={cx}
                  cy={cy}
                  r={8}
                  fill={tapped ? palette.live : palette.ground}
                  stroke={palette.live}
                  strokeWidth={2}
                />
              </g>
            );
          })}
          {taps.map(({ name, point }) => (
            <text
              key={name}
              x={look.x(point.x)}
              y={look.y(point.y) - 13}
              fill={palette.text}
              fontSize={12}
              textAnchor="middle"
              fontFamily="Figtree"
            >
              {name}
            </text>
          ))}
        </svg>
      </div>
      <Quiet paddingTop={6}>
        {WORDS.tapCircleStage(
          points
            .slice(0, 3)
            .map(({ name }) => name)
            .join(', '),
        )}
      </Quiet>
    </div>
  );
}
