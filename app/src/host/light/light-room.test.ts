import { LAMP_STRIDE } from '@hovlix/core/engine';
import { LookValue } from '@hovlix/core/light';
import type { Entry } from '@hovlix/core/live';
import { envelopesOf, LOUDNESS_BANDS, writeEnvelopes } from '@hovlix/core/music';
import { edit } from '@hovlix/core/show';
import { id, seconds } from '@hovlix/core/units';
import { lookId, songId, testShow } from '../../../../core/src/testing/show';
import type { FromLight, ToLight } from './light-messages';
import { lightRoom } from './light-room';

/** A room with a clock that the test moves, and everything it has said. */
function room() {
  const clock = { now: 100 };
  const said: FromLight[] = [];
  /** What the stage was told of light, and whether anybody looks at it. */
  const stage = { lit: 0, open: false };
  const made = lightRoom(
    () => clock.now,
    (message) => said.push(message),
    {
      hear: ({ type }) => (stage.open = type === 'stage'),
      open: () => stage.open,
      take: () => undefined,
      lit: () => stage.lit++,
    },
  );
  const hear = (...messages: ToLight[]) => messages.forEach(made.hear);
  const answers = () => said.flatMap((message) => (message.type === 'answer' ? [message.value] : []));
  const frames = () => said.filter((message) => message.type === 'frame').length;
  return { clock, said, hear, answers, frames, stage, frame: made.frame };
}

const entry = (action: Entry['action']): ToLight => ({
  type: 'entry',
  entry: { seq: 1, at: seconds(100), who: 'me', action },
});
const lookOn = entry({ type: 'look-on', look: lookId('red'), fade: seconds(0) });

test('an edit changes the light, and the page hears of lamps only where they are others', () => {
  const { hear, said, answers } = room();
  const heads = () => said.filter(({ type }) => type === 'heads').length;
  const before = testShow();
  hear({ type: 'show', show: before });
  const { show, ops } = edit(before, { type: 'remove-look', look: lookId('red') });
  hear({ type: 'picture', id: 1, look: 'red' }, { type: 'edit', ops }, { type: 'picture', id: 2, look: 'red' });
  const [lit, dark] = answers() as Float32Array[];
  expect([lit![0]! > 0.5, dark![0]]).toEqual([true, 0]);
  expect(heads()).toBe(1);
  hear({ type: 'edit', ops: edit(show, { type: 'remove-lamps', rig: id('room'), fixtures: [id('a')] }).ops });
  expect(heads()).toBe(2);
});

test('what followers hear counts for what is asked right after it', () => {
  const { hear, answers } = room();
  const hash = 'ab'.repeat(32);
  const before = testShow();
  const [song] = before.songs;
  const music = { hash, name: 'song.ogg', type: 'ogg' as const, bytes: 5 };
  const follower = { type: 'follow', on: 'level', low: 0, high: 1, hears: { band: 'all' }, attack: 0, release: 0 };
  const values = [LookValue.parse({ role: 'wash', followers: [follower] })];
  const looks = before.looks.map((look) => (look.id === lookId('red') ? { ...look, values } : look));
  hear({ type: 'show', show: { ...before, looks, songs: [{ ...song!, music }] } });
  const ribbon = { type: 'ribbon' as const, song: song!.id, roles: ['wash'], times: [1] };
  const loud = writeEnvelopes(envelopesOf(new Uint8Array(2000 * LOUDNESS_BANDS).fill(250)));
  hear({ ...ribbon, id: 1 }, { type: 'sound', hash, bytes: loud }, { ...ribbon, id: 2 });
  const [silent, lit] = (answers() as Uint8ClampedArray[]).map((pixels) => Math.max(...pixels.subarray(0, 3)));
  expect(silent).toBeLessThan(20);
  expect(lit).toBeGreaterThan(100);
});

test('a show that is not open is drawn in its first look, and the one that is stays as it is', () => {
  const { hear, said, frame, frames } = room();
  hear({ type: 'show', show: testShow() }, { type: 'frames', on: true });
  frame();
  const other = { ...testShow(), id: id<'Show'>('other'), rig: id<'Rig'>('hall') };
  hear({ type: 'portrait', id: 7, show: other });
  const portrait = said.find((message) => message.type === 'portrait')!;
  expect(portrait).toMatchObject({ id: 7, heads: [{}] });
  frame();
  expect(frames()).toBe(1);
});

test('the stage is lit without the page: new light once, and what is on again for whoever comes to look', () => {
  const { hear, frame, frames, stage } = room();
  hear({ type: 'show', show: testShow() });
  frame();
  expect(stage.lit).toBe(0);
  hear({ type: 'stage', surface: 1 });
  frame();
  frame();
  expect([stage.lit, frames()]).toEqual([1, 0]);
  hear(lookOn);
  frame();
  expect(stage.lit).toBe(2);
  hear({ type: 'stage-off', surface: 1 }, { type: 'stage', surface: 2 });
  frame();
  expect(stage.lit).toBe(3);
});

