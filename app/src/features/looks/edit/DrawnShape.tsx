// A shape of one's own: heights over one turn, drawn with a finger.

import { useRef, type PointerEvent } from 'react';
import { clamp } from '@hovlix/core/units';
import { useDrag } from '../../../ui/drag';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { WORDS } from './words';

/** A place of a shape, and how high it is there. */
type Spot = { readonly place: number; readonly height: number };

/** Heights after a finger went from one spot to another: a quick one is heard of at few places, those between lie on its line. */
export function drawnTo(points: readonly number[], from: Spot, to: Spot): number[] {
  const [low, high] = [Math.min(from.place, to.place), Math.max(from.place, to.place)];
  const at = (place: number) =>
    from.place === to.place
      ? to.height
      : from.height + ((to.height - from.height) * (place - from.place)) / (to.place - from.place);
  return points.map((one, i) => (i < low || i > high ? one : Math.round(at(i) * 100) / 100));
}

type Props = { readonly points: readonly number[]; readonly onChange: (points: number[]) => void };

export function DrawnShape({ points, onChange }: Props) {
  const palette = usePalette();
  const last = useRef<Spot | null>(null);
  const draw = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const place = clamp(Math.floor(((event.clientX - box.left) / box.width) * points.length), 0, points.length - 1);
    const height = clamp(1 - (event.clientY - box.top) / box.height, 0, 1);
    const spot = { place, height };
    onChange(drawnTo(points, last.current ?? spot, spot));
    last.current = spot;
  };
  const letGo = () => void (last.current = null);
  const hands = useDrag<HTMLDivElement>({ down: draw, move: draw, up: letGo, cancel: letGo });
  return (
    <Column gap={8}>
      <div
        role="img"
        aria-label={WORDS.drawnShapeDrag}
        {...hands}
        style={{
          display: 'flex',
          alignItems: 'flex-end',
          gap: 2,
          height: 120,
          touchAction: 'none',
          background: palette.sunken,
          borderRadius: 14,
          padding: 6,
          cursor: 'crosshair',
        }}
      >
        {points.map((height, i) => (
          <div key={i} style={{ flex: 1, height: `${4 + height * 96}%`, borderRadius: 4, background: palette.quiet }} />
        ))}
      </div>
      <Row gap={8} flexWrap="wrap">
        <Quiet flexGrow={1}>{WORDS.heightsOverOne(points.length)}</Quiet>
        <Button
          label={WORDS.fewerHeights}
          onPress={() => points.length > 2 && onChange(points.filter((_, i) => i % 2 === 0))}
        >
          {WORDS.fewer}
        </Button>
        <Button
          label={WORDS.moreHeights}
          onPress={() =>
            points.length <= 32 &&
            onChange(points.flatMap((one, i) => [one, (one + points[(i + 1) % points.length]!) / 2]))
          }
        >
          {WORDS.more}
        </Button>
      </Row>
    </Column>
  );
}
