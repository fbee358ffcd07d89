// What followers make of a song and of a microphone.

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readBundle } from '../files';
import { Chase } from '../light';
import { AT_REST, type LiveState } from '../live';
import { bandShares, K_WEIGHTS, LKFS, LOUDNESS_BANDS, readEnvelopes, writeEnvelopes, type Envelopes } from '../music';
import { edit, readShow, type Show } from '../show';
import { brightB, dimmerA, hold, look, on, player, press, withLooks, type ValueIn } from '../testing/stage';
import { id, seconds } from '../units';
import { frameFor, programKeeper, render } from '.';

const hash = 'ab'.repeat(32);
const NOTHING = { times: new Float64Array(), strengths: new Float64Array() };

/** Twenty seconds of a song: `byteAt` says how loud it is by second and band, kicks fall where they are said to. */
function sound(byteAt: (second: number, band: number) => number, kicks: readonly number[] = []): Envelopes {
  const frames = 2000;
  const levels = new Uint8Array(frames * LOUDNESS_BANDS);
  for (let i = 0; i < levels.length; i++) levels[i] = byteAt(Math.floor(i / LOUDNESS_BANDS) / 100, i % LOUDNESS_BANDS);
  const kick = { times: Float64Array.from(kicks), strengths: new Float64Array(kicks.length).fill(1) };
  return { frames, levels, strokes: { kick, snare: NOTHING, hat: NOTHING } };
}

type FollowerIn = NonNullable<ValueIn['followers']>[number];
const follow = (more: object = {}): FollowerIn =>
  ({
    type: 'follow',
    on: 'level',
    low: 0,
    high: 1,
    hears: { band: 'all' },
    attack: 0,
    release: 0,
    ...more,
  }) as FollowerIn;

const withMusic = (show: Show): Show => {
  const json = JSON.parse(JSON.stringify(show));
  json.songs[0].music = { hash, name: 'a.ogg', type: 'ogg', bytes: 5 };
  json.songs[0].lanes.forEach((lane: { clips: unknown[] }) => (lane.clips = []));
  json.looks.find((one: { id: string }) => one.id === 'new').keep = true;
  const read = readShow(json, 'x');
  if (!read.ok) throw new Error('not a show');
  return read.value;
};

/** The look is on and the song plays since second 0. */
const playing = (): LiveState => press(on(), { type: 'play', song: id('song'), from: seconds(0) }, 0);
const heardIn = (followers: FollowerIn[], envelopes: Envelopes, more: ValueIn = { role: 'wash' }) => {
  const show = withMusic(withLooks(look([{ ...more, followers }])));
  const play = player(show, new Map([[hash, envelopes]]));
  return (at: number) => play(playing(), at);
};

const LOUD = 255;
const step = sound((second) => (second >= 5 && second < 10 ? LOUD : 0));

