import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { z } from 'zod';
import { wordsFor } from '../problem';
import { person } from '../testing/person';
import { testShow } from '../testing/show';
import { clipsIn, lookLanes } from '../song';
import { tempoAt, timeAt } from '../time';
import { fixtureLibrary, lampsOf, roleFor } from '../rig';
import { address, beats, id, seconds, universe } from '../units';
import { Command, edit, inverse, laid, legal, nameOf, migrated, readShow, rigInUse, Show, stepWords } from '.';

const beat = fc.integer({ min: 0, max: 64 });
const commands = fc.oneof(
  fc
    .record({
      from: beat,
      length: fc.integer({ min: 1, max: 16 }),
      look: fc.constantFrom('red', 'half-blue', null),
      n: fc.nat(1e6),
    })
    .map(({ from, length, look, n }) =>
      Command.parse({
        type: 'lay-clip',
        song: 'song',
        lane: 'looks',
        clip: { id: `n${n}`, look, from, to: from + length },
      }),
    ),
  fc
    .record({ from: beat, length: fc.integer({ min: 1, max: 9 }) })
    .map(({ from, length }) =>
      Command.parse({ type: 'clear-bars', song: 'song', lane: 'looks', from, to: from + length }),
    ),
  fc
    .record({ bar: fc.nat(12), name: fc.constantFrom('Verse', 'Chorus') })
    .map(({ bar, name }) =>
      Command.parse({ type: 'mark-section', song: 'song', section: { id: `s${bar}`, bar, name, tint: 1 } }),
    ),
  fc.constantFrom('room', 'hall').map((rig) => Command.parse({ type: 'choose-rig', rig })),
  fc.constantFrom('red', 'spread').map((look) => Command.parse({ type: 'remove-look', look })),
  fc.constant(Command.parse({ type: 'rename-song', song: 'song', title: 'Other' })),
  fc
    .record({
      type: fc.nat(200),
      count: fc.integer({ min: 1, max: 4 }),
      at: fc.integer({ min: 1, max: 300 }),
      n: fc.nat(1e6),
    })
    .map(({ type, count, at, n }) => {
      const profile = fixtureLibrary()[type % fixtureLibrary().length]!;
      const wanted = { profile, mode: profile.modes[0]!, count, universe: universe(3) };
      const [rig] = testShow().rigs;
      const fixtures = lampsOf(rig!, wanted, address(at), (k) => `lamp${n}-${k}`);
      const role = roleFor(rig!, testShow().profiles, testShow().roles, profile, `role${type % 5}`);
      return Command.parse({ type: 'add-lamps', rig: 'room', profile, fixtures, role });
    }),
  fc
    .subarray(['a', 'b', 's', 'c', 'gone'], { minLength: 1 })
    .map((fixtures) => Command.parse({ type: 'remove-lamps', rig: 'room', fixtures })),
);

/** As versions before 5 wrote it: roles were called parts. */
function withParts(show: Show = testShow()): Record<string, unknown> {
  return JSON.parse(JSON.stringify(show).replaceAll('"role":', '"part":').replaceAll('"roles":', '"parts":'));
}

