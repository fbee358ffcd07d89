// What several specs do with the interface.

import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { WebSocket } from 'ws';
import { readBundle } from '@hovlix/core/files';
import { NO_MIDI, NO_OSC, NO_TIMETABLE, type NodeUniverse, type Status } from '@hovlix/core/connect';
import { PROTOCOL, type LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { firstOutput, firstPlayer } from './servers';

/** All that the server says of its connections. */
export async function statusOf(page: Page): Promise<Status> {
  return (await page.request.get('/api/status')).json();
}

/** What the DMX node stand-in says of universe 1, or another stand-in of what it hears; its levels are those of now. */
export async function nodeReport(page: Page, protocol: NodeUniverse['protocol'] = 'sacn', universe = 1) {
  const status = await statusOf(page);
  const report = status.node!.universes.find((one) => one.universe === universe && one.protocol === protocol)!;
  if (!report || protocol === 'serial') return report;
  const last = (await framesSince(page, steadyNow() - 0.2, protocol, universe)).at(-1);
  return last ? { ...report, levels: last.levels } : report;
}

/** The computer's steady clock in seconds, the same in all its processes. */
export const steadyNow = () => Number(process.hrtime.bigint()) / 1e9;

type PastFrame = { readonly at: number; readonly levels: readonly number[] };

async function framesSince(
  page: Page,
  since: number,
  protocol: NodeUniverse['protocol'] = 'sacn',
  universe = 1,
): Promise<readonly PastFrame[]> {
  const asked = { universe, protocol, since };
  return (await page.request.get('/api/node/frames', { params: asked })).json();
}

/** Writes to the conductor as one more screen, and ends when all of it is done. The page is left, so that it has no part in it. */
async function tellConductor(page: Page, messages: readonly object[], afterConnections?: object): Promise<void> {
  await page.goto('about:blank');
  await asOneMoreScreen(messages, afterConnections);
}

/** Somebody does something on another screen, which goes again; what it holds stays held. */
export const actElsewhere = (action: object): Promise<void> => asOneMoreScreen([{ type: 'act', action }]);

async function asOneMoreScreen(messages: readonly object[], afterConnections?: object): Promise<void> {
  const { host } = new URL(test.info().project.use.baseURL!);
  const socket = new WebSocket(`ws://${host}/conductor`);
  const say = (message: object) => socket.send(JSON.stringify(message));
  await new Promise<void>((resolve, reject) => {
    socket.onerror = ({ message }) => reject(new Error(`The conductor does not answer: ${message}`));
    socket.onopen = () =>
      say({ type: 'hello', protocol: PROTOCOL, screen: `spec-${Math.random()}`.slice(0, 40), show: null });
    let begun = false;
    socket.onmessage = ({ data }) => {
      const message = JSON.parse(String(data)) as {
        type: string;
        why?: string;
        connections?: Record<string, unknown>;
      };
      if (message.type === 'connections' && !begun) {
        begun = true;
        for (const one of messages) say(one);
        if (afterConnections) {
          const ops = Object.entries(afterConnections).map(([key, to]) => ({
            op: 'set',
            path: [key],
            from: message.connections![key],
            to,
          }));
          say({ type: 'connections-edit', command: { type: 'adjust', ops } });
        }
        // The answer to a ping comes after what was sent before it.
        say({ type: 'ping', sent: 0 });
      }
      if (message.type === 'pong') resolve();
      if (message.type === 'refused' || message.type === 'refused-edit') reject(new Error(`Refused: ${message.why}`));
    };
  });
  socket.close();
}

/** What is on, as the conductor tells whoever joins. */
export async function liveNow(): Promise<LiveState> {
  const { host } = new URL(test.info().project.use.baseURL!);
  const socket = new WebSocket(`ws://${host}/conductor`);
  const state = await new Promise<LiveState>((resolve, reject) => {
    socket.onerror = ({ message }) => reject(new Error(`The conductor does not answer: ${message}`));
    socket.onopen = () =>
      socket.send(JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: `look-${Math.random()}`, show: null }));
    socket.onmessage = ({ data }) => {
      const message = JSON.parse(String(data)) as { type: string; state?: LiveState };
      if (message.type === 'welcome') resolve(message.state!);
    };
  });
  socket.close();
  return state;
}

