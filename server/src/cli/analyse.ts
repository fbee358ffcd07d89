// `hovlix analyse`: what is found in recordings, as JSON and as Standard MIDI Files.

import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { basename, extname, join } from 'node:path';
import { analyse, confidenceOf, readTags, type Analysis } from '@hovlix/core/analysis';
import { writeSongAsMidi } from '@hovlix/core/midi';
import { wordsFor } from '@hovlix/core/problem';
import { songOfRecording } from '@hovlix/core/song';
import { bytesOf } from './files';
import { options, UsageError } from './usage';

export const ANALYSE_HELP = `Usage: hovlix analyse FILE|FOLDER ... [--json OUT] [--midi OUT]

Finds tempo, meter, beats, bars and sections of WAV, FLAC, MP3 and OGG files. --json writes
  {durationSec, bpm, confidence, meter, beats, downbeats, sections}   (times in seconds)
to OUT; - is standard output. --midi writes a Standard MIDI File with tempo, meter and section markers.
With several files, or a folder, OUT is a folder with one file for each.`;

const SOUND = new Set(['.wav', '.flac', '.mp3', '.ogg']);

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
  const failures: string[] = [];
  for (const [i, file] of files.entries()) {
    const bytes = bytesOf(file);
    const found = await analyse(bytes, basename(file), async () => 'go-on');
    if (!found.ok && !many) throw new Error(wordsFor(found.problem));
    if (!found.ok) {
      failures.push(wordsFor(found.problem));
      continue;
    }
    if (many)
      process.stderr.write(`${i + 1} of ${files.length}: ${basename(file)}, ${found.value.bpm.toFixed(1)} bpm\n`);
    if (values.json) write(placeOf(values.json, file, '.json', many), jsonOf(found.value));
    if (values.midi) write(placeOf(values.midi, file, '.mid', many), await midiOf(file, bytes, found.value));
  }
  if (failures.length > 0) throw new Error(failures.join('\n'));
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
  if (files.length === 0) throw new UsageError(`${path} has no WAV, FLAC, MP3 or OGG file`);
  return files.sort().map((name) => join(path, name));
}

function placeOf(out: string, file: string, ending: string, many: boolean): string {
  if (!many || out === '-') return out;
  mkdirSync(out, { recursive: true });
  return join(out, basename(file, extname(file)) + ending);
}

function write(place: string, content: string | Uint8Array): void {
  if (place === '-') process.stdout.write(content);
  else writeFileSync(place, content);
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
  const kept = { name: basename(file), hash, bytes: bytes.length, tags: await readTags(bytes) };
  let count = 0;
  return writeSongAsMidi(songOfRecording(kept, found, () => `s${++count}`));
}
