// Light by the clock, over restarts, sleep and edits.

import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TimedEvent } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { testHost } from '../../../core/src/testing/gear-host';
import { testShow } from '../../../core/src/testing/show';
import { connectionsStore } from '../connect/store';
import { followTimetable, wallNow, type Timetable } from './timetable';

const wallAt = (text: string) => Date.parse(`${text}Z`) / 1000;
const look = (name: string, press: string) => ({ act: 'look', look: name, press });
const event = (of: object) => TimedEvent.parse({ id: 'foyer', name: 'Foyer', day: '2026-12-04', ...of });
const FOYER = event({
  time: '18:00:00',
  length: 3600,
  begins: [look('red', 'start')],
  ends: [look('red', 'stop')],
});
const BELL = event({ id: 'bell', name: 'Bell', time: '18:30:00', begins: [{ act: 'tap' }] });

let folder = '';
const open: Timetable[] = [];
beforeEach(() => {
  jest.useFakeTimers();
  folder = mkdtempSync(join(tmpdir(), 'hovlix-timetable-'));
});
afterEach(() => {
  open.splice(0).forEach((one) => one.close());
  jest.useRealTimers();
  rmSync(folder, { recursive: true, force: true });
});

/** A computer that can be stopped and started again, and whose clock can be set. */
function computer(begun: string, ...events: readonly TimedEvent[]) {
  let wall = wallAt(begun);
  let show: Show | undefined = { ...testShow(), events: [...events] };
  const stage = testHost(show);
  const connections = connectionsStore(undefined, () => undefined);
  const said: (string | null)[] = [];
  const start = () => {
    const one = followTimetable({
      connections,
      session: { shown: () => show },
      host: stage.host,
      wall: () => wall,
      file: join(folder, 'timetable.json'),
      say: (why) => void said.push(why),
    });
    open.push(one);
    return one;
  };
  let running = start();
  return {
    said,
    acted: stage.acted,
    on: stage.on,
    report: () => running.report(),
    follow: (on = true) => void connections.edit({ type: 'set-timetable', timetable: { on } }),
    put(...next: readonly TimedEvent[]) {
      show = { ...testShow(), events: [...next] };
      stage.put(show);
    },
    openShow: (next: Show | undefined) => void (show = next),
    /** Time goes by. */
    until(text: string) {
      for (; wall < wallAt(text); wall += 0.2) jest.advanceTimersByTime(200);
      jest.advanceTimersByTime(200);
    },
    /** It is another time, at once: asleep, or set. */
    set(text: string) {
      wall = wallAt(text);
      jest.advanceTimersByTime(200);
    },
    restart(at: string) {
      running.close();
      wall = wallAt(at);
      running = start();
      jest.advanceTimersByTime(200);
    },
  };
}

test('nothing is done until it is wanted; then an event begins and ends by the clock, and the report says so', () => {
  const me = computer('2026-12-04T17:58:00', FOYER, BELL);
  me.until('2026-12-04T17:59:00');
  expect([me.report(), me.on()]).toEqual([null, []]);
  me.follow();
  expect(me.report()).toMatchObject({ on: [], last: null, next: { name: 'Foyer', what: 'begins', time: '18:00:00' } });
  me.until('2026-12-04T17:59:59');
  expect(me.on()).toEqual([]);
  me.until('2026-12-04T18:00:00');
  expect(me.on()).toEqual(['red']);
  expect(me.report()).toMatchObject({
    on: ['Foyer'],
    last: { name: 'Foyer', what: 'begins', did: 'Red' },
    next: { name: 'Bell', what: 'begins', day: '2026-12-04', time: '18:30:00' },
  });
  me.until('2026-12-04T18:31:00');
  expect(me.acted.filter(({ type }) => type === 'tap')).toHaveLength(1);
  me.until('2026-12-04T19:00:00');
  expect(me.on()).toEqual([]);
  expect(me.report()).toMatchObject({ on: [], next: null, missed: [] });
});

