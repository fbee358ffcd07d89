import { extentOf, fixtureLibrary, patchedFixtures, Rig } from '@hovlix/core/rig';
import { NIGHT } from '../../../ui/tokens';
import { cornerOf } from './handles';
import {
  arrowIn,
  hungAfter,
  inLine,
  lampsWithin,
  linesBeside,
  pointAt,
  shapeAfter,
  targetAt,
  turnedAt,
  type Scene,
} from './scene';
import { fitted, pixelX, pixelY } from './window';

const size = { width: 366, height: 300 };
const par = fixtureLibrary().find(({ model }) => model === 'LED PAR RGB')!;
const lamp = (id: string, number: number, x: number, y: number) => ({
  id,
  number,
  name: id,
  profile: par.id,
  mode: par.modes[0]!.id,
  universe: 1,
  address: number * 10,
  mount: { x, y, z: 3 },
});
const rig = Rig.parse({
  id: 'rig',
  name: 'Rig',
  fixtures: [lamp('left', 1, -3, 0), lamp('right', 2, 3, 0), lamp('back', 3, 1, 4)],
  casting: [],
  shapes: [
    { id: 'riser', kind: 'riser', name: 'Riser', x: 0, y: 2, width: 2, depth: 2 },
    { id: 'truss', kind: 'truss', name: 'Truss', x: 0, y: 5, width: 8, depth: 0.3 },
  ],
});
const AIM = { id: 'singer' as never, name: 'Singer', x: 0, y: 1, z: 1.6 };

function scene(more: Partial<Scene> = {}, from: Scene['look']['from'] = 'above'): Scene {
  const view = fitted(extentOf(rig, from, []), size);
  const look = {
    x: (metres: number) => pixelX(view, size, metres),
    y: (metres: number) => pixelY(view, size, metres),
    scale: view.scale,
    width: size.width,
    from,
    palette: NIGHT,
  };
  const patched = patchedFixtures(rig, [par]);
  return { rig, patched, aims: [AIM], chosen: new Set(), mode: 'hang', grid: 0.25, size, view, look, ...more };
}
const at = ({ look }: Scene, x: number, y: number) => ({ x: look.x(x), y: look.y(y) });

test('under a finger lies the nearest of what one works on', () => {
  const hang = scene();
  const [x, y] = [hang.look.x(-3) + 9, hang.look.y(0) - 9];
  expect(targetAt(hang, { x, y })).toEqual({ kind: 'lamp', id: 'left' });
  expect(targetAt(hang, at(hang, 0, 2))).toBeNull();
  expect(targetAt(scene({ mode: 'room' }), at(hang, 0, 2))).toEqual({ kind: 'shape', id: 'riser' });
  const sized = scene({ mode: 'room', chosen: new Set(['riser']) });
  const corner = cornerOf(rig.shapes[0]!, 'above');
  expect(targetAt(sized, at(hang, corner.x, corner.y))).toEqual({ kind: 'corner', id: 'riser' });
  expect(targetAt(scene({ mode: 'aims' }), at(hang, 0, 1))).toEqual({ kind: 'aim', id: 'singer' });
  // Seen by the audience it is the height that counts.
  const front = scene({}, 'audience');
  expect(targetAt(front, at(front, -3, 3))).toEqual({ kind: 'lamp', id: 'left' });
});

test('a lamp snaps to others and to a truss, and to no lamp that goes with it', () => {
  const still = scene();
  const lines = linesBeside(still, 'left');
  expect(lines).toEqual({ xs: [0, 3, 1], ys: [0, 4, 5] });
  expect(linesBeside(scene({ chosen: new Set(['left', 'right']) }), 'left').xs).toEqual([0, 1]);
  const nearly = { x: 4.05 * still.view.scale, y: -3.96 * still.view.scale };
  const line = inLine(still, lines, 'left', nearly);
  expect(line.guides).toBe(`M${still.look.x(1)} 0V300M0 ${still.look.y(4)}H366`);
  const [hung] = hungAfter(still, [rig.fixtures[0]!], line.by);
  expect([hung!.mount.x, hung!.mount.y, hung!.mount.z]).toEqual([expect.closeTo(1), expect.closeTo(4), 3]);
  // Away from all lines it is the grid that counts.
  const free = inLine(still, lines, 'left', { x: 1.1 * still.view.scale, y: -1.6 * still.view.scale });
  expect(free.guides).toBe('');
  expect(hungAfter(still, [rig.fixtures[0]!], free.by)[0]!.mount).toMatchObject({
    x: expect.closeTo(-2) as number,
    y: expect.closeTo(1.5) as number,
  });
});

test('from the audience a drag changes heights, and an aim keeps how far back it is', () => {
  const front = scene({}, 'audience');
  const [hung] = hungAfter(front, [rig.fixtures[0]!], { x: 0, y: -front.view.scale });
  expect(hung!.mount).toMatchObject({ x: -3, y: 0, z: expect.closeTo(4) as number });
  expect(pointAt(front, at(front, 2, 1), AIM)).toMatchObject({ x: expect.closeTo(2, 1) as number, y: 1 });
  expect(pointAt(front, at(front, 2, -1), AIM).z).toBe(0);
});

test('one lamp that does not move has an arrow, which turns it', () => {
  expect(arrowIn(scene())).toBeUndefined();
  expect(arrowIn(scene({ chosen: new Set(['left', 'right']) }))).toBeUndefined();
  const one = scene({ chosen: new Set(['left']) });
  const arrow = arrowIn(one)!;
  expect(targetAt(one, at(one, arrow.to.x, arrow.to.y))).toEqual({ kind: 'arrow', id: 'arrow' });
  const turned = turnedAt(one, arrow.lamp, at(one, 1, 3));
  expect(turned.directed).toBe(true);
  const after = {
    ...one,
    patched: one.patched.map((each) => (each.fixture.id === 'left' ? { ...each, fixture: turned } : each)),
  };
  expect(arrowIn(after)!.to).toMatchObject({ x: expect.closeTo(1) as number, y: expect.closeTo(3) as number });
});

test('a line chooses the lamps it was drawn around; a shape is moved, and sized by its corner', () => {
  const all = scene();
  const around = (['x', 'y'] as const).map((way) => all.look[way]);
  const line = [
    [-4, -1],
    [4, -1],
    [4, 1],
    [-4, 1],
  ].map(([x, y]) => [around[0]!(x!), around[1]!(y!)] as const);
  expect(lampsWithin(all, line)).toEqual(['left', 'right']);
  const by = { x: all.view.scale, y: -all.view.scale };
  expect(shapeAfter(all, { kind: 'shape', id: 'riser' }, by)).toMatchObject({ x: 1, y: 3, width: 2 });
  expect(shapeAfter(all, { kind: 'corner', id: 'riser' }, by)!.width).toBeGreaterThan(2.5);
  expect(shapeAfter(all, { kind: 'shape', id: 'gone' }, by)).toBeNull();
});
