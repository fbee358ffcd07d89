// What is kept of a night: what was on, and all that was pressed.

import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  AT_REST,
  conductor,
  leftAs,
  readLog,
  reduced,
  songTimeAt,
  type Action,
  type LiveState,
} from '@hovlix/core/live';
import type { Running } from '@hovlix/core/conduct';
import { envelopesOf, writeEnvelopes } from '@hovlix/core/music';
import { id, seconds } from '@hovlix/core/units';
import { testShow } from '../../../core/src/testing/show';
import { soundStore } from '../sounds';
import { until } from '../testing/wait';
import { eveningLog } from './evening-log';
import { night } from './night';
import { runningCopy } from './running';
import { troubles } from './troubles';

const file = (name: string) => join(mkdtempSync(join(tmpdir(), 'hovlix-keep-')), name);
const fail = (why: string | null) => {
  if (why) throw new Error(why);
};
const played: Action[] = [
  { type: 'play', song: id('song'), from: seconds(10) },
  { type: 'look-on', look: id('red'), fade: seconds(2) },
  { type: 'pad', press: 'flash', down: true, look: id('held'), fade: seconds(0), fadeOut: seconds(0) },
  { type: 'master', level: 0.4 },
  { type: 'blackout', on: true, fade: seconds(1) },
];
/** What was pressed by a moment of the machine's clock, and the entries that say so. */
function pressed(actions: readonly Action[], at: number, from: LiveState = AT_REST) {
  const live = conductor(() => seconds(at), from);
  const entries = actions.map((action) => live.submit('me', action));
  return { state: live.state(), entries };
}

describe('what is on', () => {
  const path = file('night.json');
  const kept = (ago: number, clock: number) => {
    const { state } = pressed(played, 1000);
    writeFileSync(path, JSON.stringify({ at: 1005, wall: Date.now() - ago * 1000, state, phones: true }));
    return { state, read: night(path, () => seconds(clock), fail, fail).read() };
  };

  test('after a short break it goes on by the same clock: the song has gone on meanwhile', () => {
    const { state, read } = kept(3, 1008);
    expect(read).toEqual({ state, phones: true, goesOn: true });
  });

  test.each([
    ['a longer break', 600, 1605],
    ['the machine was started anew', 60, 12],
  ])('after %s all is as it was left, and nobody holds anything', (_, ago, clock) => {
    const { state, read } = kept(ago, clock);
    expect(read!.goesOn).toBe(false);
    const left = read!.state;
    expect(left.song).toMatchObject({ id: 'song', playing: false, songTime: songTimeAt(state.song!, seconds(1005)) });
    expect(left.standing.map(({ look, on }) => [look, on])).toEqual([['red', true]]);
    expect([left.master.to, left.blackout.on, left.seq]).toEqual([0.4, true, state.seq]);
  });

  test('half a day later a new night begins; what cannot be read is said', () => {
    expect(kept(13 * 3600, 50_000).read).toBeUndefined();
    writeFileSync(path, '{"at":');
    const said: string[] = [];
    expect(
      night(
        path,
        () => seconds(1),
        fail,
        (why) => said.push(why),
      ).read(),
    ).toBeUndefined();
    expect(said).toEqual([expect.stringContaining('cannot be read')]);
  });

  test('what cannot be written is tried again until it can', async () => {
    const place = file('in-the-way');
    const path = join(place, 'night.json');
    writeFileSync(place, 'no folder');
    const said: (string | null)[] = [];
    const kept = night(
      path,
      () => seconds(5),
      (why) => said.push(why),
      fail,
    );
    kept.keep(() => ({ state: AT_REST, phones: true }));
    await until(() => said.at(-1)?.includes('a file is in its place'));
    rmSync(place);
    await until(() => said.at(-1) === null);
    expect(kept.read()).toEqual({ state: AT_REST, phones: true, goesOn: true });
  }, 20_000);
});

describe('the show that is on', () => {
  const running = (name: string): Running => ({ show: { ...testShow(), name }, chain: [name] });

  test('stopped while one edit is being written, the one after it is what is kept', async () => {
    const path = file('show.json');
    const copy = runningCopy(path, fail, fail);
    copy.keep(running('first'));
    // It is on its way to the disk when the next one comes, and the end: timers of one length go off in their order.
    await new Promise((resolve) => setTimeout(resolve, 500));
    copy.keep(running('second'));
    copy.close();
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(runningCopy(path, fail, fail).read()).toEqual(running('second'));
  });

  test('one that cannot be read is set aside and told; it is still told after the next was written', async () => {
    const path = file('show.json');
    writeFileSync(path, '{"chain":["a"],"show":{"looks":7}}');
    const wrong = troubles(() => undefined);
    const copy = runningCopy(path, (why) => wrong.say('show', why), wrong.tell);
    expect(copy.read()).toBeUndefined();
    copy.keep(running('next'));
    await until(() => existsSync(path));
    expect(wrong.list()).toEqual([expect.stringContaining(`set aside as ${path}.bad`)]);
    expect(readFileSync(`${path}.bad`, 'utf8')).toContain('"looks":7');
  });
});