describe('a song', () => {
  test('attack and release are the seconds from nothing to all and back', () => {
    const level = heardIn([follow({ attack: 2, release: 4 })], step);
    for (const [at, wanted] of [
      [4.9, 0],
      [6, 0.5],
      [7.2, 1],
      [9.9, 1],
      [12, 0.5],
      [14.2, 0],
    ] as const)
      expect(dimmerA(level(at))).toBeCloseTo(wanted, 1);
  });

  test('a follower hears its own band only; a drawn band may be drawn from either end', () => {
    const bass = sound((_, band) => (band < 4 ? LOUD : 0));
    expect(dimmerA(heardIn([follow({ hears: { band: 'sub' } })], bass)(3))).toBe(1);
    expect(dimmerA(heardIn([follow({ hears: { band: 'high' } })], bass)(3))).toBe(0);
    expect(dimmerA(heardIn([follow({ hears: { from: 90, to: 30 } })], bass)(3))).toBe(1);
    expect(dimmerA(heardIn([follow({ hears: { from: 4000, to: 900 } })], bass)(3))).toBe(0);
    expect([...bandShares(20, 16000)].every((share) => share > 0.999)).toBe(true);
  });

  test('loudness is that of the last 0.4 s; brightness goes by where the sound lies', () => {
    // All bands at full scale, as loud as it can be: with this gain that is all there is.
    const full = LKFS + 10 * Math.log10(K_WEIGHTS.reduce((sum, weight) => sum + weight, 0));
    const loud = heardIn([follow({ hears: { measure: 'loudness' }, gain: -full })], step);
    // Half of the time is 3 of the 30 dB.
    for (const [at, wanted] of [
      [4.9, 0],
      [5.2, 0.9],
      [6, 1],
      [10.2, 0.9],
      [10.5, 0],
    ] as const)
      expect(dimmerA(loud(at))).toBeCloseTo(wanted, 1);
    const rising = sound((second, band) => (band === (second < 5 ? 1 : 14) ? 100 : 0));
    const bright = heardIn([follow({ hears: { measure: 'brightness' } })], rising);
    expect([dimmerA(bright(3)), dimmerA(bright(7))]).toEqual([0, 1]);
  });

  test('it adapts to how loud it is; with a gain it does not; floor, ceiling and gate cut off', () => {
    // 15 dB below what came before for a while, on a scale of 90 dB in 255 steps.
    const softer = sound((second) => (second < 1 ? 212 : 170));
    const adapting = heardIn([follow()], softer);
    expect(dimmerA(adapting(1.1))).toBeCloseTo(0.5, 1);
    expect(dimmerA(adapting(12))).toBe(1);
    // All sixteen bands together are 12 dB louder than one: -18 dB, which 3 dB of gain make half of the 30.
    expect(dimmerA(heardIn([follow({ gain: 3 })], softer)(12))).toBeCloseTo(0.5, 1);
    expect(dimmerA(heardIn([follow({ gain: 3, floor: 0.6 })], softer)(12))).toBe(0);
    expect(dimmerA(heardIn([follow({ gain: 3, floor: 0.2, ceiling: 0.45 })], softer)(12))).toBe(1);
    expect(dimmerA(heardIn([follow({ gain: 3, floor: 0.4, ceiling: 0.4 })], softer)(12))).toBe(1);
  });

  test('low above high is upside down, and a colour goes from one to the other', () => {
    expect(dimmerA(heardIn([follow({ low: 0.9, high: 0.1 })], step)(4))).toBeCloseTo(0.9, 2);
    expect(dimmerA(heardIn([follow({ low: 0.9, high: 0.1 })], step)(9))).toBeCloseTo(0.1, 2);
    const colours = { ...follow(), type: 'colours', from: { x: 0.15, y: 0.06 }, to: { x: 0.64, y: 0.33 } };
    const { on: _on, low: _low, high: _high, ...rest } = colours as typeof colours & Record<string, unknown>;
    const tinted = heardIn([rest as FollowerIn], step, { role: 'wash', level: hold(1) });
    const [red, , blue] = tinted(4).subarray(9, 12);
    expect(blue! > 250 && red! < 20).toBe(true);
    const [redder, , bluer] = tinted(9).subarray(9, 12);
    expect(redder! > 250 && bluer! < 20).toBe(true);
  });

  test('as a meter the lamps fill one after the other', () => {
    const half = heardIn(
      [follow({ meter: true, gain: 3 })],
      sound(() => 170),
    );
    expect(dimmerA(half(3))).toBe(1);
    expect(brightB(half(3))).toBeLessThan(0.02);
  });

  test('a lamp that does not follow the sound keeps what the look says, or is left alone', () => {
    const deafB = (show: Show): Show => ({
      ...show,
      rigs: show.rigs.map((rig) => ({
        ...rig,
        fixtures: rig.fixtures.map((one) => (one.id === 'b' ? { ...one, deaf: true } : one)),
      })),
    });
    const level = (value: ValueIn) => {
      const show = deafB(withMusic(withLooks(look([{ ...value, followers: [follow()] }]))));
      return player(show, new Map([[hash, step]]))(playing(), 9);
    };
    expect(brightB(level({ role: 'wash', level: hold(0.3) }))).toBeCloseTo(0.3, 2);
    expect(dimmerA(level({ role: 'wash', level: hold(0.3) }))).toBe(1);
    expect(brightB(level({ role: 'wash' }))).toBe(0);
  });

  test('a stroke rises with the attack and falls with the release, at any moment alike', () => {
    const kick = heardIn(
      [follow({ hears: { drum: 'kick' }, attack: 0.1, release: 0.4 })],
      sound(() => 0, [2, 5]),
    );
    for (const [at, wanted] of [
      [1.99, 0],
      [2.05, 0.5],
      [2.1, 1],
      [2.3, 0.5],
      [2.6, 0],
      [5.1, 1],
      [2.3, 0.5],
    ] as const)
      expect(dimmerA(kick(at))).toBeCloseTo(wanted, 1);
  });

  test('where nothing was found out about the music, nothing is heard', () => {
    const show = withMusic(withLooks(look([{ role: 'wash', followers: [follow()] }])));
    expect(dimmerA(player(show)(playing(), 9))).toBe(0);
  });
});

