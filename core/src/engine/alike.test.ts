// The light of a look, worked out from groups of lamps and one turn of each, is the light of all of its lamps.

import fc from 'fast-check';
import { hold, look, wave, withLooks, type ValueIn } from '../testing/stage';
import { compile, type Program } from '.';
import { alike } from './alike';
import { moveSheet } from './motions';
import { lightAlong, lightOf, shinesIn } from './safety';
import { WATCHED_PACE } from './slow';

const MOMENTS = 200;
const STEP = 1 / 24;

const aWave = (on: 'level' | 'hue') =>
  fc
    .record({
      shape: fc.constantFrom('sine', 'triangle', 'random'),
      span: fc.oneof(
        fc.record({ beats: fc.constantFrom(0.5, 1, 1.5, 2, 7) }),
        fc.record({ seconds: fc.constantFrom(0.5, 1, 1.3) }),
      ),
      offset: fc.constantFrom(0, 0.25, 0.4),
      turn: fc.constantFrom(0, 0.5, 1, 2),
      low: fc.constantFrom(0, 0.2),
      high: fc.constantFrom(0.6, 1),
    })
    .map((more) => wave(on, on === 'hue' ? { ...more, low: 0, high: 180 } : more));

const aValue = (role: string): fc.Arbitrary<ValueIn> =>
  fc
    .record({
      levels: fc.array(fc.constantFrom(0.3, 0.7, 1), { minLength: 1, maxLength: 3 }),
      waves: fc.oneof(
        fc.constant<NonNullable<ValueIn['waves']>>([]),
        aWave('level').map((one) => [one]),
        aWave('hue').map((one) => [one]),
        fc.tuple(aWave('level'), aWave('hue')),
      ),
    })
    .map(({ levels, waves }): ValueIn => ({
      role,
      level: { type: 'spread', values: levels },
      colour: hold({ x: 0.6, y: 0.32 }),
      waves: [...waves],
    }));

const sheetIn = (program: Program) => program.plays.get('new')!.sheet;
const shinesOf = ({ fields }: Program) => shinesIn(fields.map(({ name }) => name));

/** Moment by moment, lamp by lamp. */
function lightOfAll(program: Program): number[] {
  const sheet = { ...sheetIn(program), span: Infinity };
  const heights = new Float64Array(program.heads.length);
  return Array.from({ length: MOMENTS }, (_, i) => {
    moveSheet(sheet, i * STEP * WATCHED_PACE, i * STEP, WATCHED_PACE, heights);
    return lightOf(sheet, program.safety.shares, shinesOf(program), false);
  });
}

function lightOfGroups(program: Program): Float64Array {
  const watched = { shares: program.safety.shares, shines: shinesOf(program) };
  const work = lightAlong(sheetIn(program), watched, STEP, MOMENTS);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

test('whatever its waves, whoever moves together, rests or goes alone', () => {
  const all = fc.tuple(aValue('wash'), aValue('movers'), aValue('bars'));
  fc.assert(
    fc.property(all, (values) => {
      const program = compile(withLooks(look(values)));
      const [right, found] = [lightOfAll(program), lightOfGroups(program)];
      // Lamps that rest are left out, which takes the same from every moment.
      const rest = right[0]! - found[0]!;
      const off = right.map((light, i) => Math.abs(light - rest - found[i]!));
      // A turn is cut into 64: at its steepest a wave goes 5 % from one cut to the next. A tenth is a change.
      expect(Math.max(...off)).toBeLessThan(0.05);
    }),
    { numRuns: 150 },
  );
});

test('lamps that draw the same wave one after the other are one group', () => {
  const shapes = { shape: 'sine', span: { beats: 1 }, turn: 1 };
  const program = compile(withLooks(look([{ role: 'wash', level: hold(0), waves: [wave('level', shapes)] }])));
  const parts = alike(sheetIn(program), program.safety.shares, shinesOf(program), () => 12);
  expect(parts.map(({ groups, turn }) => ({ groups, turn }))).toEqual([{ groups: 1, turn: 12 }]);
});
