// Lanes and what lies on them, as users change them; all of it can be taken back.

import fc from 'fast-check';
import { curveAt, lookLanes, type CurveLane, type HitLane, type Lane } from '../song';
import { testShow } from '../testing/show';
import { Command, edit, inverse, laid, legal, readShow, type Show } from '.';

const song = 'song';
const hits = { id: 'hits', name: 'Drums', type: 'hits', kit: 'k', role: 'wash', notes: [] };
const curve = { id: 'curve', name: 'Swell', type: 'curve', target: { on: 'all' }, points: [] };
const after = (show: Show, ...commands: object[]) =>
  commands.reduce<Show>((now, one) => edit(now, Command.parse(one)).show, show);
const lanesOf = (show: Show): readonly Lane[] => show.songs[0]!.lanes;
const whole = after(testShow(), { type: 'add-lane', song, added: hits }, { type: 'add-lane', song, added: curve });
const hitLane = (show: Show) => lanesOf(show).find((lane): lane is HitLane => lane.type === 'hits')!;
const curveLane = (show: Show) => lanesOf(show).find((lane): lane is CurveLane => lane.type === 'curve')!;
const note = (at: number, more: object = {}) => ({ id: `n${at}`, at, length: 0.5, note: 36, velocity: 1, ...more });

test('lanes come on top or below another, change places, and the last one stays', () => {
  const names = (show: Show) => lanesOf(show).map((lane) => lane.name);
  expect(names(whole)).toEqual(['Looks', 'Top', 'Drums', 'Swell']);
  const below = after(whole, { type: 'add-lane', song, added: { ...hits, id: 'h2', name: 'Under' }, before: 'looks' });
  expect(names(below)[0]).toBe('Under');
  expect(names(after(whole, { type: 'move-lane', song, lane: 'curve', before: 'top' }))).toEqual([
    'Looks',
    'Swell',
    'Top',
    'Drums',
  ]);
  const few = after(whole, ...['curve', 'hits', 'top', 'looks'].map((lane) => ({ type: 'remove-lane', song, lane })));
  expect(names(few)).toEqual(['Looks']);
  // The same lane twice is one.
  expect(names(after(whole, { type: 'add-lane', song, added: hits }))).toHaveLength(4);
});

test('a lane is set as far as its type has it', () => {
  const set = (lane: string, more: object) => lanesOf(after(whole, { type: 'set-lane', song, lane, ...more }));
  expect(set('hits', { name: 'Kick', muted: true, level: 0.5, role: 'bars', blend: 'add' })[2]).toEqual({
    ...hits,
    name: 'Kick',
    muted: true,
    level: 0.5,
    role: 'bars',
  });
  expect(set('curve', { level: 0.5, blend: 'add' })[3]).toMatchObject({ blend: 'add' });
  expect(set('curve', { level: 0.5, blend: 'highest' })[3]).toMatchObject({ blend: 'scale' });
  const only = { roles: ['wash'] };
  const narrow = after(whole, { type: 'set-lane', song, lane: 'looks', only });
  expect(lookLanes(narrow.songs[0]!)[0]!.only).toEqual(only);
  expect(lanesOf(after(narrow, { type: 'set-lane', song, lane: 'looks', only: null }))[0]).not.toHaveProperty('only');
});

test('notes are sorted, replaced by their ids, and removed', () => {
  const three = after(whole, { type: 'put-notes', song, lane: 'hits', notes: [note(4), note(1), note(2)] });
  expect(hitLane(three).notes.map(({ at }) => at)).toEqual([1, 2, 4]);
  const moved = after(three, { type: 'put-notes', song, lane: 'hits', notes: [{ ...note(4), at: 0 }] });
  expect(hitLane(moved).notes.map(({ id: name, at }) => [name, at])).toEqual([
    ['n4', 0],
    ['n1', 1],
    ['n2', 2],
  ]);
  expect(hitLane(after(moved, { type: 'remove-notes', song, lane: 'hits', notes: ['n1', 'gone'] })).notes).toHaveLength(
    2,
  );
  // On a lane of another type they have no place.
  expect(after(whole, { type: 'put-notes', song, lane: 'looks', notes: [note(1)] })).toBe(whole);
});

