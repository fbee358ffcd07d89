// A night led by one switch.

import fc from 'fast-check';
import { Act, SetList } from '../../gig';
import { BACK, NEXT, night, nightShow } from '../../testing/night';
import { id, seconds } from '../../units';
import { songTimeAt } from '..';
import { afterSong, placeAt, sectionNow, songAfter, stopWords, wordsNow } from '.';
import { lookName } from './act-names';

describe('a set with one switch', () => {
  test('with nothing in it the switch goes through the looks of the bank, and says which is next', () => {
    const stage = night({ ...nightShow(), songs: [], sets: [] });
    stage.press({ act: 'bank', bank: 'bar' });
    for (const look of ['red', 'half-blue', 'kept']) {
      expect(stage.will(NEXT)).toBe(lookName(stage.moment().show, id(look)));
      stage.next();
      expect(stage.on()).toEqual([look]);
    }
    stage.back();
    expect(stage.on()).toEqual(['half-blue']);
  });

  test('each song is readied and played in turn, and the end is said', () => {
    const stage = night(nightShow());
    const seen: unknown[] = [];
    for (let i = 0; i < 6; i++) {
      expect(stage.will(NEXT)).not.toBe('');
      stage.next();
      seen.push([stage.at(), stage.plays()]);
      stage.wait(50);
    }
    expect(seen).toEqual([
      ['e-one/ready', undefined],
      ['e-one/song', 'one'],
      ['e-two/ready', undefined],
      ['e-two/song', 'two'],
      ['e-three/ready', undefined],
      ['e-three/song', 'three'],
    ]);
    expect(stage.will(NEXT)).toBe('');
    stage.next();
    expect(stage.at()).toBe('e-three/song');
  });

  test('a song is readied with its bank, its tempo and what shall be on before it', () => {
    const entries = [
      { kind: 'song', id: 'a', song: 'one', bank: 'bar', tempo: 97, start: { with: 'look', look: 'red' } },
      { kind: 'song', id: 'b', song: 'two', start: { with: 'dark' } },
    ];
    const stage = night(nightShow({ entries, dark: true }));
    stage.next();
    expect(stage.live()).toMatchObject({
      place: { bank: 'bar' },
      tempo: { bpm: 97 },
      song: { id: 'one', playing: false, unlit: 100 },
    });
    expect(stage.on()).toEqual(['red']);
    stage.next();
    stage.wait(50);
    expect(stage.will(NEXT)).toBe('Dark');
    stage.next();
    expect([stage.on(), stage.live().song]).toEqual([[], null]);
    stage.next();
    expect([stage.at(), stage.on()]).toEqual(['b/ready', []]);
  });

  test('a song that is cut off by a slip goes on where it would be by now', () => {
    const stage = night(nightShow());
    stage.next();
    stage.next();
    stage.wait(20);
    stage.next();
    expect([stage.at(), stage.plays()]).toEqual(['e-two/ready', undefined]);
    stage.wait(3);
    expect(stage.will(BACK)).toBe('Back to one');
    stage.back();
    expect([stage.at(), stage.plays(), stage.time()]).toEqual(['e-one/song', 'one', 23]);
    // Back once more is not the slip again, but the stop before.
    stage.back();
    expect(stage.at()).toBe('e-one/ready');
  });

  test('sections: on at the next bar line and round until the next press; taken back before it', () => {
    const stops = { entries: [{ kind: 'song', id: 'e', song: 'one', stops: 'sections' }] };
    const stage = night(nightShow(stops));
    stage.next();
    stage.next();
    expect([stage.at(), stage.plays()]).toEqual(['e/Verse-0', 'one']);
    // Eight bars are 16 s: the verse comes round.
    stage.wait(17);
    expect([stage.at(), stage.time()]).toEqual(['e/Verse-0', 1]);
    expect(stage.will(NEXT)).toBe('Chorus');
    stage.next();
    expect([stage.at(), stage.time(), sectionNow(stage.moment())?.name]).toEqual(['e/Chorus-8', 1, 'Verse']);
    stage.wait(0.5);
    stage.back();
    stage.wait(1);
    expect([stage.at(), stage.time()]).toEqual(['e/Verse-0', 2.5]);
    stage.wait(1);
    stage.next();
    stage.wait(1);
    // 3.5 s of the verse: the bar ends at 4 s, and the chorus is half a second old.
    expect([stage.at(), stage.time(), sectionNow(stage.moment())?.name]).toEqual(['e/Chorus-8', 16.5, 'Chorus']);
    // A foot a twentieth of a second behind the bar line was meant for it.
    stage.wait(1.55);
    stage.next();
    expect(stage.time()).toBeCloseTo(32.05, 6);
    expect(stage.live().song?.loop).toMatchObject({ from: 32, to: 48 });
  });

  test('looks: the pads of the bank in their order, crossfading', () => {
    const stage = night(nightShow({ entries: [{ kind: 'song', id: 'e', song: 'one', stops: 'looks', bank: 'bar' }] }));
    stage.next();
    stage.next();
    expect(stage.on()).toEqual(['red']);
    expect(stage.will(NEXT)).toBe('Half blue');
    stage.next();
    expect(stage.on()).toEqual(['half-blue']);
    stage.back();
    expect(stage.on()).toEqual(['red']);
  });

  test('an entry may be skipped, and what the end of a song leads to is set', () => {
    for (const [after, leads] of [
      ['wait', undefined],
      ['ready', 'Ready: two'],
      ['play', 'Play two'],
    ] as const) {
      const stage = night(nightShow({ after }));
      stage.next();
      stage.next();
      const stop = afterSong(stage.moment());
      expect(stop && stopWords(stage.moment().show, stop)).toBe(leads);
    }
    const stage = night(nightShow());
    stage.next();
    stage.press({ act: 'entry', way: 'next' });
    stage.press({ act: 'entry', way: 'next' });
    expect(stage.at()).toBe('e-three/ready');
    stage.press({ act: 'entry', way: 'previous' });
    expect(stage.at()).toBe('e-two/ready');
  });

  test('the song to come is the next of the set, past other stops; else what the end of the song says', () => {
    const entries = [
      { kind: 'song', id: 'a', song: 'one', stops: 'sections' },
      { kind: 'pause', id: 'p', minutes: 15 },
      { kind: 'song', id: 'c', song: 'three' },
    ];
    const stage = night(nightShow({ entries }));
    const comes = () => songAfter(stage.moment())?.id;
    expect(comes()).toBeUndefined();
    stage.next();
    expect(comes()).toBe('three');
    stage.next();
    expect([stage.at(), comes()]).toEqual(['a/Verse-0', 'three']);
    stage.act([{ type: 'play', song: id<'Song'>('three'), from: seconds(0) }]);
    expect(comes()).toBeUndefined();
    // No set says what comes after it, but its own end does.
    const show = nightShow({ entries: [] });
    const songs = show.songs.map((song) => ({ ...song, ending: { then: 'next' as const } }));
    const other = night({ ...show, songs });
    other.act([{ type: 'play', song: id<'Song'>('one'), from: seconds(0) }]);
    expect(songAfter(other.moment())?.id).toBe('two');
  });

  test('another set may be chosen at any time: one is before its first stop, and what plays goes on', () => {
    const one = nightShow();
    const late = SetList.parse({ id: 'late', name: 'Late', entries: [{ kind: 'song', id: 'l', song: 'three' }] });
    const stage = night(one);
    stage.next();
    stage.next();
    const other = { ...stage.moment(), show: { ...one, sets: [...one.sets, late], set: late.id } };
    expect([placeAt(other).set.id, placeAt(other).at, wordsNow(other, Act.parse(NEXT))]).toEqual([
      'late',
      -1,
      'Ready: three',
    ]);
    expect(afterSong(other)).toBeUndefined();
    expect(wordsNow(other, Act.parse(BACK))).toBe('');
  });

  test('a song begun from elsewhere is found in the set', () => {
    const stage = night(nightShow());
    stage.act([{ type: 'play', song: id<'Song'>('two'), from: seconds(0) }]);
    expect([stage.at(), stage.will(NEXT)]).toEqual(['e-two/song', 'Ready: three']);
    // Chosen later by hand it is where one is, also while it is paused.
    stage.next();
    stage.wait(1);
    stage.act([{ type: 'open-song', song: id<'Song'>('one'), from: seconds(4) }]);
    expect([stage.at(), stage.will(NEXT)]).toEqual(['e-one/ready', 'Play one']);
  });

  test('a wrong press costs one press, wherever it falls', () => {
    const sets = fc.record({
      stops: fc.array(fc.constantFrom('song', 'sections', 'looks'), { minLength: 3, maxLength: 3 }),
      dark: fc.boolean(),
      jumps: fc.constantFrom('bar', 'now'),
    });
    fc.assert(
      fc.property(
        sets,
        fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 0, max: 100 }),
        ({ stops, ...set }, waits, slip) => {
          const entries = ['one', 'two', 'three'].map((song, i) => ({
            kind: 'song',
            id: song,
            song,
            bank: 'bar',
            stops: stops[i],
          }));
          const stage = night(nightShow({ ...set, entries }));
          for (const tenths of waits) {
            stage.next();
            stage.wait(tenths / 10);
          }
          fc.pre(stage.will(NEXT) !== '' && stage.at() !== undefined);
          const before = {
            at: stage.at(),
            plays: stage.plays(),
            live: stage.live(),
            time: (of: number) => stage.live().song && songTimeAt(stage.live().song!, seconds(of)),
          };
          const song = before.live.song;
          stage.next();
          const cut = song?.playing && (stage.live().song?.id !== song.id || !stage.live().song?.playing);
          stage.wait(slip / 100);
          stage.back();
          // A section that was left at a bar line comes again at the next one.
          stage.wait(2.01);
          expect([stage.at(), stage.plays()]).toEqual([before.at, before.plays]);
          if (cut) expect(stage.time()).toBeCloseTo(songTimeAt(song, stage.moment().now), 6);
        },
      ),
      { seed: 15, numRuns: 150 },
    );
  });
});
