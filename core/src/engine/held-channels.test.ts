import fc from 'fast-check';
import { AT_REST, reduced, type Action, type LiveState } from '../live';
import { testShow } from '../testing/show';
import { id, seconds } from '../units';
import { compile, explain, frameFor, layTests, render, walkedChannel } from '.';

const program = compile(testShow());
const bytesAt = (live: LiveState, at: number) => {
  const frame = frameFor(program);
  render(program, live, seconds(at), frame);
  return frame;
};
/** The state after these, one a second from second 1 on. */
const after = (...actions: Action[]) =>
  actions.reduce<LiveState>(
    (state, action, i) => reduced(state, { seq: i + 1, at: seconds(i + 1), who: 't', action }),
    AT_REST,
  );

test('held channels are what goes out, whatever else is on; the last hand on a channel counts; let go, the show is back', () => {
  const held = after(
    { type: 'look-on', look: id<'Look'>('red'), fade: seconds(0) },
    {
      type: 'hold-channels',
      channels: [
        { universe: 1, address: 1, value: 12 },
        { universe: 2, address: 512, value: 99 },
      ],
    },
    { type: 'hold-channels', channels: [{ universe: 1, address: 1, value: 13 }] },
  );
  const [show, frame] = [bytesAt({ ...held, held: [] }, 9), bytesAt(held, 9)];
  expect([frame[0], frame[1023]]).toEqual([13, 99]);
  expect([...frame].filter((value, i) => value !== show[i])).toHaveLength(2);
  const free = reduced(held, { seq: 9, at: seconds(9), who: 't', action: { type: 'free-channels', universe: 1 } });
  expect(free.held).toEqual([{ universe: 2, address: 512, value: 99 }]);
  const none = reduced(free, { seq: 10, at: seconds(9), who: 't', action: { type: 'free-channels', universe: null } });
  expect(bytesAt(none, 9)).toEqual(show);
});

test('held for a while: it goes out in a blackout, and ends by itself; the next hand takes it off the list', () => {
  const act: Action = {
    type: 'hold-channels',
    channels: [{ universe: 2, address: 500, value: 77 }],
    length: seconds(4),
  };
  const dark = after(act, { type: 'blackout', on: true, fade: seconds(0) });
  expect([4.9, 5.1].map((at) => bytesAt(dark, at)[512 + 499])).toEqual([77, 0]);
  expect(
    reduced(dark, {
      seq: 3,
      at: seconds(4),
      who: 't',
      action: { ...act, channels: [{ universe: 1, address: 1, value: 1 }] },
    }).held,
  ).toHaveLength(2);
  const over = { type: 'free-channels', universe: null, over: true } as const;
  const byHand = reduced(dark, {
    seq: 3,
    at: seconds(4),
    who: 't',
    action: { type: 'hold-channels', channels: [{ universe: 1, address: 1, value: 1 }] },
  });
  expect(reduced(byHand, { seq: 4, at: seconds(6), who: 't', action: over }).held).toEqual([
    { universe: 1, address: 1, value: 1 },
  ]);
});

test('a flash: full and nothing twice a second over its channels and no others, and it ends by itself', () => {
  const live = after({ type: 'flash-channels', universe: 2, from: 500, count: 40, length: seconds(3) });
  const on = bytesAt(live, 1.1);
  expect([on[512 + 498], on[512 + 499], on[512 + 511]]).toEqual([0, 255, 255]);
  expect(on[0]).toBe(bytesAt(AT_REST, 1.1)[0]);
  expect(bytesAt(live, 1.3)[512 + 499]).toBe(0);
  expect(bytesAt(live, 1.6)[512 + 499]).toBe(255);
  expect(bytesAt(live, 4.1)[512 + 499]).toBe(bytesAt(AT_REST, 4.1)[512 + 499]);
});

test('a flash of some channels leaves those between them as they are', () => {
  const only = [3, 450, 512];
  const live = after({ type: 'flash-channels', universe: 2, from: 1, count: 512, only, length: seconds(3) });
  const [on, rest] = [bytesAt(live, 1.1), bytesAt(AT_REST, 1.1)];
  for (let channel = 1; channel <= 512; channel++)
    expect(on[512 + channel - 1]).toBe(only.includes(channel) ? 255 : rest[512 + channel - 1]);
});

test('a walk: one channel after the other, round and round; a step of 0 stands still', () => {
  const walk = { kind: 'walk', by: 't', universe: 1, from: 10, to: 12, step: seconds(0.5), at: seconds(100) } as const;
  expect([100, 100.4, 100.6, 101.2, 101.6, 99].map((at) => walkedChannel(walk, seconds(at)))).toEqual([
    10, 10, 11, 12, 10, 10,
  ]);
  expect(walkedChannel({ ...walk, step: seconds(0) }, seconds(999))).toBe(10);
  const live = after({ type: 'walk-channels', universe: 1, from: 10, to: 3, step: seconds(1) });
  expect(bytesAt(live, 50)[9]).toBe(255);
});

test('in blackout nothing is laid: dark is dark', () => {
  const live = after(
    { type: 'hold-channels', channels: [{ universe: 1, address: 1, value: 200 }] },
    { type: 'flash-channels', universe: 1, from: 1, count: 512, length: seconds(60) },
    { type: 'blackout', on: true, fade: seconds(0) },
  );
  expect(bytesAt(live, 3.1)).toEqual(bytesAt({ ...AT_REST, blackout: live.blackout }, 3.1));
});

test('what is laid lies inside the frame, for any test on any universe', () => {
  const channel = fc.integer({ min: 1, max: 512 });
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 4 }),
      channel,
      channel,
      fc.double({ min: 0, max: 100, noNaN: true }),
      (universe, from, count, at) => {
        const out = new Uint8Array(1024);
        layTests(
          [1, 2],
          after({ type: 'flash-channels', universe, from, count, length: seconds(200) }),
          seconds(at + 1),
          out,
        );
        layTests(
          [1, 2],
          after({ type: 'walk-channels', universe, from, to: count, step: seconds(0.3) }),
          seconds(at + 1),
          out,
        );
        expect(out).toHaveLength(1024);
        if (universe > 2) expect(out.every((value) => value === 0)).toBe(true);
        else
          expect(
            out.subarray(universe === 1 ? 512 : 0, universe === 1 ? 1024 : 512).every((value) => value === 0),
          ).toBe(true);
      },
    ),
  );
});

test('“Why?” shows the held bytes and says that a hand is on them', () => {
  const live = after({ type: 'hold-channels', channels: [{ universe: 1, address: 1, value: 77 }] });
  const why = explain(program, live, seconds(2), id<'Fixture'>('a'))!;
  expect([why.held, why.bytes[0]]).toEqual([true, 77]);
  expect(explain(program, AT_REST, seconds(2), id<'Fixture'>('a'))!.held).toBe(false);
});
