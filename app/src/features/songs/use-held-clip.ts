// The clip under the chosen bars: dragged on the sheet from bar to bar.

import { useCallback, useMemo, useState } from 'react';
import { barAt } from '@hovlix/core/time';
import { beatsOfBars, clipAt, type Clip, type Lane, type Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import type { Part } from './ClipHandles';
import { topOf } from './lines';
import type { BarRange } from './model';

export type Held = { readonly clip: Clip; readonly top: number };

/** Whether a clip lies on a line, or ends at its end. */
export function touches(song: Song, clip: Clip, line: { readonly first: number; readonly count: number }): boolean {
  const { from, to } = beatsOfBars(song, line.first, line.first + line.count - 1);
  return clip.from < to - 1e-6 && clip.to > from + 1e-6;
}

export function useHeldClip(
  song: Song,
  lane: Lane,
  range: BarRange | null,
  onRange: (range: BarRange) => void,
): { readonly held: Held | null; readonly drag: (part: Part, bar: number | undefined, done: boolean) => void } {
  const { document } = useHovlix();
  const under = useMemo(() => {
    if (lane.type !== 'looks' || !range) return undefined;
    const { from, to } = beatsOfBars(song, range.first, range.last);
    return clipAt(lane.clips, from) ?? lane.clips.find((one) => one.from >= from && one.from < to);
  }, [song, lane, range]);
  // While it is dragged it is the one, whatever lies under the bars it is dragged over.
  const [dragged, setDragged] = useState<Clip | null>(null);
  const clip = dragged ?? under;
  const top = topOf(song, lane);
  const held = useMemo(() => (clip && top !== undefined ? { clip, top } : null), [clip, top]);
  const drag = useCallback(
    (part: Part, bar: number | undefined, done: boolean) => {
      if (!clip) return;
      setDragged(done ? null : clip);
      const first = barAt(song.meter, clip.from).bar;
      const last = barAt(song.meter, beats(clip.to - 1e-3)).bar;
      if (bar === undefined) return onRange({ first, last });
      const onto = part === 'end' ? { first, last: Math.max(first, bar) } : { first: bar, last: bar + last - first };
      if (!done) return onRange(onto);
      const end = beatsOfBars(song, onto.last, onto.last).to;
      // A clip that begins within a bar still does, in the bar that it is dragged to.
      const by = beatsOfBars(song, onto.first, onto.first).from - beatsOfBars(song, first, first).from;
      const place = part === 'end' ? { from: clip.from, to: end } : { from: clip.from + by, to: clip.to + by };
      if (place.from !== clip.from || place.to !== clip.to)
        document.make({ type: 'move-clip', song: song.id, lane: lane.id, clip: clip.id, ...place });
      onRange(onto);
    },
    [clip, song, lane.id, document, onRange],
  );
  return { held, drag };
}
