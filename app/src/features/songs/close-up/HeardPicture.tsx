// What was heard of a drum, and from which strength on it counts.

import { beatAt } from '@hovlix/core/time';
import { timeOfBar, type HeardStroke } from '@hovlix/core/song';
import { seconds } from '@hovlix/core/units';
import { usePalette } from '../../../ui/palette';
import { xOf, type Window } from './grid';
import { WORDS } from './words';

const HEIGHT = 56;

type Props = {
  readonly window: Window;
  readonly strokes: readonly HeardStroke[];
  readonly threshold: number;
  /** Pixels to the left of the bars. */
  readonly gutter: number;
};

export function HeardPicture({ window, strokes, threshold, gutter }: Props) {
  const palette = usePalette();
  const { song, first, count, width } = window;
  const [from, to] = [timeOfBar(song, first), timeOfBar(song, first + count)];
  return (
    <svg
      role="img"
      aria-label={WORDS.strokesWereHeard}
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      preserveAspectRatio="none"
      style={{ background: palette.sunken, marginLeft: gutter }}
    >
      {strokes
        .filter(({ time }) => time >= from && time < to)
        .map(({ time, size }) => (
          <rect
            key={time}
            x={xOf(window, beatAt(song.tempo, seconds(time)))}
            y={HEIGHT * (1 - size)}
            width={3}
            height={HEIGHT * size}
            fill={size >= threshold ? palette.text : palette.faint}
          />
        ))}
      <line
        x1={0}
        x2={width}
        y1={HEIGHT * (1 - threshold)}
        y2={HEIGHT * (1 - threshold)}
        stroke={palette.doing}
        strokeWidth={2}
      />
    </svg>
  );
}
