// MIDI as controls hear it, and values that are taken hold of.

import fc from 'fast-check';
import { Control, type FaderControl, type Source } from './control';
import { contactOf, hears, sourceOf, type Heard } from './heard';
import { heardMidi, midiMemory } from './midi-in';
import { askedFor, NO_GRIP, turned, type Grip } from './turned';

const say = (...messages: number[][]) => {
  const memory = midiMemory();
  return messages.map((data) => heardMidi(memory, 'Board', data));
};

test('each kind of message, with its channel', () => {
  expect(say([0x99, 36, 127], [0x99, 36, 0], [0x89, 36, 64])).toMatchObject([
    { by: 'note', channel: 10, number: 36, down: true, value: 1 },
    { down: false },
    { down: false, value: 0 },
  ]);
  expect(say([0xb0, 64, 127], [0xd2, 64], [0xe1, 0, 64])).toMatchObject([
    { by: 'control', number: 64, value: 1 },
    { by: 'pressure', channel: 3 },
    { by: 'bend', channel: 2, value: expect.closeTo(0.5, 4) as number },
  ]);
});

test('a program keeps its bank: either byte alone, or both, and each channel its own', () => {
  const [first] = say([0xc0, 5]);
  expect(first).toMatchObject({ number: 5, bank: null });
  expect(say([0xb0, 0, 2], [0xc0, 5])[1]).toMatchObject({ bank: 256 });
  expect(say([0xb0, 32, 3], [0xc0, 5])[1]).toMatchObject({ bank: 3 });
  expect(say([0xb0, 0, 1], [0xb0, 32, 3], [0xc0, 5], [0xc1, 5]).slice(2)).toMatchObject([
    { bank: 131 },
    { bank: null },
  ]);
});

test('two controllers make one fine value, to one part in 16384', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 16383 }), fc.integer({ min: 0, max: 31 }), (value, number) => {
      const [coarse, fine] = say([0xb4, number, value >> 7], [0xb4, number + 32, value & 127]);
      expect(coarse).toMatchObject({ fine: false, number });
      expect(fine).toMatchObject({ fine: true, number, value: expect.closeTo(value / 16383, 9) as number });
    }),
    { seed: 15 },
  );
});

test('whatever bytes come in, it is heard rightly or not at all', () => {
  fc.assert(
    fc.property(fc.array(fc.array(fc.integer({ min: 0, max: 255 }), { maxLength: 5 }), { maxLength: 30 }), (all) => {
      for (const heard of say(...all)) {
        if (!heard) continue;
        expect(heard.channel).toBeGreaterThanOrEqual(1);
        expect(heard.channel).toBeLessThanOrEqual(16);
        if ('value' in heard) expect(heard.value >= 0 && heard.value <= 1).toBe(true);
        if ('number' in heard) expect(heard.number <= 127).toBe(true);
        // What a control learned from it, it hears again.
        expect(hears(sourceOf(heard), heard)).toBe(true);
      }
    }),
    { seed: 15, numRuns: 300 },
  );
  expect(say([0xf8], [0xf0, 1, 2, 0xf7], [0x90, 60], [], [0x90, 200, 3], [12, 12, 12])).toEqual(
    Array(6).fill(undefined),
  );
});

test('switches: two states, each message a press, and a device or channel that does not matter', () => {
  const on = { by: 'control', device: 'Board', channel: 1, number: 64, value: 1, fine: false } as const;
  const source: Source = { by: 'control', device: null, channel: null, number: 64, sends: 'absolute' };
  expect([contactOf(source, on), contactOf(source, { ...on, value: 0 })]).toEqual([true, false]);
  expect(contactOf({ ...source, sends: 'toggle' }, { ...on, value: 0 })).toBe('tap');
  expect(hears(source, on)).toBe(true);
  expect(hears({ ...source, channel: 2 }, on)).toBe(false);
  expect(hears({ ...source, device: 'Other board' }, on)).toBe(false);
  const program = (bank: number | null): Source => ({ by: 'program', device: null, channel: null, number: 3, bank });
  const called = (bank: number | null) => ({ by: 'program', device: 'x', channel: 1, number: 3, bank }) as const;
  expect([hears(program(7), called(7)), hears(program(7), called(null)), hears(program(null), called(7))]).toEqual([
    true,
    false,
    true,
  ]);
  expect(contactOf(source, { by: 'program', device: 'x', channel: 1, number: 3, bank: null })).toBe('tap');
});

