// From a press to the first packet that is another: pads, keys, MIDI and pedals in the real page, measured at a receiver.

import { createSocket } from 'node:dgram';
import { readFileSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import type { Page } from '@playwright/test';
import { readBundle } from '@hovlix/core/files';
import { Control } from '@hovlix/core/gig';
import { Bank } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { encodeOsc } from '@hovlix/core/wire';
import { putOn } from './put-on';
import { listenToOsc } from './osc';
import { startBrowser, startServer } from './served';

const PORT = 4784;
const WIRE = 6990;
const OSC_PORT = 9084;
/**
 * The receiver, in a thread of its own: what drives the page is busy now and then. Levels begin after 126 bytes (E1.31,
 * table 4-1); the demo's back wash are 24 to 35 of them.
 */
const RECEIVER = `
  const { parentPort, workerData } = require('node:worker_threads');
  const socket = require('node:dgram').createSocket('udp4');
  socket.on('message', (packet) => {
    const at = performance.timeOrigin + performance.now();
    parentPort.postMessage({ at, back: packet.subarray(126 + 24, 126 + 36).reduce((sum, level) => sum + level, 0) });
  });
  socket.bind(workerData, '127.0.0.1');
`;

export type Pressed = { readonly what: string; readonly times: readonly number[] };

/** Milliseconds of each press, sorted. Flash safety is on, as in a new show. @param presses of each kind. */
export async function pressed(presses: number): Promise<readonly Pressed[]> {
  const receiver = new Worker(RECEIVER, { eval: true, workerData: WIRE });
  const heard: { readonly at: number; readonly back: number }[] = [];
  receiver.on('message', (packet: (typeof heard)[number]) => heard.push(packet));
  const server = await startServer(PORT, '--to', `sacn:127.0.0.1:${WIRE}`);
  await listenToOsc(PORT, OSC_PORT);
  const browser = await startBrowser();
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await page.addInitScript(`
    const input = { name: 'Board', onmidimessage: null };
    navigator.requestMIDIAccess = async () => ({ inputs: new Map([['a', input]]), outputs: new Map(), onstatechange: null });
    window.board = (bytes) => input.onmidimessage && input.onmidimessage({ data: Uint8Array.from(bytes) });
    localStorage.setItem('hovlix-habits-1', '{"midi":true}');
  `);
  await page.goto(`http://localhost:${PORT}/gig`);
  await putOn(page, show());
  await page.reload();
  await page.getByRole('group', { name: 'Pads' }).waitFor();
  const all: Pressed[] = [];
  for (const [what, press] of KINDS) all.push({ what, times: await timed(page, heard, presses, press) });
  await browser.close();
  server.kill('SIGTERM');
  await receiver.terminate();
  return all;
}

const key = (type: string, code: string, of: string) =>
  `window.dispatchEvent(new KeyboardEvent('${type}', { code: '${code}', key: '${of}', bubbles: true, cancelable: true }))`;

type Press = {
  /** @returns when the page had it, in ms since 1970. */
  readonly down: (page: Page) => Promise<number>;
  readonly up: (page: Page) => Promise<unknown>;
};

/** As text for the page. */
const told = (down: string, up: string): Press => ({
  down: (page) =>
    page.evaluate<number>(`(() => { const at = performance.timeOrigin + performance.now(); ${down}; return at; })()`),
  up: (page) => page.evaluate(up),
});

/** With a mouse, as only that can be captured by what it presses. */
const PAD: Press = {
  async down(page) {
    await page.evaluate(
      `window.addEventListener('pointerdown', ({ timeStamp }) => (window.pressed = performance.timeOrigin + timeStamp), { once: true, capture: true })`,
    );
    await page.locator('[aria-label^="Harbour blue, key 1"]').hover();
    await page.mouse.down();
    return page.evaluate<number>('window.pressed');
  },
  up: (page) => page.mouse.up(),
};

/** From another program on this computer. */
const tablet = createSocket('udp4').unref();
const osc = (value: number) =>
  new Promise<number>((resolve) => {
    const at = performance.timeOrigin + performance.now();
    tablet.send(encodeOsc('/tablet/1', 'f', [value]), OSC_PORT, '127.0.0.1', () => resolve(at));
  });

const KINDS = [
  ['pad', PAD],
  ['key', told(key('keydown', 'Digit1', '1'), key('keyup', 'Digit1', '1'))],
  ['MIDI note', told('window.board([0x90, 36, 127])', 'window.board([0x90, 36, 0])')],
  ['OSC message', { down: () => osc(1), up: () => osc(0) }],
  ['pedal', told(key('keydown', 'F8', 'F8'), key('keyup', 'F8', 'F8'))],
] as const;

/** The demo, with a pad, a note and a pedal that flash the same look. */
function show(): Show {
  const bundle = readBundle(
    new Uint8Array(readFileSync(new URL('../../demo/boathouse.hovlix', import.meta.url))),
    'demo',
  );
  if (!bundle.ok) throw new Error('The demo cannot be read');
  const flash = { press: [{ act: 'look', look: 'harbour-blue', press: 'flash' }] };
  const on = (id: string, source: object) => Control.parse({ kind: 'switch', id, name: id, source, does: flash });
  return {
    ...bundle.value.show,
    banks: [Bank.parse({ id: 'bench', name: 'Bench', pads: [{ look: 'harbour-blue', press: 'flash' }] })],
    controls: [
      on('note', { by: 'note', device: null, channel: null, number: 36 }),
      on('osc', { by: 'osc', address: '/tablet/1' }),
      on('pedal', { by: 'key', code: 'F8' }),
    ],
  };
}

async function timed(
  page: Page,
  heard: readonly { readonly at: number; readonly back: number }[],
  presses: number,
  { down, up }: Press,
): Promise<readonly number[]> {
  const times: number[] = [];
  for (let n = 0; n < presses; n++) {
    const begun = await down(page);
    await page.waitForTimeout(200);
    await up(page);
    const first = heard.find(({ at, back }) => at > begun && back > 0);
    if (first) times.push(first.at - begun);
    // Apart from the frames, and no more often than flash safety lets through.
    await page.waitForTimeout(230 + ((n * 37) % 100));
  }
  if (times.length < presses / 2) throw new Error(`Of ${presses} presses only ${times.length} gave light`);
  return times.sort((a, b) => a - b);
}
