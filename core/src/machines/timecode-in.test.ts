// Songs go by timecode from outside: the one that begins at that time, through gaps, jumps and stops.

import { songTimeAt } from '../live';
import { testHost } from '../testing/gear-host';
import { testShow } from '../testing/show';
import { seconds } from '../units';
import { followMachines, type MachinesState } from '.';

let follows: 'nothing' | 'tempo' | 'songs';
let said: string | null;

const FRAMES = 25;

/** Two songs: the first begins at one o'clock, the other has no time of its own. */
function screen() {
  const show = testShow();
  const [song] = show.songs;
  const line = testHost({
    ...show,
    songs: [
      { ...song!, timecode: 3600 },
      { ...song!, id: 'other' as never },
    ],
  });
  let told: MachinesState = { clock: null, timecode: null };
  const hears = followMachines({
    host: line.host,
    ports: { sendTo: () => undefined },
    wishes: { follows: () => follows, sendsClock: () => false, say: (text) => void (said = text) },
    tell: (state) => void (told = { ...told, ...state }),
  });
  /** At a moment of Jest's own clock, in ms. */
  const bytes = (device: string, data: readonly number[], ms: number) => hears(device, data, seconds(ms / 1000));
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
  const where = () => line.state().song && songTimeAt(line.state().song!, line.now());
  return { ...line, told: () => told, bytes, pass, where, id: song!.id };
}

beforeEach(() => {
  jest.useFakeTimers();
  [follows, said] = ['songs', null];
});
afterEach(() => jest.useRealTimers());

test('the song that begins then plays, and is where the other machine is; a jump and a gap are followed, a stop stops it', () => {
  const { pass, where, state, told, id } = screen();
  pass(2000, 3605);
  expect(state().song).toMatchObject({ id, playing: true });
  expect(Math.abs(where()! - 7)).toBeLessThan(0.02);
  expect(told().timecode).toMatchObject({
    device: 'Rack',
    state: 'running',
    text: expect.stringMatching(/^01:00:0[67]$/),
    frames: 25,
  });
  pass(1000, 3630);
  expect(Math.abs(where()! - 31)).toBeLessThan(0.02);
  pass(500, null);
  expect(said).toBe('The timecode of Rack stopped coming. The song goes on.');
  expect(Math.abs(where()! - 31.5)).toBeLessThan(0.02);
  pass(2000, null);
  expect(state().song!.playing).toBe(false);
  expect(said).toBe('The timecode of Rack has stopped.');
  // Past its end nothing plays.
  pass(1500, 3659);
  expect(state().song!.playing).toBe(false);
});

test('a loop of ours gives way to it: the song goes on where the other machine does', () => {
  const { pass, where, state, host } = screen();
  pass(2000, 3600);
  host.act({ type: 'loop', loop: { from: seconds(1.5), to: seconds(2.4) } });
  pass(3000, 3602);
  expect(where()).toBeCloseTo(5, 1);
  expect(state().song).not.toHaveProperty('loop');
});

test('told to stand at a place, the light of that place is there; the chosen song begins at 0 where it has no time', () => {
  const { pass, bytes, where, state, id } = screen();
  bytes('Rack', [0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x21, 0, 12, 0, 0xf7], performance.now());
  pass(100, null);
  expect(state().song).toMatchObject({ id, playing: false, songTime: 12 });
  pass(1000, 3);
  expect(state().song).toMatchObject({ id, playing: false });
  const { acted } = screen();
  expect(acted).toEqual([]);
  expect(where()).toBe(12);
});

test('what sounds on a screen is left alone, and so is everything where songs shall not be led', () => {
  const { host, pass, state } = screen();
  host.act({ type: 'play', song: 'other' as never, from: seconds(1), sound: 'me' });
  pass(1000, 3605);
  expect(state().song).toMatchObject({ id: 'other', playing: true });
  follows = 'tempo';
  const other = screen();
  other.pass(1000, 3605);
  expect(other.acted).toEqual([]);
  expect(other.told().timecode).toMatchObject({ state: 'running' });
});
