import { PDFDocument, PDFName, StandardFonts } from 'pdf-lib';
import { paper } from './page';
import { broken, pensOf, printable, shortened, type Scribe } from './pen';

const font = async () => (await PDFDocument.create()).embedFont(StandardFonts.Helvetica);
const pens = async (scribe?: Scribe) => pensOf(await PDFDocument.create(), scribe);

/** One clear point. */
const PNG = Uint8Array.from(
  atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg=='),
  (letter) => letter.charCodeAt(0),
);

/** Each letter is as wide as it is high. */
function scribeOf(drawn: string[] = []): Scribe {
  return {
    width: (words, { size }) => [...words].length * size,
    picture: async (words, { size, bold }) => {
      drawn.push(`${words}, ${size}${bold ? ', bold' : ''}`);
      return { png: PNG, width: [...words].length * size + 2, height: size + 2, before: 1, below: 1 };
    },
  };
}

const picturesIn = async (bytes: Uint8Array): Promise<number> =>
  (await PDFDocument.load(bytes)).context.enumerateIndirectObjects().filter(([, object]) => {
    const dictionary = (object as { dict?: { get: (name: PDFName) => unknown } }).dict;
    return dictionary?.get(PDFName.of('Subtype')) === PDFName.of('Image') && !dictionary.get(PDFName.of('Decode'));
  }).length;

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
  expect(await picturesIn(bytes)).toBe(drawn.length);
  expect((await PDFDocument.load(bytes)).getTitle()).toBe('夜, Łódź');
});

test('what cannot be drawn fails the sheet instead of leaving a gap in it', async () => {
  const scribe = { ...scribeOf(), picture: () => Promise.reject(new Error('The canvas gave no picture.')) };
  const sheet = await paper('Set', { made: '', scribe });
  sheet.text('夜', { size: 12 });
  await expect(sheet.bytes()).rejects.toThrow('no picture');
});