describe('a fader', () => {
  const fader = (extra: object = {}) =>
    Control.parse({
      kind: 'fader',
      id: 'f',
      name: 'F',
      source: { by: 'control', device: null, channel: 1, number: 7 },
      turns: { turn: 'master', role: null },
      ...extra,
    }) as FaderControl;
  const at = (value: number): Extract<Heard, { by: 'control' }> => ({
    by: 'control',
    device: 'x',
    channel: 1,
    number: 7,
    value,
    fine: false,
  });

  test('moves nothing until it has come to the value, and then goes along without a jump', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.array(fc.integer({ min: -9, max: 9 }), { maxLength: 60 }),
        fc.integer({ min: 0, max: 127 }),
        (start, moves, from) => {
          let value = start;
          let place = from;
          let grip: Grip = NO_GRIP;
          for (const move of moves) {
            place = Math.max(0, Math.min(127, place + move));
            const step = turned(grip, fader(), at(place / 127), value, 1);
            // From one message to the next a fader moves by nine steps here: the value never by much more.
            if (step.to !== null) expect(Math.abs(step.to - value)).toBeLessThan(0.11);
            grip = step.grip;
            value = step.to ?? value;
          }
        },
      ),
      { seed: 15, numRuns: 200 },
    );
  });

  test('lets go where the value was changed elsewhere', () => {
    const held = turned({ asked: 0.5, caught: true, at: 0 }, fader(), at(0.52), 0.5, 5);
    expect(held.to).toBeCloseTo(0.52, 6);
    expect(turned(held.grip, fader(), at(0.53), 0.9, 9).to).toBeNull();
    // What it asked for itself a moment ago, and has not come back yet, is no change elsewhere.
    expect(turned(held.grip, fader(), at(0.9), 0.5, 5.01).to).toBeCloseTo(0.9, 6);
    expect(turned(held.grip, fader({ soft: false }), at(0.53), 0.9, 9).to).toBeCloseTo(0.53, 6);
  });

  test('has a range that may be upside down, and a curve', () => {
    expect([0, 0.5, 1].map((place) => askedFor(fader({ low: 1, high: 0.2 }), place))).toEqual([
      1,
      0.6,
      expect.closeTo(0.2, 9),
    ]);
    expect(askedFor(fader({ curve: 'gentle' }), 0.5)).toBe(0.25);
    expect(askedFor(fader({ curve: 'steep' }), 0.25)).toBe(0.5);
  });

  test('turned by steps, goes on from where the value is', () => {
    const relative = fader({ source: { by: 'control', device: null, channel: 1, number: 7, sends: 'relative' } });
    expect(turned(NO_GRIP, relative, at(2 / 127), 0.5, 1).to).toBeCloseTo(0.5 + 2 / 127, 9);
    expect(turned(NO_GRIP, relative, at(126 / 127), 0.5, 1).to).toBeCloseTo(0.5 - 2 / 127, 9);
    expect(turned(NO_GRIP, relative, at(16 / 127), 0.95, 1).to).toBe(1);
  });

  test.each([
    ['127 for a step down', [1, 2, 127, 126, 16, 1], [1, 2, -1, -2, 16, 1]],
    ['65 for a step down', [1, 2, 65, 66, 1], [1, 2, -1, -2, 1]],
    ['63 for a step down and 65 for one up', [65, 63, 62, 64, 66], [1, -1, -2, 0, 2]],
    ['63 for a step down, begun with it', [63, 65, 64], [-1, 1, 0]],
  ])('of an endless knob that sends %s, quicker than what it asks for comes back', (_, sent, meant) => {
    const knob = fader({ source: { by: 'control', device: null, channel: 1, number: 7, sends: 'relative' } });
    let grip: Grip = NO_GRIP;
    let last = 0.5;
    const moved = sent.map((raw, i) => {
      // The value stands where it was: nothing has come back yet.
      const step = turned(grip, knob, at(raw / 127), 0.5, 1 + i * 0.05);
      const by = (step.to! - last) * 127;
      grip = step.grip;
      last = step.to!;
      return Math.round(by);
    });
    expect(moved).toEqual(meant);
    // A while later it goes on from where the value is, whoever moved it.
    expect(turned(grip, knob, at(sent[0]! / 127), 0.2, 9).to!).toBeCloseTo(0.2, 1);
  });
});
