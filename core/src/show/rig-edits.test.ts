import fc from 'fast-check';
import { blankType, type Casting, type Shape } from '../rig';
import { testShow } from '../testing/show';
import { id } from '../units';
import { person } from '../testing/person';
import { edit, rigInUse, type Command, type Show } from '.';

const room = id<'Rig'>('room');
const hall = id<'Rig'>('hall');
const role = (name: string) => id<'Role'>(name);
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
    const casting: Casting[] = [{ role: role('wash'), fixtures: [id('h'), id('a')] }];
    const show = after({ type: 'recast', rig: hall, casting });
    expect(rigInUse(show).casting).toEqual([{ role: 'wash', fixtures: ['h'] }]);
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

describe('roles, aims and types', () => {
  test('a role that goes takes its casting and what looks say to it along', () => {
    const show = after({ type: 'remove-role', role: role('movers') });
    expect(show.roles.map(({ id: one }) => one)).toEqual(['wash', 'bars']);
    expect(show.rigs[0]!.casting.some((cast) => cast.role === 'movers')).toBe(false);
    expect(show.looks.flatMap((look) => look.values).some((value) => value.role === 'movers')).toBe(false);
  });

  test('roles are moved to any place, and renamed', () => {
    const moved = after({ type: 'move-role', role: role('bars'), before: testShow().roles[0]!.id });
    expect(moved.roles.map(({ id: one }) => one)).toEqual(['bars', 'wash', 'movers']);
    expect(after({ type: 'rename-role', role: role('bars'), name: 'Floor' }).roles[2]!.name).toBe('Floor');
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
  const roles = fc.constantFrom('wash', 'movers', 'bars', 'gone').map(role);
  const rigs = fc.constantFrom(room, hall, id<'Rig'>('gone'));
  const command: fc.Arbitrary<Command> = fc.oneof(
    rigs.map((rig): Command => ({ type: 'remove-rig', rig })),
    rigs.map((rig): Command => ({ type: 'put-shape', rig, shape })),
    rigs.map((rig): Command => ({ type: 'remove-shape', rig, shape: shape.id })),
    rigs.map((rig): Command => ({
      type: 'recast',
      rig,
      casting: [{ role: role('bars'), fixtures: [id('c'), id('h')] }],
    })),
    roles.map((one): Command => ({ type: 'remove-role', role: one })),
    fc.tuple(roles, roles).map(([one, into]): Command => ({ type: 'merge-roles', role: one, into })),
    fc.tuple(roles, fc.option(roles)).map(([one, before]): Command => ({ type: 'move-role', role: one, before })),
    fc.constant<Command>({ type: 'remove-aim', aim: id('singer') }),
  );
  fc.assert(
    fc.property(fc.array(command, { maxLength: 12 }), (commands) => {
      const me = person('me', testShow());
      commands.forEach(me.make);
      const done = me.show();
      while (me.history().past.length > 0) me.undo();
      expect(me.show()).toEqual(testShow());
      while (me.history().future.length > 0) me.redo();
      expect(me.show()).toEqual(done);
    }),
    { seed: 9, numRuns: 200 },
  );
});
