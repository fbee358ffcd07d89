// A saved log gives the same light, to the byte.

import fc from 'fast-check';
import { compile, frameFor, render } from '../engine';
import { testShow } from '../testing/show';
import { id, seconds } from '../units';
import { AT_REST, conductor, LOG_VERSION, logHead, logLine, readLog, reduced, replay, type Action } from '.';

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const look = fc.constantFrom('red', 'half-blue', 'spread', 'kept').map((name) => id<'Look'>(name));
const actions: fc.Arbitrary<Action> = fc.oneof(
  fc.record({ type: fc.constant('look-on' as const), look, fade: unit.map((share) => seconds(share * 3)) }),
  fc.record({ type: fc.constant('look-off' as const), look, fade: unit.map(seconds) }),
  fc.record({ type: fc.constant('master' as const), level: unit }),
  fc.record({ type: fc.constant('blackout' as const), on: fc.boolean(), fade: unit.map(seconds) }),
  fc.record({
    type: fc.constant('play' as const),
    song: fc.constant(id<'Song'>('song')),
    from: unit.map((share) => seconds(share * 20)),
  }),
  fc.record({
    type: fc.constant('hand' as const),
    values: unit.map((value) => [{ role: id<'Role'>('wash'), level: { type: 'hold' as const, value } }]),
  }),
  fc.constant({ type: 'tap' as const }),
);

const text = (...lines: string[]) => [logHead(), ...lines, ''].join('\n');
const tap = (seq: number, at: number) => logLine({ seq, at: seconds(at), who: 'me', action: { type: 'tap' } });

test('what was played live is rendered again from its log, at any moment and in any order', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.double({ min: 0.001, max: 2, noNaN: true }), actions), { minLength: 1, maxLength: 20 }),
      (pressed) => {
        const program = compile(testShow());
        const frame = frameFor(program);
        let clock = 50;
        const live = conductor(() => seconds(clock));
        const lines: string[] = [];
        const seen: { at: number; bytes: string }[] = [];
        for (const [pause, action] of pressed) {
          clock += pause;
          lines.push(logLine(live.submit('me', action)));
          clock += 0.013;
          render(program, live.state(), seconds(clock), frame);
          seen.push({ at: clock, bytes: Buffer.from(frame).toString('hex') });
        }
        const read = readLog(text(...lines), 'evening.log');
        if (!read.ok) throw new Error(JSON.stringify(read.problem));
        const stateAt = replay(read.value);
        for (const { at, bytes } of [...seen].reverse().concat(seen)) {
          render(program, stateAt(seconds(at)), seconds(at), frame);
          expect(Buffer.from(frame).toString('hex')).toBe(bytes);
        }
      },
    ),
    { seed: 12, numRuns: 40 },
  );
});

test('before its first entry nothing is on, after its last one all is as it was left', () => {
  const read = readLog(text(tap(1, 5), tap(2, 5.5)), 'x');
  if (!read.ok) throw new Error('it reads');
  expect(replay(read.value)(seconds(4))).toEqual(AT_REST);
  expect(replay(read.value)(seconds(99))).toEqual(read.value.entries.reduce(reduced, AT_REST));
});

test('a last line that was cut off is left out; whatever else is wrong is told with its line', () => {
  expect(readLog(`${text(tap(1, 5))}${tap(2, 6).slice(0, 20)}`, 'x')).toMatchObject({
    ok: true,
    value: { entries: [{ seq: 1 }] },
  });
  const told = (content: string) => readLog(content, 'x');
  expect(told('')).toMatchObject({ problem: { code: 'empty-file' } });
  expect(told('{"format":"other"}\n')).toMatchObject({ problem: { code: 'bad-value', path: 'line 1' } });
  expect(told(`{"format":"hovlix-log","version":${LOG_VERSION + 1}}\n`)).toMatchObject({
    problem: { code: 'too-new' },
  });
  expect(told(text(tap(1, 5), '{"seq":'))).toMatchObject({ problem: { path: 'line 3' } });
  expect(told(text(tap(1, 5), tap(3, 6)))).toMatchObject({
    problem: { path: 'line 3', detail: 'entry 3 is out of its place' },
  });
  expect(told(text(tap(1, 5), tap(2, 4)))).toMatchObject({
    problem: { path: 'line 3', detail: 'it lies before the line above it' },
  });
  const unknown = '{"seq":1,"at":1,"who":"me","action":{"type":"fly"}}';
  expect(told(text(unknown))).toMatchObject({ problem: { code: 'bad-value', path: 'line 2' } });
});

test('a log that begins in the middle of a night says what was on before, and counts on from there', () => {
  const live = conductor(() => seconds(7));
  for (const action of [
    { type: 'master', level: 0.4 },
    { type: 'blackout', on: true, fade: seconds(0) },
  ] as Action[])
    live.submit('me', action);
  const begin = live.state();
  const read = readLog([logHead(begin), tap(3, 8), ''].join('\n'), 'x');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  expect(replay(read.value)(seconds(7.5))).toEqual(begin);
  expect(replay(read.value)(seconds(9))).toEqual(reduced(begin, read.value.entries[0]!));
  expect(readLog([logHead(begin), tap(2, 8), ''].join('\n'), 'x')).toMatchObject({ problem: { path: 'line 2' } });
  const broken = logHead(begin).replace('"sending":true', '"sending":7');
  expect(readLog([broken, ''].join('\n'), 'x')).toMatchObject({ problem: { path: 'line 1' } });
});

test('a log of version 1 is read: roles were called parts', () => {
  const entry = (seq: number, action: object) => JSON.stringify({ seq, at: seq, who: 'me', action });
  const old = [
    '{"format":"hovlix-log","version":1}',
    entry(1, { type: 'part-master', part: 'wash', level: 0.5 }),
    entry(2, { type: 'hands-off', part: 'wash', fade: 1 }),
    '',
  ].join('\n');
  const read = readLog(old, 'x');
  expect(read.ok && read.value.entries.map(({ action }) => action)).toEqual([
    { type: 'role-master', role: 'wash', level: 0.5 },
    { type: 'release', role: 'wash', fade: 1 },
  ]);
});
