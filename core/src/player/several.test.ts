// Several decks, and several players: which of them leads, and that they do not talk into each other.

import { AT_REST, PLAYER_SOUNDS, reduced, songTimeAt, type LiveState } from '../live';
import { playerShow as show, track } from '../testing/decks';
import { seconds } from '../units';
import { playerFollower, type DeckWord } from '.';

test('of two decks the louder one leads; a little louder is not enough to take over', () => {
  const follower = playerFollower();
  const of = show();
  let live: LiveState = AT_REST;
  const at = (now: number, words: readonly DeckWord[]) => {
    for (const word of words) follower.take(word, seconds(now), 'player');
    for (const action of follower.look({ show: of, live, now: seconds(now) }, true).actions)
      live = reduced(live, { seq: live.seq + 1, at: seconds(now), who: PLAYER_SOUNDS, action });
    return live.song?.id;
  };
  const plays = (deck: number, position: number): DeckWord => ({
    deck,
    says: 'at',
    position,
    rate: 1,
    bpm: 120,
    beat: 0,
  });
  const level = (deck: number, one: number): DeckWord => ({ deck, says: 'level', level: one });
  expect(at(1, [{ deck: 1, says: 'track', track: track('Night Ferry') }, plays(1, 10), level(1, 0.8)])).toBe('ferry');
  expect(
    at(1.1, [
      { deck: 2, says: 'track', track: track('Low Tide', { length: 180 }) },
      plays(1, 10.1),
      plays(2, 3),
      level(2, 0),
    ]),
  ).toBe('ferry');
  expect(at(1.2, [plays(1, 10.2), plays(2, 3.1), level(2, 0.85)])).toBe('ferry');
  expect(at(1.3, [plays(1, 10.3), plays(2, 3.2), level(1, 0.4)])).toBe('tide');
  expect(follower.decks(seconds(1.3), of).map(({ deck, song, leads }) => [deck, song, leads])).toEqual([
    [1, 'ferry', false],
    [2, 'tide', true],
  ]);
});

test('deck 1 of another player is another deck: two who take turns do not talk into each other’s tracks', () => {
  const follower = playerFollower();
  const of = show();
  let live: LiveState = AT_REST;
  const look = (now: number) => {
    for (const action of follower.look({ show: of, live, now: seconds(now) }, true).actions)
      live = reduced(live, { seq: live.seq + 1, at: seconds(now), who: PLAYER_SOUNDS, action });
    return [live.song?.id, live.song?.playing];
  };
  const place = (position: number, rate = 1): DeckWord => ({
    deck: 1,
    says: 'at',
    position,
    rate,
    bpm: 120,
    beat: 0,
  });
  const say = (from: string, now: number, ...words: readonly DeckWord[]) => {
    for (const word of words) follower.take(word, seconds(now), from);
  };
  say('anna', 1, { deck: 1, says: 'track', track: track('Night Ferry') }, place(10));
  expect(look(1)).toEqual(['ferry', true]);
  const heard: unknown[] = [];
  for (let now = 1.02; now < 3; now += 0.02) {
    say('anna', now, place(9 + now));
    // The one who comes next has nothing loaded yet, and says so; then gets ready.
    if (now < 2) say('ben', now, { deck: 1, says: 'empty' });
    else say('ben', now, { deck: 1, says: 'track', track: track('Low Tide', { length: 180 }) }, place(0, 0));
    heard.push(look(now));
  }
  expect(new Set(heard.map(String))).toEqual(new Set(['ferry,true']));
  expect(Math.abs(songTimeAt(live.song!, seconds(3)) - 12)).toBeLessThan(0.02);
  say('anna', 3, place(12, 0));
  say('ben', 3, place(0.1));
  expect(look(3)).toEqual(['tide', true]);
  expect(follower.decks(seconds(3), of).map(({ from, deck, song }) => [from, deck, song])).toEqual([
    ['anna', 1, 'ferry'],
    ['ben', 1, 'tide'],
  ]);
});

test('who talks from many addresses fills no memory, and takes no deck from those that are known', () => {
  const follower = playerFollower();
  const empty: DeckWord = { deck: 1, says: 'empty' };
  follower.take(empty, seconds(1), 'player');
  for (let n = 0; n < 5000; n++) follower.take(empty, seconds(1), `10.0.${n >> 8}.${n & 255}`);
  const known = () => follower.decks(seconds(1), undefined).map(({ from }) => from);
  expect(known()).toHaveLength(16);
  expect(known()).toContain('player');
  // Those that say nothing more are forgotten, and others are heard again.
  follower.take(empty, seconds(9), 'player');
  follower.look({ show: show(), live: AT_REST, now: seconds(12) }, true);
  follower.take(empty, seconds(12), 'ben');
  expect(known()).toEqual(['ben', 'player']);
});