test('a clip moved and made longer pushes others aside', () => {
  const moved = after(whole, { type: 'move-clip', song, lane: 'looks', clip: 'c1', from: 6, to: 20 });
  expect(lookLanes(moved.songs[0]!)[0]!.clips.map(({ id: name, from, to }) => [name, from, to])).toEqual([
    ['c1', 6, 20],
    ['c3', 24, 28],
  ]);
  expect(after(whole, { type: 'move-clip', song, lane: 'looks', clip: 'c1', from: 6, to: 6 })).toBe(whole);
});

test('several clips move together: none cuts another of them, and what lies there makes room', () => {
  const at = (show: Show) => lookLanes(show.songs[0]!)[0]!.clips.map(({ id: name, from, to }) => [name, from, to]);
  // c1 is 0 to 8, c2 8 to 16, c3 24 to 28: moved one after the other, c1 would cut c2.
  const moved = after(whole, { type: 'move-clips', song, lane: 'looks', clips: ['c1', 'c2'], by: 10 });
  expect(at(moved)).toEqual([
    ['c1', 10, 18],
    ['c2', 18, 26],
    ['c3', 26, 28],
  ]);
  const back = after(whole, { type: 'move-clips', song, lane: 'looks', clips: ['c2', 'c1'], by: 4 });
  expect(at(after(back, { type: 'move-clips', song, lane: 'looks', clips: ['c1', 'c2'], by: -4 }))).toEqual(at(whole));
  expect(at(after(whole, { type: 'remove-clips', song, lane: 'looks', clips: ['c1', 'c3', 'gone'] }))).toEqual([
    ['c2', 8, 16],
  ]);
});

test('several clips are changed together, and their colours turned each from where they were', () => {
  const first = after(whole, { type: 'change-clip', song, lane: 'looks', clip: 'c1', turn: 150 });
  const all = after(first, {
    type: 'change-clips',
    song,
    lane: 'looks',
    clips: ['c1', 'c2'],
    level: 0.5,
    fadeIn: 2,
    turnBy: 60,
  });
  const [c1, c2, c3] = lookLanes(all.songs[0]!)[0]!.clips;
  expect(c1).toMatchObject({ level: 0.5, fadeIn: 2, turn: -150 });
  expect(c2).toMatchObject({ level: 0.5, fadeIn: 2, turn: 60 });
  expect(c3).toEqual(lookLanes(whole.songs[0]!)[0]!.clips[2]);
  // As the look has it is not written down.
  const plain = after(all, { type: 'change-clips', song, lane: 'looks', clips: ['c1', 'c2'], level: 1, turnBy: -60 });
  expect(lookLanes(plain.songs[0]!)[0]!.clips[1]).not.toHaveProperty('level');
  expect(lookLanes(plain.songs[0]!)[0]!.clips[1]).not.toHaveProperty('turn');
});

test('bars copied, cleared and counted anew: notes and curves go with the looks', () => {
  const points = [
    { id: 'a', at: 0, value: 0 },
    { id: 'b', at: 4, value: 1, shape: 'off' },
  ];
  const start = after(
    whole,
    { type: 'put-notes', song, lane: 'hits', notes: [note(1), note(2)] },
    { type: 'put-points', song, lane: 'curve', points },
  );
  const copied = after(start, { type: 'copy-bars', song, from: 0, to: 4, at: 8, until: 16, id: 'x' });
  expect(hitLane(copied).notes.map(({ at }) => at)).toEqual([1, 2, 9, 10, 13, 14]);
  expect([2, 6, 10, 14].map((beat) => curveAt(curveLane(copied).points, beat))).toEqual([0.5, undefined, 0.5, 0.5]);
  const clear = (lane: string) => after(copied, { type: 'clear-bars', song, lane, from: 8, to: 12 });
  expect(hitLane(clear('hits')).notes.map(({ at }) => at)).toEqual([1, 2, 13, 14]);
  expect(curveAt(curveLane(clear('curve')).points, 10)).toBeUndefined();
  const half = after(copied, { type: 'scale-tempo', song, factor: 2 });
  expect(hitLane(half).notes.map(({ at, length }) => [at, length])[2]).toEqual([18, 1]);
  expect(curveAt(curveLane(half).points, 20)).toBe(0.5);
});

