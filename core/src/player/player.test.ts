// A DJ player: what it says, where its decks are, which songs its tracks are, and songs that go by it.

import fc from 'fast-check';
import { likelySongs } from '../gig/likely-songs';
import { edit, type Show } from '../show';
import { HASH, loaded, playerShow as show, track } from '../testing/decks';
import { id, seconds } from '../units';
import { Action, AT_REST, PLAYER_SOUNDS, reduced, songTimeAt, type LiveState } from '../live';
import { decodeOsc } from '../wire';
import {
  beatOfDecks,
  deckAfter,
  deckAt,
  deckClock,
  EMPTY_DECK,
  placeOf,
  playerFollower,
  readDeckWord,
  songOfTrack,
  writeDeckWord,
  type Deck,
  type DeckCommand,
  type DeckWord,
} from '.';

const wordOf = (bytes: Uint8Array) => {
  const packet = decodeOsc(bytes);
  if (packet.kind === 'bad') throw new Error(packet.why);
  return readDeckWord(packet.messages[0]!);
};

describe('words', () => {
  test('what is written is read back', () => {
    const words: DeckWord[] = [
      { deck: 1, says: 'track', track: track('Ünder the pier', { content: HASH }) },
      { deck: 4, says: 'track', track: track('') },
      { deck: 2, says: 'at', position: 12.3456789, rate: 1.0625, bpm: 124, beat: 24.125 },
      { deck: 3, says: 'level', level: 0.5 },
      { deck: 1, says: 'empty' },
    ];
    for (const word of words) expect(wordOf(writeDeckWord(word))).toEqual(word);
  });

  test.each([
    ['/hovlix/deck/5/at', [1, 1], 'from 1 to 4'],
    ['/hovlix/deck/x/at', [1, 1], 'from 1 to 4'],
    ['/hovlix/deck/1/at/once', [1, 1], 'from 1 to 4'],
    ['/hovlix/deck/1/at', [], 'position is in seconds'],
    ['/hovlix/deck/1/at', [NaN, 1], 'position is in seconds'],
    ['/hovlix/deck/1/at', [1, -1], 'from 0 (paused) to 4'],
    ['/hovlix/deck/1/at', [1, 1, 9e9], '0 to 400'],
    ['/hovlix/deck/1/level', ['loud'], 'from 0 to 1'],
    ['/hovlix/deck/1/track', ['a', 'b', -1], 'title and artist'],
    ['/hovlix/deck/1/track', ['a', 'b', 1, 'no hash'], 'title and artist'],
    ['/hovlix/deck/1/spin', [], 'track, at, level or empty'],
  ])('%s %j is refused with a sentence', (address, values, why) => {
    expect(readDeckWord({ address, types: '', values })).toEqual({ why: expect.stringContaining(why) });
  });

  test('what is meant for others is left alone', () => {
    expect(readDeckWord({ address: '/mixer/1', types: '', values: [] })).toBeUndefined();
  });
});

describe('which song a track is', () => {
  const found = (one: ReturnType<typeof track>, more: object = {}) => {
    const match = songOfTrack(one, show(more));
    return match && [match.song?.id ?? null, match.by];
  };
  test('by its file, whatever it is called; by title, artist and length; or not at all', () => {
    expect(found(track('03 - ferry (final)', { content: HASH }))).toEqual(['ferry', 'file']);
    expect(found(track('night  FERRY!'))).toEqual(['ferry', 'title']);
    expect(found(track('Night Ferry', { by: '' }))).toEqual(['ferry', 'title']);
    expect(found(track('Night Ferry', { by: 'Others' }))).toBeUndefined();
    expect(found(track('Night Ferry', { length: 320 }))).toBeUndefined();
    expect(found(track(''))).toBeUndefined();
  });
  test('of two with one title the length decides; without, nobody guesses', () => {
    expect(found(track('Low Tide', { length: 240.8 }))).toEqual(['tide-live', 'title']);
    expect(found(track('Low Tide', { length: 0 }))).toBeUndefined();
  });
  test('what was chosen once counts, and is forgotten with its song', () => {
    const before = show();
    const one = track('Encore, long version', { length: 400 });
    const known = {
      type: 'know-track',
      known: { id: id<'KnownTrack'>('k'), track: one, song: id<'Song'>('tide') },
    } as const;
    const after = edit(before, known).show;
    expect(songOfTrack({ ...one, length: 401 }, after)).toMatchObject({ song: { id: 'tide' }, by: 'kept' });
    const other = edit(after, { ...known, known: { ...known.known, id: id('k2'), song: null } }).show;
    expect(other.player?.tracks).toHaveLength(1);
    expect(songOfTrack(one, other)).toEqual({ song: null, by: 'kept' });
    const gone = edit(after, { type: 'remove-song', song: id('tide') }).show;
    expect(gone.player?.tracks).toEqual([]);
    expect(edit(after, { type: 'forget-track', track: id('k') }).show.player?.tracks).toEqual([]);
  });
  test('the look for unknown tracks is forgotten with it', () => {
    const chosen = edit(show(), { type: 'choose-unknown', look: id('red') }).show;
    expect(chosen.player?.unknown).toBe('red');
    expect(edit(chosen, { type: 'remove-look', look: id('red') }).show.player?.unknown).toBeUndefined();
    expect(edit(chosen, { type: 'choose-unknown', look: null }).show.player?.unknown).toBeUndefined();
  });
  test('to choose from, the likeliest come first', () => {
    expect(likelySongs(track('Low Tide (Harbour Mix)', { length: 240 }), show().songs).map((song) => song.id)).toEqual([
      'tide-live',
      'tide',
      'ferry',
    ]);
  });
});

