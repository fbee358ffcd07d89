// Close-up turns its page with the music, unless somebody works on it.

import { useEffect } from 'react';
import { songTimeAt } from '@hovlix/core/live';
import { barsAt, type Song } from '@hovlix/core/song';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';

/** After a press the page stays for so long. */
const LEAVE_MS = 4000;
const LOOK_MS = 60;

export function useFollow(song: Song, first: number, count: number, setBar: (bar: number) => void): void {
  const app = useHovlix();
  useEffect(() => {
    let touched = -LEAVE_MS;
    const touch = () => (touched = performance.now());
    window.addEventListener('pointerdown', touch, true);
    const look = setInterval(() => {
      const live = app.conducting.store.getState().live.song;
      if (
        !useSession.getState().follow ||
        live?.id !== song.id ||
        !live.playing ||
        performance.now() - touched < LEAVE_MS
      )
        return;
      const bar = Math.floor(barsAt(song, songTimeAt(live, app.conducting.now())));
      if (bar < first || bar >= first + count) setBar(first + Math.floor((bar - first) / count) * count);
    }, LOOK_MS);
    return () => {
      clearInterval(look);
      window.removeEventListener('pointerdown', touch, true);
    };
  }, [app, song, first, count, setBar]);
}
