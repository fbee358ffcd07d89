// A night led by one switch, and all else that a press can mean.

import fc from 'fast-check';
import { unfit } from '../../conduct/fits';
import { SWATCHES } from '../../colour';
import { Act, SetList } from '../../gig';
import { Bank, rampAt } from '../../light';
import { Channel } from '../../rig';
import { readShow, type Show } from '../../show';
import { Song } from '../../song';
import { testShow } from '../../testing/show';
import { beats, id, seconds } from '../../units';
import { Action, AT_REST, isFrozen, reduced, songTimeAt, type LiveState, type Moment } from '..';
import { actionsOf, actName, afterSong, placeAt, pressWords, sectionNow, stopWords, toStop, wordsNow } from '.';
import { lookName } from './act-names';
import { actsFound, actsOffered } from './offered';

const section = (name: string, bar: number) => ({ id: `${name}-${bar}`, bar, name, tint: 0 });

/** Three songs at 120 in 4/4, 24 bars each: a bar is 2 s. Sections at bars 0, 8 and 16. */
function show(set: object = {}): Show {
  const plain = testShow();
  const song = plain.songs[0]!;
  const songs = ['one', 'two', 'three'].map((name) =>
    Song.parse({ ...song, id: name, title: name, duration: 48, sections: [section('Verse', 0), section('Chorus', 8), section('Outro', 16)] }),
  );
  const banks = [Bank.parse({ id: 'bar', name: 'Bar', pads: ['red', 'half-blue', 'kept'].map((look) => ({ look })) })];
  const sets = [SetList.parse({ id: 'friday', name: 'Friday', entries: songs.map(({ id: name }) => ({ kind: 'song', id: `e-${name}`, song: name })), ...set })];
  const read = readShow({ ...plain, songs, banks, sets }, 'test');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return read.value;
} // prettier-ignore

/** A stage whose clock is moved by hand. */
function night(of: Show) {
  let live: LiveState = AT_REST;
  let now = 100;
  const moment = (): Moment => ({ show: of, live, now: seconds(now) });
  const act = (actions: readonly Action[]) => {
    for (const action of actions) {
      expect(unfit(of, live, action, seconds(now))).toBeUndefined();
      live = reduced(live, { seq: live.seq + 1, at: seconds(now), who: 'foot', action: Action.parse(action) });
    }
  };
  const press = (one: object, down = true) => act(actionsOf(moment(), Act.parse(one), down));
  return {
    moment,
    press,
    act,
    next: () => press({ act: 'stop', way: 'next' }),
    back: () => press({ act: 'stop', way: 'previous' }),
    wait: (length: number) => void (now += length),
    live: () => live,
    at: () => placeAt(moment()).stops[placeAt(moment()).at]?.id,
    time: () => (live.song ? songTimeAt(live.song, seconds(now)) : undefined),
    plays: () => (live.song?.playing ? live.song.id : undefined),
    on: () => live.standing.filter((one) => one.on).map(({ look }) => look as string),
    will: (one: object) => wordsNow(moment(), Act.parse(one)),
  };
}
const NEXT = { act: 'stop', way: 'next' };
const BACK = { act: 'stop', way: 'previous' };

