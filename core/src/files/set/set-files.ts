// Set lists as other programs know them: the order as M3U, all of it as CSV.

import Papa from 'papaparse';
import { Entry, type SetList } from '../../gig';
import { failed, ok, type Result } from '../../problem';
import type { Show } from '../../show';
import { setRows } from '../paper/set-sheet';

/** Extended M3U: a line of length and title before each file name. Entries without music are left out. */
export function setM3u(show: Show, set: SetList): string {
  const lines = set.entries.flatMap((entry) => {
    const song = entry.kind === 'song' ? show.songs.find(({ id }) => id === entry.song) : undefined;
    if (!song) return [];
    const who = song.by ? `${song.by} - ${song.title}` : song.title;
    return [`#EXTINF:${Math.round(song.duration)},${oneLine(who)}`, oneLine(song.music?.name ?? `${song.title}.wav`)];
  });
  return ['#EXTM3U', ...lines, ''].join('\n');
}

const oneLine = (words: string): string => words.replace(/[\r\n]+/g, ' ');

/** CSV as RFC 4180 has it, with a heading row. Texts that a spreadsheet would run as a formula get an apostrophe. */
export function setCsv(show: Show, set: SetList): string {
  const lines = setRows(show, set).map((row) => ({
    Number: row.number,
    Title: row.title,
    'Played by': row.by,
    Key: row.key,
    'Tempo, bpm': row.bpm ?? '',
    'Length, s': Math.round(row.length),
    Notes: row.notes,
    Encore: row.encore ? 'yes' : '',
  }));
  return Papa.unparse(lines, { escapeFormulae: true, newline: '\r\n' });
}

export type ReadOrder = {
  /** Songs of the show, in the order of the file. */
  readonly entries: readonly Entry[];
  /** What the file names and the show has not. */
  readonly unknown: readonly string[];
};

const MOST_LINES = 5000;

/**
 * A playlist's order, by the songs of a show: matched by the name of the music file, else by the title. A byte order
 * mark, CR LF, folders before the names and `%20` are all seen in the wild.
 * @param name what to call the file in a problem's words. @param freshId makes an id.
 */
export function readM3u(text: string, name: string, show: Show, freshId: () => string): Result<ReadOrder> {
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .map((line) => line.trim())
    .filter(Boolean);
  if (lines.length > MOST_LINES)
    return failed({
      code: 'bad-value',
      name,
      path: 'the file',
      detail: `a playlist may have up to ${MOST_LINES} lines`,
    });
  if (/[\u0000-\u0008\u000E-\u001F]/.test(text))
    return failed({ code: 'bad-value', name, path: 'the file', detail: 'a playlist is plain text' });
  const entries: Entry[] = [];
  const unknown: string[] = [];
  let said = '';
  for (const line of lines) {
    const info = /^#EXTINF:[^,]*,(.*)$/i.exec(line);
    if (info) said = info[1]!.trim();
    if (line.startsWith('#')) continue;
    const song = songNamed(show, line, said);
    if (song) entries.push(Entry.parse({ kind: 'song', id: freshId(), song: song.id }));
    else unknown.push(said || fileName(line));
    said = '';
  }
  if (entries.length === 0)
    return failed({ code: 'bad-value', name, path: 'the file', detail: 'none of its titles is a song of this show' });
  return ok({ entries: entries.slice(0, 500), unknown });
}

function songNamed(show: Show, line: string, said: string) {
  const file = plain(fileName(line));
  const stem = file.replace(/\.[a-z0-9]{2,5}$/, '');
  const wanted = plain(said);
  return (
    show.songs.find(({ music }) => music && plain(music.name) === file) ??
    show.songs.find(({ title, by }) =>
      [plain(title), plain(`${by} - ${title}`)].some((one) => one === stem || one === wanted),
    )
  );
}

/** The last part of a path or an address. */
function fileName(line: string): string {
  const last = line.split(/[\\/]/).at(-1) ?? line;
  try {
    return decodeURIComponent(last);
  } catch {
    // A per cent sign that is one.
    return last;
  }
}

const plain = (words: string): string => words.normalize('NFC').trim().toLowerCase();
