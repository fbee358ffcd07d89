// The pin that moves over the lines of a lead sheet.

import { useEffect, useRef } from 'react';
import type { FlatList } from 'react-native';
import { songTimeAt } from '@hovlix/core/live';
import { barsAt, type Song } from '@hovlix/core/song';
import { seconds } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { layoutOf, type Lines } from './lines';
import { movePins } from './Pin';
import { eachFrame } from '../../ui/each-frame';

/** After the user scrolls by hand, the sheet leaves it there for so long before it follows the music again. */
const LEAVE_MS = 5000;

/** It is looked so often whether the pin goes as the music does, and whether lines came into sight; the pin goes by itself. */
const LOOK_MS = 100;

/** The tempo is that of the next so many seconds. */
const STEP = 0.1;

/**
 * Moves the pin over the lines and keeps the line that sounds in view.
 * @param free pixels of the sheet from its top that nothing covers.
 */
export function usePlayhead(song: Song, lines: Lines, free: { readonly current: number }) {
  const app = useHovlix();
  const list = useRef<FlatList>(null);
  useEffect(() => {
    let shown = -1;
    let touched = -LEAVE_MS;
    const touch = () => (touched = performance.now());
    window.addEventListener('wheel', touch, { passive: true });
    window.addEventListener('touchmove', touch, { passive: true });
    const draw = () => {
      const live = app.conducting.store.getState().live.song;
      const here = live?.id === song.id;
      const time = here ? songTimeAt(live, app.conducting.now()) : seconds(0);
      const place = here ? barsAt(song, time) : -1e6;
      const speed = here && live.playing ? ((barsAt(song, seconds(time + STEP)) - place) / STEP) * live.rate : 0;
      const run = { place, speed };
      movePins(run, performance.now());
      if (!here || !live.playing) return LOOK_MS;
      const line = lines.findIndex((one) => place >= one.first && place < one.first + one.count);
      if (line >= 0) keepInView(line);
      // On to the next line just as the music is.
      const left = line < 0 ? 0 : lines[line]!.first + lines[line]!.count - place;
      return Math.min(LOOK_MS, speed > 0 ? (left / speed) * 1000 : 0);
    };
    const keepInView = (line: number) => {
      // A sheet that is not laid out yet has no place to go to.
      if (!useSession.getState().follow || free.current <= 0) return;
      if (line === shown || performance.now() - touched < LEAVE_MS) return;
      shown = line;
      // A third of the way down what can be seen; where little can, the line before its head.
      const { offset, length } = layoutOf(lines, song, line);
      const room = free.current - length;
      list.current?.scrollToOffset({ offset: Math.max(0, offset - room * (room > 0 ? 0.3 : 1)), animated: true });
    };
    const stop = eachFrame(draw, app.conducting.store.subscribe);
    return () => {
      stop();
      window.removeEventListener('wheel', touch);
      window.removeEventListener('touchmove', touch);
    };
  }, [app, song, lines, free]);
  return list;
}