test('a page that gave no array back is owed the frame, and the stage does not wait for it', () => {
  const { hear, frame, frames, stage, said } = room();
  hear({ type: 'show', show: testShow() }, { type: 'stage', surface: 1 }, { type: 'frames', on: true });
  for (const look of ['red', 'blue', 'red', 'blue', 'red']) {
    hear(entry({ type: 'look-on', look: lookId(look), fade: seconds(0) }));
    frame();
    hear(entry({ type: 'look-off', look: lookId(look), fade: seconds(0) }));
    frame();
  }
  expect(frames()).toBe(3);
  expect(stage.lit).toBeGreaterThan(5);
  const { lamps } = said.find((message) => message.type === 'frame')!;
  hear({ type: 'spent', lamps });
  frame();
  expect(frames()).toBe(4);
});

test('a frame is given when the light has changed, and not again while it stays', () => {
  const { hear, frame, frames, clock } = room();
  hear({ type: 'show', show: testShow() });
  frame();
  expect(frames()).toBe(0);
  hear({ type: 'frames', on: true });
  frame();
  frame();
  expect(frames()).toBe(1);
  hear(lookOn);
  clock.now += 0.1;
  frame();
  frame();
  expect(frames()).toBe(2);
  // All arrays are out: the next one has to wait until the page gives one back.
  hear({ type: 'frames', on: true });
  frame();
  hear({ type: 'frames', on: true });
  frame();
  expect(frames()).toBe(3);
  hear({ type: 'spent', lamps: new Float32Array(6 * LAMP_STRIDE) });
  frame();
  expect(frames()).toBe(4);
});

test('heads tell the page what to draw: a bar has one for each cell', () => {
  const { hear, said } = room();
  hear({ type: 'show', show: testShow() });
  const heads = said.flatMap((message) => (message.type === 'heads' ? [...message.heads] : []));
  expect(heads.map(({ fixture, cell, cells }) => [fixture, cell, cells])).toEqual([
    ['a', 0, 1],
    ['b', 0, 1],
    ['s', 0, 1],
    ['c', 0, 2],
    ['c', 1, 2],
    ['idle', 0, 1],
  ]);
});

test('a picture of a look does not touch what is on stage', () => {
  const { hear, answers } = room();
  hear(
    { type: 'show', show: testShow() },
    { type: 'picture', id: 1, look: 'red' },
    { type: 'explain', id: 2, fixture: 'a', when: 'now' },
  );
  const [picture, why] = answers();
  expect((picture as Float32Array)[0]).toBeGreaterThan(0.5);
  expect(why).toMatchObject({ level: 0, dark: ['no-level-set'] });
});

test('a ribbon of a song, and why a lamp shines while it plays', () => {
  const { hear, answers, clock } = room();
  hear(
    { type: 'show', show: testShow() },
    { type: 'ribbon', id: 1, song: 'song', roles: ['wash'], times: [3, 20] },
    entry({ type: 'play', song: songId, from: seconds(2) }),
  );
  clock.now += 1;
  hear({ type: 'explain', id: 2, fixture: 'a', when: 'now' });
  const [pixels, why] = answers();
  expect((pixels as Uint8ClampedArray)[0]).toBeGreaterThan(200);
  expect((pixels as Uint8ClampedArray)[4]).toBe(0);
  expect(why).toMatchObject({ level: 1, contributions: [{ source: 'lane Looks: Red' }, {}] });
});

test('why a lamp would shine at a moment of a song that is not on', () => {
  const { hear, answers } = room();
  const asked = (n: number, time: number): ToLight => ({
    type: 'explain',
    id: n,
    fixture: 'a',
    when: { song: 'song', time },
  });
  hear({ type: 'show', show: testShow() }, lookOn, asked(1, 2), asked(2, 13), asked(3, 61));
  expect(answers()).toMatchObject([
    { level: 1, contributions: [{ source: 'lane Looks: Red' }, {}] },
    { level: 0, dark: ['level-0'] },
    { level: 0, dark: ['no-level-set'] },
  ]);
});

test('asked before there is a show, it answers that it has nothing', () => {
  const { hear, answers } = room();
  hear({ type: 'picture', id: 1, look: 'red' });
  expect(answers()).toEqual([null]);
});

test('another program’s light is in the picture while it comes, and gone half a second after the last of it', () => {
  const { hear, frame, said, clock } = room();
  hear({ type: 'show', show: testShow() }, { type: 'frames', on: true });
  frame();
  const last = () => said.filter((message) => message.type === 'frame').at(-1)!.lamps;
  const dark = Array.from(last());
  const levels = new Uint8Array(512);
  levels.fill(255, 0, 5);
  hear({ type: 'theirs', universe: 1, levels });
  frame();
  expect(Array.from(last())).not.toEqual(dark);
  // Universes that no lamp of the rig hangs on change nothing.
  hear({ type: 'theirs', universe: 77, levels });
  clock.now += 0.6;
  hear({ type: 'frames', on: true });
  frame();
  expect(Array.from(last())).toEqual(dark);
});

test('while nobody looks there is no next frame, until something is heard', () => {
  const { hear, frame } = room();
  hear({ type: 'show', show: testShow() });
  expect(frame()).toBe(false);
  hear({ type: 'stage', surface: 1 });
  expect([frame(), frame()]).toEqual([true, true]);
  hear({ type: 'stage-off', surface: 1 });
  expect(frame()).toBe(false);
  hear({ type: 'frames', on: true });
  expect(frame()).toBe(true);
});