describe('a set with one switch', () => {
  test('with nothing in it the switch goes through the looks of the bank, and says which is next', () => {
    const stage = night({ ...show(), songs: [], sets: [] });
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
    const stage = night(show());
    const seen: unknown[] = [];
    for (let i = 0; i < 6; i++) {
      expect(stage.will(NEXT)).not.toBe('');
      stage.next();
      seen.push([stage.at(), stage.plays()]);
      stage.wait(50);
    }
    expect(seen).toEqual([['e-one/ready', undefined], ['e-one/song', 'one'], ['e-two/ready', undefined], ['e-two/song', 'two'], ['e-three/ready', undefined], ['e-three/song', 'three']]); // prettier-ignore
    expect(stage.will(NEXT)).toBe('');
    stage.next();
    expect(stage.at()).toBe('e-three/song');
  });

  test('a song is readied with its bank, its tempo and what shall be on before it', () => {
    const entries = [
      { kind: 'song', id: 'a', song: 'one', bank: 'bar', tempo: 97, start: { with: 'look', look: 'red' } },
      { kind: 'song', id: 'b', song: 'two', start: { with: 'dark' } },
    ];
    const stage = night(show({ entries, dark: true }));
    stage.next();
    expect(stage.live()).toMatchObject({ place: { bank: 'bar' }, tempo: { bpm: 97 }, song: { id: 'one', playing: false, unlit: true } }); // prettier-ignore
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
    const stage = night(show());
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
    const stage = night(show(stops));
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
    const stage = night(show({ entries: [{ kind: 'song', id: 'e', song: 'one', stops: 'looks', bank: 'bar' }] }));
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
    for (const [after, leads] of [['wait', undefined], ['ready', 'Ready: two'], ['play', 'Play two']] as const) {
      const stage = night(show({ after }));
      stage.next();
      stage.next();
      const stop = afterSong(stage.moment());
      expect(stop && stopWords(stage.moment().show, stop)).toBe(leads);
    } // prettier-ignore
    const stage = night(show());
    stage.next();
    stage.press({ act: 'entry', way: 'next' });
    stage.press({ act: 'entry', way: 'next' });
    expect(stage.at()).toBe('e-three/ready');
    stage.press({ act: 'entry', way: 'previous' });
    expect(stage.at()).toBe('e-two/ready');
  });

  test('another set may be chosen at any time: one is before its first stop, and what plays goes on', () => {
    const one = show();
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
    const stage = night(show());
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
      fc.property(sets, fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1, maxLength: 8 }), fc.integer({ min: 0, max: 100 }), ({ stops, ...set }, waits, slip) => {
        const entries = ['one', 'two', 'three'].map((song, i) => ({ kind: 'song', id: song, song, bank: 'bar', stops: stops[i] }));
        const stage = night(show({ ...set, entries }));
        for (const tenths of waits) {
          stage.next();
          stage.wait(tenths / 10);
        }
        fc.pre(stage.will(NEXT) !== '' && stage.at() !== undefined);
        const before = { at: stage.at(), plays: stage.plays(), live: stage.live(), time: (of: number) => stage.live().song && songTimeAt(stage.live().song!, seconds(of)) };
        const song = before.live.song;
        stage.next();
        const cut = song?.playing && (stage.live().song?.id !== song.id || !stage.live().song?.playing);
        stage.wait(slip / 100);
        stage.back();
        // A section that was left at a bar line comes again at the next one.
        stage.wait(2.01);
        expect([stage.at(), stage.plays()]).toEqual([before.at, before.plays]);
        if (cut) expect(stage.time()).toBeCloseTo(songTimeAt(song, stage.moment().now), 6);
      }),
      { seed: 15, numRuns: 150 },
    ); // prettier-ignore
  });
});

