// A shape of one's own: heights over one turn, drawn with a finger.

import { useRef, type PointerEvent } from 'react';
import { clamp } from '@hovlix/core/units';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly points: readonly number[]; readonly onChange: (points: number[]) => void };

export function DrawnShape({ points, onChange }: Props) {
  const palette = usePalette();
  const held = useRef(false);
  const draw = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const place = clamp(Math.floor(((event.clientX - box.left) / box.width) * points.length), 0, points.length - 1);
    const height = clamp(1 - (event.clientY - box.top) / box.height, 0, 1);
    onChange(points.map((one, i) => (i === place ? Math.round(height * 100) / 100 : one)));
  };
  return (
    <Column gap={8}>
      <div
        role="img"
        aria-label={WORDS.drawnShapeDrag}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = true;
          draw(event);
        }}
        onPointerMove={(event) => held.current && draw(event)}
        onPointerUp={() => (held.current = false)}
        onPointerCancel={() => (held.current = false)}
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
