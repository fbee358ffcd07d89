// Labels to cut out and stick beside switches: what a press does in large letters, what else it does in small ones.

import { PDFDocument, type PDFPage } from 'pdf-lib';
import { GESTURES, sourceWords, type SwitchControl } from '../../gig';
import { actName } from '../../live';
import type { Show } from '../../show';
import { A4, INK, QUIET, RULE, type Made } from './page';
import { broken, pensOf, shortened, type Pen, type Pens } from './pen';

/** A label is 63 by 34 mm: three beside each other, eight in a column. */
const WIDE = 178.6;
const HIGH = 96.4;
const ACROSS = 3;
const DOWN = 8;
const PAD = 8;
const CUT = [3, 3];

const GESTURE_WORDS = { double: 'Twice', hold: 'Hold', release: 'Let go' } as const;

type Label = {
  readonly name: string;
  /** What a press does. */
  readonly does: string;
  readonly more: readonly string[];
  readonly from: string;
};

/** One for each switch, key, pad and program that does something: those of pedals first, as they lie there. */
export function labelsOf(show: Show): readonly Label[] {
  const switches = show.controls.filter((one): one is SwitchControl => one.kind === 'switch');
  const ofPedals = show.pedals.flatMap(({ id }) => switches.filter(({ pedal }) => pedal === id));
  const all = [...ofPedals, ...switches.filter((one) => !ofPedals.includes(one))];
  return all.flatMap(({ name, does, source }): Label[] => {
    const said = (gesture: keyof typeof does) => does[gesture].map((act) => actName(show, act)).join(' + ');
    const more = GESTURES.flatMap((gesture) =>
      gesture === 'press' || does[gesture].length === 0 ? [] : [`${GESTURE_WORDS[gesture]}: ${said(gesture)}`],
    );
    const press = said('press');
    return press || more.length > 0 ? [{ name, does: press || name, more, from: sourceWords(source) }] : [];
  });
}

/** A4, upright; the lines to cut along are dashed. A page that says so where nothing does anything yet. */
export async function labelsPdf(show: Show, { scribe }: Pick<Made, 'scribe'> = {}): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const pens = await pensOf(document, scribe);
  document.setTitle(`Labels, ${show.name}`);
  const labels = labelsOf(show);
  const left = (A4.width - ACROSS * WIDE) / 2;
  const top = A4.height - (A4.height - DOWN * HIGH) / 2;
  let page = document.addPage([A4.width, A4.height]);
  if (labels.length === 0)
    pens.plain.write(page, 'No switch does anything yet.', { x: left + PAD, y: top - 24, size: 14, color: INK });
  labels.forEach((label, i) => {
    const place = i % (ACROSS * DOWN);
    if (i > 0 && place === 0) page = document.addPage([A4.width, A4.height]);
    const x = left + (place % ACROSS) * WIDE;
    const y = top - Math.floor(place / ACROSS) * HIGH;
    draw(page, label, { x, y }, pens);
  });
  return document.save();
}

type At = { readonly x: number; readonly y: number };

function draw(page: PDFPage, { name, does, more, from }: Label, { x, y }: At, { plain, bold }: Pens): void {
  page.drawRectangle({
    x,
    y: y - HIGH,
    width: WIDE,
    height: HIGH,
    borderColor: RULE,
    borderWidth: 0.7,
    borderDashArray: CUT,
  });
  const width = WIDE - 2 * PAD;
  let at = y - PAD;
  const line = (words: string, pen: Pen, size: number, quiet = false) => {
    at -= size;
    pen.write(page, shortened(pen, words, size, width), { x: x + PAD, y: at, size, color: quiet ? QUIET : INK });
    at -= size * 0.35;
  };
  line(`${name}, ${from}`, plain, 7.5, true);
  const large = broken(bold, does, 17, width);
  for (const words of large.slice(0, 2)) line(words, bold, 17);
  for (const words of more.slice(0, 3)) line(words, plain, 9.5);
}