test('a trouble is said until it is over; what cannot be put right, for a quarter of an hour', () => {
  let wall = 0;
  const heard: string[] = [];
  const wrong = troubles(
    (why) => heard.push(why),
    () => wall,
  );
  wrong.say('disk', 'full');
  wrong.say('disk', 'full');
  wrong.tell('lost');
  expect(wrong.list()).toEqual(['full', 'lost']);
  wrong.say('disk', null);
  wall = 14 * 60_000;
  expect(wrong.list()).toEqual(['lost']);
  wall = 16 * 60_000;
  expect(wrong.list()).toEqual([]);
  expect(heard).toEqual(['full', 'lost']);
});

test('sounds that cannot be written are known all the same, as many as there is room for', async () => {
  const heard: string[] = [];
  const put = (folder: string, n: number) => {
    const store = soundStore(folder, (sounds) => heard.push(...sounds.map(({ hash }) => hash)));
    for (let i = 0; i < n; i++) expect(store.put(`song-${i}`, songSound)).toBeUndefined();
    return store;
  };
  const songSound = writeEnvelopes(envelopesOf(new Uint8Array(16 * 100)));
  const blocked = file('in-the-way');
  writeFileSync(blocked, 'no folder');
  const unwritten = put(blocked, 60);
  expect(unwritten.bytes('song-59')).toEqual(songSound);
  expect(unwritten.bytes('song-0')).toBeUndefined();
  expect([await unwritten.read('song-59'), await unwritten.read('song-0')]).toEqual([songSound, undefined]);
  const folder = join(file('sounds'));
  const written = put(folder, 60);
  expect(written.bytes('song-0')).toEqual(songSound);
  // Half of a file is as good as none.
  writeFileSync(join(folder, 'song-1.envelopes'), songSound.subarray(0, 100));
  expect(written.bytes('song-1')).toBeUndefined();
  expect(await written.read('song-1')).toBeUndefined();
  expect(await written.read('song-2')).toEqual(songSound);
  // They lie on the disk, and not in memory as well.
  rmSync(folder, { recursive: true });
  expect(heard).toHaveLength(120);
  expect(put(folder, 0).bytes('song-0')).toBeUndefined();
});

describe('the log', () => {
  const written = (path: string) => {
    const read = readLog(readFileSync(path, 'utf8'), path);
    if (!read.ok) throw new Error(JSON.stringify(read.problem));
    return read.value;
  };
  const writeAll = (
    path: string,
    actions: readonly Action[],
    from: LiveState,
    most?: number,
    goesOn = true,
  ): LiveState => {
    const log = eveningLog(path, fail, most);
    log.open(from, goesOn);
    const live = conductor(() => seconds(from.seq + 1000), from);
    for (const action of actions) log.write(live.submit('me', action), live.state());
    return live.state();
  };

  test('goes on where it was left off, and knows what was kept nowhere else', () => {
    const path = file('evening.log');
    const before = writeAll(path, played, AT_REST);
    const after = writeAll(path, [{ type: 'tap' }], before);
    const { begin, entries } = written(path);
    expect([begin, entries.length]).toEqual([AT_REST, played.length + 1]);
    expect(entries.reduce(reduced, begin)).toEqual(after);
    expect(eveningLog(path, fail).after(before)).toEqual(entries.slice(-1));
    expect(existsSync(`${path}.1`)).toBe(false);
  });

  test('is cut by its size into pieces that each say what was on before', () => {
    const path = file('evening.log');
    const faders = Array.from({ length: 200 }, (_, i): Action => ({ type: 'master', level: i / 200 }));
    const end = writeAll(path, faders, AT_REST, 8000);
    const [older, newer] = [written(`${path}.1`), written(path)];
    expect(older.entries.reduce(reduced, older.begin)).toEqual(newer.begin);
    expect(newer.entries.reduce(reduced, newer.begin)).toEqual(end);
  });

  test('a line that was cut off, and a night that it does not follow, begin a new piece', () => {
    const path = file('evening.log');
    const before = writeAll(path, played, AT_REST);
    writeFileSync(path, readFileSync(path, 'utf8').slice(0, -5));
    writeAll(path, [{ type: 'tap' }], before);
    expect(written(path).begin).toEqual(before);
    writeAll(path, [{ type: 'tap' }], AT_REST);
    expect(written(path)).toMatchObject({ begin: { seq: 0 }, entries: [{ seq: 1 }] });
  });

  test('a computer that was started anew has another clock: what is pressed then is a piece of its own', () => {
    const path = file('evening.log');
    const evening = writeAll(path, played, AT_REST);
    const left = leftAs(evening, seconds(1005), seconds(3));
    writeAll(path, [{ type: 'tap' }], left, undefined, false);
    expect(written(path)).toMatchObject({ begin: left, entries: [{ seq: left.seq + 1 }] });
    expect(written(`${path}.1`).entries).toHaveLength(played.length);
  });
});
