import fc from 'fast-check';
import { blankType, type Casting, type Shape } from '../rig';
import { testShow } from '../testing/show';
import { id } from '../units';
import { edit, edited, historyOf, redone, rigInUse, undone, type Command, type Show } from '.';

const room = id<'Rig'>('room');
const hall = id<'Rig'>('hall');
const part = (name: string) => id<'Part'>(name);
const shape: Shape = {
  id: id('s'),
  kind: 'truss',
  name: 'Truss',
  x: 0,
  y: 3,
  z: 3,
  width: 6,
  depth: 0.3,
  height: 0.3,
  turn: 0,
};

const after = (...commands: Command[]): Show =>
  commands.reduce((show, command) => edit(show, command).show, testShow());

describe('rooms', () => {
  test('are renamed and removed, but the last one stays', () => {
    expect(after({ type: 'rename-rig', rig: room, name: 'Cellar' }).rigs[0]!.name).toBe('Cellar');
    const one = after({ type: 'remove-rig', rig: room });
    expect([one.rigs.length, one.rig]).toEqual([1, 'hall']);
    expect(edit(one, { type: 'remove-rig', rig: hall }).show).toBe(one);
  });

  test('recasting keeps only lamps that hang there', () => {
    const casting: Casting[] = [{ part: part('wash'), fixtures: [id('h'), id('a')] }];
    const show = after({ type: 'recast', rig: hall, casting });
    expect(rigInUse(show).casting).toEqual([{ part: 'wash', fixtures: ['h'] }]);
    expect(after({ type: 'recast', rig: id('gone'), casting }).rig).toBe('room');
  });

  test('shapes and a picture come and go', () => {
    const show = after(
      { type: 'put-shape', rig: room, shape },
      { type: 'put-shape', rig: room, shape: { ...shape, x: 2 } },
    );
    expect(show.rigs[0]!.shapes).toEqual([{ ...shape, x: 2 }]);
    expect(edit(show, { type: 'remove-shape', rig: room, shape: shape.id }).show.rigs[0]!.shapes).toEqual([]);
    const picture = { data: 'data:image/png;base64,AAAA', x: 0, y: 0, width: 5, aspect: 1 };
    const pictured = edit(show, { type: 'set-picture', rig: room, picture }).show;
    expect(pictured.rigs[0]!.picture).toEqual(picture);
    expect('picture' in edit(pictured, { type: 'set-picture', rig: room, picture: null }).show.rigs[0]!).toBe(false);
  });
});

describe('parts, aims and types', () => {
  test('a part that goes takes its casting and what looks say to it along', () => {
    const show = after({ type: 'remove-part', part: part('movers') });
    expect(show.parts.map(({ id: one }) => one)).toEqual(['wash', 'bars']);
    expect(show.rigs[0]!.casting.some((cast) => cast.part === 'movers')).toBe(false);
    expect(show.looks.flatMap((look) => look.values).some((value) => value.part === 'movers')).toBe(false);
  });

  test('parts are moved to any place, and renamed', () => {
    const moved = after({ type: 'move-part', part: part('bars'), to: 0 });
    expect(moved.parts.map(({ id: one }) => one)).toEqual(['bars', 'wash', 'movers']);
    expect(after({ type: 'rename-part', part: part('bars'), name: 'Floor' }).parts[2]!.name).toBe('Floor');
  });

  test('a type that lamps use stays, one that none uses goes', () => {
    const blank = blankType('fresh');
    const show = after({ type: 'add-profile', profile: blank });
    expect(edit(show, { type: 'remove-profile', profile: blank.id }).show.profiles).toEqual(testShow().profiles);
    expect(after({ type: 'remove-profile', profile: id('spot') }).profiles).toHaveLength(4);
  });

  test('an aim that goes leaves the looks that point there', () => {
    const show = after({ type: 'remove-aim', aim: id('singer') });
    expect(show.aims).toEqual([]);
    expect(show.looks).toEqual(testShow().looks);
  });
});

test('any run of these edits is taken back and made again exactly', () => {
  const parts = fc.constantFrom('wash', 'movers', 'bars', 'gone').map(part);
  const rigs = fc.constantFrom(room, hall, id<'Rig'>('gone'));
  const command: fc.Arbitrary<Command> = fc.oneof(
    rigs.map((rig): Command => ({ type: 'remove-rig', rig })),
    rigs.map((rig): Command => ({ type: 'put-shape', rig, shape })),
    rigs.map((rig): Command => ({ type: 'remove-shape', rig, shape: shape.id })),
    rigs.map((rig): Command => ({
      type: 'recast',
      rig,
      casting: [{ part: part('bars'), fixtures: [id('c'), id('h')] }],
    })),
    parts.map((one): Command => ({ type: 'remove-part', part: one })),
    fc.tuple(parts, parts).map(([one, into]): Command => ({ type: 'merge-parts', part: one, into })),
    fc.tuple(parts, fc.nat(4)).map(([one, to]): Command => ({ type: 'move-part', part: one, to })),
    fc.constant<Command>({ type: 'remove-aim', aim: id('singer') }),
  );
  fc.assert(
    fc.property(fc.array(command, { maxLength: 12 }), (commands) => {
      const begun = historyOf(testShow());
      const done = commands.reduce((history, one) => edited(history, one).history, begun);
      let back = done;
      for (let i = 0; i < commands.length; i++) back = undone(back).history;
      expect(back.show).toEqual(testShow());
      let again = back;
      for (let i = 0; i < commands.length; i++) again = redone(again).history;
      expect(again.show).toEqual(done.show);
    }),
    { seed: 9, numRuns: 200 },
  );
});