describe('a deck', () => {
  const after = (...commands: readonly (readonly [number, DeckCommand])[]): Deck =>
    commands.reduce((deck, [at, command]) => deckAfter(deck, command, seconds(at)), EMPTY_DECK);
  const at = (deck: Deck, now: number) => {
    const place = placeOf(deck, 1, seconds(now));
    return place.says === 'at' ? place : undefined;
  };

  test('plays as fast as its pitch says, and stops at its end', () => {
    const deck = after(
      [0, { do: 'load', track: loaded('a', { length: 20 }) }],
      [1, { do: 'play' }],
      [11, { do: 'pitch', by: 0.1 }],
    );
    expect(at(deck, 11)).toMatchObject({ position: expect.closeTo(10), rate: 1.1 });
    expect(at(deck, 12)!.position).toBeCloseTo(11.1);
    expect(at(deck, 12)!.beat).toBeCloseTo((11.1 - 0.5) * 2);
    expect(at(deck, 60)).toMatchObject({ position: 20, rate: 0 });
    expect(deckAfter(deck, { do: 'play' }, seconds(60)).playing).toBe(false);
  });

  test('comes round in its loop until that is let go, goes back to its cue, and jogs', () => {
    const looping = after(
      [0, { do: 'load', track: loaded('a') }],
      [0, { do: 'go', to: 10 }],
      [0, { do: 'play' }],
      [2, { do: 'loop', beats: 4 }],
    );
    expect(at(looping, 4.5)!.position).toBeCloseTo(12.5);
    expect(at(looping, 6.25)!.position).toBeCloseTo(12.25);
    const on = deckAfter(looping, { do: 'loop', beats: null }, seconds(6.25));
    expect(at(on, 10)!.position).toBeCloseTo(16);
    expect(at(deckAfter(on, { do: 'jog', by: -3 }, seconds(10)), 11)!.position).toBeCloseTo(14);
    const stood = deckAfter(on, { do: 'pause' }, seconds(10));
    expect(stood.cue).toBeCloseTo(16);
    const cued = deckAfter(deckAfter(stood, { do: 'play' }, seconds(11)), { do: 'cue' }, seconds(14));
    expect(at(cued, 20)).toMatchObject({ position: expect.closeTo(16), rate: 0 });
  });

  test('the beat is that of the louder deck that plays, as fast as it turns', () => {
    const slow = after(
      [0, { do: 'load', track: loaded('a', { bpm: 100 }) }],
      [0, { do: 'level', level: 0.5 }],
      [0, { do: 'play' }],
    );
    const fast = after([0, { do: 'load', track: loaded('b') }], [0, { do: 'pitch', by: 0.1 }]);
    expect(beatOfDecks([slow, fast], seconds(3.5))).toMatchObject({ deck: 1, beat: expect.closeTo(5), length: 0.6 });
    const both = [slow, deckAfter(fast, { do: 'play' }, seconds(0))];
    expect(beatOfDecks(both, seconds(5))).toMatchObject({
      deck: 2,
      beat: expect.closeTo(10),
      length: expect.closeTo(60 / 132),
    });
    expect(beatOfDecks([EMPTY_DECK, fast], seconds(5))).toBeUndefined();
  });

  test('an empty deck does nothing, and one that is loaded keeps pitch and level', () => {
    expect(deckAfter(EMPTY_DECK, { do: 'play' }, seconds(1)).playing).toBe(false);
    const deck = after(
      [0, { do: 'pitch', by: -0.16 }],
      [0, { do: 'level', level: 0.4 }],
      [1, { do: 'load', track: loaded('a') }],
    );
    expect(deck).toMatchObject({ rate: 0.84, level: 0.4, songTime: 0 });
    expect(deckAfter(deck, { do: 'eject' }, seconds(2)).track).toBeNull();
  });
});

