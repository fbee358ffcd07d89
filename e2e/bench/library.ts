// A DJ's library: how long the pages with three hundred songs take, at phone size with the processor at a quarter.

import { readFileSync } from 'node:fs';
import { readBundle } from '@hovlix/core/files';
import type { Show } from '@hovlix/core/show';
import { putOn } from './put-on';
import { startBrowser, startServer } from './served';

const PORT = 4795;
const SONGS = 300;

type Note = (what: string, value: string, target: string) => void;

export async function benchLibrary(note: Note): Promise<void> {
  const demo = readBundle(
    new Uint8Array(readFileSync(new URL('../../demo/boathouse.hovlix', import.meta.url))),
    'demo',
  );
  if (!demo.ok) throw new Error('the demo does not open');
  const { show } = demo.value;
  const songs = Array.from({ length: SONGS }, (_, n) => ({
    ...show.songs[n % show.songs.length]!,
    id: `track-${n}` as Show['songs'][number]['id'],
    title: `Track ${n}`,
  }));
  const server = await startServer(PORT);
  const browser = await startBrowser();
  try {
    const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
    await page.goto(`http://localhost:${PORT}/gig`);
    await putOn(page, { ...show, songs, sets: [] });
    await page.getByRole('heading', { name: 'Track 0' }).waitFor();
    const client = await page.context().newCDPSession(page);
    await client.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    const took: number[] = [];
    for (let n = 0; n < 5; n++) {
      await page.getByRole('link', { name: 'Looks', exact: true }).click();
      await page.getByText('Harbour blue').first().waitFor();
      await page.waitForTimeout(1500);
      const from = performance.now();
      await page.getByRole('link', { name: 'Songs', exact: true }).click();
      await page.getByRole('button', { name: 'Open Track 3', exact: true }).waitFor();
      took.push(performance.now() - from);
      await page.waitForTimeout(1500);
    }
    took.sort((a, b) => a - b);
    note(
      `the list of ${SONGS} songs is there, phone size, processor at a quarter: median of five`,
      `${took[2]!.toFixed(0)} ms`,
      '<= 1000 ms',
    );
  } finally {
    await browser.close();
    server.kill();
  }
}