test('turned on in the middle of an event, it is on; a show that is opened then as well', () => {
  const me = computer('2026-12-04T18:20:00', FOYER, BELL);
  me.follow();
  expect(me.on()).toEqual(['red']);
  me.openShow({
    ...testShow(),
    id: 'other' as Show['id'],
    events: [event({ ...FOYER, begins: [look('kept', 'start')] })],
  });
  me.until('2026-12-04T18:20:05');
  expect(me.on()).toContain('kept');
  me.openShow(undefined);
  me.until('2026-12-04T18:20:10');
  expect(me.report()?.next).toMatchObject({ what: 'ends' });
});

test('after a power cut what is still on begins, what is over ends, and nothing is done twice', () => {
  const me = computer('2026-12-04T17:00:00', FOYER, BELL);
  me.follow();
  me.restart('2026-12-04T18:45:00');
  expect(me.on()).toEqual(['red']);
  expect(me.report()?.missed).toEqual(['Bell']);
  const before = me.acted.length;
  me.restart('2026-12-04T18:46:00');
  expect(me.acted.length).toBe(before);
  me.restart('2026-12-04T23:00:00');
  expect(me.on()).toEqual([]);
  // A day later nobody needs to know any more.
  me.put(BELL);
  me.restart('2026-12-05T18:00:00');
  me.put(event({ ...BELL, weekly: { days: [6] } }));
  me.until('2026-12-05T18:00:05');
  me.set('2026-12-05T19:00:00');
  expect(me.report()?.missed).toEqual(['Bell']);
  me.set('2026-12-06T18:31:00');
  expect(me.report()?.missed).toEqual([]);
});

test('a look that two events want stays until the second ends', () => {
  const long = event({ ...FOYER, id: 'long', time: '18:30:00', length: 7200 });
  const after = event({ ...FOYER, id: 'after', time: '20:30:00' });
  const me = computer('2026-12-04T17:59:00', FOYER, long, after);
  me.follow();
  me.until('2026-12-04T19:10:00');
  expect([me.on(), me.report()?.last]).toEqual([['red'], expect.objectContaining({ what: 'ends', did: '' })]);
  // One that follows at once as well.
  me.until('2026-12-04T20:30:00');
  expect(me.on()).toEqual(['red']);
  me.until('2026-12-04T21:30:00');
  expect(me.on()).toEqual([]);
});

test('an event that overlaps itself keeps its look until the last of it ends', () => {
  const days = event({ ...FOYER, length: 30 * 3600, weekly: { days: [5, 6] } });
  const me = computer('2026-12-04T17:59:00', days);
  me.follow();
  me.set('2026-12-04T18:00:00');
  me.set('2026-12-05T18:00:00');
  me.set('2026-12-06T00:00:00');
  expect(me.on()).toEqual(['red']);
  me.set('2026-12-07T00:00:00');
  expect(me.on()).toEqual([]);
});

test('a computer that slept takes up what is still on; an hour that comes twice does nothing twice', () => {
  const me = computer('2026-12-04T17:59:50', FOYER, BELL);
  me.follow();
  me.set('2026-12-04T18:45:00');
  expect([me.on(), me.report()?.missed]).toEqual([['red'], ['Bell']]);
  const { length } = me.acted;
  me.set('2026-12-04T17:59:00');
  me.until('2026-12-04T18:44:00');
  expect(me.acted.length).toBe(length);
  me.until('2026-12-04T19:00:00');
  expect(me.on()).toEqual([]);
});

test('a clock that was wrong by days counts from where it is set to', () => {
  const me = computer('2026-12-09T12:00:00', FOYER);
  me.follow();
  me.set('2026-12-04T17:50:00');
  me.until('2026-12-04T18:00:00');
  expect(me.on()).toEqual(['red']);
});

