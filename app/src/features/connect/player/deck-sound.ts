// The sound of the stand-in's decks: each plays its recording where the deck is, as fast as it turns.

import { deckAt, type Deck } from '@hovlix/core/player';
import type { Seconds } from '@hovlix/core/units';
import { sounder } from '../../../host/sound/sounder';
import { together } from '../../../host/sound/together';

const LOOK_MS = 50;

export type DeckSound = {
  /** Null is silence. */
  readonly load: (recording: Blob | null) => void;
  readonly follow: (deck: Deck) => void;
  readonly end: () => void;
};

/** @param now the clock by which decks tell where they are. */
export function deckSound(now: () => Seconds): DeckSound {
  const sound = sounder();
  const { audio, load, unload } = sound;
  const kept = together(sound);
  let loaded = false;
  let deck: Deck | undefined;
  const look = () => {
    if (!deck || !loaded) return;
    const { playing, songTime, rate } = deckAt(deck, now());
    audio.volume = deck.level;
    if (playing) kept.keepAt(songTime, rate);
    else audio.pause();
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
