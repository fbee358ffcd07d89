// The chosen bars of a curve lane: a shape over them.

import { beatsOfBars, type CurveLane, type Point, type Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet } from '../../../ui/pieces';
import { Choices } from '../Choices';
import { targetWords } from '../lanes/model';
import type { BarRange } from '../model';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly lane: CurveLane; readonly range: BarRange };

/** Places (0…1 of the bars) and values. */
const SHAPES = [
  {
    name: 'Rise',
    points: [
      [0, 0],
      [1, 1],
    ],
  },
  {
    name: 'Fall',
    points: [
      [0, 1],
      [1, 0],
    ],
  },
  {
    name: 'Swell',
    points: [
      [0, 0],
      [0.5, 1],
      [1, 0],
    ],
  },
  {
    name: 'Dip',
    points: [
      [0, 1],
      [0.5, 0],
      [1, 1],
    ],
  },
  {
    name: 'Full',
    points: [
      [0, 1],
      [1, 1],
    ],
  },
  {
    name: 'Half',
    points: [
      [0, 0.5],
      [1, 0.5],
    ],
  },
] as const;

export function CurveShapes({ song, lane, range }: Props) {
  const { document } = useHovlix();
  const palette = usePalette();
  const show = useShow((one) => one);
  const { from, to } = beatsOfBars(song, range.first, range.last);
  const draw = (points: readonly (readonly [number, number])[]) =>
    document.make({
      type: 'draw-curve',
      song: song.id,
      lane: lane.id,
      from,
      to,
      id: freshId(),
      points: points.map(([share, value], i) => ({
        id: freshId() as Point['id'],
        at: beats(from + (to - from) * share),
        value,
        shape:
          i === points.length - 1 ? ('off' as const) : points.length > 2 ? ('smooth' as const) : ('straight' as const),
      })),
    });
  return (
    <Column gap={8} paddingBottom={4}>
      {show && <Quiet paddingHorizontal={16}>{WORDS.moves(targetWords(show, song, lane.target))}</Quiet>}
      <Choices label={WORDS.drawOverBars}>
        {SHAPES.map(({ name, points }) => (
          <Button key={name} label={WORDS.draw(name.toLowerCase())} onPress={() => draw(points)}>
            <svg width={28} height={18} aria-hidden>
              <polyline
                points={points.map(([x, y]) => `${2 + x * 24},${16 - y * 14}`).join(' ')}
                fill="none"
                stroke={palette.live}
                strokeWidth={2}
                strokeLinejoin="round"
              />
            </svg>
            <Quiet color="$text" fontWeight="600">
              {name}
            </Quiet>
          </Button>
        ))}
      </Choices>
    </Column>
  );
}
