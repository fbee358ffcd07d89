// Lanes of actions, and clips that play their look in another way, as they come to the wire.

import fc from 'fast-check';
import { Chase, Look } from '../light';
import { playedAlone } from '../live';
import { edit, legal, readShow, songRemarks, type Show } from '../show';
import {
  deedsBetween,
  MOST_STARTED,
  spreadActions,
  lookLanes,
  type ActionLane,
  type Clip,
  type Deed,
  type Lane,
  type LookLane,
  type Point,
  valueOfSpeed,
} from '../song';
import { songId, testShow } from '../testing/show';
import { brightB, dimmerA, hold, player, wave } from '../testing/stage';
import { beats, id } from '../units';

const look = (name: string) => id<'Look'>(name);
const role = (name: string) => id<'Role'>(name);
const actions = (...list: readonly (readonly [at: number, does: Deed])[]): ActionLane => ({
  id: id('do'),
  name: 'Actions',
  type: 'actions',
  actions: list.map(([at, does], i) => ({ id: id<'LaneAction'>(`a${i}`), at: beats(at), does })),
});
const start = (name: string, only?: string): Deed => ({
  act: 'start',
  look: look(name),
  ...(only ? { role: role(only) } : {}),
});
const stop = (name: string | null): Deed => ({ act: 'stop', look: name === null ? null : look(name) });

/** The test show with these lanes in its song, and looks that come and go at once. */
function show(...lanes: readonly Lane[]): Show {
  const base = testShow();
  const looks = base.looks.map((one) => ({ ...one, fadeIn: beats(0), fadeOut: beats(0) }));
  return { ...base, looks, songs: [{ ...base.songs[0]!, lanes: [...lanes] }] };
}
const clip = (name: string, from: number, to: number, more: Partial<Clip> = {}): Clip => ({
  id: id<'Clip'>(`${name}${from}`),
  look: look(name),
  from: beats(from),
  to: beats(to),
  ...more,
});
const looksLane = (clips: readonly Clip[], more: Partial<LookLane> = {}): LookLane => ({
  id: id('clips'),
  name: 'Looks',
  type: 'looks',
  blend: 'highest',
  clips: [...clips],
  ...more,
});
/** The light at a beat; the song counts 120 a minute. */
const at = (one: Show, beat: number) => player(one)(playedAlone(songId), beat / 2);

test('a look started and stopped is the same light as a clip of it from there to there', () => {
  const names = ['red', 'half-blue', 'spread'] as const;
  const spans = fc.array(
    fc.tuple(fc.constantFrom(...names), fc.integer({ min: 0, max: 40 }), fc.integer({ min: 1, max: 20 })),
    { minLength: 1, maxLength: 3 },
  );
  fc.assert(
    fc.property(spans, fc.array(fc.integer({ min: 0, max: 480 }), { minLength: 6 }), (list, moments) => {
      const once = list.filter(([name], i) => list.findIndex(([other]) => other === name) === i);
      const deeds = once
        .flatMap(([name, from, length]) => [[from, start(name)] as const, [from + length, stop(name)] as const])
        .sort(([a], [b]) => a - b);
      const done = show(actions(...deeds));
      // In the order of their starts, as lanes that lie over one another.
      const order = deeds.flatMap(([, deed]) => (deed.act === 'start' ? [deed.look as string] : []));
      const laid = show(
        ...order.map((name, i) => {
          const [, from, length] = once.find(([one]) => one === name)!;
          return looksLane([clip(name, from, from + length)], { id: id(`l${i}`) });
        }),
      );
      const [one, other] = [player(done), player(laid)];
      for (const moment of moments)
        expect([moment, ...one(playedAlone(songId), moment / 16)]).toEqual([
          moment,
          ...other(playedAlone(songId), moment / 16),
        ]);
    }),
    { numRuns: 60 },
  );
});

test('a look started in one role lights that one; stopped once, it is off in all; what is never stopped goes on', () => {
  const one = show(
    actions(
      [2, start('half-blue', 'movers')],
      [6, start('half-blue', 'wash')],
      [10, stop('half-blue')],
      [12, start('red')],
      [14, start('red')],
      [20, stop(null)],
    ),
  );
  const spot = (bytes: Uint8Array) => bytes[516]! / 255;
  expect([1, 3, 7, 11].map((beat) => [dimmerA(at(one, beat)), spot(at(one, beat))])).toEqual([
    [0, 0],
    [0, expect.closeTo(0.8, 1)],
    [expect.closeTo(0.5, 1), expect.closeTo(0.8, 1)],
    [0, 0],
  ]);
  // Started twice it is on once, and one stop ends it.
  expect([13, 19, 21].map((beat) => dimmerA(at(one, beat)))).toEqual([1, 1, 0]);
  const open = show(actions([4, start('red')]));
  expect([3, 5, 110].map((beat) => dimmerA(at(open, beat)))).toEqual([0, 1, 1]);
});

