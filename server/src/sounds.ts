// What can be heard in the songs of a show, as screens found it out: kept by the hash of the music, told to the output.

import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { faultOfEnvelopes } from '@hovlix/core/music';
import { wordsFor } from '@hovlix/core/problem';
import type { Show } from '@hovlix/core/show';

/** Envelopes of songs, as bytes. */
export type SoundBytes = readonly { readonly hash: string; readonly bytes: Uint8Array }[];

export type SoundStore = {
  readonly bytes: (hash: string) => Uint8Array | undefined;
  /** The same, while other things go on. */
  readonly read: (hash: string) => Promise<Uint8Array | undefined>;
  /** Keeps the envelopes of a song, or says what is wrong with them. */
  readonly put: (hash: string, bytes: Uint8Array) => string | undefined;
  /** Those of a show's songs that are known here. */
  readonly of: (show: Show) => SoundBytes;
};

/** A mix of 70 minutes has 7 MB; the oldest go when there are more files than this. */
const MOST_FILES = 400;
const MOST_UNWRITTEN = 50;

/** @param folder where they are kept. @param heard is told of each that is new here. */
export function soundStore(folder: string, heard: (sounds: SoundBytes) => void): SoundStore {
  /** What could not be written, the latest last. */
  const fresh = new Map<string, Uint8Array>();
  const file = (hash: string) => join(folder, `${hash}.envelopes`);
  // A file that was half written is as good as none: a screen brings it again.
  const whole = (read: Uint8Array, hash: string) => (faultOfEnvelopes(read, hash) ? undefined : read);
  const bytes = (hash: string) => {
    const known = fresh.get(hash);
    if (known) return known;
    return existsSync(file(hash)) ? whole(new Uint8Array(readFileSync(file(hash))), hash) : undefined;
  };
  return {
    bytes,
    read: async (hash) =>
      fresh.get(hash) ??
      readFile(file(hash)).then(
        (read) => whole(new Uint8Array(read), hash),
        () => undefined,
      ),
    put(hash, sound) {
      const fault = faultOfEnvelopes(sound, 'the song');
      if (fault) return wordsFor(fault);
      fresh.delete(hash);
      try {
        mkdirSync(folder, { recursive: true });
        writeFileSync(file(hash), sound);
        tidy(folder);
      } catch {
        // A full disk costs the next start a second, and nothing tonight.
        fresh.set(hash, sound);
        if (fresh.size > MOST_UNWRITTEN) fresh.delete(fresh.keys().next().value!);
      }
      heard([{ hash, bytes: sound }]);
      return undefined;
    },
    of: (show) =>
      [...new Set(show.songs.flatMap(({ music }) => music?.hash ?? []))].flatMap((hash) => {
        const known = bytes(hash);
        return known ? [{ hash, bytes: known }] : [];
      }),
  };
}

function tidy(folder: string): void {
  const files = readdirSync(folder).filter((name) => name.endsWith('.envelopes'));
  if (files.length <= MOST_FILES) return;
  const byAge = files.map((name) => join(folder, name)).sort((a, b) => statSync(a).mtimeMs - statSync(b).mtimeMs);
  for (const old of byAge.slice(0, files.length - MOST_FILES)) rmSync(old, { force: true });
}
