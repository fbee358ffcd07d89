// What is painted of some bars: the waveform, the light, hits, curves and actions in miniature.

import { STRIPS } from '@hovlix/core/picture';
import {
  beatsOfBars,
  curveAt,
  firstAt,
  timeOfBar,
  type ActionLane,
  type CurveLane,
  type HitLane,
  type Song,
} from '@hovlix/core/song';
import type { Palette } from '../../ui/tokens';
import { barsOfBeat, ribbonBeats } from './model';

/** Some bars of a song, and the box that they are painted in, in pixels. */
export type Bars = { readonly song: Song; readonly first: number; readonly count: number };
export type Box = { readonly top: number; readonly width: number; readonly height: number };

const PEAKS_PER_SECOND = 100;
/** Columns of a curve a bar. */
const COLUMNS = 24;

const loudests = new WeakMap<Uint8Array, number>();
function loudestOf(peaks: Uint8Array): number {
  const known = loudests.get(peaks) ?? peaks.reduce((most, peak) => Math.max(most, peak), 1);
  loudests.set(peaks, known);
  return known;
}

export function paintWave(
  context: CanvasRenderingContext2D,
  { song, first, count }: Bars,
  { top, width, height }: Box,
  peaks: Uint8Array,
  colour: string,
): void {
  context.fillStyle = colour;
  const barWidth = width / count;
  const loudest = loudestOf(peaks);
  for (let i = 0; i < count; i++) {
    const from = timeOfBar(song, first + i);
    const length = timeOfBar(song, first + i + 1) - from;
    for (let x = 0; x < barWidth; x += 2.5) {
      const start = Math.floor((from + (length * x) / barWidth) * PEAKS_PER_SECOND);
      const end = Math.max(start + 1, Math.floor((from + (length * (x + 2.5)) / barWidth) * PEAKS_PER_SECOND));
      let most = 0;
      for (let k = Math.max(0, start); k < end && k < peaks.length; k++) most = Math.max(most, peaks[k]!);
      const tall = Math.max(1, (most / loudest) * height);
      context.fillRect(i * barWidth + x, top + (height - tall) / 2, 1.25, tall);
    }
  }
}

/** Light as it was rendered: for each role some strips of pixels, a column a moment. */
export type Light = { readonly strips: HTMLCanvasElement; readonly roles: number };

export function lightOf(pixels: Uint8ClampedArray<ArrayBuffer>, columns: number, roles: number): Light {
  const strips = window.document.createElement('canvas');
  strips.width = columns;
  strips.height = roles * STRIPS;
  strips.getContext('2d')?.putImageData(new ImageData(pixels, columns, strips.height), 0, 0);
  return { strips, roles };
}

export function paintLight(
  context: CanvasRenderingContext2D,
  { top, width, height }: Box,
  { strips, roles }: Light,
): void {
  const tall = height / roles;
  context.imageSmoothingEnabled = false;
  for (let row = 0; row < roles; row++)
    context.drawImage(strips, 0, row * STRIPS, strips.width, STRIPS, 0, top + row * tall, width, Math.max(2, tall - 1));
}

/** Hits are dots, larger where they are hard; a curve is a line in teal; actions are flags in it. */
export function paintLane(
  context: CanvasRenderingContext2D,
  bars: Bars,
  box: Box,
  lane: HitLane | CurveLane | ActionLane,
  palette: Palette,
): void {
  const { song, first, count } = bars;
  const { top, width, height } = box;
  const { from, to } = beatsOfBars(song, first, first + count - 1);
  const xOf = (beat: number) => ((barsOfBeat(song, beat) - first) / count) * width;
  if (lane.type === 'curve') return paintCurve(context, bars, box, lane, palette);
  context.fillStyle = lane.type === 'hits' ? palette.text : palette.live;
  if (lane.type === 'actions') {
    for (const { at } of lane.actions) {
      if (at < from || at >= to) continue;
      context.fillRect(xOf(at), top, 1.5, height);
      context.fillRect(xOf(at), top, 9, height * 0.55);
    }
    return;
  }
  for (let i = firstAt(lane.notes, from); i < lane.notes.length && lane.notes[i]!.at < to; i++) {
    const { at, velocity } = lane.notes[i]!;
    context.beginPath();
    context.arc(Math.max(2, xOf(at)), top + height / 2, 1.4 + velocity * 2.6, 0, 2 * Math.PI);
    context.fill();
  }
}

function paintCurve(
  context: CanvasRenderingContext2D,
  { song, first, count }: Bars,
  { top, width, height }: Box,
  lane: CurveLane,
  palette: Palette,
): void {
  context.strokeStyle = palette.live;
  context.lineWidth = 1.5;
  context.beginPath();
  let drawing = false;
  ribbonBeats(song, first, count, COLUMNS).forEach((beat, i) => {
    const value = curveAt(lane.points, beat);
    const x = ((i + 0.5) / (count * COLUMNS)) * width;
    const y = top + height - 1 - (value ?? 0) * (height - 2);
    if (value !== undefined && drawing) context.lineTo(x, y);
    else if (value !== undefined) context.moveTo(x, y);
    drawing = value !== undefined;
  });
  context.stroke();
}