test('masters and blackout hold what they are set to, over all other lanes, and fade in seconds', () => {
  const wash = looksLane([clip('red', 0, 100)]);
  const one = show(
    actions(
      [8, { act: 'master', role: role('wash'), level: 0.5, fade: 2 }],
      [20, { act: 'blackout', on: true, fade: 0 }],
      [24, { act: 'blackout', on: false, fade: 1 }],
      [30, { act: 'master', role: null, level: 0, fade: 0 }],
    ),
    wash,
  );
  // Two seconds are four beats here.
  const levels = [7, 10, 12, 16, 21, 25, 27, 31].map((beat) => dimmerA(at(one, beat)));
  expect(levels).toEqual([1, 0.75, 0.5, 0.5, 0, 0.25, 0.5, 0].map((level) => expect.closeTo(level, 2)));
});

test('a fade that is cut short by another goes on from where it was', () => {
  const one = show(
    actions(
      [0, { act: 'master', role: null, level: 0, fade: 4 }],
      [4, { act: 'master', role: null, level: 1, fade: 1 }],
    ),
    looksLane([clip('red', 0, 100)]),
  );
  expect([4, 5, 6.5].map((beat) => dimmerA(at(one, beat)))).toEqual(
    [0.5, 0.75, 1].map((level) => expect.closeTo(level, 2)),
  );
});

test('muted, an action lane does nothing; its fader is that of what it starts', () => {
  const lane = actions([0, start('red')], [4, { act: 'blackout', on: true, fade: 0 }]);
  expect(dimmerA(at(show({ ...lane, level: 0.5 }), 2))).toBeCloseTo(0.5, 2);
  const wash = looksLane([clip('red', 0, 100)]);
  expect(dimmerA(at(show({ ...lane, muted: true }, wash), 6))).toBe(1);
  const fader: Lane = {
    id: id('fade'),
    name: 'Fader',
    type: 'curve',
    blend: 'scale',
    target: { on: 'lane', lane: lane.id },
    points: [{ id: id('p'), at: beats(0), value: 0.25, shape: 'hold' }],
  };
  expect(dimmerA(at(show(lane, fader), 2))).toBeCloseTo(0.25, 2);
});

test('what is done beside light is told once, for the stretch that was played', () => {
  const program: Deed = { act: 'midi', message: { kind: 'program', channel: 3, program: 12 } };
  const lane = actions([4, program], [8, { act: 'song', song: songId }], [8, start('red')]);
  expect(deedsBetween([lane], 0, 4)).toEqual([program]);
  expect(deedsBetween([lane], 4, 8)).toEqual([{ act: 'song', song: songId }]);
  expect(deedsBetween([lane], 8, 100)).toEqual([]);
});

test('a look or a song that is deleted leaves no action behind, and the show is one that can be kept', () => {
  const lane = actions([0, start('red')], [1, start('kept')], [2, { act: 'song', song: songId }]);
  const second = { ...testShow().songs[0]!, id: id<'Song'>('second'), lanes: [lane] };
  const both: Show = { ...testShow(), songs: [...testShow().songs, second] };
  const left = (one: Show) => (one.songs.at(-1)!.lanes[0] as ActionLane).actions.map(({ does }) => does.act);
  expect(left(edit(both, { type: 'remove-look', look: look('red') }).show)).toEqual(['start', 'song']);
  const alone = edit(both, { type: 'remove-song', song: songId }).show;
  expect(left(alone)).toEqual(['start', 'start']);
  expect(legal(alone, new WeakSet()).ok).toBe(true);
  expect(readShow(JSON.parse(JSON.stringify(both)), 'both')).toEqual({ ok: true, value: both });
});

