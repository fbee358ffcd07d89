// What a band tapes to the floor: the set list, and the card that says what each switch does in each song.

import { GESTURES, sourceWords, stopsOf, type Entry, type SetList, type SwitchControl } from '../../gig';
import { actName, lookName, stopWords } from '../../live';
import type { Show } from '../../show';
import type { Song } from '../../song';
import { meterAtBar, pulseLength } from '../../time';
import { paper, type Made, type Paper } from './page';

/** One place of a set. Lengths are in seconds. */
export type SetRow = {
  readonly number: number;
  readonly title: string;
  readonly by: string;
  readonly key: string;
  readonly bpm: number | null;
  readonly length: number;
  readonly notes: string;
  readonly encore: boolean;
};

export function setRows(show: Show, set: SetList): readonly SetRow[] {
  return set.entries.map((entry, i) => ({ number: i + 1, encore: entry.encore === true, ...rowOf(show, entry) }));
}

function rowOf(show: Show, entry: Entry): Omit<SetRow, 'number' | 'encore'> {
  const notes = entry.notes ?? '';
  if (entry.kind === 'pause') return { title: 'Pause', by: '', key: '', bpm: null, length: entry.minutes * 60, notes };
  if (entry.kind === 'look') {
    return { title: lookName(show, entry.look), by: '', key: '', bpm: null, length: 0, notes };
  }
  const song = show.songs.find(({ id }) => id === entry.song);
  return {
    title: song?.title ?? 'A song that is gone',
    by: song?.by ?? '',
    key: entry.key ?? song?.key ?? '',
    bpm: song ? feltTempo(song) : null,
    length: song?.duration ?? 0,
    notes: notes || (song?.notes ?? ''),
  };
}

/** Felt beats a minute over the whole song. */
function feltTempo({ tempo: { anchors }, meter }: Song): number {
  const [first, last] = [anchors[0]!, anchors.at(-1)!];
  return Math.round((60 * (last.beat - first.beat)) / (last.time - first.time) / pulseLength(meterAtBar(meter, 0)));
}

/** A4, in type that is read standing: numbers, titles, keys and notes. */
export async function setListPdf(show: Show, set: SetList, made: Made): Promise<Uint8Array> {
  const sheet = await paper(`${set.name}, ${show.name}`, made);
  sheet.text(set.name, { size: 30, bold: true, gap: 14 });
  let encore = false;
  for (const row of setRows(show, set)) {
    if (row.encore && !encore) sheet.text('Encore', { size: 16, quiet: true, gap: 10 });
    encore = row.encore;
    sheet.room(46);
    sheet.cells(
      [
        [`${row.number}`, 0.08],
        [row.title, 0.62],
        [row.key, 0.14],
        [clock(row.length), 0.16],
      ],
      22,
      true,
    );
    const under = [row.bpm === null ? '' : `${row.bpm} bpm`, row.notes].filter(Boolean).join(', ');
    if (under) sheet.text(under, { size: 12, quiet: true, indent: 41, gap: 7 });
  }
  return sheet.bytes();
}

/** What each switch does, then what its presses lead through in each song, then the program numbers of looks. */
export async function pedalCardPdf(show: Show, set: SetList, made: Made): Promise<Uint8Array> {
  const card = await paper(`Pedal card, ${show.name}`, made);
  const switches = show.controls.filter((one): one is SwitchControl => one.kind === 'switch');
  card.text('Pedal card', { size: 30, bold: true, gap: 14 });
  if (switches.length === 0) card.text('No switch does anything yet.', { size: 14 });
  for (const control of switches) drawSwitch(card, show, control);
  const leads = switches.some(({ does }) =>
    GESTURES.some((gesture) => does[gesture].some(({ act }) => act === 'stop')),
  );
  if (leads) drawStops(card, show, set);
  drawPrograms(card, show);
  return card.bytes();
}

const GESTURE_WORDS = { press: 'Press', double: 'Twice', hold: 'Hold', release: 'Let go' } as const;

function drawSwitch(card: Paper, show: Show, control: SwitchControl): void {
  card.room(90);
  card.rule();
  const pedal = show.pedals.find(({ id }) => id === control.pedal)?.name;
  card.text(control.name, { size: 22, bold: true });
  card.text([pedal, sourceWords(control.source)].filter(Boolean).join(', '), { size: 10, quiet: true, gap: 6 });
  const tables = [
    { title: '', does: control.does },
    ...(control.banks ?? []).map(({ bank, does }) => ({
      title: show.banks.find(({ id }) => id === bank)?.name ?? '',
      does,
    })),
  ];
  for (const { title, does } of tables) {
    if (title) card.text(`In bank ${title}`, { size: 14, bold: true });
    for (const gesture of GESTURES) {
      if (does[gesture].length === 0) continue;
      const acts = does[gesture].map((act) => actName(show, act)).join(' + ');
      card.text(`${GESTURE_WORDS[gesture]}: ${acts}`, { size: 18, indent: 12 });
    }
  }
}

/** The line of stops: what each press leads to. */
function drawStops(card: Paper, show: Show, set: SetList): void {
  card.room(80);
  card.rule();
  card.text(`${set.name}: each press`, { size: 22, bold: true, gap: 10 });
  const stops = stopsOf(set, show);
  set.entries.forEach((entry, i) => {
    const own = stops.filter((stop) => stop.entry.id === entry.id);
    if (own.length === 0) return;
    card.text(`${i + 1}  ${rowOf(show, entry).title}`, { size: 16, bold: true });
    card.text(own.map((stop) => stopWords(show, stop)).join('  >  '), { size: 14, indent: 22, gap: 8 });
  });
}

/** Programs that call something, to cut out for the floor. */
function drawPrograms(card: Paper, show: Show): void {
  const programs = show.controls.flatMap((control) =>
    control.kind === 'switch' && control.source?.by === 'program' ? [{ control, source: control.source }] : [],
  );
  if (programs.length === 0) return;
  card.room(80);
  card.rule();
  card.text('Programs', { size: 22, bold: true, gap: 10 });
  card.cells(
    [
      ['Bank', 0.14],
      ['Program', 0.16],
      ['From 0', 0.14],
      ['Does', 0.56],
    ],
    11,
    true,
  );
  const sorted = [...programs].sort(
    (a, b) => (a.source.bank ?? -1) - (b.source.bank ?? -1) || a.source.number - b.source.number,
  );
  for (const { control, source } of sorted)
    card.cells(
      [
        [source.bank === null ? 'any' : String(source.bank), 0.14],
        [String(source.number + 1), 0.16],
        [String(source.number), 0.14],
        [control.does.press.map((act) => actName(show, act)).join(' + ') || control.name, 0.56],
      ],
      14,
    );
}

/** `3:05`; nothing for what takes no time. */
export function clock(seconds: number): string {
  if (seconds <= 0) return '';
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
