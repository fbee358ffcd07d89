// Songs go by timecode from outside: the one that begins at that time, through gaps, jumps and stops.

import { songTimeAt } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import { testShow } from '../../../../core/src/testing/show';
import { bareScreen, type Bytes } from '../../testing/screen';
import { useSession } from '../session';
import { clockIn } from './clock-in';
import { timecodeIn } from './timecode-in';

const FRAMES = 25;

/** Two songs: the first begins at one o'clock, the other has no time of its own. */
function screen() {
  const show = testShow();
  const [song] = show.songs;
  const line = bareScreen({
    ...show,
    songs: [
      { ...song!, timecode: 3600 },
      { ...song!, id: 'other' as never },
    ],
  });
  const takers: Bytes[] = [];
  const midi = { onBytes: (take: never) => void takers.push(take) };
  const { store, leads } = timecodeIn(line.stage, midi as never);
  clockIn(line.stage, midi as never, leads);
  const bytes: Bytes = (...all) => takers.forEach((take) => take(...all));
  /** Time passes in ms while a machine tells its time from a second of the day on; null is silent. */
  const pass = (length: number, from: number | null) => {
    let due = performance.now();
    let quarter = 0;
    const end = due + length;
    while (performance.now() < end - 1e-9) {
      jest.advanceTimersByTime(1);
      for (; from !== null && due <= performance.now(); due += 250 / FRAMES, quarter++) {
        const frame = Math.round(from * FRAMES) + Math.floor(quarter / 8) * 2;
        const second = Math.floor(frame / FRAMES);
        const [f, s, m, h] = [frame % FRAMES, second % 60, Math.floor(second / 60) % 60, Math.floor(second / 3600)];
        const piece = [f & 15, f >> 4, s & 15, s >> 4, m & 15, m >> 4, h & 15, (h >> 4) | 2][quarter % 8]!;
        bytes('Rack', [0xf1, ((quarter % 8) << 4) | piece], due);
      }
    }
  };
  const place = () => line.state().song && songTimeAt(line.state().song!, line.now());
  return { ...line, store, bytes, pass, place, id: song!.id };
}

beforeEach(() => {
  jest.useFakeTimers();
  useSession.setState({ follows: 'songs', said: null });
});
afterEach(() => jest.useRealTimers());

test('the song that begins then plays, and is where the other machine is; a jump and a gap are followed, a stop stops it', () => {
  const { pass, place, state, store, id } = screen();
  pass(2000, 3605);
  expect(state().song).toMatchObject({ id, playing: true });
  expect(Math.abs(place()! - 7)).toBeLessThan(0.02);
  expect(store.getState().timecode).toMatchObject({
    device: 'Rack',
    state: 'running',
    text: expect.stringMatching(/^01:00:0[67]$/),
    frames: 25,
  });
  pass(1000, 3630);
  expect(Math.abs(place()! - 31)).toBeLessThan(0.02);
  pass(500, null);
  expect(useSession.getState().said?.text).toBe('The timecode of Rack fell silent. The song goes on.');
  expect(Math.abs(place()! - 31.5)).toBeLessThan(0.02);
  pass(2000, null);
  expect(state().song!.playing).toBe(false);
  expect(useSession.getState().said?.text).toBe('The timecode of Rack has stopped.');
  // Past its end nothing plays.
  pass(1500, 3659);
  expect(state().song!.playing).toBe(false);
});

test('told to stand at a place, the light of that place is there; the chosen song begins at 0 where it has no time', () => {
  const { pass, bytes, place, state, id } = screen();
  bytes('Rack', [0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x21, 0, 12, 0, 0xf7], performance.now());
  pass(100, null);
  expect(state().song).toMatchObject({ id, playing: false, songTime: 12 });
  pass(1000, 3);
  expect(state().song).toMatchObject({ id, playing: false });
  const { acted } = screen();
  expect(acted).toEqual([]);
  expect(place()).toBe(12);
});

test('what sounds on a screen is left alone, and so is everything where songs shall not be led', () => {
  const { stage, pass, state } = screen();
  const { conducting } = stage as unknown as { conducting: { act: (action: object) => void } };
  conducting.act({ type: 'play', song: 'other', from: seconds(1), sound: 'me' });
  pass(1000, 3605);
  expect(state().song).toMatchObject({ id: 'other', playing: true });
  useSession.setState({ follows: 'tempo' });
  const other = screen();
  other.pass(1000, 3605);
  expect(other.acted).toEqual([]);
  expect(other.store.getState().timecode).toMatchObject({ state: 'running' });
});
