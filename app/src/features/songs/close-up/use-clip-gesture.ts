// A finger among the clips of Close-up: it moves what is chosen, pulls one end of one clip, or draws a box around some.

import { useRef, useState } from 'react';
import type { Clip, LookLane } from '@hovlix/core/song';
import { toggledIn, type Editing } from './editing';
import { beatAtX, snapped, xOf } from './grid';
import { useDrag } from '../../../ui/drag';

/** Of the strip the clips lie in, and the edge above and below them, in pixels. */
export const HEIGHT = 88;
export const TOP = 16;
const STILL = 5;
/** The ends of a clip, in pixels; one that is shorter is taken as a whole. */
const END = 22;
const HAS_ENDS = 3 * END;
/** No clip is shorter, in quarter notes. */
const LEAST = 1 / 96;

export type Span = { readonly from: number; readonly to: number };

type Gesture = {
  readonly part: 'whole' | 'start' | 'end' | 'box';
  readonly x: number;
  readonly clip: Clip | undefined;
};

type Clips = Pick<Editing<LookLane>, 'song' | 'lane' | 'grid' | 'window' | 'may'> & {
  readonly inView: readonly Clip[];
  readonly chosen: ReadonlySet<string>;
  /** A tap takes one more along. */
  readonly several: boolean;
  readonly onChosen: (ids: ReadonlySet<string>) => void;
  readonly onNone: () => void;
  readonly onPlace: (clip: Clip, where: Span) => void;
  /** All that are chosen, so many quarter notes on. */
  readonly onShift: (by: number) => void;
};

/** Whether the ends of a clip can be pulled by themselves, so many pixels long. */
export const hasEnds = (width: number): boolean => width > HAS_ENDS;

export function useClipGesture({ song, lane, grid, window, may, inView, chosen, several, ...does }: Clips) {
  const gesture = useRef<Gesture | null>(null);
  const [moved, setMoved] = useState<(Span & { readonly by: number }) | null>(null);
  const [box, setBox] = useState<readonly [number, number] | null>(null);
  const snap = (beat: number) => snapped(song, grid, beat);

  const clipUnder = (x: number, y: number) => {
    const beat = beatAtX(window, x);
    const onClips = y >= TOP && y <= HEIGHT - TOP;
    return onClips ? lane.clips.find((one) => one.from <= beat && beat < one.to) : undefined;
  };
  const partAt = (clip: Clip, x: number, alone: boolean): Gesture['part'] => {
    const [left, right] = [xOf(window, clip.from), xOf(window, clip.to)];
    if (!alone || !hasEnds(right - left)) return 'whole';
    return x < left + END ? 'start' : x > right - END ? 'end' : 'whole';
  };
  /** Where the clip is that has the finger. */
  const pulled = ({ part, clip }: Gesture & { readonly clip: Clip }, by: number): Span & { readonly by: number } => {
    if (part === 'start') return { from: Math.min(snap(clip.from + by), clip.to - LEAST), to: clip.to, by: 0 };
    if (part === 'end') return { from: clip.from, to: Math.max(snap(clip.to + by), clip.from + LEAST), by: 0 };
    const from = snap(clip.from + by);
    return { from, to: from + clip.to - clip.from, by: from - clip.from };
  };
  const boxed = ([left, right]: readonly [number, number]) => {
    const [first, last] = [beatAtX(window, left), beatAtX(window, right)];
    const within = inView.filter((one) => one.to > first && one.from < last).map(({ id }) => id);
    does.onChosen(new Set(several ? [...chosen, ...within] : within));
  };
  const cancel = () => {
    gesture.current = null;
    setMoved(null);
    setBox(null);
  };

  return {
    /** The box that is drawn, from and to so many pixels. */
    box,
    /** Where a clip is seen while it, or all that are chosen, are moved. */
    shownAt(one: Clip): Span {
      if (!moved || !chosen.has(one.id)) return one;
      return chosen.size === 1 ? moved : { from: one.from + moved.by, to: one.to + moved.by };
    },
    handlers: useDrag<HTMLDivElement>({
      down(event) {
        const bounds = event.currentTarget.getBoundingClientRect();
        const x = event.clientX - bounds.left;
        const clip = clipUnder(x, event.clientY - bounds.top);
        if (!clip) return void (gesture.current = { part: 'box', x, clip });
        const one = chosen.has(clip.id) ? chosen : new Set([clip.id]);
        const next = several || event.shiftKey ? toggledIn(chosen, clip.id) : one;
        does.onChosen(next);
        if (may && next.has(clip.id)) gesture.current = { part: partAt(clip, x, next.size === 1), x, clip };
      },
      move(event) {
        const now = gesture.current;
        const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
        if (!now || (!moved && !box && Math.abs(x - now.x) < STILL)) return;
        if (!now.clip) return setBox([Math.min(now.x, x), Math.max(now.x, x)]);
        setMoved(pulled({ ...now, clip: now.clip }, beatAtX(window, x) - beatAtX(window, now.x)));
      },
      up() {
        const now = gesture.current;
        if (now?.clip && moved) {
          if (chosen.size > 1) does.onShift(moved.by);
          else does.onPlace(now.clip, moved);
        } else if (box) boxed(box);
        else if (now?.part === 'box' && !several) does.onNone();
        cancel();
      },
      cancel,
    }),
  };
}
