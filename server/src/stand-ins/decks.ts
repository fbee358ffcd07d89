// The DJ player stand-in: two decks that say where they are, over OSC, as a real one's bridge would.

import { createSocket } from 'node:dgram';
import {
  deckAfter,
  deckAt,
  EMPTY_DECK,
  placeOf,
  writeDeckWord,
  type Deck,
  type DeckCommand,
  type DeckWord,
} from '@hovlix/core/player';
import { now } from '../clock';

/** So often a deck that plays says where it is; and, playing or not, what it holds. */
const PLACE_MS = 20;
const HELD_MS = 500;
/** It is used while something is loaded, and for so many seconds after it was looked at or something was done. */
const USED_SECONDS = 3;

export const DECKS = 2;

export type Decks = {
  readonly now: () => readonly Deck[];
  /** @param deck counts from 1. */
  readonly take: (deck: number, command: DeckCommand) => void;
  readonly sendTo: (port: number) => void;
  readonly close: () => void;
};

/**
 * @param port where it is told. Nothing is while nobody uses it: a real player may talk there, and would
 * have its decks called empty between its own words.
 */
export function startDecks(port: number): Decks {
  const decks: Deck[] = Array.from({ length: DECKS }, () => EMPTY_DECK);
  const socket = createSocket('udp4');
  // Nobody may be listening.
  socket.on('error', () => undefined);
  let to = port;
  let used = -Infinity;
  const isUsed = () => now() - used < USED_SECONDS || decks.some(({ track }) => track !== null);
  const say = (word: DeckWord) => socket.send(writeDeckWord(word), to, '127.0.0.1');
  const sayPlace = (deck: Deck, number: number) => deck.track && say(placeOf(deck, number, now()));
  const sayHeld = ({ track, level }: Deck, deck: number) => {
    if (!track) return say({ deck, says: 'empty' });
    const { bpm: _, firstBeat: __, ...told } = track;
    say({ deck, says: 'track', track: told });
    say({ deck, says: 'level', level });
  };
  const places = setInterval(() => decks.forEach((deck, i) => deck.playing && sayPlace(deck, i + 1)), PLACE_MS);
  const held = setInterval(() => {
    if (!isUsed()) return;
    decks.forEach((deck, i) => {
      decks[i] = deckAt(deck, now());
      sayHeld(deck, i + 1);
      if (!deck.playing) sayPlace(deck, i + 1);
    });
  }, HELD_MS);
  return {
    now() {
      const at = now();
      used = at;
      return decks.map((deck) => deckAt(deck, at));
    },
    take(number, command) {
      used = now();
      const deck = deckAfter(decks[number - 1]!, command, now());
      decks[number - 1] = deck;
      if (command.do === 'load' || command.do === 'eject' || command.do === 'level') sayHeld(deck, number);
      sayPlace(deck, number);
    },
    sendTo: (port) => void (to = port),
    close() {
      clearInterval(places);
      clearInterval(held);
      socket.close();
    },
  };
}
