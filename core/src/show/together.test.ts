// Several people edit one show at once, with lines that delay and break: what must hold whatever happens.

import fc from 'fast-check';
import { person, type Person } from '../testing/person';
import { testShow } from '../testing/show';
import { id } from '../units';
import {
  Command,
  diff,
  ORIGIN,
  ordered,
  orderOf,
  since,
  type Change,
  type Op,
  type Order,
  type Outcome,
  type Show,
} from '.';

type Screen = {
  readonly name: string;
  readonly who: Person;
  /** On its way to the conductor, and from it. */
  up: Change[];
  down: Change[];
  connected: boolean;
  readonly told: Outcome[];
  readonly made: string[];
};

/** A conductor with its screens, each on a line of its own. Nothing moves until it is told to. */
function stage(names: readonly string[]) {
  let order: Order = orderOf(testShow(), [ORIGIN]);
  const known = new WeakSet<object>();
  const touched: { readonly change: Change; readonly before: Show; readonly after: Show }[] = [];
  const screens = names.map((name): Screen => ({
    name,
    who: person(name, testShow(), false),
    up: [],
    down: [],
    connected: true,
    told: [],
    made: [],
  }));
  const said = (screen: Screen, change: Change | undefined) => {
    if (!change) return;
    screen.made.push(change.id);
    if (screen.connected) screen.up.push(wire(change));
  };
  return {
    screens,
    order: () => order,
    touched,
    make: (screen: Screen, command: Command) => said(screen, screen.who.make(command)),
    undo: (screen: Screen) => said(screen, screen.who.undo()),
    redo: (screen: Screen) => said(screen, screen.who.redo()),
    deliverUp(screen: Screen) {
      const change = screen.up.shift();
      if (!change) return;
      const result = ordered(order, change, known);
      if (!result.done) return;
      touched.push({ change, before: order.show, after: result.order.show });
      order = result.order;
      for (const one of screens) if (one.connected) one.down.push(wire(change));
    },
    deliverDown(screen: Screen) {
      const change = screen.down.shift();
      const own = change && screen.who.take(change);
      if (own) screen.told.push(own);
    },
    cut(screen: Screen) {
      screen.connected = false;
      screen.up = [];
      screen.down = [];
    },
    connect(screen: Screen) {
      if (screen.connected) return;
      screen.connected = true;
      const head = screen.who.copy().chain.at(-1)!;
      const missed = since(order, head);
      if (missed) for (const change of missed) screen.down.push(wire(change));
      else expect(screen.who.rejoin(order.show, order.chain)).toBe(true);
      for (const change of screen.who.copy().pending) screen.up.push(wire(change));
    },
  };
}

/** What a line carries is JSON. */
const wire = (change: Change): Change => ({
  ...change,
  command: Command.parse(JSON.parse(JSON.stringify(change.command))),
});

const looks = fc.constantFrom('red', 'half-blue', 'spread', 'kept');
const song = { song: id<'Song'>('song') };
const words = fc.constantFrom('One', 'Two', 'Three');
type Act = (show: Show) => Command;
const acts: fc.Arbitrary<Act> = fc.oneof(
  fc.record({ look: looks, name: words }).map(({ look, name }): Act => (show) => {
    const old = show.looks.find((one) => one.id === look);
    return old ? { type: 'store-look', look: { ...old, name } } : { type: 'rename-show', name };
  }),
  fc.record({ look: looks, fade: fc.nat(8) }).map(({ look, fade }): Act => (show) => {
    const old = show.looks.find((one) => one.id === look);
    return old
      ? { type: 'store-look', look: { ...old, fadeIn: fade as never } }
      : { type: 'rename-song', ...song, title: `T${fade}` };
  }),
  looks.map((look): Act => () => ({ type: 'remove-look', look: id(look) })),
  fc.record({ look: looks, before: fc.option(looks) }).map(({ look, before }): Act => () => ({
    type: 'move-look',
    look: id(look),
    before: before === null ? null : id(before),
  })),
  words.map((title): Act => () => ({ type: 'rename-song', ...song, title })),
  fc.record({ from: fc.nat(30), length: fc.integer({ min: 1, max: 9 }), look: looks, n: fc.nat(1e6) }).map(
    ({ from, length, look, n }): Act =>
      () =>
        Command.parse({
          type: 'lay-clip',
          ...song,
          lane: 'looks',
          clip: { id: `n${n}`, look, from, to: from + length },
        }),
  ),
  fc.record({ from: fc.nat(30), length: fc.integer({ min: 1, max: 9 }) }).map(
    ({ from, length }): Act =>
      () =>
        Command.parse({ type: 'clear-bars', ...song, lane: 'looks', from, to: from + length }),
  ),
  fc.constantFrom('a', 'b', 's').map((lamp): Act => () => ({
    type: 'remove-lamps',
    rig: id('room'),
    fixtures: [id(lamp)],
  })),
  fc
    .record({ lamp: fc.constantFrom('a', 'b', 's'), x: fc.integer({ min: -4, max: 4 }) })
    .map(({ lamp, x }): Act => (show) => {
      const old = show.rigs[0]!.fixtures.find((one) => one.id === lamp);
      return old
        ? { type: 'patch-fixtures', rig: id('room'), fixtures: [{ ...old, mount: { ...old.mount, x } }] }
        : { type: 'choose-rig', rig: id('hall') };
    }),
  fc.record({ n: fc.nat(1e6), name: words }).map(({ n, name }): Act => () => ({
    type: 'together',
    commands: [
      { type: 'add-rig', rig: { id: id(`rig${n}`), name, fixtures: [], casting: [], shapes: [] } },
      { type: 'choose-rig', rig: id(`rig${n}`) },
    ],
  })),
);

