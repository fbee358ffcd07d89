// What is said of a song before the night.

import { Chase, Kit, Look } from '../light';
import { lookLanes, type HitLane, type LookLane } from '../song';
import { testShow } from '../testing/show';
import { beats, id, seconds } from '../units';
import { edit, songRemarks, type Show } from '.';

const clip = (look: string, from: number, to: number, more: object = {}) => ({
  id: id<'Clip'>(`c${from}`),
  look: id<'Look'>(look),
  from: beats(from),
  to: beats(to),
  ...more,
});
/** The test song lasts 60 s at 120: thirty bars. */
function song(clips: LookLane['clips'], ...more: readonly HitLane[]): Show {
  const show = testShow();
  const [first] = show.songs;
  return { ...show, songs: [{ ...first!, lanes: [{ ...lookLanes(first!)[0]!, clips }, ...more] }] };
}
const said = (show: Show) => songRemarks(show, show.songs[0]!).map(({ bar, text }) => [bar, text]);
const whole = clip('red', 0, 120, { fadeIn: beats(0), fadeOut: beats(0) });

test('a song that comes out as it was meant has no remark', () => {
  expect(said(song([whole]))).toEqual([]);
  expect(said(song([]))).toEqual([]);
  // Crossfading clips need no time for a fade out.
  expect(said(song([clip('red', 0, 4), clip('half-blue', 4, 120)]))).toEqual([]);
});

test('fades that take longer than their clip, by bar', () => {
  const text = 'Half blue lasts 4 beats, and its fades take 6: it is never full.';
  expect(said(song([clip('half-blue', 8, 12), { ...whole, from: beats(13) }]))).toEqual([[2, text]]);
  expect(said(song([clip('half-blue', 8, 12), clip('half-blue', 20, 24), { ...whole, from: beats(25) }]))).toEqual([
    [2, `${text} 2 times.`],
  ]);
  // Full as it begins, it may fade for as long as it likes.
  expect(
    said(song([clip('half-blue', 8, 12, { fadeIn: beats(0), fadeOut: beats(9) }), { ...whole, from: beats(13) }])),
  ).toEqual([]);
});

test('a look that nobody plays here; in the other rig the same song has others', () => {
  const show = song([clip('spread', 0, 120)]);
  expect(said(show)).toEqual([]);
  expect(said({ ...show, rig: id('hall') })).toEqual([
    [0, 'Spread lights no lamp in this rig: nobody plays its roles.'],
  ]);
});

test('a chase that has come to its end', () => {
  const step = (name: string) => ({ id: name, look: 'red', fade: 0, hold: 2 });
  const run = Chase.parse({
    id: 'run',
    number: 9,
    name: 'Run',
    fadeIn: 0,
    fadeOut: 0,
    pace: 'beats',
    loops: 3,
    steps: [step('a'), step('b')],
  });
  const show = edit(song([clip('run', 0, 16), { ...whole, from: beats(16) }]), {
    type: 'store-chase',
    chase: run,
  }).show;
  expect(said(show)).toEqual([[0, 'Run stops before its bars do: the last 4 beats are dark.']]);
  const forever = edit(show, { type: 'store-chase', chase: { ...run, loops: 0 } }).show;
  expect(said(forever)).toEqual([]);
  // Two seconds a step at 120 are four beats.
  const timed = edit(show, { type: 'store-chase', chase: { ...run, pace: 'seconds', loops: 1 } }).show;
  expect(said(timed)).toEqual([[0, 'Run stops before its bars do: the last 8 beats are dark.']]);
});

test('light that ends before the music, and what lies behind its end', () => {
  expect(said(song([{ ...whole, to: beats(80) }]))).toEqual([
    [20, 'There is no light from bar 21 on; the music goes on to bar 30.'],
  ]);
  expect(said(song([whole, clip('red', 124, 130, { fadeIn: beats(0), fadeOut: beats(0) })]))).toEqual([
    [null, '1 clip lies behind the end of the music.'],
  ]);
});

