import { decodePDFRawStream, PDFDocument, PDFName, PDFRawStream, StandardFonts } from 'pdf-lib';
import { paper } from './page';
import { broken, pensOf, printable, shortened, type Scribe } from './pen';

const font = async () => (await PDFDocument.create()).embedFont(StandardFonts.Helvetica);
const pens = async (scribe?: Scribe) => pensOf(await PDFDocument.create(), scribe);

/** Each letter is as wide as it is high: a filled square but for its first row and column. */
function scribeOf(drawn: string[] = []): Scribe {
  return {
    width: (words, { size }) => [...words].length * size,
    picture(words, { size, bold }) {
      drawn.push(`${words}, ${size}${bold ? ', bold' : ''}`);
      const columns = [...words].length * 3;
      const ink = Uint8Array.from({ length: columns * 3 }, (_, i) => (i >= columns && i % 3 > 0 ? 255 : 20));
      return { ink, columns, rows: 3, dot: size / 3, before: 1, below: 2 };
    },
  };
}

/** The stencils of a sheet: their size in dots, and their bits. */
async function stencilsIn(bytes: Uint8Array): Promise<readonly { columns: number; rows: number; bits: string[] }[]> {
  const { context } = await PDFDocument.load(bytes);
  return context.enumerateIndirectObjects().flatMap(([, object]) => {
    if (!(object instanceof PDFRawStream) || !object.dict.has(PDFName.of('ImageMask'))) return [];
    const number = (key: string) => Number(object.dict.get(PDFName.of(key))!.toString());
    const bits = [...decodePDFRawStream(object).decode()].map((byte) => byte.toString(2).padStart(8, '0'));
    return [{ columns: number('Width'), rows: number('Height'), bits }];
  });
}

test('without a scribe: notes, lines, and letters with accents that the standard fonts lack', async () => {
  const plain = await font();
  const printed = (words: string) => printable(plain, words);
  expect(printed('Pad C♯3, A♭')).toBe('Pad C#3, Ab');
  expect(printed('capo 2\nslow\tend')).toBe('capo 2 slow end');
  expect(printed('Grüße, “À bientôt” – señor €5')).toBe('Grüße, “À bientôt” – señor €5');
  expect(printed('Łódź, Žižkov, Győr, İzmir')).toBe('Lódz, Žižkov, Gyor, Izmir');
  // Written as a letter and its accent, as some systems name files.
  expect(printed('Gru\u0308ße')).toBe('Grüße');
  expect(printed('灯 🙂')).toBe('? ?');
});

test('lines are as long as there is room for; a word that is longer goes on in the next', async () => {
  for (const scribe of [undefined, scribeOf()]) {
    const { plain } = await pens(scribe);
    const long = 'unpronounceable'.repeat(3);
    for (const words of ['one two three\nfour five six seven', `one ${long} two`, '夜の灯が海を渡る rain ночь']) {
      const lines = broken(plain, words, 12, 60);
      expect(lines.join('').replaceAll(' ', '')).toBe(words.replace(/\s+/g, ''));
      for (const line of lines) expect(plain.width(line, 12)).toBeLessThanOrEqual(60);
    }
    expect(broken(plain, 'one two', 12, 60)).toEqual(['one two']);
    const short = shortened(plain, long, 12, 60);
    expect(plain.width(short, 12)).toBeLessThanOrEqual(60);
    expect(short).toMatch(/^unpro.*\.\.\.$/);
  }
});

test('a scribe draws what the standard fonts lack, each line in one piece; the rest stays text', async () => {
  const drawn: string[] = [];
  const sheet = await paper('夜, Łódź', { made: '1 December 2026', scribe: scribeOf(drawn) });
  sheet.text('Tonight, C♯', { size: 30, bold: true });
  sheet.text('Белая ночь', { size: 12 });
  sheet.cells(
    [
      ['1', 0.1],
      ['Łódź', 0.6],
    ],
    22,
    true,
  );
  const bytes = await sheet.bytes();
  expect(drawn).toEqual(['夜, Łódź   1 December 2026   page 1, 8', 'Белая ночь, 12', 'Łódź, 22, bold']);
  const stencils = await stencilsIn(bytes);
  expect(stencils.map(({ columns, rows }) => [columns, rows])).toEqual(
    drawn.map((one) => [[...one.replace(/, \d.*/, '')].length * 3, 3]),
  );
  // Two letters and a half in a byte and a half: ink is 0, a row begins with a byte of its own.
  expect(stencils.at(-1)!.bits).toEqual(['11111111', '11111111', '10010010', '01001111', '10010010', '01001111']);
  expect((await PDFDocument.load(bytes)).getTitle()).toBe('夜, Łódź');
});
