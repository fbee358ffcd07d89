import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { firstFiles } from './first-place';

const FILES = readdirSync(join(__dirname, '../app'), { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.tsx'))
  .map((file) => `./${file}`);

test.each([
  ['/', ['./index.tsx', './songs/index.tsx']],
  ['/songs', ['./songs/index.tsx']],
  ['/songs/', ['./songs/index.tsx']],
  ['/songs/night-ferry', ['./songs/[song].tsx']],
  ['/gig/large', ['./gig/large.tsx']],
  ['/looks/warm', ['./looks/[look].tsx']],
  ['/connect/universe/3', ['./connect/universe/[universe].tsx']],
  ['/nowhere/at/all', []],
])('%s begins with its frame and %j', (path, places) => {
  expect(firstFiles(path, FILES)).toEqual(['./_layout.tsx', ...places]);
});

test('every place has an address that begins with it', () => {
  for (const file of FILES.filter((one) => !/\/[_+]/.test(one))) {
    const path = file
      .slice(1)
      .replace(/(\/index)?\.tsx$/, '')
      .replaceAll(/\[\w+\]/g, 'any');
    expect(firstFiles(path, FILES)).toContain(file);
  }
});
