// The decks of the stand-in: how they stand, what is done on them, and their sound on this screen.

import { useEffect, useRef, useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { beatOfDecks, type Deck, type DeckCommand, type LoadedTrack } from '@hovlix/core/player';
import type { Song } from '@hovlix/core/song';
import { tempoAt, timeAt } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import { decksQuery, onDeck } from '../../../data/decks';
import { useHovlix } from '../../../host/hovlix';
import { sendClockOf } from '../../../host/midi/outside';
import { MIME } from '../../../host/sound/form';
import { useSession } from '../../../host/session';
import { deckSound, type DeckSound } from './deck-sound';

export type DecksInHand = {
  /** Undefined before they have answered; empty where there are none. */
  readonly decks: readonly Deck[] | undefined;
  readonly does: (deck: number, command: DeckCommand) => void;
  readonly loadSong: (deck: number, song: Song) => void;
  readonly loadFile: (deck: number, file: File) => void;
};

export function useDecks(count: number): DecksInHand {
  const app = useHovlix();
  const queries = useQueryClient();
  const { data: decks } = useQuery(decksQuery);
  const [sounds] = useState(() => new Map<number, DeckSound>());
  const { mutate } = useMutation({
    mutationFn: onDeck,
    onSuccess: (after) => queries.setQueryData(decksQuery.queryKey, after),
    onError: (error) => useSession.getState().say(error.message, { tone: 'bad' }),
  });
  useEffect(() => {
    for (let deck = 1; deck <= count; deck++) sounds.set(deck, deckSound(app.conducting.now));
    return () => {
      for (const sound of sounds.values()) sound.end();
      sounds.clear();
    };
  }, [app, sounds, count]);
  useEffect(() => {
    decks?.forEach((deck, i) => sounds.get(i + 1)?.follow(deck));
  }, [decks, sounds]);

  const does = (deck: number, does: DeckCommand) => mutate({ deck, does });
  const load = (deck: number, track: LoadedTrack, recording: Blob | null) => {
    sounds.get(deck)?.load(recording);
    does(deck, { do: 'load', track });
  };
  return {
    decks,
    does,
    loadSong(deck, song) {
      void recordingOf(app.musicOf, song).then((recording) => load(deck, trackOf(song), recording));
    },
    loadFile(deck, file) {
      void fileTrack(file).then(
        (track) => load(deck, track, file),
        (error: Error) => useSession.getState().say(error.message, { tone: 'bad' }),
      );
    },
  };
}

async function recordingOf(musicOf: ReturnType<typeof useHovlix>['musicOf'], { music }: Song) {
  const there = music && (await musicOf(music.hash));
  return there ? new Blob([there.bytes], { type: MIME[music.type] }) : null;
}

/** Sends the beat of the decks as MIDI clock while that is wanted. */
export function useDeckClock(decks: readonly Deck[] | undefined, sends: boolean): void {
  const { conducting, midi } = useHovlix();
  const latest = useRef(decks);
  useEffect(() => void (latest.current = decks), [decks]);
  useEffect(() => {
    if (!sends) return undefined;
    let over = false;
    let end: (() => void) | undefined;
    const source = () => {
      const now = conducting.now();
      const heard = beatOfDecks(latest.current ?? [], now);
      if (!heard) return { now, beat: 0, when: () => Infinity, name: null };
      const { deck, beat, length } = heard;
      return { now, beat, when: (to: number) => now + (to - beat) * length, name: `deck ${deck}` };
    };
    void sendClockOf(midi, source).then((stop) => (over ? stop() : (end = stop)));
    return () => {
      over = true;
      end?.();
    };
  }, [sends, conducting, midi]);
}

/** A song as a track: its middle tempo, and where its first beat is. */
function trackOf(song: Song): LoadedTrack {
  return {
    title: song.title,
    by: song.by,
    length: song.duration,
    ...(song.music ? { content: song.music.hash } : {}),
    bpm: Math.min(400, Math.max(0, tempoAt(song.tempo, seconds(song.duration / 2)))),
    firstBeat: Math.min(3600, Math.max(-60, timeAt(song.tempo, beats(0)))),
  };
}

/** A file of this computer as a track. Rejects, in words, where the browser cannot play it. */
async function fileTrack(file: File): Promise<LoadedTrack> {
  const url = URL.createObjectURL(file);
  try {
    const audio = new Audio(url);
    const length = await new Promise<number>((resolve, reject) => {
      audio.onloadedmetadata = () => resolve(audio.duration);
      audio.onerror = () => reject(new Error(`“${file.name}” cannot be played by this browser.`));
    });
    const digest = await crypto.subtle?.digest('SHA-256', await file.arrayBuffer());
    const content = digest && Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('');
    const title = file.name.replace(/\.[^.]*$/, '').slice(0, 200);
    return { title, by: '', length, ...(content ? { content } : {}), bpm: 0, firstBeat: 0 };
  } finally {
    URL.revokeObjectURL(url);
  }
}
