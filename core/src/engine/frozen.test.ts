// Light that is frozen, and songs that fade from one place to another.

import { AT_REST, anchoredAt, isFrozen, leftAs, type LiveState } from '../live';
import { testShow } from '../testing/show';
import { brightB, dimmerA, hold, look, on, press, player, wave, withLooks } from '../testing/stage';
import { beats, id, seconds } from '../units';
import { compile, explain } from '.';

const freeze = (state: LiveState, at: number) => press(state, { type: 'freeze', on: true, fade: seconds(0) }, at);
const thaw = (state: LiveState, at: number, fade: number) =>
  press(state, { type: 'freeze', on: false, fade: seconds(fade) }, at);

describe('a freeze', () => {
  const rising = player(
    withLooks(look([{ role: 'wash', waves: [wave('level', { shape: 'up', span: { seconds: 10 } })] }])),
  );

  test('holds a wave where it is, under masters and blackout', () => {
    const frozen = freeze(on(), 3);
    const held = dimmerA(rising(on(), 3));
    expect(held).toBeGreaterThan(0.2);
    for (const at of [3, 4.7, 60]) expect(dimmerA(rising(frozen, at))).toBe(held);
    expect(dimmerA(rising(press(frozen, { type: 'master', level: 0.5 }, 4), 5))).toBeCloseTo(held / 2, 2);
    expect(dimmerA(rising(press(frozen, { type: 'blackout', on: true, fade: seconds(0) }, 4), 5))).toBe(0);
  });

  test('what is pressed meanwhile waits, and comes with the fade as it is by then', () => {
    const play = player(withLooks(look([{ role: 'wash', level: hold(0.2) }])));
    const dim = press(AT_REST, { type: 'look-on', look: id('new'), fade: seconds(0) }, 0);
    const full = press(freeze(dim, 1), { type: 'look-on', look: id('red'), fade: seconds(0) }, 2);
    expect(dimmerA(play(full, 3))).toBeCloseTo(0.2, 2);
    const free = thaw(full, 4, 2);
    expect([4, 5, 6, 9].map((at) => dimmerA(play(free, at)))).toEqual(
      [0.2, 0.6, 1, 1].map((n) => expect.closeTo(n, 2)),
    );
    expect([isFrozen(full), isFrozen(free)]).toEqual([true, false]);
    // Pressed again on the way, it is the same light again.
    expect(dimmerA(play(freeze(free, 5), 5.5))).toBeCloseTo(0.2, 2);
    // Once it is over nothing of it is kept.
    expect(press(free, { type: 'tap' }, 7).frozen).toBeNull();
  });

  test('the same light before and after does not dip or pale in the fade', () => {
    const play = player(testShow());
    const red = press(AT_REST, { type: 'look-on', look: id('red'), fade: seconds(0) }, 0);
    const free = thaw(freeze(red, 1), 2, 2);
    for (const at of [2.2, 3, 3.9]) expect(play(free, at)).toEqual(play(red, 1));
  });

  test('frozen twice stays what it was; another show, or a night that is over, ends it; Why? says it', () => {
    const frozen = freeze(on(), 3);
    expect(freeze(frozen, 5).frozen).toMatchObject({ at: 3 });
    expect(press(frozen, { type: 'show-on', show: 'other' }, 4).frozen).toBeNull();
    expect(leftAs(frozen, seconds(9), seconds(0)).frozen).toBeNull();
    const program = compile(testShow());
    const red = press(AT_REST, { type: 'look-on', look: id('red'), fade: seconds(0) }, 0);
    const told = explain(
      program,
      press(freeze(red, 1), { type: 'all-off', fade: seconds(0) }, 2),
      seconds(3),
      id('a'),
    )!;
    expect(told).toMatchObject({ frozen: true, level: 1 });
    expect(told.contributions.map(({ source }) => source)).toContain('look Red');
  });
});

describe('a jump within a song', () => {
  /** Full on the first eight beats, 40 % on the next: 120 a minute, so four seconds each. */
  const show = () => {
    const base = withLooks(
      look([{ role: 'wash', level: hold(1) }], { id: 'full' }),
      look([{ role: 'wash', level: hold(0.4) }], { id: 'less' }),
    );
    const [song] = base.songs;
    const clips = [
      { id: id<'Clip'>('one'), look: id<'Look'>('full'), from: beats(0), to: beats(8) },
      { id: id<'Clip'>('two'), look: id<'Look'>('less'), from: beats(8), to: beats(16) },
    ];
    const [lane] = song!.lanes;
    return { ...base, songs: [{ ...song!, lanes: [{ ...lane!, clips } as typeof lane & object] }] };
  };
  const plays = () => press(AT_REST, { type: 'play', song: id('song'), from: seconds(1) }, 0);

  test('cuts without a fade, and with one gives way to where it lands, also when the sound corrects it on the way', () => {
    const stage = player(show());
    const jump = (fade?: number) =>
      press(
        plays(),
        { type: 'jump', jump: { when: seconds(2), to: seconds(5), ...(fade ? { fade: seconds(fade) } : {}) } },
        0.5,
      );
    const levels = (live: LiveState) => [0.9, 1.05, 2, 2.9, 3.1].map((at) => dimmerA(stage(live, at)));
    expect(levels(jump())).toEqual([1, 0.4, 0.4, 0.4, 0.4].map((n) => expect.closeTo(n, 1)));
    const faded = [1, 0.985, 0.7, 0.43, 0.4].map((n) => expect.closeTo(n, 1.5));
    expect(levels(jump(2))).toEqual(faded);
    const corrected = press(jump(2), { type: 'anchor', songTime: seconds(5.5), at: seconds(1.5), rate: 1 }, 1.5);
    expect(levels(corrected).slice(2)).toEqual(faded.slice(2));
    const song = jump(2).song!;
    expect(anchoredAt(song, seconds(2.004), seconds(0.998)).left).toMatchObject({ songTime: 2, fade: 2 });
  });

  test('sought with a fade the light of before goes on in its own time', () => {
    const stage = player(show());
    const sought = press(plays(), { type: 'seek', to: seconds(5), fade: seconds(1) }, 1);
    expect([1, 1.5, 2.1].map((at) => dimmerA(stage(sought, at)))).toEqual(
      [1, 0.7, 0.4].map((n) => expect.closeTo(n, 1.5)),
    );
    expect(brightB(stage(sought, 1.5))).toBeCloseTo(0.7, 1);
    expect(
      press(sought, { type: 'anchor', songTime: seconds(7), at: seconds(3), rate: 1 }, 3).song!.left,
    ).toBeUndefined();
  });
});
