// The keys of a lead sheet.

import { useEffect } from 'react';
import { barSpan, timeOfBar, type Lane, type Song } from '@hovlix/core/song';
import { lookAt } from '../../host/conduct/gestures';
import { useHovlix, useMay } from '../../host/hovlix';
import { keyOf } from '../../ui/key-of';
import { gridLength } from './close-up/grid';
import { copyBars, useCopying } from './tray/CopyRow';
import { useNudge } from './tray/MoveRow';
import type { BarRange } from './model';

/** Arrows walk the bars; with Shift they stretch. Ctrl-C and Ctrl-V copy and paste; comma and period move the light a beat. Escape lets go. */
export function useBarKeys(
  song: Song,
  lane: Lane['id'],
  range: BarRange | null,
  setRange: (range: BarRange | null) => void,
  wanted: boolean,
): void {
  const app = useHovlix();
  const { paste } = useCopying(song);
  const { nudge } = useNudge(song, range, lane);
  const may = useMay('operator');
  useEffect(() => {
    if (!wanted) return;
    const press = (event: KeyboardEvent) => {
      // Escape in a sheet closes the sheet, and lets go of nothing.
      if ((event.target as HTMLElement | null)?.closest('input, textarea, select, [role=dialog]')) return;
      const key = keyOf(event);
      if (key === 'Escape') return setRange(null);
      if (may && range && (event.ctrlKey || event.metaKey)) {
        if (key === 'c' && !window.getSelection()?.toString()) return copyBars(song, range);
        if (key === 'v') return paste(range);
      }
      const beat = key === '.' ? 1 : key === ',' ? -1 : 0;
      if (beat && may && range) return nudge(beat * gridLength(song, 'beat', range.first));
      const step = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0;
      if (!step) return;
      event.preventDefault();
      const { first, last } = barSpan(song);
      const hold = (bar: number) => Math.min(last, Math.max(first, bar));
      if (range && event.shiftKey)
        return setRange({ first: range.first, last: Math.max(range.first, hold(range.last + step)) });
      const bar = hold((range ? (step > 0 ? range.last : range.first) : first - step) + step);
      setRange({ first: bar, last: bar });
      lookAt(app, song, timeOfBar(song, bar));
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