describe('a microphone', () => {
  const moment = (state: LiveState, at: number, byte: number, more: object = {}, who = 'phone') =>
    press(state, { type: 'heard', levels: new Array<number>(LOUDNESS_BANDS).fill(byte), ...more }, at, who);
  const show = withLooks(look([{ role: 'wash', followers: [follow({ release: 1 })] }]));
  const level = (state: LiveState, at: number) => dimmerA(player(show)(state, at));

  test('is followed where no song with music is on, and falls silent when it says nothing more', () => {
    const loud = moment(on(), 1, 200);
    expect(level(on(), 1)).toBe(0);
    expect(level(loud, 1.1)).toBe(1);
    expect(level(loud, 1.8)).toBeCloseTo(0.5, 1);
    expect(level(loud, 3)).toBe(0);
    const quieter = moment(loud, 1.25, 0);
    expect(level(quieter, 1.25)).toBeCloseTo(0.75, 1);
  });

  test('a song with music goes before it, unless the follower wants the microphone', () => {
    const state = moment(playing(), 4.5, 200);
    const both = withMusic(withLooks(look([{ role: 'wash', followers: [follow()] }])));
    const own = withMusic(withLooks(look([{ role: 'wash', followers: [follow({ source: 'microphone' })] }])));
    const sounds = new Map([[hash, step]]);
    expect(dimmerA(player(both, sounds)(state, 4.6))).toBe(0);
    expect(dimmerA(player(own, sounds)(state, 4.6))).toBe(1);
  });

  test('what can be heard in songs is read between frames, a song at a time, and the light goes on meanwhile', () => {
    const keeper = programKeeper();
    keeper.take(withMusic(withLooks(look([{ role: 'wash', followers: [follow()] }]))));
    while (keeper.work());
    const before = keeper.program();
    const [bytes, quiet] = [writeEnvelopes(step), writeEnvelopes(sound(() => 0))];
    // Of one song that is told twice the later one counts; what cannot be read is as good as none.
    keeper.hear([
      { hash: 'cd'.repeat(32), bytes },
      { hash, bytes: quiet },
      { hash, bytes },
      { hash, bytes: new Uint8Array(3) },
    ]);
    let slices = 1;
    for (; !keeper.work(() => true); slices++) expect(keeper.program()).toBe(before);
    expect(slices).toBeGreaterThan(4);
    const frame = frameFor(keeper.program()!);
    render(keeper.program()!, playing(), seconds(6), frame);
    expect(dimmerA(frame)).toBe(1);
    expect(keeper.work()).toBe(false);
  });

  test('of two that listen, the second is not heard until the first has been silent for a second', () => {
    const first = moment(on(), 1, 200);
    expect(moment(first, 1.5, 0, {}, 'laptop').hearing!.by).toBe('phone');
    expect(moment(first, 2.1, 0, {}, 'laptop').hearing!.by).toBe('laptop');
  });

  test('an hour of it leaves a state of two seconds', () => {
    let state = on();
    for (let i = 0; i < 60 * 60; i++)
      state = moment(state, i / 25, i % 256, { strokes: { kick: i % 10 === 0 ? 1 : 0 } });
    expect(state.hearing!.moments.length).toBeLessThanOrEqual(50);
    expect(state.hearing!.counts.kick.count).toBe(360);
  });
});