describe('edits while the clock runs', () => {
  test('an event that is on by now begins once it was left alone, its light follows what is changed, and taken out it ends', () => {
    const me = computer('2026-12-04T18:10:00', BELL);
    me.follow();
    me.put(BELL, { ...FOYER, begins: [], ends: [] });
    me.until('2026-12-04T18:10:05');
    expect([me.on(), me.report()?.on]).toEqual([[], ['Foyer']]);
    me.put(BELL, FOYER);
    me.until('2026-12-04T18:10:06');
    expect(me.on()).toEqual([]);
    me.until('2026-12-04T18:10:08');
    expect(me.on()).toEqual(['red']);
    me.put(BELL, {
      ...FOYER,
      begins: [...FOYER.begins, ...event({ time: '18:00:00', begins: [look('kept', 'start')] }).begins],
    });
    me.until('2026-12-04T18:10:12');
    expect(me.on().toSorted()).toEqual(['kept', 'red']);
    me.put(BELL, { ...FOYER, begins: event({ time: '18:00:00', begins: [look('kept', 'start')] }).begins });
    me.until('2026-12-04T18:10:16');
    expect(me.on()).toEqual(['kept']);
    me.put(BELL, FOYER);
    me.until('2026-12-04T18:10:20');
    me.put(BELL);
    me.until('2026-12-04T18:10:24');
    expect([me.on(), me.report()?.on]).toEqual([[], []]);
  });

  test('a name, and times passed on the way to another, change no light', () => {
    const me = computer('2026-12-04T17:00:00', BELL);
    me.follow();
    me.put(FOYER);
    me.until('2026-12-04T18:00:01');
    expect(me.on()).toEqual(['red']);
    const { length } = me.acted;
    me.put(event({ ...FOYER, name: 'Hall' }));
    me.until('2026-12-04T18:00:05');
    for (const time of ['02:00:00', '21:00:00', '17:59:00']) {
      me.put(event({ ...FOYER, time }));
      me.set(`2026-12-04T18:00:0${time === '02:00:00' ? 6 : 7}`);
    }
    me.until('2026-12-04T18:00:15');
    expect(me.acted.length).toBe(length);
  });

  test('what only begins is done once: when it is moved, renamed as it rings, or brought in a moment before', () => {
    const me = computer('2026-12-04T18:00:00', BELL);
    const taps = () => me.acted.filter(({ type }) => type === 'tap').length;
    me.follow();
    me.until('2026-12-04T18:30:00');
    expect(taps()).toBe(1);
    me.put(event({ ...BELL, name: 'Gong' }));
    me.until('2026-12-04T18:30:10');
    expect(taps()).toBe(1);
    me.put(event({ ...BELL, time: '18:30:11' }));
    me.until('2026-12-04T18:30:20');
    expect(taps()).toBe(2);
    me.put();
    me.until('2026-12-04T18:30:25');
    me.put(event({ ...BELL, time: '18:40:00' }));
    me.until('2026-12-04T18:30:30');
    me.put();
    me.until('2026-12-04T18:41:00');
    expect(taps()).toBe(2);
    me.follow(false);
    expect(me.report()).toBeNull();
  });
});

test('a file that cannot be read is none; one that cannot be written is said, and light goes on', () => {
  writeFileSync(join(folder, 'timetable.json'), '{"wall":');
  const me = computer('2026-12-04T18:20:00', FOYER);
  me.follow();
  me.restart('2026-12-04T18:21:00');
  expect(me.on()).toEqual(['red']);
  rmSync(folder, { recursive: true });
  writeFileSync(folder, 'a file in its place');
  me.put(FOYER, BELL);
  me.until('2026-12-04T18:30:01');
  expect(me.said.at(-1)).toMatch(/^How far the timetable was followed is not kept: .+\.$/);
  expect(me.acted.at(-1)).toMatchObject({ type: 'tap' });
});

test('the clock on the wall is that of this computer', () => {
  jest.useRealTimers();
  const now = new Date();
  const today = new Date(wallNow() * 1000);
  expect([today.getUTCHours(), today.getUTCDate()]).toEqual([now.getHours(), now.getDate()]);
});