type Happening = {
  readonly what: 'make' | 'undo' | 'redo' | 'up' | 'down' | 'cut' | 'connect';
  readonly screen: number;
  readonly act: Act;
};
const happenings: fc.Arbitrary<readonly Happening[]> = fc.array(
  fc.record({
    what: fc.oneof(
      { arbitrary: fc.constantFrom('make' as const), weight: 5 },
      { arbitrary: fc.constantFrom('up' as const, 'down' as const), weight: 7 },
      { arbitrary: fc.constantFrom('undo' as const, 'redo' as const), weight: 3 },
      { arbitrary: fc.constantFrom('cut' as const, 'connect' as const), weight: 1 },
    ),
    screen: fc.nat(2),
    act: acts,
  }),
  { maxLength: 60 },
);

/** Plays happenings, then brings everybody together. */
function played(list: readonly Happening[]) {
  const theatre = stage(['anna', 'ben', 'cleo']);
  for (const { what, screen, act } of list) {
    const one = theatre.screens[screen]!;
    if (what === 'make') theatre.make(one, act(one.who.show()));
    else if (what === 'undo') theatre.undo(one);
    else if (what === 'redo') theatre.redo(one);
    else if (what === 'up') theatre.deliverUp(one);
    else if (what === 'down') theatre.deliverDown(one);
    else if (what === 'cut') theatre.cut(one);
    else theatre.connect(one);
  }
  for (const one of theatre.screens) theatre.connect(one);
  while (theatre.screens.some(({ up, down }) => up.length + down.length > 0))
    for (const one of theatre.screens) {
      theatre.deliverUp(one);
      theatre.deliverDown(one);
    }
  return theatre;
}

/** The records a command names, by list and id; what is carved or emptied with them is named by the bars and the look. */
function named(command: Command): (op: Op) => boolean {
  switch (command.type) {
    case 'adjust': {
      const paths = command.ops.map(pathOf);
      return (op) => paths.some((path) => path === pathOf(op));
    }
    case 'together': {
      const each = command.commands.map(named);
      return (op) => each.some((one) => one(op));
    }
    case 'remove-look':
      return (op) => pathOf(op).startsWith(`looks/${command.look}`) || /^(songs|banks|chases)\//.test(pathOf(op));
    case 'move-look':
      return (op) => op.op === 'move' && op.path[0] === 'looks';
    case 'lay-clip':
    case 'clear-bars':
      return (op) => pathOf(op).startsWith('songs/song/lanes/looks/clips');
    case 'remove-lamps':
      return (op) =>
        command.fixtures.some((lamp) => pathOf(op) === `rigs/room/fixtures/${lamp}`) ||
        /^rigs\/room\/casting/.test(pathOf(op));
    case 'add-rig':
      return (op) => pathOf(op) === `rigs/${command.rig.id}`;
    default:
      throw new Error(`No test makes ${command.type}`);
  }
}

function pathOf(op: Op): string {
  const own =
    op.op === 'set'
      ? []
      : [
          op.op === 'move'
            ? op.id
            : ((op.record as { id?: string; role?: string }).id ?? (op.record as { role: string }).role),
        ];
  return [...op.path, ...own].join('/');
}

