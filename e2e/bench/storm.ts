// A gig under load: a thousand MIDI messages a second, and banks of pads that are turned without pause.

import { readFileSync } from 'node:fs';
import { readBundle } from '@hovlix/core/files';
import { Control } from '@hovlix/core/gig';
import { Bank, Look } from '@hovlix/core/light';
import type { LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { liveOf, putOn } from './put-on';
import { receiver, spacingOf, watchedHost } from './receiver';
import { startBrowser, startServer } from './served';

const PORT = 4785;
const WIRE = 6991;
const BANKS = 10;
const LOOKS_A_BANK = 20;
const A_SECOND = 1000;

export type Storm = {
  /** Packets of a universe in a second. */
  readonly perSecond: number;
  /** Milliseconds between packets, sorted, in the seconds in which the host took no time away. */
  readonly spacing: readonly number[];
  /** How many of them were left out because it did. */
  readonly robbed: number;
  /** Frames of the page in a second. */
  readonly pageFrames: number;
  /** How long the page's frames took, in ms, sorted. */
  readonly frames: readonly number[];
};

export type Storms = { readonly midi: Storm; readonly last: number; readonly stuck: number; readonly banks: Storm };

/** @param length of each storm, in seconds. @param stolen seconds the host has taken away so far. */
export async function storms(length: number, stolen: () => number): Promise<Storms> {
  const node = await receiver(WIRE);
  const server = await startServer(PORT, '--to', `sacn:127.0.0.1:${WIRE}`);
  const browser = await startBrowser();
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await page.addInitScript(`
    const input = { name: 'Board', onmidimessage: null };
    navigator.requestMIDIAccess = async () => ({ inputs: new Map([['a', input]]), outputs: new Map(), onstatechange: null });
    window.board = (bytes) => input.onmidimessage && input.onmidimessage({ data: Uint8Array.from(bytes), timeStamp: performance.now() });
    localStorage.setItem('hovlix-habits-1', '{"midi":true}');
  `);
  await page.goto(`http://localhost:${PORT}/gig`);
  await putOn(page, show());
  await page.reload();
  await page.getByRole('group', { name: 'Pads' }).waitFor();
  await page.waitForTimeout(1500);

  const measured = async (begin: string, end: string): Promise<Storm> => {
    const from = node.heard.length;
    await page.evaluate(FRAMES);
    const host = watchedHost(stolen);
    await page.evaluate(begin);
    await page.waitForTimeout(length * 1000);
    await page.evaluate(end);
    const robbed = host();
    const frames = (await page.evaluate('window.frames_()')) as number[];
    const spacing = spacingOf(node.heard.slice(from), robbed);
    return {
      perSecond: spacing.perSecond,
      spacing: sorted(spacing.quiet),
      robbed: spacing.robbed,
      frames: sorted(frames),
      pageFrames: frames.length / length,
    };
  };
  // Knobs and pads of a board in turn; what a knob says last, and each pad let go, must count.
  const midi = await measured(
    `window.n = 0; window.storm = setInterval(() => {
      for (let k = 0; k < ${A_SECOND / 100}; k++, n++)
        board(n % 10 === 0 ? [0x90, 36, 100] : n % 10 === 5 ? [0x80, 36, 0] : [0xb0, 7, n % 128]);
    }, 10)`,
    `clearInterval(window.storm); board([0x80, 36, 0]); board([0xb0, 7, 64])`,
  );
  await page.waitForTimeout(600);
  const live: LiveState = await liveOf(page);
  const banks = await measured(
    `window.storm = setInterval(() => { board([0xb0, 20, 127]); board([0xb0, 20, 0]); }, 250)`,
    `clearInterval(window.storm)`,
  );
  await browser.close();
  server.kill('SIGTERM');
  node.close();
  return { midi, last: live.master.to, stuck: live.standing.filter(({ on }) => on).length, banks };
}

/** Counts the page's frames from now on; as text, as for all that runs in the page. */
const FRAMES = `(() => {
  const all = []; let before = performance.now(); let on = true;
  const next = (at) => { all.push(at - before); before = at; if (on) requestAnimationFrame(next); };
  requestAnimationFrame(next);
  window.frames_ = () => { on = false; return all.slice(1); };
})()`;

const sorted = (all: readonly number[]): readonly number[] => [...all].sort((a, b) => a - b);

/** The demo with ten banks of twenty looks of their own, a pad that flashes, a knob on the master, and a switch to the next bank. */
function show(): Show {
  const bundle = readBundle(
    new Uint8Array(readFileSync(new URL('../../demo/boathouse.hovlix', import.meta.url))),
    'demo',
  );
  if (!bundle.ok) throw new Error('The demo cannot be read');
  const { looks } = bundle.value.show;
  const more = Array.from({ length: BANKS * LOOKS_A_BANK }, (_, i) =>
    Look.parse({ ...looks[i % looks.length]!, id: `look-${i}`, number: 100 + i, name: `Look ${i + 1}` }),
  );
  const banks = Array.from({ length: BANKS }, (_, b) =>
    Bank.parse({
      id: `bank-${b}`,
      name: `Bank ${b + 1}`,
      pads: Array.from({ length: LOOKS_A_BANK }, (_, k) => ({ look: `look-${b * LOOKS_A_BANK + k}` })),
    }),
  );
  const on = (id: string, source: object, act: object) =>
    Control.parse({ kind: 'switch', id, name: id, source, does: { press: [act] } });
  const any = { device: null, channel: null };
  const controls = [
    on('pad', { by: 'note', ...any, number: 36 }, { act: 'look', look: 'harbour-blue', press: 'flash' }),
    on('next', { by: 'control', ...any, number: 20 }, { act: 'turn-bank', way: 'next' }),
    Control.parse({
      kind: 'fader',
      id: 'knob',
      name: 'Knob',
      source: { by: 'control', ...any, number: 7 },
      turns: { turn: 'master', role: null },
      soft: false,
    }),
  ];
  return { ...bundle.value.show, looks: [...looks, ...more], banks, controls };
}