test('a role that is merged or deleted takes what lanes say to it along', () => {
  const lanes: Lane[] = [
    actions([0, start('red', 'wash')], [1, { act: 'master', role: role('wash'), level: 0.5, fade: 0 }]),
    looksLane([clip('red', 0, 4)], { only: { roles: [role('wash'), role('bars')] } }),
    { id: id('h'), name: 'H', type: 'hits', kit: id('k'), role: role('wash'), notes: [] },
    {
      id: id('c'),
      name: 'C',
      type: 'curve',
      blend: 'scale',
      target: { on: 'role', role: role('wash'), attribute: 'level' },
      points: [],
    },
  ];
  const said = (one: Show) => JSON.stringify(one.songs[0]!.lanes).match(/"wash"/g)?.length ?? 0;
  expect(said(show(...lanes))).toBe(5);
  const merged = edit(show(...lanes), { type: 'merge-roles', role: role('wash'), into: role('bars') }).show;
  expect(said(merged)).toBe(0);
  expect(lookLanes(merged.songs[0]!)[0]!.only).toEqual({ roles: ['bars'] });
  const gone = edit(show(...lanes), { type: 'remove-role', role: role('wash') }).show;
  expect(lookLanes(gone.songs[0]!)[0]!.only).toEqual({ roles: ['bars'] });
  expect((gone.songs[0]!.lanes[0] as ActionLane).actions).toEqual([]);
});

const moving = Look.parse({
  id: 'moving',
  number: 20,
  name: 'Moving',
  fadeIn: 0,
  fadeOut: 0,
  values: [
    {
      role: 'wash',
      level: hold(1),
      colour: hold({ x: 0.64, y: 0.33 }),
      waves: [wave('level', { span: { beats: 4 } })],
    },
  ],
});
const steps = Chase.parse({
  id: 'steps',
  number: 21,
  name: 'Steps',
  fadeIn: 0,
  fadeOut: 0,
  pace: 'beats',
  steps: [
    { id: 's1', look: 'red', fade: 0, hold: 1 },
    { id: 's2', fade: 0, hold: 1 },
  ],
});
const withThese = (...lanes: readonly Lane[]): Show => {
  const base = show(...lanes);
  return { ...base, looks: [...base.looks, moving], chases: [steps] };
};

/** The same light: sums in another order may round to the next byte. */
function expectAlike(some: Uint8Array, others: Uint8Array): void {
  expect(some.length).toBe(others.length);
  expect(Math.max(...some.map((byte, i) => Math.abs(byte - others[i]!)))).toBeLessThanOrEqual(1);
}

test('a clip at another speed: its waves and chases go that much faster', () => {
  fc.assert(
    fc.property(fc.constantFrom(0.25, 0.5, 2, 3, 4), fc.integer({ min: 0, max: 63 }), (speed, sixteenth) => {
      const beat = sixteenth / 4 / speed;
      const at1 = at(withThese(looksLane([clip('moving', 0, 1000)])), beat * speed);
      const atS = at(withThese(looksLane([clip('moving', 0, 1000, { speed })])), beat);
      expectAlike(atS, at1);
      // On and off for a beat each, and twice as long at half the speed.
      const chase = dimmerA(at(withThese(looksLane([clip('steps', 0, 1000, { speed })])), beat));
      const middle = Math.abs(((beat * speed) % 1) - 0.5) < 0.49;
      if (middle) expect(chase).toBe(Math.floor(beat * speed) % 2 === 0 ? 1 : 0);
    }),
  );
});

test('a clip at a share of its level, of a look and of a chase; two clips of one look differ', () => {
  const half = withThese(
    looksLane([clip('red', 0, 4, { level: 0.5 }), clip('red', 4, 8), clip('steps', 8, 9, { level: 0.25 })]),
  );
  expect([2, 6, 8.5].map((beat) => dimmerA(at(half, beat)))).toEqual(
    [0.5, 1, 0.25].map((level) => expect.closeTo(level, 2)),
  );
});

test('a clip in other colours: red turned a third of the circle is not red, and white stays white', () => {
  const turned = withThese(
    looksLane([clip('red', 0, 4, { turn: 120 }), clip('spread', 4, 8, { turn: 120 }), clip('spread', 8, 12)]),
  );
  const [red, green] = [at(turned, 2)[9]!, at(turned, 2)[10]!];
  expect(green).toBeGreaterThan(red * 2);
  expect(brightB(at(turned, 2))).toBeGreaterThan(0.9);
  expect(at(turned, 6)).toEqual(at(turned, 10));
});