test('whatever is done to lanes, it is a show that can be kept and read, and undone in one step', () => {
  const beat = fc.integer({ min: 0, max: 64 });
  const lane = fc.constantFrom('looks', 'top', 'hits', 'curve', 'gone');
  const unit = fc.integer({ min: 0, max: 10 }).map((tenths) => tenths / 10);
  const notes = fc.array(
    fc.record({
      id: fc.constantFrom('a', 'b', 'c', 'd'),
      at: beat,
      length: unit,
      note: fc.integer({ min: 30, max: 50 }),
      velocity: unit,
    }),
    { minLength: 1, maxLength: 4 },
  );
  const shape = fc.constantFrom('straight', 'smooth', 'bent', 'hold', 'off');
  const points = fc.array(fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd'), at: beat, value: unit, shape }), {
    minLength: 1,
    maxLength: 4,
  });
  const distinct = <One extends { id: string }>(list: One[]) => [...new Map(list.map((one) => [one.id, one])).values()];
  const commands = fc.oneof(
    fc.record({ type: fc.constant('put-notes'), song: fc.constant(song), lane, notes: notes.map(distinct) }),
    fc.record({ type: fc.constant('put-points'), song: fc.constant(song), lane, points: points.map(distinct) }),
    fc.tuple(lane, beat, beat, points, fc.nat(1e6)).map(([of, from, length, list, n]) => ({
      type: 'draw-curve',
      song,
      lane: of,
      from,
      to: from + length,
      points: distinct(list)
        .sort((a, b) => a.at - b.at)
        .filter(({ at }) => at >= from && at <= from + length),
      id: `d${n}`,
    })),
    fc.record({ type: fc.constant('clear-bars'), song: fc.constant(song), lane, from: beat, to: beat }),
    fc
      .tuple(beat, beat, beat, beat, fc.nat(1e6))
      .map(([from, to, at, until, n]) => ({ type: 'copy-bars', song, from, to, at, until, id: `k${n}` })),
    fc.record({
      type: fc.constant('move-clip'),
      song: fc.constant(song),
      lane,
      clip: fc.constantFrom('c1', 'c2', 't1'),
      from: beat,
      to: beat,
    }),
    fc.record({
      type: fc.constant('move-clips'),
      song: fc.constant(song),
      lane,
      clips: fc.subarray(['c1', 'c2', 'c3', 't1'], { minLength: 1 }),
      by: fc.integer({ min: -32, max: 32 }),
    }),
    fc.record({ type: fc.constant('move-lane'), song: fc.constant(song), lane, before: fc.option(lane) }),
    fc.record({ type: fc.constant('set-lane'), song: fc.constant(song), lane, level: unit, solo: fc.boolean() }),
  );
  fc.assert(
    fc.property(fc.array(commands, { maxLength: 12, size: 'max' }), (list) => {
      let show = whole;
      for (const command of list) {
        const { show: next, ops } = edit(show, Command.parse(command));
        expect(legal(next, new WeakSet())).toMatchObject({ ok: true });
        expect(laid(next, inverse(ops)).after).toEqual(show);
        show = next;
      }
      expect(readShow(JSON.parse(JSON.stringify(show)), 'x')).toMatchObject({ ok: true, value: show });
      const { points: made } = curveLane(show);
      made.forEach((point, i) => expect(i === 0 || made[i - 1]!.at <= point.at).toBe(true));
    }),
    { numRuns: 150 },
  );
});

test('clearing bars from behind their end changes nothing', () => {
  expect(after(whole, { type: 'clear-bars', song, lane: 'looks', from: 8, to: 4 })).toBe(whole);
});

