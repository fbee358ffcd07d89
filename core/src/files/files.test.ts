import { zipSync } from 'fflate';
import { wordsFor } from '../problem';
import { Command, edit, NEWEST, readShow } from '../show';
import { recordingsOf } from '../song';
import { testShow } from '../testing/show';
import { readBundle, writeBundle } from '.';

const hash = 'ab'.repeat(32);
const withMusic = () => {
  const json = JSON.parse(JSON.stringify(testShow()));
  json.songs[0].music = { hash, name: 'a.ogg', type: 'ogg', bytes: 5 };
  const read = readShow(json, 'x');
  if (!read.ok) throw new Error('test show');
  return read.value;
};
const text = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
const manifest = text({ format: 'hovlix', version: 1 });

test('a show with its music goes out and comes in the same', () => {
  const file = { bytes: Uint8Array.of(1, 2, 3, 4, 5), peaks: Uint8Array.of(9, 9), envelopes: Uint8Array.of(7) };
  const music = new Map([[hash, file]]);
  const from = { chain: ['origin', 'a', 'b'], savedAt: 1_790_000_000_000 };
  const bytes = writeBundle({ show: withMusic(), music, ...from });
  const read = readBundle(bytes, 'x.hovlix');
  expect(read).toEqual({ ok: true, value: { show: withMusic(), music, ...from } });
  expect(writeBundle({ show: withMusic(), music, ...from })).toEqual(bytes);
});

test('recordings beside the music of songs go out and come in with it', () => {
  const stem = 'cd'.repeat(32);
  const show = withMusic();
  const track = {
    id: 't',
    name: 'Stem',
    music: { hash: stem, name: 's.wav', type: 'wav', bytes: 2 },
    at: -1.5,
    level: 0.5,
  };
  const more = edit(show, Command.parse({ type: 'set-tracks', song: 'song', tracks: [track] })).show;
  const music = new Map(
    [hash, stem].map((one) => [one, { bytes: Uint8Array.of(1, 2), peaks: undefined, envelopes: undefined }]),
  );
  const read = readBundle(writeBundle({ show: more, music, chain: ['origin'] }), 'x');
  expect(read.ok && [...read.value.music.keys()].sort()).toEqual([hash, stem].sort());
  expect(read.ok && read.value.show).toEqual(more);
  expect(recordingsOf(more.songs).map((one) => one.hash)).toEqual([hash, stem]);
  expect(edit(more, Command.parse({ type: 'set-tracks', song: 'song', tracks: [] })).show).toEqual(show);
});

test('music that is missing does not keep the show from opening', () => {
  const read = readBundle(writeBundle({ show: withMusic(), music: new Map(), chain: ['origin'] }), 'x');
  expect(read.ok && read.value.music.size).toBe(0);
});

test.each([
  ['empty', new Uint8Array(), 'is empty'],
  ['no zip', new TextEncoder().encode('hello there'), 'not a zip file'],
  ['cut off', writeBundle({ show: testShow(), music: new Map(), chain: ['origin'] }).slice(0, 900), 'cut short'],
  ['no show in it', zipSync({ 'hovlix.json': manifest }), '“show.json” is missing'],
  ['no manifest', zipSync({ 'show.json': text(testShow()) }), '“hovlix.json” is missing'],
  ['newer bundle', zipSync({ 'hovlix.json': text({ format: 'hovlix', version: 8 }) }), 'newer Hovlix (format 8'],
  [
    'newer show',
    zipSync({ 'hovlix.json': manifest, 'show.json': text({ ...testShow(), version: NEWEST + 1 }) }),
    `newer Hovlix (format ${NEWEST + 1}`,
  ],
  [
    'broken JSON',
    zipSync({ 'hovlix.json': manifest, 'show.json': new TextEncoder().encode('{"a":') }),
    '“show.json” cannot be read',
  ],
  ['climbing path', zipSync({ 'hovlix.json': manifest, '../../etc/passwd': text(1) }), 'points outside'],
  ['absolute path', zipSync({ 'hovlix.json': manifest, '/etc/passwd': text(1) }), 'points outside'],
  ['climbing on Windows', zipSync({ 'hovlix.json': manifest, '..\\x': text(1) }), 'points outside'],
])('%s: one clear sentence', (_, bytes, sentence) => {
  const read = readBundle(bytes, 'friday.hovlix');
  expect(!read.ok && wordsFor(read.problem)).toContain(sentence);
  expect(!read.ok && wordsFor(read.problem)).toContain('friday.hovlix');
});

test('a zip bomb is refused by what it says it unpacks to, before it is unpacked', () => {
  const small = zipSync({ 'hovlix.json': manifest, [`music/${'ab'.repeat(32)}.wav`]: new Uint8Array(2e6) });
  const view = new DataView(small.buffer);
  // The size in the central directory, said to be 3.9 GB.
  for (let at = small.length - 22; at > 0; at--)
    if (view.getUint32(at, true) === 0x02014b50 && view.getUint32(at + 24, true) === 2e6)
      view.setUint32(at + 24, 3.9e9, true);
  const read = readBundle(small, 'bomb.hovlix');
  expect(!read.ok && wordsFor(read.problem)).toContain('3900 MB');
});
