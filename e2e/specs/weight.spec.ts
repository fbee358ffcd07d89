import { readdirSync, readFileSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { nodeReport } from './hovlix';
import { expect, test } from './screens';

const app = fileURLToPath(new URL('../../app', import.meta.url));
const dist = join(app, 'dist');
/** Kilobytes over the wire; all of them in one file. */
const budget = JSON.parse(readFileSync(join(app, 'size-budget.json'), 'utf8')) as {
  readonly firstPlaceScript: number;
  readonly chunk: number;
  readonly worker: Readonly<Record<string, number>>;
  readonly everything: number;
};

test.use({ fresh: true });

const scripts = readdirSync(dist, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('.js'));
const packed = (file: string): number => {
  const smaller = [`${file}.br`, file].map((one) => statSync(join(dist, one), { throwIfNoEntry: false })?.size);
  return (smaller[0] ?? smaller[1]!) / 1000;
};

test('the first place loads no more script than the budget allows', async ({ page }) => {
  await page.goto('/songs');
  await expect(page.getByRole('button', { name: 'Open Night Ferry' })).toBeVisible();
  const loaded = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter((one) => one instanceof PerformanceResourceTiming)
      // The layout is asked for by the page itself; workers are counted by themselves.
      .filter(({ name, initiatorType }) => /\/_expo\/.*\.js$/.test(name) && ['script', 'link'].includes(initiatorType))
      .map(({ encodedBodySize }) => encodedBodySize),
  );
  const kilobytes = loaded.reduce((sum, bytes) => sum + bytes, 0) / 1000;
  expect(kilobytes).toBeGreaterThan(50);
  expect(kilobytes).toBeLessThanOrEqual(budget.firstPlaceScript);
});

test('a page at rest is awake a few times a second, and the light goes on', async ({ page }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { awake: number };
    counted.awake = 0;
    const { setInterval, requestAnimationFrame } = window;
    window.requestAnimationFrame = (draw) => requestAnimationFrame((at) => (counted.awake++, draw(at)));
    window.setInterval = ((look: () => void, ms: number) =>
      setInterval(() => (counted.awake++, look()), ms)) as typeof window.setInterval;
  });
  const awake = () => page.evaluate(() => (window as unknown as { awake: number }).awake);
  await page.goto('/gig');
  await expect(page.getByRole('group', { name: 'Pads', exact: true })).toBeVisible();
  // What comes as a page opens is over when three seconds on end ask for little.
  await expect
    .poll(
      async () => {
        const before = await awake();
        await page.waitForTimeout(3000);
        return (await awake()) - before;
      },
      { timeout: 60_000 },
    )
    .toBeLessThan(75);
  const packets = async () => (await nodeReport(page)).packets;
  const before = await packets();
  await expect.poll(packets).toBeGreaterThan(before);
});

test('no piece of the app and no worker is heavier than the budget allows', () => {
  const heavy = scripts.filter((file) => !file.startsWith('workers')).filter((file) => packed(file) > budget.chunk);
  expect(heavy.map((file) => basename(file))).toEqual([]);
  for (const [name, most] of Object.entries(budget.worker)) {
    const all = scripts.filter((file) => file.startsWith('workers')).map((file) => basename(file));
    const entry = all.find((file) => file.startsWith(`${name}-`))!;
    const text = readFileSync(join(dist, 'workers', entry), 'utf8');
    const shared = all.filter((file) => new RegExp(`from"\\./${file}"|import"\\./${file}"`).test(text));
    const total = [entry, ...shared].reduce((sum, file) => sum + packed(join('workers', file)), 0);
    expect(total, `the ${name} worker`).toBeLessThanOrEqual(most);
  }
  expect(scripts.reduce((sum, file) => sum + packed(file), 0)).toBeLessThanOrEqual(budget.everything);
});

test('what has a hash in its name is kept for a year, the page is asked for each time, and both go out compressed', async ({
  request,
}) => {
  const page = await request.get('/songs', { headers: { 'accept-encoding': 'br' } });
  expect(page.headers()).toMatchObject({ 'cache-control': 'no-cache', 'content-encoding': 'br' });
  const html = await page.text();
  for (const path of [/src="([^"]*\/index-[^"]*)"/, /data-worker="light" href="([^"]*)"/].map(
    (one) => one.exec(html)![1]!,
  )) {
    const script = await request.get(path, { headers: { 'accept-encoding': 'gzip, br' } });
    expect(script.headers()).toMatchObject({
      'cache-control': 'public, max-age=31536000, immutable',
      'content-encoding': 'br',
      vary: expect.stringContaining('Accept-Encoding'),
    });
    const old = await request.get(path, { headers: { 'accept-encoding': 'gzip' } });
    expect(old.headers()['content-encoding']).toBe('gzip');
    const bare = await request.get(path, { headers: { 'accept-encoding': 'identity' } });
    expect(bare.headers()['content-encoding']).toBeUndefined();
    expect((await bare.body()).equals(await script.body())).toBe(true);
  }
  const status = await request.get('/api/status');
  expect(status.headers()['cache-control']).toBe('no-store');
});
