// The sound of the stand-in's decks: each plays its recording where the deck is, as fast as it turns.

import { deckAt, type Deck } from '@hovlix/core/player';
import { clamp, type Seconds } from '@hovlix/core/units';

/** Sound that is further off jumps there; what is nearer catches up by a little speed. Seconds. */
const FAR = 0.08;
const CATCH_UP = 0.01;
const LOOK_MS = 50;

export type DeckSound = {
  /** Null is silence. */
  readonly load: (recording: Blob | null) => void;
  readonly follow: (deck: Deck) => void;
  readonly end: () => void;
};

/** @param now the clock by which decks tell where they are. */
export function deckSound(now: () => Seconds): DeckSound {
  const audio = new Audio();
  audio.preservesPitch = true;
  let url: string | undefined;
  let deck: Deck | undefined;
  const look = () => {
    if (!deck || !url) return;
    const { playing, songTime, rate } = deckAt(deck, now());
    audio.volume = deck.level;
    if (!playing) return audio.pause();
    if (audio.paused) {
      audio.currentTime = songTime;
      // A browser that wants a touch first gets one with the next press.
      return void audio.play().catch(() => undefined);
    }
    if (audio.seeking) return;
    const off = audio.currentTime - songTime;
    if (Math.abs(off) > FAR) audio.currentTime = songTime;
    audio.playbackRate = rate * (1 - clamp(off, -CATCH_UP, CATCH_UP));
  };
  const looking = setInterval(look, LOOK_MS);
  const unload = () => {
    audio.pause();
    if (url) URL.revokeObjectURL(url);
    url = undefined;
  };
  return {
    load(recording) {
      unload();
      if (!recording) return;
      url = URL.createObjectURL(recording);
      audio.src = url;
    },
    follow(next) {
      deck = next;
      look();
    },
    end() {
      clearInterval(looking);
      unload();
    },
  };
}
