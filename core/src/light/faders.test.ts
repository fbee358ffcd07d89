import fc from 'fast-check';
import { id } from '../units';
import { LookValue } from './schema';
import { fadersIn, fadersMoved, withFaders, type Faders } from './faders';

const lamp = (name: string) => id<'Fixture'>(name);
const wash = ['a', 'b', 'c', 'd'].map(lamp);
const casting = [{ role: id<'Role'>('wash'), fixtures: wash }];
const value = (said: object) => LookValue.parse({ role: 'wash', ...said });

test('faders stand where values put each lamp: fans, places, and what is said later', () => {
  const values = [
    value({ level: { type: 'fan', from: 0, to: 0.9 } }),
    value({ pick: { type: 'places', places: [1] }, level: { type: 'hold', value: 0.5 } }),
  ];
  const at = fadersIn(values, [...wash, lamp('other')], 'level', casting);
  expect(at.map((one) => one && Math.round(one * 10) / 10)).toEqual([0, 0.5, 0.6, 0.9, undefined]);
  const turning = [
    value({ more: { Gobo1Pos: { type: 'hold', value: 0.3 }, Prism1: { type: 'hold', value: { range: 'In' } } } }),
  ];
  expect(fadersIn(turning, wash, 'Gobo1Pos', casting)).toEqual([0.3, 0.3, 0.3, 0.3]);
  // A range by its name is no number.
  expect(fadersIn(turning, wash, 'Prism1', casting)[0]).toBeUndefined();
});

test('one moves alone, all go to where it is, or all by as much as it', () => {
  const faders: Faders = [
    [0.1, 0.5, undefined],
    [0.3, 0.9, 0.2],
  ];
  const rounded = (moved: Faders) =>
    moved.map((set) => set.map((one) => (one === undefined ? one : Math.round(one * 100) / 100)));
  expect(fadersMoved(faders, 0, 0.4, 'alone', [0, 1])).toEqual([
    [0.4, undefined, undefined],
    [0.4, undefined, undefined],
  ]);
  expect(fadersMoved(faders, 0, 1.4, 'same', [0, 1])).toEqual([
    [1, 1, 1],
    [1, 1, 1],
  ]);
  expect(rounded(fadersMoved(faders, 0, 0.15, 'apart', [0, 1]))).toEqual([
    [0.15, 0.55, undefined],
    [0.35, 0.95, 0.25],
  ]);
  // The highest stops at the top, and the others with it.
  expect(rounded(fadersMoved(faders, 0, 0.8, 'apart', [0, 1]))).toEqual([
    [0.2, 0.6, undefined],
    [0.4, 1, 0.3],
  ]);
});

test('distances stay, however far one is moved, and what is said comes back as it was put', () => {
  const unit = fc.integer({ min: 0, max: 100 }).map((percent) => percent / 100);
  const sets = fc.array(fc.array(unit, { minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 3 });
  fc.assert(
    fc.property(sets, fc.nat(3), unit, (faders, which, to) => {
      const moved = fadersMoved(faders, which, to, 'apart', [0, 1]);
      moved.forEach((set, s) =>
        set.forEach((one, i) => {
          expect(one! - moved[0]![0]!).toBeCloseTo(faders[s]![i]! - faders[0]![0]!, 9);
          expect(one! >= -1e-9 && one! <= 1 + 1e-9).toBe(true);
        }),
      );
      const said = withFaders([value({ level: { type: 'hold', value: 0.7 } })], wash, 'level', faders[0]!, casting);
      expect(fadersIn(said, wash, 'level', casting)).toEqual(faders[0]);
    }),
  );
});

test('one lamp moved alone leaves the others in the fan they are in', () => {
  const fan = value({ level: { type: 'fan', from: 0, to: 0.9 } });
  const [moved] = fadersMoved([fadersIn([fan], wash, 'level', casting)], 0, 0.5, 'alone', [0, 1]);
  const said = withFaders([fan], wash, 'level', moved!, casting);
  expect(said[0]).toEqual(fan);
  expect(said).toHaveLength(2);
  expect(fadersIn(said, wash, 'level', casting).map((one) => Math.round(one! * 10) / 10)).toEqual([0.5, 0.3, 0.6, 0.9]);
});

test('lamps that stand alike are told in one value, and the role as a whole where all do', () => {
  const all = withFaders([], wash, 'zoom', [0.4, 0.4, 0.4, 0.4], casting);
  expect(all).toEqual([{ role: 'wash', zoom: { type: 'hold', value: 0.4 } }]);
  const two = withFaders(all, wash, 'zoom', [0.1, 0.4, 0.4, 0.1], casting);
  expect(fadersIn(two, wash, 'zoom', casting)).toEqual([0.1, 0.4, 0.4, 0.1]);
  expect(two.length).toBeLessThanOrEqual(3);
});
