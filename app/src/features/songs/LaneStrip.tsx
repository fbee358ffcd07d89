// A lane of hits or a curve in miniature, under a line of bars.

import { useEffect, useRef } from 'react';
import { beatsOfBars, curveAt, type ActionLane, type CurveLane, type HitLane, type Song } from '@hovlix/core/song';
import type { Palette } from '../../ui/tokens';
import { barsOfBeat, ribbonBeats } from './model';
import { sized } from './sized';

type Props = {
  readonly song: Song;
  readonly lane: HitLane | CurveLane | ActionLane;
  readonly first: number;
  readonly count: number;
  /** How much of the width the bars of this line take. */
  readonly share: number;
  readonly palette: Palette;
};

/** Columns of a curve a bar. */
const COLUMNS = 24;

/** Hits are dots, larger where they are hard; a curve is a line in teal; actions are flags in it. */
export function LaneStrip({ song, lane, first, count, share, palette }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const context = element && sized(element);
    if (!element || !context) return;
    const { clientWidth: width, clientHeight: height } = element;
    if (lane.type === 'hits') {
      const { from, to } = beatsOfBars(song, first, first + count - 1);
      context.fillStyle = palette.text;
      for (const note of lane.notes) {
        if (note.at < from || note.at >= to) continue;
        context.beginPath();
        const x = ((barsOfBeat(song, note.at) - first) / count) * width;
        context.arc(Math.max(2, x), height / 2, 1.4 + note.velocity * 2.6, 0, 2 * Math.PI);
        context.fill();
      }
      return;
    }
    if (lane.type === 'actions') {
      const { from, to } = beatsOfBars(song, first, first + count - 1);
      context.fillStyle = palette.live;
      for (const { at } of lane.actions) {
        if (at < from || at >= to) continue;
        const x = ((barsOfBeat(song, at) - first) / count) * width;
        context.fillRect(x, 0, 1.5, height);
        context.fillRect(x, 0, 9, height * 0.55);
      }
      return;
    }
    context.strokeStyle = palette.live;
    context.lineWidth = 1.5;
    context.beginPath();
    let drawing = false;
    ribbonBeats(song, first, count, COLUMNS).forEach((beat, i) => {
      const value = curveAt(lane.points, beat);
      const x = ((i + 0.5) / (count * COLUMNS)) * width;
      if (value === undefined) drawing = false;
      else {
        const y = height - 1 - value * (height - 2);
        if (drawing) context.lineTo(x, y);
        else context.moveTo(x, y);
        drawing = true;
      }
    });
    context.stroke();
  }, [song, lane, first, count, palette]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      data-lane={lane.name}
      style={{ position: 'absolute', left: 0, top: 0, width: `${share * 100}%`, height: '100%' }}
    />
  );
}
