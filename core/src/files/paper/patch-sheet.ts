// The patch sheet one takes to the stage: what to set on each lamp, as rows, as CSV, and as a printable PDF.

import Papa from 'papaparse';
import { PDFDocument, type PDFPage } from 'pdf-lib';
import {
  dipSwitches,
  footprint,
  noteName,
  noteOf,
  patchedFixtures,
  type Fixture,
  type Role,
  type Profile,
  type Rig,
} from '../../rig';
import { INK, QUIET, RULE, type Made } from './page';
import { pensOf, shortened, type Pen, type Pens } from './pen';

export type PatchRow = {
  readonly number: number;
  readonly name: string;
  readonly type: string;
  readonly mode: string;
  readonly universe: number;
  /** First and last address. */
  readonly address: number;
  readonly last: number;
  /** Switches that are up, lowest first. */
  readonly dip: readonly boolean[];
  readonly roles: string;
  /** Metres from the middle of the stage's front edge, as the audience sees it: “left 2.7, front 2.2, up 3.7”. */
  readonly position: string;
  readonly note: string;
  /** What must be set on the lamp's own menu beside its address. */
  readonly menu: string;
  readonly remark: string;
};

/** One row a lamp, by universe and address. */
export function patchRows(rig: Rig, profiles: readonly Profile[], roles: readonly Role[]): readonly PatchRow[] {
  const rolesOf = (fixture: Fixture) =>
    rig.casting
      .filter(({ fixtures }) => fixtures.includes(fixture.id))
      .flatMap(({ role }) => roles.find(({ id }) => id === role)?.name ?? [])
      .join(', ');
  return patchedFixtures(rig, profiles)
    .map(({ fixture, profile, mode }): PatchRow => {
      const note = noteOf(rig, fixture);
      const { x, y, z } = fixture.mount;
      return {
        number: fixture.number,
        name: fixture.name,
        type: profile.maker === 'Generic' ? profile.model : `${profile.maker} ${profile.model}`,
        mode: mode.name,
        universe: fixture.universe,
        address: fixture.address,
        last: fixture.address + footprint(mode) - 1,
        dip: dipSwitches(fixture.address),
        roles: rolesOf(fixture),
        position: `${side(x)}, ${depth(y)}, up ${z.toFixed(1)}`,
        note: note === undefined ? '' : noteName(note),
        menu: menuOf(fixture, mode.menu),
        remark: fixture.remark ?? '',
      };
    })
    .sort((a, b) => a.universe - b.universe || a.address - b.address || a.number - b.number);
}

const side = (x: number) => (Math.abs(x) < 0.05 ? 'middle' : `${x < 0 ? 'left' : 'right'} ${Math.abs(x).toFixed(1)}`);
const depth = (y: number) => `${y < 0 ? 'front' : 'back'} ${Math.abs(y).toFixed(1)}`;

function menuOf(fixture: Fixture, menu: string | undefined): string {
  const said = [
    menu,
    fixture.panInvert ? 'pan inverted' : undefined,
    fixture.tiltInvert ? 'tilt inverted' : undefined,
    fixture.swapPanTilt ? 'pan and tilt swapped' : undefined,
  ];
  return said.filter(Boolean).join(', ');
}

/** CSV as RFC 4180 has it, with a heading row. Texts that a spreadsheet would run as a formula are quoted with an apostrophe. */
export function patchSheetCsv(rows: readonly PatchRow[]): string {
  const lines = rows.map((row) => ({
    Number: row.number,
    Name: row.name,
    Type: row.type,
    Mode: row.mode,
    Universe: row.universe,
    Address: row.address,
    'Last address': row.last,
    'DIP switches up': dipWords(row.dip),
    Role: row.roles,
    'Position, m': row.position,
    Note: row.note,
    'On its menu': row.menu,
    Remark: row.remark,
  }));
  return Papa.unparse(lines, { escapeFormulae: true, newline: '\r\n' });
}