/** The port of the server that these specs share, where its wires are its own. */
function ownPort(): number | undefined {
  const port = Number(new URL(test.info().project.use.baseURL!).port);
  return process.env['HOVLIX_SPECS'] === 'calm' ? port : undefined;
}

/** Brings the outputs and inputs back to what a new computer has, and ends every test, hand and song. */
export async function restoreConnections(page: Page): Promise<void> {
  const actions = [
    { type: 'end-test' },
    { type: 'free-channels', universe: null },
    { type: 'release', fade: 0 },
    { type: 'all-off', fade: 0 },
    { type: 'master', level: 1 },
    { type: 'speed', rate: 1 },
    { type: 'tempo', bpm: 120 },
    { type: 'choose', roles: [] },
    { type: 'fade-times', factor: 1 },
    { type: 'open-song', song: null, from: 0 },
    { type: 'sending', on: true },
    { type: 'blackout', on: false, fade: 0 },
    { type: 'freeze', on: false, fade: 0 },
  ];
  await tellConductor(
    page,
    [
      ...actions.map((action) => ({ type: 'act', action })),
      { type: 'connections-edit', command: { type: 'set-player', player: firstPlayer(ownPort()) } },
      { type: 'connections-edit', command: { type: 'set-midi', midi: NO_MIDI } },
      { type: 'connections-edit', command: { type: 'set-osc', osc: NO_OSC } },
      { type: 'connections-edit', command: { type: 'set-timetable', timetable: NO_TIMETABLE } },
    ],
    { outputs: [firstOutput(ownPort())], inputs: [], seen: [1] },
  );
}

let shipped: Show | undefined;

/** The demo's show, as it ships. */
export function demoShow(): Show {
  if (shipped) return shipped;
  const demo = readBundle(
    new Uint8Array(readFileSync(new URL('../../demo/boathouse.hovlix', import.meta.url))),
    'demo',
  );
  if (!demo.ok) throw new Error('The demo cannot be read');
  return (shipped = demo.value.show);
}

let restored = 0;

/** Brings the demo back as it ships, or a little changed, for the server and so for every screen that comes after. */
export async function restoreShow(page: Page, change: (show: Show) => Show = (show) => show): Promise<void> {
  const show = JSON.parse(JSON.stringify(change(demoShow()))) as object;
  await tellConductor(page, [{ type: 'put-on', show, chain: [`restored-${Date.now()}-${++restored}`] }]);
}

export const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' });

export const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true });

/** Adds an act to what a gesture does, in the open sheet of a control or a pad. */
export async function addAct(page: Page, gesture: string, typed: string, act: string): Promise<void> {
  await button(page, `Add to ${gesture}`).click();
  await page.getByLabel('Find an action').fill(typed);
  await page.getByRole('group', { name: 'Actions' }).getByRole('button', { name: act, exact: true }).click();
}

/** Binds a key to an act, on the page of pedals. */
export async function bindKey(page: Page, key: string, typed: string, act: string): Promise<void> {
  await button(page, 'Add a switch or key').click();
  await button(page, 'Learn').click();
  await page.keyboard.press(key);
  await addAct(page, 'Press', typed, act);
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
}

/** Types a figure beside a fader. */
export async function typed(page: Page, label: string, value: string): Promise<void> {
  await page.getByRole('textbox', { name: `${label}, typed`, exact: true }).fill(value);
  await page.keyboard.press('Enter');
}

/** How bright the demo's washes are: the dimmers of those in front, and the colours of those behind. */
export const brightness = (levels: readonly number[]): number =>
  [0, 6, 12, 18].reduce((sum, at) => sum + levels[at]!, 0) +
  levels.slice(24, 36).reduce((sum, level) => sum + level, 0);

/** How bright the first universe is now, and the back wash in it. */
export const light = async (page: Page): Promise<number> => brightness((await nodeReport(page)).levels);
export const back = async (page: Page): Promise<number> =>
  (await nodeReport(page)).levels.slice(24, 36).reduce((sum, level) => sum + level, 0);

