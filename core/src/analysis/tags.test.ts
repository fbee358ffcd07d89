import { readTags } from '.';

/** An ID3v2.3 tag with text frames (id3v2.3.0, clauses 3.1 and 4.2), before one silent MPEG frame. */
function tagged(frames: Readonly<Record<string, string>>): Uint8Array {
  const body = Object.entries(frames).flatMap(([id, text]) => {
    const data = [0, ...Buffer.from(text, 'latin1')];
    return [...Buffer.from(id), 0, 0, data.length >> 8, data.length & 255, 0, 0, ...data];
  });
  const size = [(body.length >> 21) & 127, (body.length >> 14) & 127, (body.length >> 7) & 127, body.length & 127];
  const silent = Array.from({ length: 417 }, (_, i) => [0xff, 0xfb, 0x90, 0x64][i] ?? 0);
  return Uint8Array.from([...Buffer.from('ID3'), 3, 0, 0, ...size, ...body, ...silent, ...silent, ...silent]);
}

test('title, artist, tempo and key of an MP3', async () => {
  const bytes = tagged({ TIT2: '  Harbour   lights ', TPE1: 'The Boathouse', TBPM: '124', TKEY: 'Am' });
  expect(await readTags(bytes)).toEqual({ title: 'Harbour lights', artist: 'The Boathouse', bpm: 124, key: 'Am' });
});

test('a title that its tag takes for Latin letters is read as programs of the computer’s language write', async () => {
  const bytes = tagged({ TIT2: 'Íî÷ü' });
  expect(await readTags(bytes, 'ru')).toMatchObject({ title: 'Ночь' });
  expect(await readTags(bytes, 'de')).toMatchObject({ title: 'Íî÷ü' });
});

test('a tempo that cannot be is left out; what is no recording has no tags', async () => {
  expect(await readTags(tagged({ TIT2: 'Song', TBPM: '9000' }))).toEqual({ title: 'Song' });
  expect(await readTags(new TextEncoder().encode('Dear friends'))).toEqual({});
  expect(await readTags(tagged({ TIT2: 'Song' }).subarray(0, 16))).toEqual({});
});
