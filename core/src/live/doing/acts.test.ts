// All that a press can mean.

import fc from 'fast-check';
import { SWATCHES } from '../../colour';
import { Act } from '../../gig';
import { rampAt } from '../../light';
import { Channel } from '../../rig';
import { night, nightShow } from '../../testing/night';
import { beats, id, seconds } from '../../units';
import { isFrozen } from '..';
import { actionsOf, actName, placeAt, pressWords, sectionNow, toStop } from '.';
import { actsFound, actsOffered } from './offered';

describe('acts', () => {
  const anyAct: fc.Arbitrary<Act> = fc
    .oneof(
      fc.record({
        act: fc.constant('look'),
        look: fc.constantFrom('red', 'kept', 'half-blue'),
        press: fc.constantFrom('toggle', 'start', 'stop', 'flash'),
      }),
      fc.record({ act: fc.constant('pad'), place: fc.integer({ min: 1, max: 5 }) }),
      fc.record({ act: fc.constantFrom('go', 'stop', 'entry', 'turn-bank'), way: fc.constantFrom('next', 'previous') }),
      fc.record({ act: fc.constant('song'), does: fc.constantFrom('toggle', 'play', 'pause', 'restart') }),
      fc.record({ act: fc.constant('section'), to: fc.constantFrom('next', 'previous', 'again', 'last') }),
      fc.record({ act: fc.constantFrom('loop', 'tap', 'release', 'all-off') }),
      fc.record({ act: fc.constant('tempo'), to: fc.constantFrom('faster', 'slower', 'half', 'double', 'one') }),
      fc.record({ act: fc.constant('speed'), to: fc.constantFrom('half', 'double', 'normal') }),
      fc.record({ act: fc.constantFrom('blackout', 'sending'), to: fc.constantFrom('toggle', 'on', 'off') }),
      fc.record({
        act: fc.constant('master'),
        role: fc.constantFrom('wash', null),
        level: fc.double({ min: 0, max: 1, noNaN: true }),
      }),
      fc.record({ act: fc.constant('choose'), role: fc.constantFrom('wash', 'movers', null), beside: fc.boolean() }),
      fc.record({
        act: fc.constant('chosen'),
        does: fc.record({
          level: fc.record({ type: fc.constant('hold'), value: fc.double({ min: 0, max: 1, noNaN: true }) }),
        }),
      }),
      fc.record({
        act: fc.constant('lamps'),
        role: fc.constantFrom('wash', 'movers', 'gone'),
        does: fc.constantFrom('reset', 'lamp on', 'lamp off'),
      }),
      fc.record({ act: fc.constant('nudge'), by: fc.double({ min: -0.5, max: 0.5, noNaN: true }) }),
    )
    .map((one) => Act.parse(one));

  test('whatever is pressed, in whatever order: it fits the show, and what will happen is said in words', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(anyAct, fc.integer({ min: 0, max: 400 })), { maxLength: 40 }), (presses) => {
        const stage = night(nightShow());
        for (const [act, wait] of presses) {
          stage.wait(wait / 10);
          const words = pressWords(stage.moment(), [act]);
          const actions = actionsOf(stage.moment(), act);
          // Nothing is said of what does nothing, and what does something is said.
          if (
            act.act === 'stop' ||
            act.act === 'entry' ||
            act.act === 'go' ||
            act.act === 'turn-bank' ||
            act.act === 'section'
          )
            expect(words !== '').toBe(actions.length > 0);
          stage.press(act);
          stage.press(act, false);
        }
      }),
      { seed: 15, numRuns: 200 },
    );
  });

  test('colours, aims and gobos of each role are offered by name; a burst goes by itself and is released with the rest', () => {
    const of = nightShow();
    const names = actsOffered(of).map((act) => actName(of, act));
    expect(new Set(names).size).toBe(names.length);
    expect(actsFound(of, actsOffered(of), 'wash amber').map((act) => actName(of, act))).toEqual(['Wash: Amber']);
    expect(names).toEqual(
      expect.arrayContaining([
        'Wash: Amber',
        'Movers: Deep blue',
        'Freeze on or off',
        'Store what is on as a look',
        'Lock this screen',
      ]),
    );
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
    const foot = night(nightShow());
    for (const one of [{ act: 'lock', to: 'on' }, { act: 'store' }])
      expect(actionsOf(foot.moment(), Act.parse(one))).toEqual([]);
  });

  test('roles are chosen alone or beside others; what the chosen ones take by hand adds up; nothing chosen, nothing done', () => {
    const foot = night(nightShow());
    const red = {
      act: 'chosen',
      does: { colour: { type: 'hold', value: SWATCHES.find(({ name }) => name === 'Red')!.colour } },
    };
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
    const hands = () =>
      Object.fromEntries(
        foot.live().hands.map(({ value }) => [
          value.role,
          Object.keys(value)
            .filter((key) => key !== 'role')
            .sort(),
        ]),
      );
    expect(hands()).toEqual({ wash: ['colour'], movers: ['colour', 'level'] });
    // The one that is chosen alone is chosen no more when it is pressed again.
    foot.press({ act: 'choose', role: 'movers', beside: false });
    expect(foot.live().chosen).toEqual([]);
  });

  test('a reset is offered where lamps have one; the first press only arms it, a second one in time sends it, for as long as the type says', () => {
    const of = nightShow();
    expect(actsFound(of, actsOffered(of), 'reset')).toEqual([]);
    const reset = { attribute: 'LampControl', at: [9], ranges: [{ from: 200, to: 209, does: 'reset', hold: 6 }] };
    const profiles = of.profiles.map((one) =>
      one.id !== 'spot'
        ? one
        : { ...one, modes: one.modes.map((mode) => ({ ...mode, channels: [...mode.channels, Channel.parse(reset)] })) },
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
  });

  test('frozen and let go by one switch, in a beat of what is heard', () => {
    const foot = night(nightShow());
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
      const foot = night(nightShow({ jumps, jumpFade: 4 }));
      foot.act([{ type: 'play', song: id('one'), from: seconds(5) }]);
      foot.press({ act: 'section', to: 'next' });
      foot.wait(1.5);
      foot.act([{ type: 'anchor', songTime: foot.time()! as never, at: foot.moment().now, rate: 1 }]);
      expect(foot.time()).toBeCloseTo(jumps === 'bar' ? 16.5 : 17.5, 3);
      expect(foot.live().song!.left).toMatchObject({ fade: 2, songTime: expect.closeTo(jumps === 'bar' ? 6 : 5, 3) });
    }
  });

  test('the free clock: faster, half, and the bar starting now', () => {
    const stage = night(nightShow());
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
    const stage = night(nightShow());
    stage.press({ act: 'look', look: 'red', press: 'flash' });
    expect(stage.on()).toEqual(['red']);
    stage.press({ act: 'look', look: 'red', press: 'flash' }, false);
    expect(stage.on()).toEqual([]);
    stage.press({ act: 'blackout', to: 'toggle' });
    stage.press({ act: 'blackout', to: 'toggle' }, false);
    expect(stage.live().blackout.on).toBe(true);
  });

  test('a look that has gone out by itself is said to come on with the next press', () => {
    const stage = night(nightShow());
    const red = { act: 'look', look: id<'Look'>('red'), press: 'toggle' } as const;
    const name = stage.will(red);
    stage.act([{ type: 'look-on', look: id<'Look'>('red'), fade: seconds(0), hold: seconds(2), out: seconds(1) }]);
    expect(stage.will(red)).toBe(`${name} off`);
    stage.wait(2.5);
    expect(stage.will(red)).toBe(name);
  });

  test('a loop goes round the section one is in, until it is pressed again', () => {
    const stage = night(nightShow());
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

  test('the next section, pressed twice before its bar line, is the one after it; again is the one that sounds', () => {
    const stage = night(nightShow());
    stage.act(toStop(stage.moment(), placeAt(stage.moment()).stops[1]!));
    stage.wait(5);
    const names = stage.moment().show.songs.find(({ id: one }) => one === stage.live().song?.id)!.sections;
    const next = { act: 'section', to: 'next' } as const;
    expect(stage.will(next)).toBe(names[1]!.name);
    stage.act([{ type: 'jump', jump: { when: seconds(6), to: seconds(16) } }]);
    expect(stage.will(next)).toBe(names[2]!.name);
    expect(stage.will({ act: 'section', to: 'previous' })).toBe(names[0]!.name);
    expect(stage.will({ act: 'section', to: 'again' })).toContain(names[0]!.name);
  });

  test('while a jump is on its way, a loop is that of the section it leads to', () => {
    const stage = night(nightShow());
    stage.act(toStop(stage.moment(), placeAt(stage.moment()).stops[1]!));
    stage.wait(5);
    const loop = { from: seconds(16), to: seconds(32) };
    stage.act([{ type: 'jump', jump: { when: seconds(6), to: seconds(16), loop } }]);
    expect(stage.will({ act: 'loop' })).toBe('End the loop');
    stage.press({ act: 'loop' });
    expect(stage.will({ act: 'loop' })).toBe('Loop this section');
    stage.press({ act: 'loop' });
    expect(stage.live().song?.jump?.loop).toEqual({ from: expect.closeTo(16, 6), to: expect.closeTo(32, 6) });
    stage.press({ act: 'loop' });
    stage.wait(17.5);
    expect(stage.time()).toBeCloseTo(32.5, 6);
  });

  test('before bar 1, a loop is that of the first section', () => {
    const plain = nightShow();
    const songs = plain.songs.map((song) => ({
      ...song,
      tempo: {
        anchors: [
          { beat: beats(0), time: seconds(0.7) },
          { beat: beats(2), time: seconds(1.7) },
        ],
      },
    }));
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
