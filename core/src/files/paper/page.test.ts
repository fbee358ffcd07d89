import { PDFDocument, StandardFonts } from 'pdf-lib';
import { broken, printable, shortened } from './page';
import { clock } from './set-sheet';

const font = async () => (await PDFDocument.create()).embedFont(StandardFonts.Helvetica);

test('words come out as the standard fonts can print them: notes, lines, and letters with accents that they lack', async () => {
  const plain = await font();
  const printed = (words: string) => printable(plain, words);
  expect(printed('Pad C♯3, A♭')).toBe('Pad C#3, Ab');
  expect(printed('capo 2\nslow\tend')).toBe('capo 2 slow end');
  expect(printed('Grüße, “À bientôt” – señor €5')).toBe('Grüße, “À bientôt” – señor €5');
  expect(printed('Łódź, Žižkov, Győr, İzmir')).toBe('Lódz, Žižkov, Gyor, Izmir');
  // Written as a letter and its accent, as some systems name files.
  expect(printed('Grüße')).toBe('Grüße');
  expect(printed('灯 🙂')).toBe('? ?');
});

test('lines are as long as there is room for', async () => {
  const plain = await font();
  const lines = broken(plain, 'one two three\nfour five six seven', 12, 60);
  expect(lines.join(' ')).toBe('one two three four five six seven');
  for (const line of [...lines, shortened(plain, 'unpronounceable'.repeat(3), 12, 60)])
    expect(plain.widthOfTextAtSize(line, 12)).toBeLessThanOrEqual(60);
});

test('lengths are rounded as a whole: no song takes two minutes and sixty seconds', () => {
  expect([179.7, 59.4, 60, 0, 3599.6].map(clock)).toEqual(['3:00', '0:59', '1:00', '', '60:00']);
});