describe('a chase that goes by strokes', () => {
  const steps = [0.25, 0.5, 1].map((value, i) => ({
    id: `${i}`,
    values: [{ role: 'wash', level: hold(value) }],
    fade: 0,
    hold: 1,
  }));
  const run = Chase.parse({
    id: 'new',
    number: 9,
    name: 'New',
    fadeIn: 0,
    fadeOut: 0,
    keep: true,
    pace: 'sound',
    steps,
  });
  const store = (show: Show) => edit(show, { type: 'store-chase', chase: run }).show;

  test('takes a step with each kick of the song since it came on, on a lane since its clip began', () => {
    const bare = withMusic(withLooks(look([])));
    const show = store({ ...bare, looks: bare.looks.filter((one) => one.id !== 'new') });
    const sounds = new Map([[hash, sound(() => 0, [1, 2, 3, 4, 5, 6])]]);
    const play = player(show, sounds);
    for (const [at, wanted] of [
      [0.5, 0.25],
      [1.5, 0.5],
      [2.5, 1],
      [3.5, 0.25],
    ] as const)
      expect(dimmerA(play(playing(), at))).toBeCloseTo(wanted, 2);
    const later = press(playing(), { type: 'look-off', look: id('new'), fade: seconds(0) }, 0.1);
    const again = press(later, { type: 'look-on', look: id('new'), fade: seconds(0) }, 3.5);
    expect(dimmerA(play(again, 3.6))).toBeCloseTo(0.25, 2);
    expect(dimmerA(play(again, 4.5))).toBeCloseTo(0.5, 2);
    const json = JSON.parse(JSON.stringify(show));
    json.songs[0].lanes[0].clips = [{ id: 'c', look: 'new', from: 4, to: 40 }];
    const laid = readShow(json, 'x');
    const onLane = press(AT_REST, { type: 'play', song: id('song'), from: seconds(0) }, 0);
    // Beat 4 is second 2: the kick of that very moment is the first step.
    const light = player(laid.ok ? laid.value : show, sounds);
    expect(dimmerA(light(onLane, 2.5))).toBeCloseTo(0.25, 2);
    expect(dimmerA(light(onLane, 3.5))).toBeCloseTo(0.5, 2);
  });

  test('without a song it goes by what the microphone counts', () => {
    const show = store(withLooks());
    const levels = new Array<number>(LOUDNESS_BANDS).fill(0);
    let state = press(AT_REST, { type: 'heard', levels, strokes: { kick: 1 } }, 0.5, 'phone');
    state = press(state, { type: 'look-on', look: id('new'), fade: seconds(0) }, 1);
    expect(dimmerA(player(show)(state, 1.1))).toBeCloseTo(0.25, 2);
    state = press(state, { type: 'heard', levels, strokes: { kick: 0.7 } }, 1.2, 'phone');
    expect(dimmerA(player(show)(state, 1.3))).toBeCloseTo(0.5, 2);
  });
});

describe('envelopes', () => {
  const some = sound((second, band) => Math.round(second * 10 + band), [0.5, 1.25]);

  test('are written and read back the same', () => {
    const read = readEnvelopes(writeEnvelopes(some), 'a.ogg');
    expect(read).toEqual({ ok: true, value: some });
  });

  test.each([
    ['nothing', new Uint8Array(), 'cut-short'],
    ['something else', new Uint8Array(64).fill(7), 'bad-value'],
    ['half of them', writeEnvelopes(some).slice(0, 4000), 'cut-short'],
    ['too much', Uint8Array.from([...writeEnvelopes(some), 0]), 'cut-short'],
  ])('%s is refused', (_, bytes, code) => {
    const read = readEnvelopes(bytes, 'a.ogg');
    expect(!read.ok && read.problem.code).toBe(code);
  });

  test('of a house track with a kick on every beat have a kick near most beats, and hardly any where there is none', () => {
    const root = join(__dirname, '../../..');
    const bundle = readBundle(new Uint8Array(readFileSync(join(root, 'demo/boathouse.hovlix'))), 'demo');
    if (!bundle.ok) throw new Error('no demo');
    const song = bundle.value.show.songs.find((one) => one.id === 'night-ferry')!;
    const read = readEnvelopes(bundle.value.music.get(song.music!.hash)!.envelopes!, 'Night Ferry');
    if (!read.ok) throw new Error('no envelopes');
    const { beats } = JSON.parse(readFileSync(join(root, 'demo/truth/night-ferry.json'), 'utf8')) as {
      beats: number[];
    };
    // From 77.8 to 108.7 s the kick is on every beat; from 46.9 to 62.3 s there is none.
    const within = (times: ArrayLike<number>, from: number, to: number) =>
      Array.from(times).filter((time) => time >= from && time < to);
    const kicks = read.value.strokes.kick.times;
    const drop = within(beats, 77.7, 108.6);
    const near = drop.filter((beat) => kicks.some((kick) => Math.abs(kick - beat) < 0.03));
    expect(near.length / drop.length).toBeGreaterThan(0.8);
    expect(within(kicks, 47, 62).length).toBeLessThan(8);
  });
});
