// How well beats, bars and sections are found: npm run bench:music [-- FOLDER … --json OUT]
// A folder holds recordings and beside each its truth, NAME.json: {bpm, beats, downbeats, sections: [{startSec}]}, seconds,
// and where strokes of drums are to be scored, too, `strokes` in it or NAME.mid.
// Without folders the songs of the demo are heard.

import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { analyse, confidencesOf } from '@hovlix/core/analysis';
import { readBundle } from '@hovlix/core/files';
import { wordsFor } from '@hovlix/core/problem';
import { drumScores, playedIn, type Played } from './music-drums';
import { meanOf, MEASURES, scoresOf, type Estimate, type Scores, type Truth } from './music-scores';

type Known = Truth & { readonly strokes?: Played };
type Piece = { readonly name: string; readonly bytes: Uint8Array; readonly truth: Known };
const root = fileURLToPath(new URL('../..', import.meta.url));

function* piecesOf(folder: string): Generator<Piece> {
  for (const file of readdirSync(folder).sort()) {
    const name = basename(file, extname(file));
    if (!['.ogg', '.wav', '.flac', '.mp3'].includes(extname(file))) continue;
    const truth = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as Known;
    const midi = join(folder, `${name}.mid`);
    yield {
      name,
      bytes: readFileSync(join(folder, file)),
      truth: existsSync(midi) ? { ...truth, strokes: playedIn(readFileSync(midi), name) } : truth,
    };
  }
}

function* demoPieces(): Generator<Piece> {
  const bundle = readBundle(readFileSync(join(root, 'demo/boathouse.hovlix')), 'boathouse.hovlix');
  if (!bundle.ok) throw new Error(wordsFor(bundle.problem));
  for (const song of bundle.value.show.songs) {
    const music = song.music && bundle.value.music.get(song.music.hash);
    const truth = JSON.parse(readFileSync(join(root, `demo/truth/${song.id}.json`), 'utf8')) as Truth;
    if (music) yield { name: song.title, bytes: music.bytes, truth };
  }
}

/** By how sure beats are said to be, how many there are and how many lie on a true one. */
const tenths = Array.from({ length: 10 }, () => ({ count: 0, right: 0 }));

/** Scores of drums by name, of all pieces of a folder. */
const drums = new Map<string, number[]>();

async function measured(piece: Piece): Promise<{ scores: Scores; estimate: Estimate; speed: number }> {
  const begun = performance.now();
  const found = await analyse(piece.bytes, piece.name, async () => 'go-on');
  if (!found.ok) throw new Error(`${piece.name}: ${wordsFor(found.problem)}`);
  const took = (performance.now() - begun) / 1000;
  const { bpm, beats, downbeats, sections, duration, envelopes } = found.value;
  for (const [drum, score] of Object.entries(drumScores(piece.truth.strokes ?? {}, envelopes)))
    drums.set(drum, [...(drums.get(drum) ?? []), score]);
  confidencesOf(found.value.heard, found.value).forEach((sure, i) => {
    const right = piece.truth.beats.some((beat) => Math.abs(beat - beats[i]!) <= 0.07);
    const tenth = tenths[Math.min(9, Math.floor(sure * 10))]!;
    tenth.count++;
    if (right) tenth.right++;
  });
  const estimate = { bpm, beats, downbeats, sections: sections.map(({ start }) => ({ startSec: start })) };
  return { scores: scoresOf(piece.truth, estimate), estimate, speed: duration / took };
}

const row = (name: string, scores: Scores) =>
  name.slice(0, 24).padEnd(26) +
  MEASURES.map((measure) => {
    const value = scores[measure];
    return (value === undefined ? '–' : value.toFixed(measure === 'error ms' ? 1 : 3)).padStart(10);
  }).join('');

const { values, positionals } = parseArgs({ allowPositionals: true, options: { json: { type: 'string' } } });
const results: Record<string, unknown> = {};
for (const folder of positionals.length > 0 ? positionals : [undefined]) {
  console.log('\n' + (folder ?? 'songs of the demo').padEnd(26) + MEASURES.map((name) => name.padStart(10)).join(''));
  const all: Scores[] = [];
  const speeds: number[] = [];
  for (const piece of folder ? piecesOf(folder) : demoPieces()) {
    const { scores, estimate, speed } = await measured(piece);
    console.log(row(piece.name, scores) + `${estimate.bpm.toFixed(1)}`.padStart(8));
    results[piece.name] = { scores, estimate };
    all.push(scores);
    speeds.push(speed);
  }
  console.log(row('mean', meanOf(all)));
  const said = tenths.flatMap(({ count, right }, i) =>
    count > 0 ? `${i * 10} %: ${((100 * right) / count).toFixed(0)} % of ${count}` : [],
  );
  console.log(`beats that are right, by how sure they are said to be: ${said.join(', ')}`);
  for (const [drum, scores] of drums)
    console.log(
      `${drum}: F ${(scores.reduce((a, b) => a + b, 0) / scores.length).toFixed(2)} in ${scores.length} pieces`,
    );
  drums.clear();
  tenths.forEach((tenth) => Object.assign(tenth, { count: 0, right: 0 }));
  console.log(`${(speeds.reduce((a, b) => a + b, 0) / speeds.length).toFixed(1)} seconds of music a second`);
}
if (values.json) writeFileSync(values.json, JSON.stringify(results, null, 1) + '\n');