describe('acts', () => {
  const anyAct: fc.Arbitrary<Act> = fc
    .oneof(
      fc.record({ act: fc.constant('look'), look: fc.constantFrom('red', 'kept', 'half-blue'), press: fc.constantFrom('toggle', 'start', 'stop', 'flash') }),
      fc.record({ act: fc.constant('pad'), place: fc.integer({ min: 1, max: 5 }) }),
      fc.record({ act: fc.constantFrom('go', 'stop', 'entry', 'turn-bank'), way: fc.constantFrom('next', 'previous') }),
      fc.record({ act: fc.constant('song'), does: fc.constantFrom('toggle', 'play', 'pause', 'restart') }),
      fc.record({ act: fc.constant('section'), to: fc.constantFrom('next', 'previous', 'again', 'last') }),
      fc.record({ act: fc.constantFrom('loop', 'tap', 'release', 'all-off') }),
      fc.record({ act: fc.constant('tempo'), to: fc.constantFrom('faster', 'slower', 'half', 'double', 'one') }),
      fc.record({ act: fc.constant('speed'), to: fc.constantFrom('half', 'double', 'normal') }),
      fc.record({ act: fc.constantFrom('blackout', 'sending'), to: fc.constantFrom('toggle', 'on', 'off') }),
      fc.record({ act: fc.constant('master'), role: fc.constantFrom('wash', null), level: fc.double({ min: 0, max: 1, noNaN: true }) }),
      fc.record({ act: fc.constant('choose'), role: fc.constantFrom('wash', 'movers', null), beside: fc.boolean() }),
      fc.record({ act: fc.constant('chosen'), does: fc.record({ level: fc.record({ type: fc.constant('hold'), value: fc.double({ min: 0, max: 1, noNaN: true }) }) }) }),
      fc.record({ act: fc.constant('lamps'), role: fc.constantFrom('wash', 'movers', 'gone'), does: fc.constantFrom('reset', 'lamp on', 'lamp off') }),
      fc.record({ act: fc.constant('nudge'), by: fc.double({ min: -0.5, max: 0.5, noNaN: true }) }),
    )
    .map((one) => Act.parse(one)); // prettier-ignore

  test('whatever is pressed, in whatever order: it fits the show, and what will happen is said in words', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(anyAct, fc.integer({ min: 0, max: 400 })), { maxLength: 40 }), (presses) => {
        const stage = night(show());
        for (const [act, wait] of presses) {
          stage.wait(wait / 10);
          const words = pressWords(stage.moment(), [act]);
          const actions = actionsOf(stage.moment(), act);
          // Nothing is said of what does nothing, and what does something is said.
          if (act.act === 'stop' || act.act === 'entry' || act.act === 'go' || act.act === 'turn-bank' || act.act === 'section') expect(words !== '').toBe(actions.length > 0); // prettier-ignore
          stage.press(act);
          stage.press(act, false);
        }
      }),
      { seed: 15, numRuns: 200 },
    );
  });

  test('colours, aims and gobos of each role are offered by name; a burst goes by itself and is released with the rest', () => {
    const of = show();
    const names = actsOffered(of).map((act) => actName(of, act));
    expect(new Set(names).size).toBe(names.length);
    expect(actsFound(of, actsOffered(of), 'wash amber').map((act) => actName(of, act))).toEqual(['Wash: Amber']);
    expect(names).toEqual(expect.arrayContaining(['Wash: Amber', 'Movers: Deep blue', 'Freeze on or off', 'Store what is on as a look', 'Lock this screen'])); // prettier-ignore
    const foot = night(of);
    const burst = { act: 'hand', values: [{ role: 'wash', level: { type: 'hold', value: 1 } }], hold: 5 };
    expect(foot.will(burst)).toBe('Wash: 100 %, 5 s');
    const held = () => foot.live().hands.map(({ ramp }) => rampAt(ramp, foot.moment().now));
    foot.press(burst);
    foot.wait(4);
    foot.press(burst);
    foot.wait(4.9);
    expect(held()).toEqual([1]);
    foot.wait(0.2);
    expect(held()).toEqual([0]);
    foot.press(burst);
    foot.press({ act: 'release' });
    foot.wait(1);
    expect(held().every((weight) => weight === 0)).toBe(true);
  });

  test('to lock a screen or to store a look moves no light', () => {
    const foot = night(show());
    for (const one of [{ act: 'lock', to: 'on' }, { act: 'store' }])
      expect(actionsOf(foot.moment(), Act.parse(one))).toEqual([]);
  });

  test('roles are chosen alone or beside others; what the chosen ones take by hand adds up; nothing chosen, nothing done', () => {
    const foot = night(show());
    const red = { act: 'chosen', does: { colour: { type: 'hold', value: SWATCHES.find(({ name }) => name === 'Red')!.colour } } };
    expect(foot.will(red)).toBe('');
    foot.press(red);
    expect(foot.live().hands).toEqual([]);
    foot.press({ act: 'choose', role: 'wash', beside: false });
    expect(foot.will({ act: 'choose', role: 'movers', beside: true })).toBe('Choose Wash, Movers');
    foot.press({ act: 'choose', role: 'movers', beside: true });
    expect(foot.will(red)).toBe('Chosen: Red');
    foot.press(red);
    foot.press({ act: 'choose', role: 'wash', beside: true });
    expect(foot.live().chosen).toEqual(['movers']);
    foot.press({ act: 'chosen', does: { level: { type: 'hold', value: 0.5 } } });
    const hands = () => Object.fromEntries(foot.live().hands.map(({ value }) => [value.role, Object.keys(value).filter((key) => key !== 'role').sort()]));
    expect(hands()).toEqual({ wash: ['colour'], movers: ['colour', 'level'] });
    // The one that is chosen alone is chosen no more when it is pressed again.
    foot.press({ act: 'choose', role: 'movers', beside: false });
    expect(foot.live().chosen).toEqual([]);
  }); // prettier-ignore

  test('a reset is offered where lamps have one; the first press only arms it, a second one in time sends it, for as long as the type says', () => {
    const of = show();
    expect(actsFound(of, actsOffered(of), 'reset')).toEqual([]);
    const reset = { attribute: 'LampControl', at: [9], ranges: [{ from: 200, to: 209, does: 'reset', hold: 6 }] };
    const profiles = of.profiles.map((one) =>
      one.id !== 'spot' ? one : { ...one, modes: one.modes.map((mode) => ({ ...mode, channels: [...mode.channels, Channel.parse(reset)] })) },
    );
    const with9 = { ...of, profiles };
    const [act] = actsFound(with9, actsOffered(with9), 'reset');
    expect(act).toEqual({ act: 'lamps', role: 'movers', does: 'reset' });
    const foot = night(with9);
    expect(foot.will(act!)).toBe('Reset Movers: press twice');
    foot.press(act!);
    expect(foot.live().held).toEqual([]);
    expect(foot.will(act!)).toBe('Reset Movers');
    // Too late is a first press again.
    foot.wait(4.1);
    foot.press(act!);
    expect(foot.live().held).toEqual([]);
    foot.wait(1);
    foot.press(act!);
    expect(foot.live().held).toEqual([{ universe: 2, address: 9, value: 205, until: foot.moment().now + 6 }]);
    // Done, it is not armed any more.
    expect(foot.will(act!)).toBe('Reset Movers: press twice');
    // None of a role whose lamps cannot.
    expect(actionsOf(foot.moment(), Act.parse({ act: 'lamps', role: 'wash', does: 'reset' }))).toEqual([]);
  }); // prettier-ignore

  test('frozen and let go by one switch, in a beat of what is heard', () => {
    const foot = night(show());
    const freeze = { act: 'freeze', to: 'toggle' };
    expect(foot.will(freeze)).toBe('Freeze');
    foot.press(freeze);
    expect([isFrozen(foot.live()), foot.will(freeze)]).toEqual([true, 'End the freeze']);
    foot.press({ act: 'freeze', to: 'on' });
    foot.wait(3);
    foot.press(freeze);
    expect(foot.live().frozen!.ramp).toMatchObject({ to: 0, duration: 0.5 });
  });

  test('sections are jumped to with the fade of the set, in beats of the song', () => {
    for (const jumps of ['bar', 'now']) {
      const foot = night(show({ jumps, jumpFade: 4 }));
      foot.act([{ type: 'play', song: id('one'), from: seconds(5) }]);
      foot.press({ act: 'section', to: 'next' });
      foot.wait(1.5);
      foot.act([{ type: 'anchor', songTime: foot.time()! as never, at: foot.moment().now, rate: 1 }]);
      expect(foot.time()).toBeCloseTo(jumps === 'bar' ? 16.5 : 17.5, 3);
      expect(foot.live().song!.left).toMatchObject({ fade: 2, songTime: expect.closeTo(jumps === 'bar' ? 6 : 5, 3) });
    }
  });

  test('the free clock: faster, half, and the bar starting now', () => {
    const stage = night(show());
    stage.press({ act: 'tempo', to: 'faster' });
    expect(stage.live().tempo.bpm).toBe(121);
    stage.press({ act: 'tempo', to: 'half' });
    expect(stage.live().tempo.bpm).toBe(60.5);
    stage.wait(1.3);
    stage.press({ act: 'tempo', to: 'one' });
    const { at, beat } = stage.live().tempo;
    expect([at, beat % 4]).toEqual([stage.moment().now, 0]);
    stage.press({ act: 'nudge', by: 0.02 });
    expect(stage.live().tempo.at).toBeCloseTo(at + 0.02, 9);
  });

  test('flashes and hits end as the foot comes up; all else has been done as it went down', () => {
    const stage = night(show());
    stage.press({ act: 'look', look: 'red', press: 'flash' });
    expect(stage.on()).toEqual(['red']);
    stage.press({ act: 'look', look: 'red', press: 'flash' }, false);
    expect(stage.on()).toEqual([]);
    stage.press({ act: 'blackout', to: 'toggle' });
    stage.press({ act: 'blackout', to: 'toggle' }, false);
    expect(stage.live().blackout.on).toBe(true);
  });

  test('a loop goes round the section one is in, until it is pressed again', () => {
    const stage = night(show());
    stage.act(toStop(stage.moment(), placeAt(stage.moment()).stops[1]!));
    stage.wait(20);
    expect(stage.will({ act: 'loop' })).toBe('Loop this section');
    stage.press({ act: 'loop' });
    stage.wait(16);
    expect(stage.time()).toBe(20);
    expect(stage.will({ act: 'loop' })).toBe('End the loop');
    stage.press({ act: 'loop' });
    stage.wait(16);
    expect(stage.time()).toBe(36);
  });

  test('before bar 1, a loop is that of the first section', () => {
    const plain = show();
    const songs = plain.songs.map((song) => ({ ...song, tempo: { anchors: [{ beat: beats(0), time: seconds(0.7) }, { beat: beats(2), time: seconds(1.7) }] } })); // prettier-ignore
    const stage = night({ ...plain, songs });
    stage.act([{ type: 'play', song: id<'Song'>('one'), from: seconds(0) }]);
    stage.wait(0.1);
    stage.press({ act: 'loop' });
    expect(stage.live().song?.loop).toEqual({ from: expect.closeTo(0.7, 6), to: expect.closeTo(16.7, 6) });
    expect(sectionNow(stage.moment())?.name).toBe('Verse');
    stage.wait(17);
    expect(stage.time()).toBeCloseTo(1.1, 6);
  });
});
