// Reading what the command is given.

import { openSync, readFileSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import type { Sounds } from '@hovlix/core/engine';
import { readBundle, type Bundle } from '@hovlix/core/files';
import { readEnvelopes, type Envelopes } from '@hovlix/core/music';
import { wordsFor } from '@hovlix/core/problem';
import type { Rig } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import type { Song } from '@hovlix/core/song';
import { reasonOf } from '../keep/whole';
import { UsageError } from './usage';

/** Of this computer: older files are read as its programs write. */
export const language = (): string => Intl.DateTimeFormat().resolvedOptions().locale;

/** @throws UsageError where there is no such file or it may not be read. */
export function bytesOf(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new UsageError(code === 'ENOENT' ? `There is no file ${file}` : `${file} cannot be read (${code})`);
  }
}

/** @throws UsageError where it cannot be written. */
export const writeTo = (file: string, content: string | Uint8Array): void =>
  writing(file, () => writeFileSync(file, content));

/** A file to write to. @throws UsageError where it cannot be written. */
export const openedTo = (file: string): number => writing(file, () => openSync(file, 'w'));

/** Writes to a file or folder, or says why that cannot be. */
export function writing<T>(file: string, write: () => T): T {
  try {
    return write();
  } catch (error) {
    throw new UsageError(`${file} cannot be written: ${reasonOf(error)}`);
  }
}

export function bundleFrom(file: string): Bundle {
  const bundle = readBundle(bytesOf(file), basename(file));
  if (!bundle.ok) throw new Error(wordsFor(bundle.problem));
  return bundle.value;
}

/** What followers hear in the songs of a bundle, as far as it is in there. */
export function soundsIn({ music }: Bundle): Sounds {
  const sounds = new Map<string, Envelopes>();
  for (const [hash, { envelopes }] of music) {
    const read = envelopes && readEnvelopes(envelopes, hash);
    if (read?.ok) sounds.set(hash, read.value);
  }
  return sounds;
}

/** By title or id, in any case. */
export function songIn(show: Show, name: string | undefined): Song {
  if (name === undefined) throw new UsageError('--song is needed: the title of a song');
  const wanted = name.toLowerCase();
  const song = show.songs.find((one) => one.title.toLowerCase() === wanted || one.id === wanted);
  if (song) return song;
  throw new UsageError(`There is no song “${name}” in it. It has: ${show.songs.map((one) => one.title).join(', ')}`);
}

/** The named rig, or the one in use. */
export function rigIn(show: Show, name: string | undefined): Rig['id'] {
  if (name === undefined) return show.rig;
  const wanted = name.toLowerCase();
  const rig = show.rigs.find((one) => one.name.toLowerCase() === wanted || one.id === wanted);
  if (rig) return rig.id;
  throw new UsageError(`There is no rig “${name}” in it. It has: ${show.rigs.map((one) => one.name).join(', ')}`);
}
