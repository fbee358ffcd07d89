// Set lists in files and on paper, read back.

import fc from 'fast-check';
import { PDFDocument } from 'pdf-lib';
import { Control, Pedal, SetList, Entry } from '../../gig';
import { Song } from '../../song';
import { readShow, type Show } from '../../show';
import { testShow } from '../../testing/show';
import { labelsOf, labelsPdf, pedalCardPdf, setListPdf, setRows } from '../paper';
import { leftOutWords, readM3u, setCsv, setM3u } from '.';

function show(titles: readonly string[]): Show {
  const plain = testShow();
  const music = (name: string) => ({ hash: 'a'.repeat(64), name, type: 'ogg' as const, bytes: 1 });
  const songs = titles.map((title, i) =>
    Song.parse({ ...plain.songs[0]!, id: `s${i}`, title, by: 'Tin Lantern', key: 'Em', music: music(`${title}.ogg`) }),
  );
  const entries = [
    ...songs.map(({ id }, i) => ({ kind: 'song', id: `e${i}`, song: id })),
    { kind: 'pause', id: 'p', minutes: 20 },
  ];
  const sets = [SetList.parse({ id: 'set', name: 'Friday', entries })];
  const controls = [
    Control.parse({
      kind: 'switch',
      id: 'f',
      name: 'Foot',
      source: { by: 'program', device: null, channel: null, number: 4, bank: 131 },
      does: { press: [{ act: 'stop', way: 'next' }] },
    }),
  ];
  const read = readShow({ ...plain, songs, sets, controls }, 'test');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return read.value;
}
let count = 0;
const freshId = () => `fresh-${++count}`;
const songOf = (entry: Entry) => (entry.kind === 'song' ? (entry.song as string) : entry.kind);
const bytes = (text: string) => new TextEncoder().encode(text);
const order = (text: string, of: Show) => {
  const read = readM3u(bytes(text), 'x.m3u', of, freshId);
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return { songs: read.value.entries.map(songOf), unknown: read.value.unknown };
};