test('what has no place is refused with its place', () => {
  const bad = (lane: object) =>
    readShow({ ...JSON.parse(JSON.stringify(testShow())), songs: [{ ...testShow().songs[0], lanes: [lane] }] }, 'x');
  expect(bad({ ...hits, notes: [note(1, { velocity: 2 })] })).toMatchObject({
    problem: { path: 'songs.0.lanes.0.notes.0.velocity' },
  });
  expect(bad({ ...curve, points: [{ id: 'a', at: 1, value: -1 }] })).toMatchObject({
    problem: { path: 'songs.0.lanes.0.points.0.value' },
  });
  expect(bad({ ...hits, type: 'smoke' })).toMatchObject({ ok: false });
});

test('light moved by beats: it lies there as it lay, and moved back all is as it was', () => {
  const at = (show: Show) => lookLanes(show.songs[0]!)[0]!.clips.map(({ look, from, to }) => [look, from, to]);
  const shift = (show: Show, from: number, to: number, by: number, more: object = {}) =>
    after(show, { type: 'shift-light', song, from, to, by, id: `m${by}`, ...more });
  // c1 is red 0 to 8, c2 half blue 8 to 16, c3 dark 24 to 28.
  expect(at(shift(whole, 8, 16, 4))).toEqual([
    ['red', 0, 8],
    ['half-blue', 12, 20],
    [null, 24, 28],
  ]);
  expect(at(shift(whole, 8, 16, -4))).toEqual([
    ['red', 0, 4],
    ['half-blue', 4, 12],
    [null, 24, 28],
  ]);
  const beats16 = { lane: 'hits', notes: [note(1), note(2), note(9)] };
  const notes = after(whole, { type: 'put-notes', song, ...beats16 });
  expect(hitLane(shift(notes, 0, 4, 0.25)).notes.map(({ at: place }) => place)).toEqual([1.25, 2.25, 9]);
  // On one lane alone, the others stay.
  expect(at(shift(notes, 0, 4, 1, { lane: 'hits' }))).toEqual(at(notes));
  fc.assert(
    fc.property(fc.integer({ min: 30, max: 90 }), fc.integer({ min: 1, max: 20 }), (far, half) => {
      const there = shift(notes, 0, 30, far);
      const back = shift(there, far, far + 30, -far);
      expect(at(back)).toEqual(at(notes));
      expect(hitLane(back).notes.map(({ at: place }) => place)).toEqual([1, 2, 9]);
      // Little by little comes to the same as all at once.
      const twice = shift(shift(notes, 8, 16, half / 2), 8 + half / 2, 16 + half / 2, half / 2);
      if (half <= 8) expect(at(twice)).toEqual(at(shift(notes, 8, 16, half)));
    }),
  );
});

test('two stretches change places; changed again, all is as it was', () => {
  const at = (show: Show) => lookLanes(show.songs[0]!)[0]!.clips.map(({ look, from, to }) => [look, from, to]);
  const swap = (show: Show, from: number, to: number, place: number, name: string) =>
    after(show, { type: 'swap-bars', song, from, to, at: place, id: name });
  const swapped = swap(whole, 0, 8, 8, 'x');
  expect(at(swapped)).toEqual([
    ['half-blue', 0, 8],
    ['red', 8, 16],
    [null, 24, 28],
  ]);
  expect(at(swap(swapped, 0, 8, 8, 'y'))).toEqual(at(whole));
  // Half of it lies within the other: nothing is done.
  expect(at(swap(whole, 0, 8, 4, 'z'))).toEqual(at(whole));
});

test('bars copied in other colours: the copy is turned, the stretch itself is not', () => {
  const copied = after(whole, { type: 'copy-bars', song, from: 0, to: 8, at: 32, until: 40, turn: 120, id: 'c' });
  const clips = lookLanes(copied.songs[0]!)[0]!.clips;
  expect(clips[0]).not.toHaveProperty('turn');
  expect(clips.at(-1)).toMatchObject({ look: 'red', from: 32, to: 40, turn: 120 });
  const again = after(copied, { type: 'copy-bars', song, from: 32, to: 40, at: 40, until: 48, turn: 120, id: 'd' });
  expect(lookLanes(again.songs[0]!)[0]!.clips.at(-1)).toMatchObject({ turn: -120 });
});