describe('edits', () => {
  test('each one and its inverse leave the show exactly as it was', () => {
    fc.assert(
      fc.property(fc.array(commands, { maxLength: 12 }), (list) => {
        for (let show = testShow(), i = 0; i < list.length; i++) {
          const after = edit(show, list[i]!);
          expect(laid(after.show, inverse(after.ops))).toEqual({ after: show, missed: [] });
          expect(laid(show, after.ops)).toEqual({ after: after.show, missed: [] });
          show = after.show;
        }
      }),
      { seed: 21, numRuns: 150 },
    );
  });

  test('undo all gives the first show, redo all the last, and every step stays valid', () => {
    fc.assert(
      fc.property(fc.array(commands, { maxLength: 15 }), (list) => {
        const me = person('me', testShow());
        list.forEach(me.make);
        const last = me.show();
        expect(readShow(JSON.parse(JSON.stringify(last)), 'x').ok).toBe(true);
        while (me.history().past.length > 0) me.undo();
        expect(me.show()).toEqual(testShow());
        while (me.history().future.length > 0) me.redo();
        expect(me.show()).toEqual(last);
      }),
      { seed: 22, numRuns: 100 },
    );
  });

  test('what an edit leaves alone stays the very same object', () => {
    const before = testShow();
    const { show, ops } = edit(before, { type: 'rename-song', song: id('song'), title: 'Another' });
    expect(ops).toEqual([{ op: 'set', path: ['songs', 'song', 'title'], from: 'Song', to: 'Another' }]);
    expect(show.looks).toBe(before.looks);
    expect(show.rigs).toBe(before.rigs);
    expect(show.songs[0]!.lanes).toBe(before.songs[0]!.lanes);
    const taken = laid(show, inverse(ops)).after;
    expect(taken.rigs).toBe(before.rigs);
    expect(taken.songs[0]!.lanes).toBe(before.songs[0]!.lanes);
  });

  test('an edit the show could not be kept with is found, with its place; what was left alone is not looked at again', () => {
    const known = new WeakSet<object>();
    const show = testShow();
    expect(legal(show, known).ok).toBe(true);
    const adjust = (path: string[], to: unknown, from?: unknown): Show =>
      edit(show, { type: 'adjust', of: 'x', ops: [{ op: 'set', path, from, to }] }).show;
    const { level } = show.looks[0]!.values[0]!;
    expect(level).toBeDefined();
    const bad = legal(adjust(['looks', 'red', 'number'], 'seven', show.looks[0]!.number), known);
    expect(bad).toMatchObject({ ok: false, problem: { code: 'bad-value', path: 'looks red.number' } });
    expect(legal(adjust(['safety'], { on: 'no' }, show.safety), known)).toMatchObject({
      problem: { path: expect.stringContaining('safety') },
    });
    expect(legal(adjust(['rigs'], [], show.rigs), known)).toMatchObject({ problem: { path: 'rigs' } });
    expect(
      legal(
        adjust(['songs', 'song', 'lanes', 'looks', 'clips'], [{ id: 'x' }], lookLanes(show.songs[0]!)[0]!.clips),
        known,
      ),
    ).toMatchObject({ problem: { path: expect.stringContaining('songs song, lane looks') } });
    expect(legal(adjust(['looks', 'red', 'name'], 'Rose', show.looks[0]!.name), known).ok).toBe(true);
  });

  test('a rig with more lamps and cells than a frame can hold is refused, from a file and from an edit', () => {
    const show = testShow();
    const bar = {
      ...show.profiles[3]!,
      id: id<'Profile'>('wall'),
      modes: [{ id: 'm', name: '256', channels: [{ ...show.profiles[3]!.modes[0]!.channels[0]!, cell: 255 }] }],
    } as Show['profiles'][number];
    const walls = (count: number): Show => {
      const [room, ...others] = show.rigs;
      const fixtures = Array.from({ length: count }, (_, i) => ({
        ...room!.fixtures[0]!,
        id: id<'Fixture'>(`w${i}`),
        profile: bar.id,
      }));
      return { ...show, profiles: [...show.profiles, bar], rigs: [{ ...room!, fixtures }, ...others] };
    };
    const known = new WeakSet<object>();
    expect(legal(walls(40), known).ok).toBe(true);
    expect(legal(walls(60), known)).toMatchObject({
      problem: { path: 'rigs room', detail: '“Room” has 15360 lamps and cells, there may be 12000 in a rig' },
    });
    expect(readShow(JSON.parse(JSON.stringify(walls(40))), 'x').ok).toBe(true);
    expect(readShow(JSON.parse(JSON.stringify(walls(60))), 'x')).toMatchObject({
      problem: { path: 'rigs.0.fixtures' },
    });
  });

  test('a song counted twice as fast sounds the same: everything on it stays at its second', () => {
    const at = (show: Show) => {
      const [song] = show.songs;
      return clipsIn(song!).map(({ from, to }) => [timeAt(song!.tempo, from), timeAt(song!.tempo, to)]);
    };
    const twice = edit(testShow(), { type: 'scale-tempo', song: id('song'), factor: 2 }).show;
    at(testShow())
      .flat()
      .forEach((time, i) => expect(at(twice).flat()[i]).toBeCloseTo(time, 9));
    expect(tempoAt(twice.songs[0]!.tempo, seconds(1))).toBeCloseTo(
      2 * tempoAt(testShow().songs[0]!.tempo, seconds(1)),
      9,
    );
    expect(twice.songs[0]!.sections.map(({ bar }) => bar)).toEqual(
      testShow().songs[0]!.sections.map(({ bar }) => bar * 2),
    );
    expect(edit(twice, { type: 'scale-tempo', song: id('song'), factor: 0.5 }).show).toEqual(testShow());
  });

  test('clips on a lane never overlap and stay sorted, whatever is laid and cleared', () => {
    fc.assert(
      fc.property(fc.array(commands, { maxLength: 25 }), (list) => {
        const { clips } = lookLanes(list.reduce((show, command) => edit(show, command).show, testShow()).songs[0]!)[0]!;
        for (let i = 1; i < clips.length; i++) expect(clips[i]!.from).toBeGreaterThanOrEqual(clips[i - 1]!.to - 1e-9);
        expect(new Set(clips.map((clip) => clip.id)).size).toBe(clips.length);
      }),
      { seed: 23, numRuns: 150 },
    );
  });

  test('a clip laid into the middle of another cuts it in two', () => {
    const { show } = edit(
      testShow(),
      Command.parse({
        type: 'lay-clip',
        song: 'song',
        lane: 'looks',
        clip: { id: 'new', look: 'half-blue', from: 2, to: 4 },
      }),
    );
    const spans = lookLanes(show.songs[0]!)[0]!.clips.map(({ look, from, to }) => [look, from, to]);
    expect(spans.slice(0, 3)).toEqual([
      ['red', 0, 2],
      ['half-blue', 2, 4],
      ['red', 4, 8],
    ]);
  });

  test('naming what is gone changes nothing and leaves no step to undo', () => {
    const me = person('me', testShow());
    expect(me.make(Command.parse({ type: 'rename-song', song: 'nobody', title: 'X' }))).toBeUndefined();
    expect(me.history().past).toHaveLength(0);
    expect(me.undo()).toBeUndefined();
  });

  test('removing a look takes its clips with it', () => {
    const { show } = edit(testShow(), { type: 'remove-look', look: id('red') });
    expect(lookLanes(show.songs[0]!)[0]!.clips.some((clip) => clip.look === 'red')).toBe(false);
  });

  test('fades are set on one clip', () => {
    const { show } = edit(testShow(), {
      type: 'fade-clip',
      song: id('song'),
      lane: id('looks'),
      clip: id('c1'),
      fadeIn: 8,
    });
    expect(lookLanes(show.songs[0]!)[0]!.clips[0]!.fadeIn).toBe(beats(8));
  });
});