/** What a DJ does on a deck at 120, at some moments. */
const djing = fc.array(
  fc.tuple(
    fc.double({ min: 0.05, max: 3, noNaN: true }),
    fc.oneof(
      fc.double({ min: -0.16, max: 0.16, noNaN: true }).map((by): DeckCommand => ({ do: 'pitch', by })),
      fc.double({ min: 0, max: 190, noNaN: true }).map((to): DeckCommand => ({ do: 'go', to })),
      fc.constantFrom(0.5, 1, 4, 8).map((beats): DeckCommand => ({ do: 'loop', beats })),
      fc.constant<DeckCommand>({ do: 'loop', beats: null }),
      fc.constant<DeckCommand>({ do: 'pause' }),
      fc.constant<DeckCommand>({ do: 'play' }),
      fc.double({ min: -2, max: 2, noNaN: true }).map((by): DeckCommand => ({ do: 'jog', by })),
    ),
  ),
  { minLength: 1, maxLength: 12 },
);

/** A stage and a deck that says where it is every 20 ms, each word on its way for a few ms. */
function stage(of: Show) {
  let live: LiveState = AT_REST;
  let now = 100;
  let deck = EMPTY_DECK;
  const follower = playerFollower();
  const words: { readonly at: number; readonly word: DeckWord }[] = [];
  const found: unknown[] = [];
  let silent = false;
  const say = (word: DeckWord, late: number) => {
    if (!silent) words.push({ at: now + late, word });
  };
  const told = (late: number) => {
    if (deck.track)
      say({ deck: 1, says: 'track', track: (({ bpm: _, firstBeat: __, ...rest }) => rest)(deck.track) }, late);
    say(placeOf(deck, 1, seconds(now)), late);
  };
  return {
    follower,
    found,
    live: () => live,
    act: (action: Action, who = 'screen') => {
      live = reduced(live, { seq: live.seq + 1, at: seconds(now), who, action: Action.parse(action) });
    },
    does: (command: DeckCommand, late = 0.002) => {
      deck = deckAfter(deck, command, seconds(now));
      told(late);
    },
    silence: () => void (silent = true),
    /** @param late how long a word is on its way, in seconds. @param watch is called each 20 ms. */
    run(length: number, { late = () => 0.002 as number, follows = true, watch = () => undefined as void } = {}) {
      for (const end = now + length; now < end - 1e-9;) {
        now += 0.02;
        if (deck.playing) say(placeOf(deck, 1, seconds(now)), late());
        for (let i = 0; i < words.length;)
          if (words[i]!.at <= now + 0.01) follower.take(words[i]!.word, seconds(words.splice(i, 1)[0]!.at), 'player');
          else i++;
        const { actions, found: one } = follower.look({ show: of, live, now: seconds(now) }, follows);
        if (one) found.push(one);
        for (const action of actions)
          live = reduced(live, {
            seq: live.seq + 1,
            at: seconds(now),
            who: PLAYER_SOUNDS,
            action: Action.parse(action),
          });
        watch();
      }
    },
    /** How far the song is from the deck, in seconds. */
    off: () => Math.abs(songTimeAt(live.song!, seconds(now)) - deckAt(deck, seconds(now)).songTime),
    deck: () => deckAt(deck, seconds(now)),
    now: () => now,
  };
}

test('whatever is done on a deck, the song is within 20 ms of it a moment later', () => {
  fc.assert(
    fc.property(
      djing,
      fc.array(fc.double({ min: 0.0005, max: 0.009, noNaN: true }), { minLength: 7, maxLength: 7 }),
      (deeds, lates) => {
        const on = stage(show());
        let k = 0;
        const late = () => lates[k++ % lates.length]!;
        on.does({ do: 'load', track: loaded('Night Ferry', { content: HASH }) });
        on.does({ do: 'play' });
        on.run(0.5, { late });
        for (const [wait, command] of deeds) {
          on.run(wait, { late });
          on.does(command, late());
          // A word is on its way, and one more where it might only have been late.
          on.run(0.06, { late });
          const { playing, songTime } = on.deck();
          expect(on.live().song?.playing).toBe(playing && songTime < 200);
          if (!playing) continue;
          let turned = on.deck().songTime;
          on.run(0.3, {
            late,
            watch: () => {
              const here = on.deck().songTime;
              const round = here < turned;
              turned = here;
              // Where it has just come round, nobody has been told yet.
              if (!round && on.deck().playing && here - (on.deck().loop?.from ?? -1) > 0.06)
                expect(on.off()).toBeLessThan(0.02);
            },
          });
        }
      },
    ),
    { numRuns: 60 },
  );
});

