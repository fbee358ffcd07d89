// What is on, as a look: standing looks and chases, what a song shows, and hands, as far as they would be seen.

import { Chase, Look } from '../light';
import type { Action } from '../live';
import { Song } from '../song';
import { testHost } from '../testing/gear-host';
import { testShow } from '../testing/show';
import { beats, id, seconds } from '../units';
import { lookOfNow } from './on-now';

const level = (value: number) => ({ role: 'wash', level: { type: 'hold', value } });
const look = (name: string, values: object[], more: object = {}) =>
  Look.parse({ id: name, number: 50, name, fadeIn: 0, fadeOut: 0, values, ...more });
const step = (n: number, more: object) => ({ id: `s${n}`, fade: 0, hold: 1, ...more });

/** Steps of a beat each: 20 %, a look at half its 80 %, 60 %. */
const CHASE = Chase.parse({
  id: 'run',
  number: 60,
  name: 'Run',
  fadeIn: 0,
  fadeOut: 0,
  pace: 'beats',
  steps: [
    step(1, { values: [level(0.2)] }),
    step(2, { look: 'bright', level: 0.5 }),
    step(3, { values: [level(0.6)] }),
  ],
});

function stage() {
  let clock = 100;
  const show = testShow();
  const clip = (name: string, of: string, from: number, to: number, more: object = {}) => ({
    id: name,
    look: of,
    from,
    to,
    ...more,
  });
  const lane = (name: string, clips: object[], more: object = {}) => ({
    id: name,
    name,
    type: 'looks',
    clips,
    ...more,
  });
  const song = Song.parse({
    ...show.songs[0]!,
    lanes: [
      lane('under', [clip('a', 'bright', 0, 8, { level: 0.5 }), clip('b', 'run', 8, 16, { speed: 2 })]),
      lane('silent', [clip('c', 'red', 0, 16)], { muted: true }),
    ],
  });
  const line = testHost(
    {
      ...show,
      looks: [
        ...show.looks,
        look('bright', [level(0.8)]),
        look('stays', [{ role: 'bars', level: { type: 'hold', value: 0.3 } }], { keep: true }),
      ],
      chases: [CHASE],
      songs: [song],
    },
    () => clock,
  );
  const now = () => lookOfNow(line.host.moment()!, id<'Look'>('new'))?.values ?? [];
  return {
    act: (action: object) => line.host.act(action as Action),
    pass: (length: number) => void (clock += length),
    levels: (role = 'wash') =>
      now().flatMap((one) => (one.role === role && one.level?.type === 'hold' ? [one.level.value] : [])),
    song: song.id,
  };
}
const on = (name: string, more: object = {}) => ({
  type: 'look-on',
  look: name,
  fade: seconds(0),
  beat: beats(0),
  ...more,
});

test('nothing on is no look; looks stand over one another, and a hand over all', () => {
  const { act, levels } = stage();
  expect(levels()).toEqual([]);
  act(on('bright'));
  expect(levels()).toEqual([0.8]);
  act({ type: 'hand', values: [level(0.1)] });
  expect(levels()).toEqual([0.1]);
  act({ type: 'release', fade: seconds(0) });
  act({ type: 'look-off', look: 'bright', fade: seconds(0) });
  expect(levels()).toEqual([]);
});

test('what waits for its bar is not on yet, and what makes room for it still is', () => {
  const { act, pass, levels } = stage();
  act(on('bright'));
  act({
    type: 'pad',
    press: 'start',
    down: true,
    look: 'stays',
    clean: true,
    wait: 2,
    fade: seconds(0),
    fadeOut: seconds(0),
  });
  pass(1);
  expect([levels(), levels('bars')]).toEqual([[0.8], []]);
  pass(1.5);
  expect([levels(), levels('bars')]).toEqual([[], [0.3]]);
});

test('of a chase the step that is there, at its level', () => {
  const { act, pass, levels } = stage();
  act({ type: 'tempo', bpm: 60, beat: { at: 100, beat: 0 } });
  act(on('run'));
  pass(0.5);
  expect(levels()).toEqual([0.2]);
  pass(1);
  expect(levels()).toEqual([0.4]);
  pass(1);
  expect(levels()).toEqual([0.6]);
});

test('what a song shows at that place, as its clips play it; beside it only what is to be kept', () => {
  const { act, pass, levels, song } = stage();
  act(on('stays'));
  act(on('red'));
  act({ type: 'play', song, from: seconds(1) });
  expect(levels()).toEqual([0.4]);
  expect(levels('bars')).toEqual([0.3]);
  // At 120 beats a minute, beat 8 is at 4 s; twice as fast, a step is a quarter of a second.
  pass(3.1);
  expect(levels()).toEqual([0.2]);
  pass(0.25);
  expect(levels()).toEqual([0.4]);
  pass(0.25);
  expect(levels()).toEqual([0.6]);
  act({ type: 'open-song', song: null, from: seconds(0) });
  expect(levels('bars')).toEqual([0.3]);
});
