// npm run fuzz -- [--minutes N] [--seed N] [--only NAME]: damaged and hostile input for every reader, until the time is up.

import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { fuzz, type Tally } from '../core/src/testing/fuzz';
import { readers } from '../core/src/testing/fuzz-readers';

const { values } = parseArgs({
  options: { minutes: { type: 'string' }, seed: { type: 'string' }, only: { type: 'string' } },
});
const minutes = Number(values.minutes ?? 5);
const seed = Number(values.seed ?? 1_000_000);
const music = ['uneven.mp3', 'uneven.ogg'].map((name) =>
  readFileSync(new URL(`../e2e/samples/${name}`, import.meta.url)),
);
const all = readers(music.map((one) => new Uint8Array(one)));
const wanted = all.filter(({ name }) => values.only === undefined || name === values.only);
if (!(minutes > 0) || !Number.isInteger(seed) || wanted.length === 0) {
  const names = all.map(({ name }) => name);
  console.error(`--minutes above 0, --seed a whole number, --only one of: ${names.join(', ')}`);
  process.exit(2);
}
const clock = {
  ms: () => performance.now(),
  bytes: () => process.memoryUsage().heapUsed + process.memoryUsage().arrayBuffers,
};
const tallies: Tally[] = [];
for (const reader of wanted) {
  const until = performance.now() + (minutes * 60_000) / wanted.length;
  const tally = await fuzz(reader, seed, () => performance.now() > until, clock);
  tallies.push(tally);
  const { name, tries, refused, taken, crashes, slow, large } = tally;
  console.log(
    `${name}: ${tries} tries, ${refused} refused, ${taken} taken, ${crashes.length} crashes, ${slow.length} slow, ${large.length} large`,
  );
  for (const told of [...crashes, ...slow, ...large].slice(0, 20)) console.log(`  ${told}`);
}
const bad = tallies.reduce((sum, one) => sum + one.crashes.length, 0);
console.log(`${tallies.reduce((sum, { tries }) => sum + tries, 0)} tries, ${bad} crashes`);
process.exit(bad > 0 ? 1 : 0);
