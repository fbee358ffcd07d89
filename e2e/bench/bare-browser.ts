// A browser that nobody watches. A driver listens to what a page's scripts say, and for that the browser writes down the
// place of every error that is made: it reads a whole bundle anew for it, which no phone of a user does.

import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import WebSocket from 'ws';
import { BROWSER } from './served';

type Told = { readonly id?: number; readonly method?: string; readonly params?: unknown; readonly result?: unknown };

export type BarePage = {
  /** Sends one command of the Chrome DevTools Protocol and gives its answer. */
  command(method: string, params?: object): Promise<unknown>;
  /** Calls back for each event of that name. */
  on(event: string, hear: (params: unknown) => void): void;
};

export type BareBrowser = { readonly page: BarePage; close(): Promise<void> };

/** A fresh browser with a folder of its own, as a phone's has: a private window would keep nothing that it compiled. */
export async function bareBrowser(width: number, height: number): Promise<BareBrowser> {
  const folder = mkdtempSync(join(tmpdir(), 'hovlix-bench-'));
  const options = [
    '--headless',
    '--remote-debugging-port=0',
    `--user-data-dir=${folder}`,
    `--window-size=${width},${height}`,
  ];
  const browser = spawn(BROWSER.executablePath, [...BROWSER.args, ...options, 'about:blank'], {
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  const address = await new Promise<string>((resolve, reject) => {
    let said = '';
    browser.stderr.on('data', (text: Buffer) => {
      said += text.toString();
      const found = /DevTools listening on (ws:\S+)/.exec(said);
      if (found) resolve(found[1]!);
    });
    browser.once('exit', () => reject(new Error(`the browser ended: ${said}`)));
  });
  const line = new WebSocket(address, { perMessageDeflate: false });
  await new Promise((resolve, reject) => line.once('open', resolve).once('error', reject));
  let sent = 0;
  const asked = new Map<number, (result: unknown) => void>();
  const heard = new Map<string, (params: unknown) => void>();
  line.on('message', (text: Buffer) => {
    const { id, method, params, result } = JSON.parse(text.toString()) as Told;
    if (id !== undefined) asked.get(id)?.(result);
    else if (method !== undefined) heard.get(method)?.(params);
  });
  const send = (method: string, params: object, sessionId?: string) =>
    new Promise<unknown>((resolve) => {
      asked.set(++sent, resolve);
      line.send(JSON.stringify({ id: sent, method, params, sessionId }));
    });
  const { targetInfos } = (await send('Target.getTargets', {})) as {
    targetInfos: { targetId: string; type: string }[];
  };
  const { targetId } = targetInfos.find(({ type }) => type === 'page')!;
  const { sessionId } = (await send('Target.attachToTarget', { targetId, flatten: true })) as { sessionId: string };
  return {
    page: {
      command: (method, params = {}) => send(method, params, sessionId),
      on: (event, hear) => void heard.set(event, hear),
    },
    async close() {
      const gone = new Promise((resolve) => browser.once('exit', resolve));
      void send('Browser.close', {});
      await gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
