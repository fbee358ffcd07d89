// The sound of the stand-in's decks: each plays its recording where the deck is, as fast as it turns.

import { deckAt, type Deck } from '@hovlix/core/player';
import { clamp, type Seconds } from '@hovlix/core/units';
import { sounder } from '../../../host/sound/sounder';

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
  const { audio, at, goTo, load, unload } = sounder();
  let loaded = false;
  let deck: Deck | undefined;
  const look = () => {
    if (!deck || !loaded) return;
    const { playing, songTime, rate } = deckAt(deck, now());
    audio.volume = deck.level;
    if (!playing) return audio.pause();
    if (audio.paused) {
      goTo(songTime);
      // A browser that wants a touch first gets one with the next press.
      return void audio.play().catch(() => undefined);
    }
    if (audio.seeking) return;
    const off = at() - songTime;
    if (Math.abs(off) > FAR) goTo(songTime);
    audio.playbackRate = rate * (1 - clamp(off, -CATCH_UP, CATCH_UP));
  };
  const looking = setInterval(look, LOOK_MS);
  return {
    load(recording) {
      loaded = false;
      unload();
      if (recording) void load(recording).then((mine) => (loaded ||= mine));
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
