// What lies over every lane in Close-up: numbers of bars and beats, the waveform, the light ribbon.

import { barLabel } from '../model';
import { BarsCanvas } from '../BarsCanvas';
import { beatOfBar, meterAtBar, pulseLength } from '@hovlix/core/time';
import { timeOfBars } from '@hovlix/core/song';
import { lookAt } from '../../../host/conduct/gestures';
import { useHovlix } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Pin } from '../Pin';
import { gridLength, xOf, type Grid, type Window } from './grid';
import { WORDS } from './words';

export const PAPER_HEIGHT = 76;

type Props = { readonly window: Window; readonly gutter: number; readonly peaks: Uint8Array | null };

/** A press anywhere on it goes to that place of the song. */
export function Paper({ window, gutter, peaks }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const { song, first, count, width } = window;
  return (
    <div
      role="button"
      tabIndex={-1}
      aria-label={WORDS.goPlaceMusic}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const share = Math.max(0, event.clientX - box.left - gutter) / width;
        lookAt(app, song, timeOfBars(song, first + share * count));
      }}
      style={{
        position: 'relative',
        height: PAPER_HEIGHT,
        flexShrink: 0,
        background: palette.sunken,
        cursor: 'pointer',
      }}
    >
      <div style={{ position: 'absolute', left: gutter, width, top: 0, bottom: 0 }}>
        <BarsCanvas song={song} first={first} count={count} peaks={peaks} width={width} height={PAPER_HEIGHT} />
        {beatMarks(window).map(({ beat, name }) => (
          <span
            key={beat}
            style={{
              position: 'absolute',
              left: xOf(window, beat) + 4,
              top: 1,
              font: '500 12px/14px "Spline Sans Mono"',
              color: name.includes('.') ? palette.faint : palette.text,
            }}
          >
            {name}
          </span>
        ))}
        <Pin first={window.first} count={window.count} barWidth={window.width / window.count} />
      </div>
    </div>
  );
}

/** Bars by their number; between them beats, “9.2”, where there is room. */
function beatMarks({ song, first, count, width }: Window): readonly { readonly beat: number; readonly name: string }[] {
  return Array.from({ length: count }, (_, i) => first + i).flatMap((bar) => {
    const from = beatOfBar(song.meter, bar);
    const pulse = pulseLength(meterAtBar(song.meter, bar));
    const beats = Math.round((beatOfBar(song.meter, bar + 1) - from) / pulse);
    const shown = width / count / beats > 40 ? beats : 1;
    return Array.from({ length: shown }, (_, k) => ({
      beat: from + k * pulse,
      name: k === 0 ? barLabel(bar) : `${barLabel(bar)}.${k + 1}`,
    }));
  });
}

/** Lines of the grid over the height of an editor: bars strong, beats less, the rest where there is room. */
export function GridLines({ window, grid }: { readonly window: Window; readonly grid: Grid }) {
  const palette = usePalette();
  const { song, first, count, width } = window;
  const lines: { readonly x: number; readonly strong: number }[] = [];
  for (let bar = first; bar < first + count; bar++) {
    const from = beatOfBar(song.meter, bar);
    const length = beatOfBar(song.meter, bar + 1) - from;
    const pulse = pulseLength(meterAtBar(song.meter, bar));
    const step = grid === 'off' ? pulse : Math.min(pulse, gridLength(song, grid, bar));
    const fine = (step / length) * (width / count) >= 7 ? step : pulse;
    for (let at = 0; at < length - 1e-6; at += fine) {
      const beat = Math.abs(at / pulse - Math.round(at / pulse)) < 1e-6;
      lines.push({ x: xOf(window, from + at), strong: at === 0 ? 1 : beat ? 0.6 : 0.28 });
    }
  }
  return (
    <svg
      aria-hidden
      width={width}
      height="100%"
      style={{ position: 'absolute', left: 0, top: 0, pointerEvents: 'none' }}
    >
      {lines.map(({ x, strong }) => (
        <line
          key={x}
          x1={x}
          x2={x}
          y1={0}
          y2="100%"
          stroke={palette.quiet}
          strokeOpacity={strong * 0.55}
          strokeWidth={1}
        />
      ))}
    </svg>
  );
}
