import type { LiveState } from '@hovlix/core/live';
import type { ActionLane, Deed } from '@hovlix/core/song';
import { beats, id, seconds } from '@hovlix/core/units';
import { testShow } from '../../../../core/src/testing/show';
import { passing } from './deeds';

const program = (n: number): Deed => ({ act: 'midi', message: { kind: 'program', channel: 1, program: n } });
const lane: ActionLane = {
  id: id('do'),
  name: 'Actions',
  type: 'actions',
  // At 120 a minute: 0, 1, 2 and 4 seconds.
  actions: [0, 2, 4, 8].map((at, n) => ({ id: id(`a${n}`), at: beats(at), does: program(n) })),
};
const song = { ...testShow().songs[0]!, lanes: [lane] };
/** The song plays since `since`, where it was started at a moment of the music. */
const plays = (from: number, since: number): LiveState['song'] => ({
  id: song.id,
  playing: true,
  songTime: seconds(from),
  at: seconds(since),
  rate: 1,
  since: seconds(since),
});
const told = (deeds: readonly Deed[]) =>
  deeds.map((deed) => (deed.act === 'midi' && deed.message.kind === 'program' ? deed.message.program : deed));

test('each is done once as it is passed; from where the song was started on', () => {
  const passed = passing();
  const live = plays(0, 100);
  const at = (time: number) => told(passed(song, live, seconds(100 + time)));
  expect([at(0.02), at(0.5), at(1.01), at(1.5), at(2.4)]).toEqual([[0], [], [1], [], [2]]);
});

test('what is jumped over is not done, what is jumped to is; paused, nothing is', () => {
  const passed = passing();
  expect(told(passed(song, plays(0.5, 10), seconds(10.1)))).toEqual([]);
  expect(told(passed(song, plays(2, 11), seconds(11.05)))).toEqual([2]);
  expect(told(passed(song, { ...plays(2, 11)!, playing: false }, seconds(13.5)))).toEqual([]);
  // Looked at again in the middle: what was before is over.
  expect(told(passed(song, plays(2, 11), seconds(14)))).toEqual([]);
});

test('a page that was busy for a while does what was passed meanwhile; one that slept does nothing late', () => {
  const passed = passing();
  const at = (time: number) => told(passed(song, plays(0, 100), seconds(100 + time)));
  expect([at(0.02), at(2.1), at(5.2)]).toEqual([[0], [1, 2], []]);
});

test('a clock that is set back a little does nothing twice', () => {
  const passed = passing();
  const live = plays(0, 0);
  expect(told(passed(song, live, seconds(0.02)))).toEqual([0]);
  expect(told(passed(song, live, seconds(1.005)))).toEqual([1]);
  const late = { ...live!, songTime: seconds(0.99), at: seconds(1.01) };
  expect(told(passed(song, late, seconds(1.01)))).toEqual([]);
  expect(told(passed(song, late, seconds(1.03)))).toEqual([]);
});

test('muted lanes do nothing', () => {
  expect(passing()({ ...song, lanes: [{ ...lane, muted: true }] }, plays(0, 0), seconds(0.1))).toEqual([]);
});