test('the order goes into a playlist and comes back, whatever the titles', () => {
  const title = fc
    .string({ minLength: 1, maxLength: 30, unit: 'grapheme' })
    .map((one) => one.trim())
    .filter((one) => one !== '' && !/[\u0000-\u001F/\\%#\uFEFF]/.test(one) && one.length <= 100);
  fc.assert(
    fc.property(
      fc.uniqueArray(title, { minLength: 1, maxLength: 12, selector: (one) => one.normalize('NFC').toLowerCase() }),
      (titles) => {
        const of = show(titles);
        expect(order(setM3u(of, of.sets[0]!), of).songs).toEqual(titles.map((_, i) => `s${i}`));
      },
    ),
    { seed: 15, numRuns: 100 },
  );
});

test('as other programs write them: folders, addresses, other line ends, titles alone, and what is not here', () => {
  const of = show(['Paper Lighthouse', 'Salt and Signal']);
  expect(
    order('\uFEFF#EXTM3U\r\nC:\\Music\\Salt and Signal.ogg\r\nfile:///music/Paper%20Lighthouse.mp3\r\n', of).songs,
  ).toEqual(['s1', 's0']);
  expect(order('#EXTINF:-1,Tin Lantern - Paper Lighthouse\nhttp://example.net/17\n', of).songs).toEqual(['s0']);
  expect(order('Ferry night/02 - Salt_and_Signal.flac\n01 Paper Lighthouse.mp3', of).songs).toEqual(['s1', 's0']);
  expect(order('50% off.mp3\nSalt and Signal\n#EXTINF:3,Other\nother.mp3', of)).toEqual({
    songs: ['s1'],
    unknown: ['50% off.mp3', 'Other'],
  });
  for (const bad of ['', 'Dear friends', 'PK\u0003\u0004', '#EXTM3U\n'.repeat(6000)])
    expect(readM3u(bytes(bad), 'x.m3u', of, freshId)).toMatchObject({ ok: false, problem: { name: 'x.m3u' } });
});

test('a list as one types it: numbered, and titles that are figures themselves', () => {
  const of = show(['Lamps', '99 Lamps', 'Salt']);
  expect(order('1. Salt\n2) 99 Lamps\n3 Lamps\n99 Lamps', of).songs).toEqual(['s2', 's1', 's0', 's1']);
});

test('letters as older programs write them, and as Windows does with two bytes each', () => {
  const of = show(['Žluťoučký kůň', 'Déjà vu']);
  const read = (bytes: readonly number[]) => readM3u(Uint8Array.from(bytes), 'x.m3u', of, freshId);
  const one = [...'D\u00e9j\u00e0 vu.mp3'].map((letter) => letter.charCodeAt(0));
  expect(read(one)).toMatchObject({ ok: true, value: { entries: [{ song: 's1' }], unknown: [] } });
  const czech = [0x8e, 0x6c, 0x75, 0x9d, 0x6f, 0x75, 0xe8, 0x6b, 0xfd, 0x20, 0x6b, 0xf9, 0xf2];
  expect(readM3u(Uint8Array.from(czech), 'x.m3u', of, freshId, { language: 'cs' })).toMatchObject({
    value: { entries: [{ song: 's0' }], unknown: [] },
  });
  const two = [...'\uFEFFŽluťoučký kůň.mp3\r\nDéjà vu'].flatMap((letter) => {
    const code = letter.charCodeAt(0);
    return [code & 255, code >> 8];
  });
  expect(read(two)).toMatchObject({ ok: true, value: { entries: [{ song: 's0' }, { song: 's1' }] } });
});

test('a set that is put in order keeps its notes, pauses and looks; what the file leaves out is told', () => {
  const of = show(['Paper Lighthouse', 'Salt and Signal', 'Tin Roof']);
  const before = [
    Entry.parse({ kind: 'look', id: 'first', look: 'x' }),
    Entry.parse({ kind: 'song', id: 'a', song: 's0', notes: 'capo 2', key: 'Em' }),
    Entry.parse({ kind: 'pause', id: 'talk', minutes: 2 }),
    Entry.parse({ kind: 'song', id: 'b', song: 's1', encore: true }),
    Entry.parse({ kind: 'song', id: 'c', song: 's2' }),
    Entry.parse({ kind: 'pause', id: 'late', minutes: 20 }),
  ];
  const text = 'Salt and Signal\nPaper Lighthouse\nPaper Lighthouse\nSomebody';
  const read = readM3u(bytes(text), 'x.m3u', of, freshId, { before });
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  expect(read.value.entries.slice(0, 4)).toEqual([before[0], before[3], before[1], before[2]]);
  expect(read.value.entries[4]).toMatchObject({ kind: 'song', song: 's0' });
  expect(new Set(read.value.entries.map(({ id }) => id)).size).toBe(5);
  expect(leftOutWords(read.value)).toBe(
    ' Not in this show: Somebody. Not in the set any more: Tin Roof, a pause of 20 min.',
  );
});

test('what a set has no room for is told', () => {
  const of = show(['Tin Roof']);
  const read = readM3u(bytes('Tin Roof\n'.repeat(510)), 'x.m3u', of, freshId);
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  expect(read.value.entries).toHaveLength(500);
  expect(leftOutWords(read.value)).toBe(' A set has 500 places: 10 songs at its end are left out.');
});

test('as CSV every place is a row, and no cell is a formula', () => {
  const of = show(['=cmd()', 'Salt, "and" Signal']);
  const lines = setCsv(of, of.sets[0]!).split('\r\n');
  expect(lines).toHaveLength(4);
  expect(lines[1]).toMatch(/^1,"'=cmd\(\)",Tin Lantern,Em,120,60,,$/);
  expect(lines[2]).toMatch(/^2,"Salt, ""and"" Signal",/);
  expect(lines[3]).toMatch(/^3,Pause,,,,1200,,$/);
});

test('felt beats are what is printed: 6/8 counts its dotted ones', () => {
  const of = show(['Ballad']);
  const songs = [{ ...of.songs[0]!, meter: [{ bar: 0, numerator: 6, denominator: 8 as const }] }];
  expect(setRows({ ...of, songs }, of.sets[0]!)[0]!.bpm).toBe(80);
});

test('both papers take as many pages as they need, and any script', async () => {
  const many = show(
    Array.from({ length: 60 }, (_, i) =>
      i === 3 ? '灯光 🙂' : `Song number ${i}, with a title that is far too long for a line of a set list on paper`,
    ),
  );
  const [set] = many.sets;
  const made = { made: '2026-05-01' };
  expect((await PDFDocument.load(await setListPdf(many, set!, made))).getPageCount()).toBeGreaterThan(2);
  expect((await PDFDocument.load(await pedalCardPdf(many, set!, made))).getPageCount()).toBeGreaterThan(2);
  const none = { ...many, controls: [], songs: [], sets: [{ ...set!, entries: [] }] };
  expect((await PDFDocument.load(await pedalCardPdf(none, none.sets[0]!, made))).getPageCount()).toBe(1);
  expect((await PDFDocument.load(await setListPdf(none, none.sets[0]!, made))).getPageCount()).toBe(1);
});

test('labels: one for each that does something, pedals first; 24 on a page', async () => {
  const of = show(['Ballad']);
  const press = { press: [{ act: 'stop', way: 'next' }], hold: [{ act: 'blackout', to: 'toggle' }] };
  const on = (name: string, more: object) =>
    Control.parse({ kind: 'switch', id: name, name, source: { by: 'key', code: 'PageDown' }, does: press, ...more });
  const controls = [on('Key', {}), on('Left', { pedal: 'floor' }), on('Idle', { does: {} })];
  const pedals = [{ id: 'floor', name: 'Floor' }].map((one) => Pedal.parse(one));
  const labels = labelsOf({ ...of, controls, pedals });
  expect(labels).toEqual([
    { name: 'Left', does: 'On in the set', more: ['Hold: Blackout on or off'], from: 'key Page Down' },
    { name: 'Key', does: 'On in the set', more: ['Hold: Blackout on or off'], from: 'key Page Down' },
  ]);
  const pages = async (count: number) => {
    const many = Array.from({ length: count }, (_, i) => on(`灯光 ${i} ${'with a very long name '.repeat(2)}`, {}));
    return (await PDFDocument.load(await labelsPdf({ ...of, controls: many }))).getPageCount();
  };
  expect([await pages(0), await pages(24), await pages(25)]).toEqual([1, 1, 2]);
});