describe('reading a show', () => {
  const json = (): Record<string, unknown> => JSON.parse(JSON.stringify(testShow()));

  test('JSON and back is the same show', () => {
    const read = readShow(json(), 'x');
    expect(read.ok && read.value).toEqual(testShow());
  });

  test.each([
    [{ ...json(), version: 99 }, 'too-new'],
    [{ ...json(), format: 'something' }, 'bad-value'],
    [{ ...json(), looks: [{ id: 'x' }] }, 'bad-value'],
    [[1, 2], 'bad-value'],
    ['text', 'bad-value'],
  ])('what is wrong is said: %#', (broken, code) => {
    const read = readShow(broken, 'x.hovlix');
    expect(!read.ok && read.problem.code).toBe(code);
  });

  test('the path to a bad value is named', () => {
    const broken = json() as { looks: { values: { level: { value: number } }[] }[] };
    broken.looks[0]!.values[0]!.level.value = 7;
    const read = readShow(broken, 'x');
    expect(!read.ok && read.problem.code === 'bad-value' && read.problem.path).toBe('looks.0.values.0.level.value');
  });

  test('a show of version 1 opens: its gobos were bare names', () => {
    const old = withParts() as { version: number; profiles: { gobos: unknown[] }[] };
    old.version = 1;
    old.profiles[2]!.gobos = ['Open', 'Stars'];
    const read = readShow(old, 'old.hovlix');
    expect(read.ok && read.value.profiles[2]!.gobos).toEqual([
      { name: 'Open', pattern: 'open' },
      { name: 'Stars', pattern: 'leaves' },
    ]);
    expect(read.ok && read.value.rigs[0]!.shapes).toEqual([]);
  });

  test('a show of version 2 opens: it had no chases', () => {
    const { chases: _, kits: _k, banks: _b, ...rest } = withParts();
    const read = readShow({ ...rest, version: 2 }, 'old');
    expect(read.ok && [read.value.chases, read.value.looks]).toEqual([[], testShow().looks]);
  });

  test('a show of version 3 opens: it had no hit kits and no banks', () => {
    const { kits: _, banks: _b, ...rest } = withParts();
    const read = readShow({ ...rest, version: 3 }, 'old');
    expect(read.ok && [read.value.kits, read.value.banks, read.value.looks]).toEqual([[], [], testShow().looks]);
  });

  test('a show of version 4 opens: its roles were called parts, wherever one is named', () => {
    const look = testShow().looks[0]!;
    const chase = {
      id: 'c',
      name: 'c',
      number: 9,
      pace: 'beats',
      fadeIn: 0,
      fadeOut: 0,
      steps: [{ id: 's', values: look.values, fade: 0, hold: 1 }],
    };
    const kit = { id: 'k', name: 'k', hits: [], channels: [{ channel: 10, role: 'wash' }] };
    const made = readShow({ ...testShow(), chases: [chase], kits: [kit] }, 'made');
    if (!made.ok) throw new Error(wordsFor(made.problem));
    expect(JSON.stringify(withParts(made.value))).not.toContain('role');
    expect(readShow({ ...withParts(made.value), version: 4 }, 'old')).toEqual(made);
  });

  test('older versions go through every migration in order', () => {
    const steps = {
      1: (show: object) => ({ ...show, a: 1 }),
      2: (show: object) => ({ ...show, b: (show as { a: number }).a + 1 }),
    };
    const read = migrated({ format: 'hovlix-show', version: 1 }, 'x', steps, 3);
    expect(read.ok && read.value).toMatchObject({ version: 3, a: 1, b: 2 });
  });
});

