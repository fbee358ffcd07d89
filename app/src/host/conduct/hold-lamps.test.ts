import { fixtureLibrary, type Patched } from '@hovlix/core/rig';
import type { Action } from '@hovlix/core/live';
import { address, id, universe } from '@hovlix/core/units';
import { hand } from './hold-lamps';

const profile = fixtureLibrary().find(({ model }) => model === 'LED PAR RGB')!;
const mode = profile.modes[1]!;
const lamp = (at: number): Patched => ({
  profile,
  mode,
  fixture: {
    id: id<'Fixture'>(`lamp-${at}`),
    number: at,
    name: `Lamp ${at}`,
    profile: profile.id,
    mode: mode.id,
    universe: universe(2),
    address: address(at),
    mount: { x: 0, y: 0, z: 3, yaw: 0, pitch: 0, roll: 0 },
  },
});

function listening() {
  const acts: Action[] = [];
  const conducting = { act: (action: Action) => void acts.push(action) };
  return { acts, hands: hand({ conducting } as never) };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a wish goes out at once; of those that follow only the last, 25 times a second', () => {
  const { acts, hands } = listening();
  for (let i = 0; i <= 10; i++) hands.hold([[lamp(1), { level: i / 10 }]]);
  expect(acts).toHaveLength(1);
  jest.advanceTimersByTime(40);
  expect(acts).toHaveLength(2);
  const last = acts[1]!;
  expect(last.type === 'hold-channels' && last.channels[0]).toEqual({ universe: 2, address: 1, value: 255 });
  jest.advanceTimersByTime(1000);
  expect(acts).toHaveLength(2);
});

test('what is freed is not taken again by a wish that was still waiting', () => {
  const { acts, hands } = listening();
  hands.hold([[lamp(1), { level: 1 }]]);
  hands.hold([[lamp(1), { level: 0.5 }]]);
  hands.free([lamp(1)]);
  jest.advanceTimersByTime(1000);
  expect(acts.map(({ type }) => type)).toEqual(['hold-channels', 'free-channels']);
  expect(acts[1]).toEqual({ type: 'free-channels', universe: 2, from: 1, count: 4 });
});

test('a lamp that ends past 512 is freed as far as there are channels', () => {
  const { acts, hands } = listening();
  hands.free([lamp(511)]);
  expect(acts[0]).toMatchObject({ from: 511, count: 2 });
});

test('a rig too large for one message is held in several', () => {
  const { acts, hands } = listening();
  hands.hold(Array.from({ length: 600 }, (_, i) => [lamp(1 + (i % 120) * 4), { level: 1 }] as const));
  expect(acts.length).toBe(2);
  expect(acts.every((act) => act.type === 'hold-channels' && act.channels.length <= 2048)).toBe(true);
});
