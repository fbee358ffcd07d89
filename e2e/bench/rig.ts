// What a large rig costs where hands are on it: a hundred lamps patched at once, and a drag on the plan of a slow phone.

import { fixtureLibrary, firstRun, lampsOf, roleFor } from '@hovlix/core/rig';
import { edit, type Show } from '@hovlix/core/show';
import { universe } from '@hovlix/core/units';
import { bigShow } from './big-show';
import { putOn } from './put-on';
import { startBrowser, startServer } from './served';

const PORT = 4783;
const SLOWER = 4;

/** Milliseconds for a hundred lamps more in a rig of 500: the free run found, made, and edited in. Median of nine. */
export function patchHundred(): number {
  const show = bigShow(10, 500);
  const rig = show.rigs[0]!;
  const profile = fixtureLibrary().find(({ model }) => model === 'LED PAR RGB')!;
  const times = Array.from({ length: 9 }, () => {
    const from = performance.now();
    const wanted = { profile, mode: profile.modes[0]!, count: 100, universe: universe(11) };
    const start = firstRun(rig, [...show.profiles, profile], wanted)!;
    const fixtures = [...lampsOf(rig, wanted, start, (n) => `new-${n}`)];
    const role = roleFor(rig, show.profiles, show.roles, profile, 'role');
    edit(show, { type: 'add-lamps', rig: rig.id, profile, fixtures, role });
    return performance.now() - from;
  });
  return times.sort((a, b) => a - b)[4]!;
}

export type Dragged = { readonly framesPerSecond: number; readonly slowest: number };

/** 500 lamps of 10 universes on the plan at phone size, the processor slowed four times: frames while one is dragged. */
export async function dragOnPlan(): Promise<Dragged> {
  const server = await startServer(PORT);
  const browser = await startBrowser();
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const show: Show = bigShow(10, 500);
  await page.goto(`http://localhost:${PORT}/rig`);
  await putOn(page, show);
  await page.reload();
  const lamp = page.getByRole('button', { name: `${show.rigs[0]!.fixtures[0]!.name} on the plan` });
  await lamp.waitFor();
  const box = (await lamp.boundingBox())!;
  const client = await page.context().newCDPSession(page);
  await client.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 10, y + 4);
  await page.waitForTimeout(1500);
  // As text: the names that tsx gives to functions do not exist in the page.
  const frames = page.evaluate<number[]>(`new Promise((resolve) => {
    const times = [];
    const began = performance.now();
    const tick = (now) => {
      times.push(now);
      if (now - began < 3000) requestAnimationFrame(tick);
      else resolve(times.slice(1).map((time, i) => time - times[i]));
    };
    requestAnimationFrame(tick);
  })`);
  for (let i = 0; i < 150; i++) await page.mouse.move(x + 40 + Math.sin(i / 8) * 60, y + Math.cos(i / 8) * 40);
  const gaps = await frames;
  await page.mouse.up();
  await browser.close();
  server.kill('SIGTERM');
  const spent = gaps.reduce((sum, gap) => sum + gap, 0);
  return { framesPerSecond: (gaps.length / spent) * 1000, slowest: Math.max(...gaps) };
}