export type Heard = {
  /** Seconds since one began to listen. */
  readonly at: number;
  /** The machine's steady clock, the same in all processes: the conductor's, too. */
  readonly when: number;
  readonly levels: readonly number[];
};

/**
 * What the node hears of universe 1 for some seconds, up to six: every frame, with the moment it came.
 * @param meanwhile what is done as it listens.
 */
export async function listen(page: Page, seconds: number, meanwhile?: () => Promise<void>): Promise<readonly Heard[]> {
  const begun = steadyNow();
  await Promise.all([page.waitForTimeout(seconds * 1000), meanwhile?.()]);
  return (await framesSince(page, begun)).map(({ at, levels }) => ({ at: at - begun, when: at, levels }));
}

const LONGEST_LISTENING_S = 60;

/**
 * What the node hears until something is so, a minute at most: for what takes longer where a busy machine plays slower
 * than it should.
 */
export async function listenUntil(
  page: Page,
  isSo: (heard: readonly Heard[]) => boolean | Promise<boolean>,
): Promise<readonly Heard[]> {
  const begun = steadyNow();
  const heard: Heard[] = [];
  do {
    await page.waitForTimeout(100);
    const since = heard.at(-1)?.when ?? begun;
    const came = (await framesSince(page, since)).filter(({ at }) => at > since);
    heard.push(...came.map(({ at, levels }) => ({ at: at - begun, when: at, levels })));
    if (await isSo(heard)) return heard;
  } while (steadyNow() - begun < LONGEST_LISTENING_S);
  return heard;
}

/** Light is settled when it was the same for so long; what was just pressed has time to come. */
const STILL_S = 0.35;
const COMES_S = 0.55;

/** What the node hears once light no longer changes. */
export async function settledLight(page: Page): Promise<readonly number[]> {
  const begun = steadyNow();
  let last: readonly number[] = [];
  await expect
    .poll(
      async () => {
        const now = steadyNow();
        const heard = (await framesSince(page, Math.max(begun, now - STILL_S))).map(({ levels }) => levels);
        last = heard.at(-1) ?? [];
        return now - begun >= COMES_S && new Set(heard.map(String)).size === 1;
      },
      { message: 'the light comes to rest', intervals: [COMES_S * 1000, 80] },
    )
    .toBe(true);
  return last;
}

/** Seconds from each time that something begins to the next, by when the node received it. */
export function gaps(heard: readonly Heard[], is: (levels: readonly number[]) => boolean): readonly number[] {
  const begins = heard.filter(({ levels }, i) => i > 0 && is(levels) && !is(heard[i - 1]!.levels));
  return begins.slice(1).map(({ at }, i) => at - begins[i]!.at);
}

/** Of several seconds the middle one: one frame that came late, or an end that was cut off, does not move it. */
export const middle = (all: readonly number[]): number => [...all].sort((a, b) => a - b)[all.length >> 1]!;

export const usualGap = (heard: readonly Heard[], is: (levels: readonly number[]) => boolean): number =>
  middle(gaps(heard, is));

/**
 * The sine of one period, in seconds, that lies nearest to a value (least squares, so that a part of a period does no
 * harm). @returns how much of the value it is, 0…1, and its phase in turns.
 */
export function waveIn(heard: readonly Heard[], value: (levels: readonly number[]) => number, period: number) {
  const rows = heard.map(({ at, levels }) => {
    const angle = (2 * Math.PI * (at - heard[0]!.at)) / period;
    return { one: 1, cos: Math.cos(angle), sin: Math.sin(angle), value: value(levels) };
  });
  type Part = keyof (typeof rows)[number];
  const sum = (a: Part, b: Part) => rows.reduce((all, row) => all + row[a] * row[b], 0);
  const n = rows.length;
  // The mean is taken out of all three, then two equations remain.
  const about = (a: Part, b: Part) => sum(a, b) - (sum(a, 'one') * sum(b, 'one')) / n;
  const [cc, ss, cs, vc, vs] = [
    about('cos', 'cos'),
    about('sin', 'sin'),
    about('cos', 'sin'),
    about('value', 'cos'),
    about('value', 'sin'),
  ];
  const det = cc * ss - cs * cs;
  const [cos, sin] = [(vc * ss - vs * cs) / det, (vs * cc - vc * cs) / det];
  return { power: (cos * vc + sin * vs) / about('value', 'value'), phase: Math.atan2(sin, cos) / (2 * Math.PI) };
}