const curve = (
  on: 'speed' | 'size',
  list: readonly (readonly [at: number, value: number, shape?: Point['shape']])[],
  lane: string | null = null,
): Lane => ({
  id: id(on),
  name: on,
  type: 'curve',
  blend: 'scale',
  target: { on, lane: lane === null ? null : id(lane) },
  points: list.map(([at, value, shape = 'straight'], i) => ({ id: id(`p${i}`), at: beats(at), value, shape })),
});

test('a curve of speed: waves and chases are where they would be at that pace, whoever asks and in whatever order', () => {
  const clips = (name: string) => looksLane([clip(name, 0, 1000)]);
  fc.assert(
    fc.property(
      fc.constantFrom(0.25, 0.5, 1, 2, 4),
      fc.integer({ min: 0, max: 95 }),
      fc.constantFrom('moving', 'steps'),
      (speed, sixteenth, name) => {
        const beat = sixteenth / 4;
        // At the very edge of a step a rounding decides which one it is.
        if (name === 'steps' && (beat * speed) % 1 === 0) return;
        const held = curve('speed', [[0, valueOfSpeed(speed), 'hold']]);
        expectAlike(at(withThese(clips(name), held), beat), at(withThese(clips(name)), beat * speed));
      },
    ),
  );
  // From still to four times as fast over eight beats, in a straight line of heights: the speed is the square of it.
  const rising = curve('speed', [
    [0, 0],
    [8, 1, 'off'],
  ]);
  const ran = (beat: number) => (4 / 64) * (beat ** 3 / 3);
  for (const beat of [2, 4.25, 6.5, 8])
    expect(dimmerA(at(withThese(clips('moving'), rising), beat))).toBeCloseTo(
      dimmerA(at(withThese(clips('moving')), ran(beat))),
      1,
    );
  // Behind its end it goes on as fast as ever, from where it had come.
  expect(dimmerA(at(withThese(clips('moving'), rising), 9.5))).toBeCloseTo(
    dimmerA(at(withThese(clips('moving')), ran(8) + 1.5)),
    1,
  );
});

test('what would cost too much is bounded: a curve over a million beats, a lane that starts hundreds of looks', () => {
  const long = curve('speed', [
    [0, 0.5],
    [1e6, 0.5, 'hold'],
  ]);
  expectAlike(
    at(withThese(looksLane([clip('moving', 0, 1000)]), long), 3),
    at(withThese(looksLane([clip('moving', 0, 1000)])), 3),
  );
  const many = actions(...Array.from({ length: 300 }, (_, i) => [i / 100, start(`look ${i}`)] as const));
  const one: Show = show(many);
  expect(spreadActions(many, () => 0).looks).toHaveLength(MOST_STARTED);
  expect(songRemarks(one, one.songs[0]!).map(({ text }) => text)).toContain(
    'Lane Actions: it starts 300 different looks; only the first 64 come on.',
  );
});

test('a curve of one lane leaves the others; muted it does nothing; that of size lets waves rest', () => {
  const clips = looksLane([clip('moving', 0, 1000)]);
  const plain = at(withThese(clips), 3);
  const other = curve('speed', [[0, 1, 'hold']], 'other');
  expect(at(withThese(clips, other), 3)).toEqual(plain);
  const mine = curve('speed', [[0, 1, 'hold']], 'clips');
  expect(at(withThese(clips, mine), 3)).not.toEqual(plain);
  expect(at(withThese(clips, { ...mine, muted: true }), 3)).toEqual(plain);
  // It rests at full, and falls to nothing and rises again in four beats.
  const size = (value: number) => dimmerA(at(withThese(clips, curve('size', [[0, value, 'hold']])), 0.001));
  expect([0, 0.5, 1].map(size)).toEqual([1, 0.5, 0].map((level) => expect.closeTo(level, 2)));
});

test('what an edit says of a clip is kept, and taken away where it is as the look has it', () => {
  const base = withThese(looksLane([clip('red', 0, 4)]));
  const change = (one: Show, more: object) =>
    edit(one, { type: 'change-clip', song: songId, lane: id('clips'), clip: id('red0'), ...more }).show;
  const changed = change(base, { speed: 2, level: 0.5, turn: 30 });
  expect(lookLanes(changed.songs[0]!)[0]!.clips[0]).toMatchObject({ speed: 2, level: 0.5, turn: 30 });
  expect(change(changed, { speed: 1, level: null, turn: 0 })).toEqual(base);
});
