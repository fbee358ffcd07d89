// `hovlix analyse`: what is found in recordings, as JSON and as Standard MIDI Files.

import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, statSync } from 'node:fs';
import { basename, extname, join } from 'node:path';
import { analyse, confidenceOf, readTags, type Analysis } from '@hovlix/core/analysis';
import { writeSongAsMidi } from '@hovlix/core/midi';
import { wordsFor } from '@hovlix/core/problem';
import { songOfRecording } from '@hovlix/core/song';
import { bytesOf, language, writeTo, writing } from './files';
import { options, UsageError } from './usage';

export const ANALYSE_HELP = `Usage: hovlix analyse FILE|FOLDER ... [--json OUT] [--midi OUT]

Finds tempo, meter, beats, bars and sections of WAV, AIFF, FLAC, MP3 and OGG files. --json writes
  {durationSec, bpm, confidence, meter, beats, downbeats, sections}   (times in seconds)
to OUT; - is standard output. --midi writes a Standard MIDI File with tempo, meter and section markers.
With several files, or a folder, OUT is a folder with one file for each; of two with one name the second is “NAME (2)”.`;

const SOUND = new Set(['.wav', '.aif', '.aiff', '.aifc', '.flac', '.mp3', '.ogg']);

export async function analyseCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({
    args,
    allowPositionals: true,
    options: { json: { type: 'string' }, midi: { type: 'string' } },
  });
  if (positionals.length === 0) throw new UsageError('analyse takes one FILE or more');
  if (!values.json && !values.midi) throw new UsageError('--json OUT or --midi OUT is needed');
  const files = positionals.flatMap(filesOf);
  const many = files.length !== 1 || positionals.some(isFolder);
  const names = namesFor(files);
  const failures: string[] = [];
  for (const [i, file] of files.entries()) {
    const heard = await listenedTo(file);
    if ('why' in heard) {
      if (!many) throw heard.why;
      failures.push(heard.why.message);
      continue;
    }
    const { bytes, found } = heard;
    if (many) process.stderr.write(`${i + 1} of ${files.length}: ${basename(file)}, ${found.bpm.toFixed(1)} bpm\n`);
    const place = (out: string, ending: string) => (many ? placeIn(out, names[i]! + ending) : out);
    if (values.json) write(place(values.json, '.json'), jsonOf(found));
    if (values.midi) write(place(values.midi, '.mid'), await midiOf(file, bytes, found));
  }
  if (failures.length > 0) throw new Error(failures.join('\n'));
}

/** What is found in a recording, or why nothing is: one that cannot be read stops no other. */
async function listenedTo(
  file: string,
): Promise<{ readonly bytes: Uint8Array; readonly found: Analysis } | { readonly why: Error }> {
  try {
    const bytes = bytesOf(file);
    const found = await analyse(bytes, basename(file), async () => 'go-on');
    return found.ok ? { bytes, found: found.value } : { why: new Error(wordsFor(found.problem)) };
  } catch (error) {
    if (error instanceof UsageError) return { why: error };
    throw error;
  }
}

/** What each file's findings are called: two of one name, of other kinds or in other folders, are told apart. */
function namesFor(files: readonly string[]): readonly string[] {
  const taken = new Set<string>();
  return files.map((file) => {
    const plain = basename(file, extname(file));
    let name = plain;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${plain} (${n})`;
    taken.add(name.toLowerCase());
    return name;
  });
}

function isFolder(path: string): boolean {
  try {
    return statSync(path).isDirectory();
  } catch {
    return false;
  }
}

/** A folder stands for the recordings in it. */
function filesOf(path: string): string[] {
  if (!isFolder(path)) return [path];
  const files = readdirSync(path).filter((name) => SOUND.has(extname(name).toLowerCase()));
  if (files.length === 0) throw new UsageError(`${path} has no WAV, AIFF, FLAC, MP3 or OGG file`);
  return files.sort().map((name) => join(path, name));
}

function placeIn(out: string, name: string): string {
  if (out === '-') return out;
  writing(out, () => mkdirSync(out, { recursive: true }));
  return join(out, name);
}

function write(place: string, content: string | Uint8Array): void {
  if (place === '-') process.stdout.write(content);
  else writeTo(place, content);
}

function jsonOf(found: Analysis): string {
  const rounded = (time: number) => Math.round(time * 1e4) / 1e4;
  const { numerator, denominator } = found.meter[0]!;
  return (
    JSON.stringify({
      durationSec: rounded(found.duration),
      bpm: Math.round(found.bpm * 100) / 100,
      confidence: Math.round(confidenceOf(found.heard, found) * 100) / 100,
      meter: `${numerator}/${denominator}`,
      beats: found.beats.map(rounded),
      downbeats: found.downbeats.map(rounded),
      sections: found.sections.map(({ start, role, letter, confidence }) => ({
        startSec: rounded(start),
        label: role.toLowerCase(),
        letter,
        confidence: Math.round(confidence * 100) / 100,
      })),
    }) + '\n'
  );
}

async function midiOf(file: string, bytes: Uint8Array, found: Analysis): Promise<Uint8Array> {
  const hash = createHash('sha256').update(bytes).digest('hex');
  const kept = { name: basename(file), hash, bytes: bytes.length, tags: await readTags(bytes, language()) };
  let count = 0;
  return writeSongAsMidi(songOfRecording(kept, found, () => `s${++count}`));
}
