// What just happened, in words.

import { testShow, songId, lookId } from '../testing/show';
import { id, seconds } from '../units';
import { AT_REST, Action, keptLog, readLog, logText, reduced, replay, toldLines, type Entry } from '.';

const show = testShow();
const log = (...actions: readonly (readonly [at: number, action: Action])[]): Entry[] =>
  actions.map(([at, action], i) => ({ seq: i + 1, at: seconds(at), who: 'me', action: Action.parse(action) }));
const told = (...actions: readonly (readonly [number, Action])[]) =>
  toldLines(show, log(...actions), 50).map(({ words, times }) => (times > 1 ? `${words} ×${times}` : words));

test('the newest first; what moves in steps is one line, and what nobody pressed is none', () => {
  const lines = told(
    [1, { type: 'set-place', set: id('all'), entry: id('song'), stop: 'song/song' }],
    [1, { type: 'play', song: songId, from: seconds(0) }],
    [2, { type: 'anchor', songTime: seconds(1), at: seconds(2), rate: 1 }],
    [3, { type: 'master', level: 0.9 }],
    [3.1, { type: 'master', level: 0.8 }],
    [3.2, { type: 'master', level: 0.5 }],
    [9, { type: 'master', level: 0.4 }],
    [10, { type: 'look-on', look: lookId('red'), fade: seconds(1) }],
    [11, { type: 'blackout', on: true, fade: seconds(0) }],
    [12, { type: 'look-on', look: lookId('gone'), fade: seconds(1) }],
  );
  expect(lines).toEqual([
    'A look that is gone on',
    'Blackout',
    'Red on',
    'Grand master 40 %',
    'Grand master 50 % ×3',
    'Song played',
    'On to Play Song',
  ]);
});

test('every action has words, or is nothing that somebody pressed', () => {
  const silent = [
    'anchor',
    'heard',
    'arm',
    'hold-channels',
    'free-channels',
    'flash-channels',
    'walk-channels',
    'end-test',
    'program',
    'gone',
  ];
  const samples: Record<string, object> = {
    'open-song': { song: null, from: 0 },
    play: { song: 'song', from: 61 },
    pause: {},
    seek: { to: 61 },
    loop: { loop: null },
    jump: { jump: null },
    'set-place': { set: 'all', entry: 'song', stop: 'x' },
    'look-on': { look: 'red', fade: 0 },
    go: { bank: 'all', look: 'red', fade: 0 },
    bank: { bank: 'all' },
    'look-off': { look: 'red', fade: 0 },
    pad: { press: 'toggle', down: true, look: 'red', fade: 0, fadeOut: 0 },
    'all-off': { fade: 0 },
    step: { look: 'red' },
    speed: { rate: 2 },
    'fade-times': { factor: 2 },
    'role-master': { role: 'wash', level: 1 },
    hand: { values: [{ role: 'wash', level: { type: 'hold', value: 1 } }] },
    release: { fade: 0 },
    choose: { roles: ['wash'] },
    master: { level: 1 },
    blackout: { on: false },
    freeze: { on: true },
    sending: { on: false },
    notes: { notes: [{ kit: 'k', role: 'wash', hit: 'h', note: 1, velocity: 1 }] },
    tap: {},
    tempo: { bpm: 100 },
    nudge: { by: 0.02 },
    'show-on': { show: 'x' },
  };
  const types = Action.options.map(({ shape }) => shape.type.value);
  for (const type of types) {
    const sample = samples[type];
    expect([type, sample !== undefined]).toEqual([type, !silent.includes(type)]);
    if (sample) expect(told([1, Action.parse({ type, ...sample })])[0]).toMatch(/^\S.*\S$/);
  }
});

test('a kept log stays short, can be read again, and leads to the same state', () => {
  const kept = keptLog(AT_REST, 10);
  let state = AT_REST;
  for (let i = 1; i <= 57; i++) {
    const entry: Entry = { seq: i, at: seconds(i), who: 'me', action: { type: 'master', level: i / 100 } };
    kept.add(entry);
    state = reduced(state, entry);
  }
  const { entries } = kept.log();
  expect(entries.map(({ seq }) => seq)).toEqual([48, 49, 50, 51, 52, 53, 54, 55, 56, 57]);
  const read = readLog(logText(kept.log()), 'log');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  expect(replay(read.value)(seconds(1000))).toEqual(state);
});
