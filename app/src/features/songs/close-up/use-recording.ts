// Strokes played along with the song become notes of a lane.

import { useEffect, useRef, useState } from 'react';
import { songTimeAt } from '@hovlix/core/live';
import { beatsOfBars, timeOfBar, barSpan, type HitLane, type Note, type Song } from '@hovlix/core/song';
import { beatAt } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import type { OneCommand } from '@hovlix/core/show';
import { localSeconds } from '../../../host/conduct/local-clock';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { onStrike } from '../../../host/midi/strikes';
import { useSession } from '../../../host/session';
import { WORDS } from './words';

export type RecordMode = 'add' | 'replace';

/** Somebody who comes a little early means the first beat. */
const EARLY = 0.4;
const SHORTEST = 1 / 16;
/** Closer together, in beats, no player strikes. */
const SAME = 0.02;

type Take = {
  readonly from: number;
  readonly mode: RecordMode;
  readonly notes: Note[];
  readonly down: Map<number, number>;
  last: number;
};

/** @param lane as it is: what is recorded goes there. @param first the bar to record from; the one before it counts in. */
export function useRecording(song: Song, lane: HitLane, first: number) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const take = useRef<Take | null>(null);
  const [count, setCount] = useState<number | null>(null);
  const latest = useRef({ song, lane });
  useEffect(() => {
    latest.current = { song, lane };
  });

  const stop = () => {
    const done = take.current;
    take.current = null;
    setCount(null);
    if (!done) return;
    app.player.pause();
    const now = latest.current;
    const on = { song: now.song.id, lane: now.lane.id };
    const over = now.lane.notes.filter(({ at }) => at >= done.from && at < done.last).map(({ id }) => id);
    const commands: OneCommand[] = [];
    if (done.mode === 'replace' && over.length > 0) commands.push({ type: 'remove-notes', ...on, notes: over });
    if (done.notes.length > 0) commands.push({ type: 'put-notes', ...on, notes: done.notes });
    if (commands.length === 0) return say(WORDS.nothingWasPlayed);
    app.document.together(commands);
    say(WORDS.notesRecorded(done.notes.length), {
      undo: app.document.takingBack(),
    });
  };
  const ending = useRef(stop);
  useEffect(() => {
    ending.current = stop;
  });

  const start = (mode: RecordMode) => {
    take.current = { from: beatsOfBars(song, first, first).from, mode, notes: [], down: new Map(), last: 0 };
    setCount(0);
    void app.player.play(song, Math.max(0, timeOfBar(song, Math.max(barSpan(song).first, first - 1))));
  };

  useEffect(() => {
    if (count === null) return;
    const beatNow = (when = localSeconds()) => {
      const live = app.conducting.store.getState().live.song;
      if (live?.id !== latest.current.song.id || !live.playing) return undefined;
      return beatAt(
        latest.current.song.tempo,
        songTimeAt(live, seconds(app.conducting.now() - (localSeconds() - when))),
      );
    };
    // Pads strike on the lane's own role, MIDI on that of its channel: the lane plays what was struck of its kit.
    const end = onStrike(app, ({ kit, note }, velocity, when) => {
      const now = take.current;
      const at = beatNow(when);
      if (!now || at === undefined || kit.id !== latest.current.lane.kit) return;
      // One stroke that plays on several roles is one note.
      const again = now.notes.findLast((one) => one.note === note);
      if (velocity > 0 && again && Math.abs(again.at - at) < SAME) return;
      if (velocity > 0 && at >= now.from - EARLY) {
        now.notes.push({
          id: freshId() as Note['id'],
          at: beats(Math.max(now.from, at)),
          length: beats(0.25),
          note,
          velocity,
        });
        now.down.set(note, now.notes.length - 1);
        setCount(now.notes.length);
      } else if (velocity <= 0 && now.down.has(note)) {
        const index = now.down.get(note)!;
        now.down.delete(note);
        now.notes[index] = { ...now.notes[index]!, length: beats(Math.max(SHORTEST, at - now.notes[index]!.at)) };
      }
    });
    // It ends where the song does, or where it is paused.
    let begun = false;
    const look = setInterval(() => {
      const at = beatNow();
      if (at !== undefined && take.current) take.current.last = at;
      if (at !== undefined) begun = true;
      else if (begun) ending.current();
    }, 50);
    return () => {
      end();
      clearInterval(look);
    };
    // oxlint-disable-next-line react/exhaustive-deps -- begins and ends with the take, not with each note of it
  }, [app, count === null]);
  // Who chooses a note, turns to another lane or leaves while it records, keeps what was played.
  useEffect(() => () => ending.current(), []);
  return { recorded: count, start, stop };
}
