import { PDFDocument } from 'pdf-lib';
import { lampsOf } from '../../rig';
import { testShow } from '../../testing/show';
import { address, universe } from '../../units';
import { dipWords, patchRows, patchSheetCsv, patchSheetPdf } from '.';

const show = testShow();
const rig = show.rigs[0]!;
const rows = patchRows(rig, show.profiles, show.roles);
const title = { show: 'Test', rig: 'Room', made: '2026-05-01' };

test('one row a lamp, by universe and address, with its role, its note and where it hangs', () => {
  expect(rows.map(({ name, universe: u, address: a, last }) => [name, u, a, last])).toEqual([
    ['A', 1, 1, 5],
    ['B', 1, 10, 12],
    ['S', 2, 1, 8],
    ['C', 2, 100, 105],
    ['Idle', 2, 200, 202],
  ]);
  expect(rows[2]).toMatchObject({ roles: 'Movers', note: 'C3', position: 'middle, back 3.0, up 4.0' });
  expect(rows.map(({ dip }) => dipWords(dip))).toEqual(['1', '2 4', '1', '3 6 7', '4 7 8']);
});

test('what must be set on the lamp itself is said, motors turned round included', () => {
  const fixtures = rig.fixtures.map((one) =>
    one.id === 's' ? { ...one, panInvert: true, remark: 'left stand' } : one,
  );
  const spot = patchRows({ ...rig, fixtures }, show.profiles, show.roles)[2]!;
  expect([spot.menu, spot.remark]).toEqual(['pan inverted', 'left stand']);
});

test('as CSV, a name with commas, quotes or a formula in it stays one harmless cell', () => {
  const odd = [
    { ...rows[0]!, name: 'Left, "big"' },
    { ...rows[1]!, name: '=1+1' },
  ];
  const lines = patchSheetCsv(odd).split('\r\n');
  expect(lines[1]).toMatch(/^1,"Left, ""big""",/);
  expect(lines[2]).toContain("'=1+1");
});

test('as many pages as it takes, and names in any script do not break it', async () => {
  const profile = show.profiles[1]!;
  const wanted = { profile, mode: profile.modes[0]!, count: 100, universe: universe(9) };
  const many = { ...rig, fixtures: [...lampsOf(rig, wanted, address(1), (n) => `n${n}`)] };
  const all = patchRows(many, show.profiles, show.roles).map((row, i) =>
    i === 0 ? { ...row, name: '灯光 №1 🙂' } : row,
  );
  const pdf = await PDFDocument.load(await patchSheetPdf(all, title));
  expect(pdf.getPageCount()).toBe(5);
  expect((await PDFDocument.load(await patchSheetPdf([], title))).getPageCount()).toBe(1);
});