describe('songs go by it', () => {
  const ferry = { do: 'load', track: loaded('Night Ferry', { content: HASH }) } as const;

  test('loaded it is ready, played it plays, without a screen that sounds; stopped it stops; and the find is told once', () => {
    const on = stage(show());
    on.does(ferry);
    on.run(0.1);
    expect(on.live().song).toMatchObject({ id: 'ferry', playing: false });
    on.does({ do: 'play' });
    on.run(0.1);
    expect(on.live().song).toMatchObject({ id: 'ferry', playing: true, sound: PLAYER_SOUNDS });
    on.does({ do: 'pause' });
    on.run(0.1);
    expect(on.live().song).toMatchObject({ id: 'ferry', playing: false });
    expect(on.found[0]).toEqual({ track: track('Night Ferry', { content: HASH }), song: 'ferry' });
  });

  test('a track that is no song: its look comes on, its beat counts, and goes when a song comes', () => {
    const of = edit(show(), { type: 'choose-unknown', look: id('red') }).show;
    const on = stage(of);
    on.does({ do: 'load', track: loaded('White label', { bpm: 128 }) });
    on.does({ do: 'pitch', by: 0.05 });
    on.does({ do: 'play' });
    on.run(1);
    expect(on.live().standing.map(({ look }) => look)).toEqual(['red']);
    expect(on.live().tempo.bpm).toBeCloseTo(128 * 1.05);
    const { at, beat } = on.live().tempo;
    const deckBeat = ((on.deck().songTime - 0.5) * 128) / 60;
    expect(Math.abs(beat + ((on.now() - at) * 128 * 1.05) / 60 - deckBeat)).toBeLessThan(0.02);
    on.does(ferry);
    on.does({ do: 'play' });
    on.run(1);
    expect(on.live().song).toMatchObject({ id: 'ferry', playing: true });
    expect(on.live().standing.filter((one) => one.on)).toEqual([]);
  });

  test('what sounds on a screen is left alone; and nothing is done where songs do not follow', () => {
    const on = stage(show());
    on.act({ type: 'play', song: id('tide'), from: seconds(0), sound: 'laptop' });
    on.does(ferry);
    on.does({ do: 'play' });
    on.run(0.5);
    expect(on.live().song).toMatchObject({ id: 'tide', sound: 'laptop' });
    on.act({ type: 'pause' });
    on.run(0.5, { follows: false });
    expect(on.live().song).toMatchObject({ id: 'tide', playing: false });
    on.run(0.1);
    expect(on.live().song).toMatchObject({ id: 'ferry', playing: true });
    // Turned off, the song that went by it stops.
    on.run(0.1, { follows: false });
    expect(on.live().song).toMatchObject({ id: 'ferry', playing: false });
  });

  test('fallen silent, the song goes on as fast as it went, and it is said', () => {
    const on = stage(show());
    on.does(ferry);
    on.does({ do: 'pitch', by: 0.08 });
    on.does({ do: 'play' });
    on.run(2);
    on.silence();
    on.run(5);
    expect(on.follower.lost(seconds(on.now()))).toBe(1);
    expect(on.live().song?.playing).toBe(true);
    expect(on.off()).toBeLessThan(0.02);
    // A player that has gone holds nothing: paused on a screen, the song stays paused, and nothing more is said.
    on.act({ type: 'pause' });
    on.run(0.5);
    expect(on.live().song?.playing).toBe(false);
    expect(on.follower.lost(seconds(on.now()))).toBeUndefined();
  });

  test('a loop of ours gives way to the player', () => {
    const on = stage(show());
    on.does(ferry);
    on.does({ do: 'play' });
    on.run(0.5);
    on.act({ type: 'loop', loop: { from: seconds(0), to: seconds(1) } });
    on.run(2);
    expect(on.live().song?.loop).toBeUndefined();
    expect(on.off()).toBeLessThan(0.02);
  });
});

test('a word that comes late by a lot does not move the deck; a jump does, at the second word at the latest', () => {
  const clock = deckClock();
  const say = (at: number, position: number, late = 0) =>
    clock.take({ position, rate: 1, bpm: 120, beat: 0 }, seconds(at + late));
  for (let i = 0; i <= 20; i++) say(i * 0.02, 10 + i * 0.02, 0.001);
  say(0.42, 10.42, 0.08);
  expect(clock.positionAt(seconds(0.5))).toBeCloseTo(10.499, 3);
  // A tenth of a second back.
  say(0.52, 10.42);
  say(0.54, 10.44);
  expect(clock.positionAt(seconds(0.54))).toBeCloseTo(10.44, 3);
  say(0.56, 60);
  expect(clock.positionAt(seconds(0.56))).toBeCloseTo(60, 3);
});