test('three people, delays, undos and broken lines: all end with the same show, no edit is lost in silence, none hits a neighbour', () => {
  fc.assert(
    fc.property(happenings, (list) => {
      const theatre = played(list);
      const { show, chain } = theatre.order();
      for (const { who, made, told } of theatre.screens) {
        expect(who.copy().pending).toEqual([]);
        expect(who.show()).toEqual(show);
        // Each edit has its place in the order, and its author heard what came of it.
        for (const one of made) {
          expect(chain.filter((link) => link === one)).toHaveLength(1);
          expect(told.some((outcome) => outcome.id === one)).toBe(true);
        }
      }
      for (const { change, before, after } of theatre.touched) {
        const mayTouch = named(change.command);
        for (const op of diff(before, after)) expect([pathOf(op), mayTouch(op)]).toEqual([pathOf(op), true]);
      }
      // What was told to be done was done, and what was told to be missed was left.
      for (const { told } of theatre.screens)
        for (const { id: one, edited } of told) {
          const there = theatre.touched.find(({ change }) => change.id === one)!;
          expect(diff(there.before, there.after).length === 0).toBe(
            there.before === there.after || edited.ops.length === 0,
          );
        }
    }),
    { seed: 31, numRuns: 400 },
  );
});

const run = (...steps: ((theatre: ReturnType<typeof stage>) => void)[]) => {
  const theatre = stage(['anna', 'ben']);
  for (const step of steps) step(theatre);
  for (let i = 0; i < 20; i++)
    for (const one of theatre.screens) {
      theatre.deliverUp(one);
      theatre.deliverDown(one);
    }
  return theatre;
};
const rename =
  (look: string, name: string): Act =>
  (show) => ({ type: 'store-look', look: { ...show.looks.find((one) => one.id === look)!, name } });
const nameOf = (show: Show, look: string) => show.looks.find((one) => one.id === look)?.name;

test('two edits sent in a row find their records though another one came in between', () => {
  const theatre = run(
    ({ make, screens: [anna] }) => make(anna!, rename('half-blue', 'A1')(anna!.who.show())),
    ({ make, screens: [anna] }) => make(anna!, rename('spread', 'A2')(anna!.who.show())),
    ({ make, screens: [, ben] }) => make(ben!, { type: 'remove-look', look: id('red') }),
    ({ deliverUp, screens: [, ben] }) => deliverUp(ben!),
  );
  const { show } = theatre.order();
  expect([nameOf(show, 'red'), nameOf(show, 'half-blue'), nameOf(show, 'spread')]).toEqual([undefined, 'A1', 'A2']);
});

test('an undo takes back its own change though the list has lost a record before it, and leaves the neighbour alone', () => {
  const theatre = run(
    ({ make, deliverUp, deliverDown, screens: [anna] }) => {
      make(anna!, rename('spread', 'Mine')(anna!.who.show()));
      deliverUp(anna!);
      deliverDown(anna!);
    },
    ({ make, deliverUp, screens: [, ben] }) => {
      make(ben!, { type: 'remove-look', look: id('red') });
      deliverUp(ben!);
    },
    ({ undo, screens: [anna] }) => undo(anna!),
  );
  expect(theatre.order().show.looks).toEqual(testShow().looks.filter((look) => look.id !== 'red'));
});

test('what somebody changed since is not taken back, and that is told', () => {
  const theatre = run(
    ({ make, screens: [anna] }) => make(anna!, rename('red', 'Mine')(anna!.who.show())),
    (one) => {
      for (const screen of [one.screens[0]!, one.screens[0]!, one.screens[1]!]) {
        one.deliverUp(screen);
        one.deliverDown(screen);
      }
      one.make(one.screens[1]!, rename('red', 'Theirs')(one.screens[1]!.who.show()));
      one.deliverUp(one.screens[1]!);
      one.undo(one.screens[0]!);
    },
  );
  expect(nameOf(theatre.order().show, 'red')).toBe('Theirs');
  expect(theatre.screens[0]!.told.at(-1)!.edited).toMatchObject({ ops: [], missed: [{ op: 'set' }] });
});

test('a conductor that lost its last changes gets them back from a screen that has them', () => {
  const theatre = run(({ make, screens: [anna] }) => make(anna!, rename('red', 'Kept')(anna!.who.show())));
  const [anna] = theatre.screens;
  expect(anna!.who.rejoin(testShow(), [ORIGIN])).toBe(true);
  expect(nameOf(anna!.who.show(), 'red')).toBe('Kept');
  expect(anna!.who.copy().pending).toHaveLength(1);
});

test('copies that grew apart are told apart, and nothing of either changes', () => {
  const theatre = run(({ make, screens: [anna] }) => make(anna!, rename('red', 'Here')(anna!.who.show())));
  const [anna] = theatre.screens;
  const before = anna!.who.show();
  expect(anna!.who.rejoin({ ...testShow(), name: 'Another' }, ['elsewhere', 'x'])).toBe(false);
  expect(anna!.who.show()).toBe(before);
});
