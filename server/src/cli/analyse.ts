import { writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { analyse } from '@hovlix/core/music';
import { wordsFor } from '@hovlix/core/problem';
import { bytesOf } from './files';
import { options, UsageError } from './usage';

export const ANALYSE_HELP = `Usage: hovlix analyse FILE --json OUT

Finds tempo, meter, beats and bars of a WAV, FLAC, MP3 or OGG file and writes
  {durationSec, bpm, meter, beats, downbeats, sections}   (times in seconds)
to OUT; - is standard output.`;

export async function analyseCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({ args, allowPositionals: true, options: { json: { type: 'string' } } });
  const [file] = positionals;
  if (positionals.length !== 1 || !file) throw new UsageError('analyse takes one FILE');
  if (!values.json) throw new UsageError('--json OUT is needed');
  const found = await analyse(bytesOf(file), basename(file), async () => 'go-on');
  if (!found.ok) throw new Error(wordsFor(found.problem));
  const { duration, bpm, meter, beats, downbeats } = found.value;
  const rounded = (times: readonly number[]) => times.map((time) => Math.round(time * 1e4) / 1e4);
  const text = JSON.stringify({
    durationSec: Math.round(duration * 1e4) / 1e4,
    bpm: Math.round(bpm * 100) / 100,
    meter: `${meter[0]!.numerator}/${meter[0]!.denominator}`,
    beats: rounded(beats),
    downbeats: rounded(downbeats),
    sections: [],
  });
  if (values.json === '-') process.stdout.write(text + '\n');
  else writeFileSync(values.json, text + '\n');
}