test('hit lanes without a kit, without lamps, with notes that nothing answers to', () => {
  const notes = [36, 99].map((note) => ({
    id: id<'Note'>(`n${note}`),
    at: beats(2),
    length: beats(1),
    note,
    velocity: 1,
  }));
  const lane: HitLane = { id: id('h'), name: 'Drums', type: 'hits', kit: id('k'), role: id('wash'), notes };
  const bare = song([whole], lane);
  expect(said(bare)).toEqual([[null, 'Lane Drums: its hit kit is gone. Choose another in Lanes.']]);
  const kit = Kit.parse({
    id: 'k',
    name: 'K',
    channels: [],
    hits: [
      {
        id: 'h',
        name: 'H',
        low: 36,
        high: 36,
        attack: { seconds: 0 },
        hold: { seconds: 0.1 },
        release: { seconds: 0 },
      },
    ],
  });
  const show = edit(bare, { type: 'store-kit', kit }).show;
  expect(said(show)).toEqual([[null, 'Lane Drums: nothing answers to 1 note.']]);
  const elsewhere = edit(show, { type: 'set-lane', song: id('song'), lane: id('h'), role: id('gone') }).show;
  expect(said(elsewhere)).toEqual([[null, 'Lane Drums: no lamp plays its role in this rig.']]);
  expect(show.songs[0]!.duration).toBe(seconds(60));
});

test('a hit that is too short to be seen', () => {
  const note = { id: id<'Note'>('n'), at: beats(2), length: beats(1), note: 36, velocity: 1 };
  const lane: HitLane = { id: id('h'), name: 'Drums', type: 'hits', kit: id('k'), role: id('wash'), notes: [note] };
  const hit = {
    id: 'h',
    name: 'Click',
    low: 36,
    high: 36,
    attack: { seconds: 0 },
    hold: { beats: 0 },
    release: { seconds: 0 },
  };
  const kit = (more: object) => Kit.parse({ id: 'k', name: 'K', channels: [], hits: [{ ...hit, ...more }] });
  const with_ = (more: object) => said(edit(song([whole], lane), { type: 'store-kit', kit: kit(more) }).show);
  expect(with_({})).toEqual([
    [null, 'Lane Drums: Click is over before it is seen. Give it a longer hold or release in its kit.'],
  ]);
  expect(with_({ hold: { seconds: 0.03 } })).toHaveLength(1);
  expect(with_({ hold: { seconds: 0.05 } })).toEqual([]);
  expect(with_({ held: true })).toEqual([]);
});

test('looks on two lanes that go out and come in at once on one role dip; on one lane, or apart, they do not', () => {
  const [base] = lookLanes(testShow().songs[0]!);
  const two = (out: number, from: number, look = 'half-blue'): Show => {
    const show = testShow();
    const under = { ...base!, clips: [clip('red', 0, 16, { fadeOut: beats(out) })] };
    const over = { ...base!, id: id<'Lane'>('over'), name: 'Over', clips: [clip(look, from, 120)] };
    return { ...show, songs: [{ ...show.songs[0]!, lanes: [under, over] }] };
  };
  const dips = 'Red on Looks still goes out while Half blue comes in on Over: the light dips between them.';
  expect(said(two(4, 12))).toEqual([[3, dips]]);
  expect(said(two(4, 14))).toEqual([[3, dips]]);
  expect(said(two(4, 16))).toEqual([]);
  expect(said(two(0, 12))).toEqual([]);
  expect(said(two(4, 12, 'spread'))).toEqual([]);
});

test('a fade that was asked for where a wheel of colours can only jump', () => {
  const show = edit(testShow(), {
    type: 'store-look',
    look: Look.parse({
      id: 'stars',
      number: 8,
      name: 'Stars',
      fadeIn: 2,
      fadeOut: 0,
      values: [
        { role: 'movers', level: { type: 'hold', value: 1 }, colour: { type: 'hold', value: { x: 0.15, y: 0.06 } } },
      ],
    }),
  }).show;
  const [base] = lookLanes(show.songs[0]!);
  const with_ = (more: object): Show => ({
    ...show,
    songs: [{ ...show.songs[0]!, lanes: [{ ...base!, clips: [clip('stars', 0, 120, more)] }] }],
  });
  expect(said(with_({}))).toEqual([]);
  expect(said(with_({ fadeIn: beats(4) }))).toEqual([
    [0, 'Stars fades in, but its colour wheel jumps: this lamp cannot fade it.'],
  ]);
});