test('lamps are added in one step with their type and role, and removed from every role', () => {
  const profile = fixtureLibrary().find((one) => one.kind === 'hazer')!;
  const [rig] = testShow().rigs;
  const wanted = { profile, mode: profile.modes[0]!, count: 2, universe: universe(4) };
  const fixtures = [...lampsOf(rig!, wanted, address(1), (n) => `haze${n}`)];
  const role = roleFor(rig!, testShow().profiles, testShow().roles, profile, 'haze');
  const me = person('me', testShow());
  me.make({ type: 'add-lamps', rig: rig!.id, profile, fixtures, role });
  const added = me.show();
  expect(
    rigInUse(added)
      .fixtures.slice(-2)
      .map((lamp) => lamp.name),
  ).toEqual(['Hazer 1', 'Hazer 2']);
  expect(rigInUse(added).casting.at(-1)).toEqual({ role: 'haze', fixtures: ['haze0', 'haze1'] });
  expect(added.profiles.some((one) => one.id === profile.id)).toBe(true);
  const removed = rigInUse(edit(added, { type: 'remove-lamps', rig: rig!.id, fixtures: [id('a'), id('haze0')] }).show);
  expect(removed.fixtures.some((lamp) => lamp.id === 'a' || lamp.id === 'haze0')).toBe(false);
  expect(removed.casting.flatMap((casting) => casting.fixtures)).not.toContain('a');
  me.undo();
  expect(me.show()).toEqual(testShow());
});

test('every command has words for its undo', () => {
  const types = Command.options
    .map(({ shape }) => shape.type.value)
    .filter((type) => type !== 'adjust' && type !== 'together');
  expect(types.filter((type) => stepWords(type) === 'an edit')).toEqual([]);
});

test('one clip, note or lamp is called one', () => {
  const onLane = { song: id<'Song'>('s'), lane: id<'Lane'>('l') };
  const clips = [id<'Clip'>('a'), id<'Clip'>('b')];
  const words = (command: Command) => stepWords(nameOf(command));
  expect(words({ type: 'change-clips', ...onLane, clips, level: 0.5 })).toBe('change clips');
  expect(words({ type: 'change-clips', ...onLane, clips: clips.slice(1), level: 0.5 })).toBe('change a clip');
  const several = Command.options.filter(({ shape }) =>
    Object.keys(shape).some((key) => ['clips', 'notes', 'points', 'actions', 'fixtures'].includes(key)),
  );
  for (const { shape } of several) {
    const type = shape.type.value;
    const command = { type, clips: ['a'], notes: ['a'], points: ['a'], actions: ['a'], fixtures: ['a'] };
    expect([type, words(command as unknown as Command)]).not.toEqual([type, 'an edit']);
    expect(words(command as unknown as Command)).not.toMatch(/(clips|notes|points|actions|lamps)$/);
  }
});

test('the schema in the documents is that of the shows that are written', () => {
  const written = JSON.parse(readFileSync(join(__dirname, '../../../docs/show.schema.json'), 'utf8')) as object;
  expect(
    JSON.parse(JSON.stringify(z.toJSONSchema(Show, { io: 'input', unrepresentable: 'any', reused: 'ref' }))),
  ).toEqual(written);
});
