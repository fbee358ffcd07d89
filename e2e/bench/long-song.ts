// A ten-minute song as full as a song gets: 3,000 clips, 20,000 notes, 200 curves, in a rig of 20 lamps.

import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { atOnce, compile, compiler, frameFor, render } from '@hovlix/core/engine';
import { drumKit } from '@hovlix/core/light';
import { playedAlone } from '@hovlix/core/live';
import { edit, legal, type Show } from '@hovlix/core/show';
import type { CurveLane, HitLane, Lane, LookLane } from '@hovlix/core/song';
import { beats, id, seconds } from '@hovlix/core/units';
import { ownWire } from '../specs/servers';
import { bigShow } from './big-show';
import { putOn } from './put-on';

type Note = (what: string, value: string, target: string) => void;

const BEATS = 1200;

export function longSong(): Show {
  const base = bigShow(1, 20, { waves: 4, lanes: 1 });
  const [song] = base.songs;
  const kit = drumKit(
    'Drums',
    base.roles[0]!.id,
    (() =>
      (
        (n) => () =>
          `k${n++}`
      )(0))(),
  );
  const looks = Array.from({ length: 6 }, (_, l): LookLane => ({
    id: id(`looks-${l}`),
    name: `Looks ${l}`,
    type: 'looks',
    blend: 'highest',
    clips: Array.from({ length: 500 }, (_, i) => ({
      id: id<'Clip'>(`${l}-${i}`),
      look: base.looks[(i + l) % base.looks.length]!.id,
      from: beats(i * 2.4),
      to: beats(i * 2.4 + 2.4),
    })),
  }));
  const hits = Array.from({ length: 4 }, (_, l): HitLane => ({
    id: id(`hits-${l}`),
    name: `Hits ${l}`,
    type: 'hits',
    kit: kit.id,
    role: base.roles[l % base.roles.length]!.id,
    notes: Array.from({ length: 5000 }, (_, i) => ({
      id: id<'Note'>(`${l}-${i}`),
      at: beats(i * 0.24),
      length: beats(0.1),
      note: [36, 38, 42][i % 3]!,
      velocity: 0.8,
    })),
  }));
  const curves = Array.from({ length: 200 }, (_, c): CurveLane => ({
    id: id(`curve-${c}`),
    name: `Curve ${c}`,
    type: 'curve',
    blend: 'scale',
    target: { on: 'role', role: base.roles[c % base.roles.length]!.id, attribute: 'level' },
    points: Array.from({ length: 20 }, (_, i) => ({
      id: id<'Point'>(`${c}-${i}`),
      at: beats(i * 60),
      value: 0.9 + (i % 2) / 10,
      shape: 'smooth' as const,
    })),
  }));
  const lanes: Lane[] = [...looks, ...hits, ...curves];
  const tempo = {
    anchors: [
      { beat: beats(0), time: seconds(0) },
      { beat: beats(BEATS), time: seconds(600) },
    ],
  };
  const sections = Array.from({ length: 20 }, (_, i) => ({
    id: id<'Section'>(`s${i}`),
    bar: i * 15,
    name: `Part ${i + 1}`,
    note: '',
    tint: i % 8,
  }));
  return {
    ...base,
    kits: [kit],
    safety: { on: true, most: 3 },
    songs: [{ ...song!, duration: seconds(600), tempo, sections, lanes }],
  };
}

const middle = (times: number[]): number => times.sort((a, b) => a - b)[times.length >> 1]!;
const timed = (work: () => void): number => {
  const from = performance.now();
  work();
  return performance.now() - from;
};

