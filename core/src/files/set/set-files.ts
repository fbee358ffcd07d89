// Set lists as other programs know them: the order as M3U, all of it as CSV.

import Papa from 'papaparse';
import { Entry, MOST_ENTRIES, type SetList } from '../../gig';
import { counted, someOf, tidy } from '../../counted';
import { failed, ok, type Result } from '../../problem';
import type { Show } from '../../show';
import { titleOfFile } from '../../song';
import { setRows } from '../paper/set-sheet';
import { textOf } from '../../text-of';

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
  /** What was in the set and is not any more: songs that the file does not name, and the pauses and looks behind them. */
  readonly unnamed: readonly string[];
  /** How many songs came after the last that a set has room for. */
  readonly over: number;
};

const MOST_LINES = 5000;
const MOST_BYTES = 5e6;

/**
 * A playlist's order, or that of a list of titles as plain text, by the songs of a show: matched by the name of the music file, else by the title. A byte order
 * mark, CR LF, folders before the names, `%20`, and letters as older programs write them are all seen in the wild.
 * @param name what to call the file in a problem's words. @param freshId makes an id.
 * `before` is what is in the set: a song that the file names keeps its notes, its key and the pauses and looks behind it.
 * `language` is that of the computer: older files are read as its programs write.
 */
export function readM3u(
  bytes: Uint8Array,
  name: string,
  show: Show,
  freshId: () => string,
  { before = [], language }: { readonly before?: readonly Entry[]; readonly language?: string } = {},
): Result<ReadOrder> {
  const wrong = (detail: string): Result<never> => failed({ code: 'bad-value', name, path: 'the file', detail });
  if (bytes.length > MOST_BYTES) return wrong(`a playlist may have up to ${MOST_BYTES / 1e6} MB`);
  const text = textOf(bytes, language);
  const lines = text
    .split(/\r\n|\n|\r/)
    .map((line) => line.trim())
    .filter(Boolean);
  if (lines.length > MOST_LINES) return wrong(`a playlist may have up to ${MOST_LINES} lines`);
  if (/[\u0000-\u0008\u000E-\u001F]/.test(text)) return wrong('a playlist is plain text');
  const parts = partsOf(before);
  const entries: Entry[] = [...parts.opening];
  const unknown: string[] = [];
  let said = '';
  let named = 0;
  for (const line of lines) {
    const info = /^#EXTINF:[^,]*,(.*)$/i.exec(line);
    if (info) said = info[1]!.trim();
    if (line.startsWith('#')) continue;
    const song = songNamed(show, line, said);
    if (song) {
      const part = parts.songs.get(song.id)?.shift();
      entries.push(...(part ?? [Entry.parse({ kind: 'song', id: freshId(), song: song.id })]));
      named++;
    } else unknown.push(said || fileName(line));
    said = '';
  }
  if (named === 0) return wrong('none of its titles is a song of this show');
  const isSong = ({ kind }: Entry) => kind === 'song';
  return ok({
    entries: entries.slice(0, MOST_ENTRIES),
    unknown,
    unnamed: [...parts.songs.values()].flat(2).map((entry) => called(entry, show)),
    over: entries.slice(MOST_ENTRIES).filter(isSong).length,
  });
}

/** What of a playlist is not in the set, and what of the set is not in the playlist: sentences, each behind a space. */
export function leftOutWords({ unknown, unnamed, over }: ReadOrder): string {
  const sentences = [
    unknown.length > 0 && ` Not in this show: ${someOf(unknown)}.`,
    over > 0 &&
      ` A set has ${MOST_ENTRIES} places: ${counted(over, 'song')} at its end ${over === 1 ? 'is' : 'are'} left out.`,
    unnamed.length > 0 && ` Not in the set any more: ${someOf(unnamed)}.`,
  ];
  return sentences.filter(Boolean).join('');
}

/** A set's songs, each with the pauses and looks behind it, and what comes before the first. */
function partsOf(entries: readonly Entry[]) {
  const opening: Entry[] = [];
  const songs = new Map<string, Entry[][]>();
  let part = opening;
  for (const entry of entries) {
    if (entry.kind === 'song') {
      part = [];
      songs.set(entry.song, [...(songs.get(entry.song) ?? []), part]);
    }
    part.push(entry);
  }
  return { opening, songs };
}

function called(entry: Entry, show: Show): string {
  if (entry.kind === 'pause') return `a pause of ${tidy(entry.minutes)} min`;
  if (entry.kind === 'look') return show.looks.find(({ id }) => id === entry.look)?.name ?? 'a look';
  return show.songs.find(({ id }) => id === entry.song)?.title ?? 'a song';
}

/** By the name of its file, else by its title: as it stands there, or without a number before it. */
function songNamed(show: Show, line: string, said: string): Show['songs'][number] | undefined {
  const file = plain(fileName(line));
  const byFile = show.songs.find(({ music }) => music && plain(music.name) === file);
  if (byFile) return byFile;
  const stem = file.replace(/\.[a-z0-9]{2,5}$/, '');
  for (const name of [said, stem, titleOfFile(file), stem.replace(/^\d{1,3}[.):]? /, '')].map(plain)) {
    const titled = show.songs.find(({ title, by }) => [plain(title), plain(`${by} - ${title}`)].includes(name));
    if (titled) return titled;
  }
  return undefined;
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