/** Opens a place and waits until the show and the conductor are there. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await expect(page.getByTestId('health')).toHaveText(/sending|browser only/);
}

/** How bright the stage picture is, on average, 0…255. */
export function stageBrightness(page: Page): Promise<number> {
  return page.getByTestId('stage').evaluate((canvas: HTMLCanvasElement) => {
    // A worker paints it: the page can only copy what is seen.
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    const context = copy.getContext('2d')!;
    context.drawImage(canvas, 0, 0);
    const { data } = context.getImageData(0, 0, copy.width, copy.height);
    let sum = 0;
    for (let i = 0; i < data.length; i += 4) sum += (data[i]! + data[i + 1]! + data[i + 2]!) / 3;
    return sum / (data.length / 4);
  });
}

export async function lookIs(page: Page, name: string, on: boolean): Promise<void> {
  await expect(page.getByRole('button', { name: new RegExp(`^${name}, ${on ? 'on' : 'off'}$`) })).toBeVisible();
}

/** A drum-like click track as WAV bytes: `bpm` in 4/4, the first of four lower and louder. */
export function clickTrack({ bpm = 100, seconds = 24, rate = 22050, channels = 1 } = {}): Buffer {
  const frames = rate * seconds;
  const bytes = Buffer.alloc(44 + frames * 2 * channels);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(bytes.length - 8, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(channels, 22);
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(rate * 2 * channels, 28);
  bytes.writeUInt16LE(2 * channels, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(frames * 2 * channels, 40);
  const period = 60 / bpm;
  for (let i = 0; i < frames; i++) {
    const since = (i / rate) % period;
    const first = Math.floor(i / rate / period) % 4 === 0;
    const value = Math.sin(2 * Math.PI * (first ? 80 : 700) * since) * Math.exp(-since * 35) * (first ? 30000 : 14000);
    for (let c = 0; c < channels; c++) bytes.writeInt16LE(Math.round(value), 44 + (i * channels + c) * 2);
  }
  return bytes;
}

/** Chooses a file for “Add music”, as the file dialog would. */
export async function bring(page: Page, name: string, buffer: Buffer): Promise<void> {
  await page.getByLabel('Add music').setInputFiles(onDisk(name, buffer));
}

let folder: string | undefined;

/** A file that lies on the disk until all specs are done: handed over as bytes, a large one takes seconds. @returns its path. */
export function onDisk(name: string, bytes: Buffer): string {
  if (!folder) {
    const made = (folder = mkdtempSync(join(tmpdir(), 'hovlix-files-')));
    process.once('exit', () => rmSync(made, { recursive: true, force: true }));
  }
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

const PRESSED =
  'button, a[href], input, select, textarea, [role="button"], [role="switch"], [role="tab"], [role="slider"]';

/** What can be pressed and is smaller than a thumb, by its name and size. */
export async function tooSmall(page: Page): Promise<readonly string[]> {
  const sizes = await page.locator(PRESSED).evaluateAll((all) =>
    all.flatMap((one) => {
      const { width, height } = one.getBoundingClientRect();
      const { visibility, pointerEvents, opacity } = getComputedStyle(one);
      // The input behind a button that opens files is no bigger than a dot.
      const isThere = width > 2 && height > 2 && visibility !== 'hidden' && pointerEvents !== 'none' && opacity !== '0';
      return isThere ? [{ name: one.getAttribute('aria-label') ?? one.textContent, width, height }] : [];
    }),
  );
  expect(sizes.length).toBeGreaterThan(0);
  return sizes
    .filter(({ width, height }) => width < 43.5 || height < 43.5)
    .map(({ name, width, height }) => `${name?.slice(0, 60)}: ${Math.round(width)} x ${Math.round(height)}`);
}
