// Files that were made to do harm, or were damaged so that they would: each gets a sentence, quickly and in little memory.

import { zipSync } from 'fflate';
import { anchored, bundleWith, claiming, flacWithRate, oggWithRate } from '../testing/hostile';
import { analyse } from '../analysis';
import { wordsFor } from '../problem';
import { readChart } from '../rig';
import { legal, readShow } from '../show';
import { readBundle } from '.';

const goOn = async () => 'go-on' as const;

test.each([2_147_483_519, 1_000_000_000, 1, 0])(
  'an OGG or FLAC whose head says %d Hz is refused before it is decoded',
  async (rate) => {
    const read = await analyse(oggWithRate(rate), 'song.ogg', goOn);
    expect(!read.ok && wordsFor(read.problem)).toContain(`${rate} Hz`);
    if (rate > 0xfffff || rate === 0) return;
    const flac = await analyse(flacWithRate(rate), 'song.flac', goOn);
    expect(!flac.ok && wordsFor(flac.problem)).toContain(`${rate} Hz`);
  },
);

test('a zip that inflates to a thousand times its size is refused; what is none of ours is left packed', () => {
  const few = new Uint8Array(10_000);
  const music = `music/${'ab'.repeat(32)}.wav`;
  const bomb = readBundle(claiming(bundleWith({ [music]: few }), music, 1.4e9), 'big.hovlix');
  expect(!bomb.ok && bomb.problem).toMatchObject({ code: 'too-big' });
  const show = readBundle(claiming(bundleWith({}), 'show.json', 65e6), 'show.hovlix');
  expect(!show.ok && show.problem).toMatchObject({ code: 'too-big', limit: 64 });
  const strangers = claiming(bundleWith({ 'extra.bin': few }), 'extra.bin', 1.4e9);
  const read = readBundle(strangers, 'fine.hovlix');
  expect(read.ok && read.value.show.name).toBe('Test show');
});

test.each([
  [
    'stands still in time',
    [
      { beat: 0, time: 1 },
      { beat: 2, time: 1 },
    ],
  ],
  [
    'goes back in beats',
    [
      { beat: 4, time: 0 },
      { beat: 2, time: 1 },
    ],
  ],
  [
    'has four hundred million bars',
    [
      { beat: 0, time: 0 },
      { beat: 1e7, time: 0.01 },
    ],
  ],
])('a tempo map that %s is refused with its place, from a file and as an edit', (_, anchors) => {
  const show = anchored(anchors);
  const read = readShow(JSON.parse(JSON.stringify(show)), 'the file');
  expect(!read.ok && wordsFor(read.problem)).toContain('songs.0.tempo.anchors.1');
  const edited = legal(show, new WeakSet());
  expect(!edited.ok && wordsFor(edited.problem)).toContain('tempo.anchors.1');
});

test('a chart of a hundred thousand signs is read as far as it is one, and the rest is told', () => {
  const chart = readChart(
    `1 Dimmer${' :'.repeat(50_000)}\n2 Red\n3 Green 0-255 ${' ,'.repeat(1900)}x\n${'4'.repeat(100_000)}`,
  );
  expect(chart.channels.map(({ attribute }) => attribute)).toEqual(['ColorAdd_R', 'ColorAdd_G']);
  const long = chart.unsettled.filter(({ why }) => why === 'more text than a chart has');
  expect(long.map(({ line }) => line)).toEqual([1, 4]);
});

test('a zip that is none of ours says so', () => {
  const read = readBundle(zipSync({ 'a.txt': new Uint8Array(3) }), 'x.hovlix');
  expect(!read.ok && read.problem.code).toBe('missing-part');
});
