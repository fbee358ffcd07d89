// The room from above, the audience below: its shapes, and what whoever uses it draws and hears tapped on it. In metres,
// as the rig has them, with y growing towards the audience.

import type { ComponentProps, ReactNode, RefObject } from 'react';
import { extentOf, type Point, type Rig } from '@hovlix/core/rig';
import { usePalette } from '../../../ui/palette';
import type { Spot } from './choose';

/** A phone's width, and the most height the picture takes, in pixels. */
const PHONE = 340;
const HIGHEST = 280;

/** What of the room is to be seen, with `points` beside its lamps and shapes; and how much of it a pixel of a phone is, in metres. */
export function pictureOf(rig: Rig, points: readonly Point[] = []) {
  const { left, right, low, high } = extentOf(rig, 'above', points);
  const [width, height] = [right - left, high - low];
  return { viewBox: `${left} ${-high} ${width} ${height}`, pixel: Math.max(width / PHONE, height / HIGHEST) };
}

/** Where in the room a pointer is. */
export function spotOf(area: SVGSVGElement, { clientX, clientY }: { clientX: number; clientY: number }): Spot {
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(area.getScreenCTM()!.inverse());
  return [x, y];
}

/** So many pixels of the screen, in metres of the room. */
export const reachOf = (area: SVGSVGElement, pixels: number) => pixels / (area.getScreenCTM()?.a ?? 1);

type Props = Pick<
  ComponentProps<'svg'>,
  'viewBox' | 'onClick' | 'onPointerDown' | 'onPointerMove' | 'onPointerUp' | 'onPointerCancel' | 'onLostPointerCapture'
> & {
  readonly label: string;
  readonly rig: Rig;
  readonly area?: RefObject<SVGSVGElement | null>;
  readonly children: ReactNode;
};

export function RoomFromAbove({ label, rig, area, children, ...rest }: Props) {
  const palette = usePalette();
  return (
    <svg
      {...rest}
      ref={area}
      role="img"
      aria-label={label}
      style={{
        width: '100%',
        maxHeight: HIGHEST,
        background: palette.sunken,
        borderRadius: 14,
        // A line is drawn with a finger; a list with the picture in it is scrolled where it only hears taps.
        touchAction: rest.onPointerMove ? 'none' : undefined,
        cursor: 'crosshair',
      }}
    >
      {rig.shapes.map(({ id, x, y, width, depth, turn, kind }) => (
        <rect
          key={id}
          x={x - width / 2}
          y={-y - depth / 2}
          width={width}
          height={depth}
          transform={`rotate(${-turn} ${x} ${-y})`}
          fill={kind === 'stage' ? palette.raised : 'none'}
          stroke={palette.line}
          strokeWidth={0.05}
        />
      ))}
      {children}
    </svg>
  );
}
