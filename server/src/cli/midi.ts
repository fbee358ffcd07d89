import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { counted } from '@hovlix/core/counted';
import { writeBundle, type Bundle } from '@hovlix/core/files';
import {
  commandsOf,
  readMidi,
  takenFrom,
  usualChoices,
  writeSongAsMidi,
  type MidiChoices,
  type MidiMusic,
} from '@hovlix/core/midi';
import { noteName } from '@hovlix/core/light';
import { wordsFor } from '@hovlix/core/problem';
import { edit, legal, type Show } from '@hovlix/core/show';
import type { Song } from '@hovlix/core/song';
import { bundleFrom, bytesOf, language, songIn, writeTo } from './files';
import { options, UsageError } from './usage';

export const MIDI_HELP = `Usage: hovlix midi SHOW.hovlix --song NAME --out FILE.mid
       hovlix midi SHOW.hovlix --song NAME --in FILE.mid [--list | --out NEW.hovlix] [choices]

Writes a song as a Standard MIDI File: tempo, meter, sections as markers, markers as cue points, hit lanes as notes. Or
brings one in: the show with what was taken of it is written to NEW.hovlix; SHOW.hovlix stays as it is.
  --list                what the file holds; changes nothing
  --tempo yes|no        its tempo and meter, in the place of the song's (yes where the song has no music)
  --sections yes|no     its markers as sections (yes where the song has none)
  --cues yes|no         its cue points as markers (yes where the song has none)
  --part T/C[=ROLE]     a part by track and channel, for a role; may be given again (all drums for the first role)
  --kit NAME            what answers to the notes; without, a kit is made with a hit for each of them
  --by-note             a lane for each note`;

export async function midiCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({
    args,
    allowPositionals: true,
    options: {
      song: { type: 'string' },
      in: { type: 'string' },
      out: { type: 'string' },
      list: { type: 'boolean' },
      tempo: { type: 'string' },
      sections: { type: 'string' },
      cues: { type: 'string' },
      part: { type: 'string', multiple: true },
      kit: { type: 'string' },
      'by-note': { type: 'boolean' },
    },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file) throw new UsageError('midi takes one SHOW.hovlix');
  const bundle = bundleFrom(file);
  const song = songIn(bundle.show, values.song);
  if (values.in === undefined) {
    if (!values.out || !/\.midi?$/i.test(values.out)) throw new UsageError('--out takes a name that ends in .mid');
    return writeTo(values.out, writeSongAsMidi(song));
  }
  const music = readMidi(bytesOf(values.in), basename(values.in), language());
  if (!music.ok) throw new Error(wordsFor(music.problem));
  for (const one of music.value.left) process.stderr.write(`hovlix: ${one}\n`);
  if (values.list) return void process.stdout.write(listOf(music.value));
  if (!values.out || !/\.hovlix$/i.test(values.out)) throw new UsageError('--out takes a name that ends in .hovlix');
  const usual = usualChoices(music.value, song, bundle.show);
  const kit = values.kit === undefined ? null : named(bundle.show.kits, values.kit, 'hit kit').id;
  const chosen = values.part?.map((text) => partOf(text, music.value, bundle.show)) ?? usual.parts;
  const choices: MidiChoices = {
    tempo: yesOrNo(values.tempo, 'tempo') ?? usual.tempo,
    sections: yesOrNo(values.sections, 'sections') ?? usual.sections,
    cues: yesOrNo(values.cues, 'cues') ?? usual.cues,
    parts: chosen.map((part) => ({ ...part, kit, byNote: values['by-note'] === true })),
  };
  writeTo(values.out, taken(bundle, song, music.value, choices));
}

function taken(bundle: Bundle, song: Song, music: MidiMusic, choices: MidiChoices): Uint8Array {
  const found = takenFrom(music, song, bundle.show, choices, randomUUID);
  for (const one of found.left) process.stderr.write(`hovlix: ${one}\n`);
  const show = commandsOf(song.id, found).reduce<Show>((now, command) => edit(now, command).show, bundle.show);
  const good = legal(show, new WeakSet());
  if (!good.ok) throw new Error(wordsFor(good.problem));
  return writeBundle({ ...bundle, show, chain: [...bundle.chain, randomUUID()].slice(-1000), savedAt: Date.now() });
}

function yesOrNo(text: string | undefined, name: string): boolean | undefined {
  if (text === undefined) return undefined;
  if (text !== 'yes' && text !== 'no') throw new UsageError(`--${name} takes yes or no, got: ${text}`);
  return text === 'yes';
}

function named<One extends { readonly name: string }>(all: readonly One[], name: string, what: string): One {
  const found = all.find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (found) return found;
  throw new UsageError(
    `There is no ${what} “${name}” in it. It has: ${all.map((one) => one.name).join(', ') || 'none'}`,
  );
}

/** “2/10” or “2/10=Movers”. */
function partOf(text: string, music: MidiMusic, show: Show): MidiChoices['parts'][number] {
  const [part = '', role] = text.split('=');
  if (!music.parts.some(({ key }) => key === part))
    throw new UsageError(
      `There is no part ${part} in the file. It has: ${music.parts.map(({ key }) => key).join(', ') || 'none'}`,
    );
  const first = role === undefined ? show.roles[0] : named(show.roles, role, 'role');
  if (!first) throw new UsageError('The show has no role yet that hits could be played on');
  return { part, role: first.id, kit: null, byNote: false };
}

function listOf({ parts, tempo, meter, markers, cues, timed }: MidiMusic): string {
  const bpm = tempo.map(({ pulse }) => 60 / pulse);
  const lines = [
    timed
      ? 'counts in seconds'
      : `tempo    ${Math.min(...bpm).toFixed(1)} to ${Math.max(...bpm).toFixed(1)} bpm, ${tempo.length} in all`,
    `meter    ${meter.map(({ numerator, denominator }) => `${numerator}/${denominator}`).join(', ')}`,
    `markers  ${markers.map(({ name }) => name).join(', ') || 'none'}`,
    `cues     ${cues.map(({ name }) => name).join(', ') || 'none'}`,
    ...parts.map(({ key, name, notes }) => {
      const pitches = [...new Set(notes.map(({ note }) => note))].sort((a, b) => a - b);
      return `part ${key}  ${name}: ${counted(notes.length, 'note')}, ${pitches.map(noteName).join(', ')}`;
    }),
  ];
  return lines.join('\n') + '\n';
}