/** The engine's part: a frame anywhere in the song, and an edit of one note to a program. */
export function benchLongSong(note: Note): void {
  const show = longSong();
  const program = compile(show);
  const frame = frameFor(program);
  const state = playedAlone(show.songs[0]!.id);
  const times = Array.from({ length: 600 }, (_, n) =>
    timed(() => render(program, state, seconds((n * 37) % 600), frame)),
  );
  note(
    'frame of a song with 3,000 clips, 20,000 notes, 200 curves: median, anywhere in it',
    `${middle(times).toFixed(2)} ms`,
    '',
  );
  const compiling = compiler();
  atOnce(compiling(show));
  const known = new WeakSet<object>();
  legal(show, known);
  let now = show;
  const edits = Array.from({ length: 15 }, (_, n) =>
    timed(() => {
      const moved = { id: id<'Note'>('0-10'), at: beats(2 + n / 10), length: beats(0.1), note: 36, velocity: 0.5 };
      now = edit(now, { type: 'put-notes', song: now.songs[0]!.id, lane: id('hits-0'), notes: [moved] }).show;
      legal(now, known);
      atOnce(compiling(now));
    }),
  );
  note('a note moved in it, to a program that can be rendered', `${middle(edits).toFixed(1)} ms`, '<= 50 ms');
}

/** The page's part, at phone size with the processor slowed to a quarter: opening, scrolling, playing. */
export async function benchLeadSheet(note: Note): Promise<void> {
  const home = mkdtempSync(join(tmpdir(), 'hovlix-bench-'));
  const port = 4778;
  ownWire(home, port);
  const show = longSong();
  const server = spawn(process.execPath, ['server/bin/hovlix.mjs', 'serve', '--port', String(port), '--home', home]);
  await new Promise<void>((resolve) => server.stdout.once('data', () => resolve()));
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage'],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
    await page.goto(`http://localhost:${port}/songs`);
    await putOn(page, show);
    const card = page.getByText(show.songs[0]!.title).first();
    await card.waitFor();
    const client = await page.context().newCDPSession(page);
    await client.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    const from = performance.now();
    await page.goto(`http://localhost:${port}/songs/${show.songs[0]!.id}`);
    await page.getByRole('button', { name: 'Bar 1', exact: true }).waitFor();
    note(
      'that song opens, page and all, phone size, processor at a quarter',
      `${((performance.now() - from) / 1000).toFixed(1)} s`,
      '<= 1.5 s',
    );
    await toList(page);
    for (const which of ['from the list of songs', 'the second time from there']) {
      note(
        `the same ${which}, from the press to its bars on the screen`,
        `${((await openedFromList(page, show.songs[0]!.title)) / 1000).toFixed(1)} s`,
        '<= 1.5 s',
      );
      if (which === 'from the list of songs') await toList(page);
    }
    await page.waitForTimeout(4000);
    note('scrolling it', `${(await scrolled(page)).toFixed(0)} frames/s`, '>= 50');
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await page.waitForTimeout(1500);
    note('playing it', `${(await framesIn(page, 4000)).toFixed(0)} frames/s`, '>= 50');
  } finally {
    await browser.close();
    server.kill();
  }
}

async function toList(page: Page): Promise<void> {
  await page.waitForTimeout(2000);
  await page.getByRole('button', { name: 'All songs' }).click();
  await page.getByRole('heading', { name: 'Songs' }).waitFor();
  await page.waitForTimeout(2000);
}

/** Presses a song in the list; in ms from the press to the frame that shows its first bar, by the page's own clock. */
async function openedFromList(page: Page, title: string): Promise<number> {
  const taken = page.evaluate<number>(`new Promise((resolve) => {
    let pressed = 0;
    addEventListener('pointerdown', ({ timeStamp }) => (pressed = timeStamp), { once: true, capture: true });
    const look = (at) => {
      if (pressed && document.querySelector('[aria-label="Bar 1"]')) requestAnimationFrame((then) => resolve(then - pressed));
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  })`);
  await page.getByRole('button', { name: `Open ${title}` }).click();
  return taken;
}

/** As text: the names that tsx gives to functions do not exist in the page. */
const framesIn = (page: Page, ms: number): Promise<number> =>
  page.evaluate<number>(`new Promise((resolve) => {
    const begun = performance.now();
    let frames = 0;
    const step = (at) => {
      frames++;
      if (at - begun < ${ms}) requestAnimationFrame(step);
      else resolve((frames / (at - begun)) * 1000);
    };
    requestAnimationFrame(step);
  })`);

async function scrolled(page: Page): Promise<number> {
  await page.mouse.move(195, 500);
  const frames = framesIn(page, 4000);
  for (let n = 0; n < 40; n++) {
    await page.mouse.wheel(0, 120);
    await page.waitForTimeout(90);
  }
  return frames;
}