/** “1 3 5”: the switches that are up; 512 needs a tenth, which such lamps do not have. */
export function dipWords(dip: readonly boolean[]): string {
  return dip.flatMap((on, i) => (on ? [String(i + 1)] : [])).join(' ') || 'none';
}

const A4 = { width: 841.89, height: 595.28 };
const MARGIN = 36;
const LINE = 22;

type Column = { readonly title: string; readonly width: number; readonly text: (row: PatchRow) => string };

const COLUMNS: readonly Column[] = [
  { title: 'No.', width: 26, text: (row) => String(row.number) },
  { title: 'Name', width: 84, text: (row) => row.name },
  { title: 'Type', width: 108, text: (row) => row.type },
  { title: 'Mode', width: 86, text: (row) => row.mode },
  { title: 'Univ.', width: 30, text: (row) => String(row.universe) },
  { title: 'Address', width: 52, text: (row) => `${row.address}-${row.last}` },
  { title: 'DIP 1-9', width: 76, text: () => '' },
  { title: 'Role', width: 74, text: (row) => row.roles },
  { title: 'Position, m', width: 116, text: (row) => row.position },
  { title: 'Note', width: 30, text: (row) => row.note },
  { title: 'On its menu, remark', width: 88, text: (row) => [row.menu, row.remark].filter(Boolean).join('; ') },
];

/** A4 landscape, as many pages as it takes. */
export async function patchSheetPdf(
  rows: readonly PatchRow[],
  { show, rig, made, scribe }: Made & { readonly show: string; readonly rig: string },
): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const pens = await pensOf(document, scribe);
  const { plain, bold } = pens;
  document.setTitle(`${rig}: patch sheet`);
  const perPage = Math.floor((A4.height - 2 * MARGIN - 64) / LINE);
  const pages = Math.max(1, Math.ceil(rows.length / perPage));
  for (let i = 0; i < pages; i++) {
    const page = document.addPage([A4.width, A4.height]);
    const text = (words: string, x: number, y: number, size: number, pen: Pen, color = INK) =>
      pen.write(page, words, { x, y, size, color });
    text(`${rig}: patch sheet`, MARGIN, A4.height - MARGIN - 14, 16, bold);
    const under = `${show}   ${made}   page ${i + 1} of ${pages}`;
    text(under, MARGIN, A4.height - MARGIN - 30, 9, plain, QUIET);
    let x = MARGIN;
    for (const column of COLUMNS) {
      text(column.title, x, A4.height - MARGIN - 52, 8, bold, QUIET);
      x += column.width;
    }
    rows.slice(i * perPage, (i + 1) * perPage).forEach((row, k) => {
      const y = A4.height - MARGIN - 72 - k * LINE;
      drawRow(page, row, y, pens);
    });
  }
  return document.save();
}

function drawRow(page: PDFPage, row: PatchRow, y: number, { plain, bold }: Pens): void {
  let x = MARGIN;
  for (const { title, width, text } of COLUMNS) {
    const pen = title === 'Name' || title === 'Address' ? bold : plain;
    if (title === 'DIP 1-9') drawSwitches(page, row.dip, x, y - 3);
    else pen.write(page, shortened(pen, text(row), 8.5, width - 6), { x, y, size: 8.5, color: INK });
    x += width;
  }
  page.drawLine({
    start: { x: MARGIN, y: y - 7 },
    end: { x: A4.width - MARGIN, y: y - 7 },
    thickness: 0.5,
    color: RULE,
  });
}

/** As they look on the lamp: 1 at the left, up is on. */
function drawSwitches(page: PDFPage, dip: readonly boolean[], x: number, y: number): void {
  dip.forEach((on, i) => {
    page.drawRectangle({ x: x + i * 7.5, y, width: 5.5, height: 12, borderColor: QUIET, borderWidth: 0.5 });
    page.drawRectangle({
      x: x + i * 7.5 + 0.8,
      y: on ? y + 6.2 : y + 0.8,
      width: 3.9,
      height: 5,
      color: on ? INK : QUIET,
    });
  });
}
