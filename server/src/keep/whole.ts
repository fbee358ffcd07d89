// Files that are written whole or not at all.

import { mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';

/** Nobody else on this computer reads what is kept. */
const OWN = { mode: 0o600 } as const;

const REASONS: ReadonlyMap<string, string> = new Map([
  ['ENOSPC', 'the disk is full'],
  ['EDQUOT', 'the disk is full'],
  ['EACCES', 'Hovlix may not write there'],
  ['EPERM', 'Hovlix may not write there'],
  ['EROFS', 'the disk is read-only'],
  ['ENOENT', 'its folder is not there'],
  ['EISDIR', 'it is a folder'],
  ['EEXIST', 'a file is in its place'],
  ['ENOTDIR', 'a file is in its place'],
]);

/** Why something could not be written, in words for a screen. */
export function reasonOf(error: unknown): string {
  const { code = '', message } = error as NodeJS.ErrnoException;
  return REASONS.get(code) ?? message;
}

/**
 * Writes beside the file and moves it into place, so that a crash leaves the old one or the new one.
 * @throws what the system says; nothing half-written is left lying about on a disk that may be full.
 */
export function writeWhole(file: string, text: string): void {
  const beside = `${file}.last`;
  try {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(beside, text, OWN);
    renameSync(beside, file);
  } catch (error) {
    try {
      rmSync(beside, { force: true });
    } catch {
      // What went wrong first is what is told.
    }
    throw error;
  }
}

/** What could not be written is tried again after this, in ms. */
export const AGAIN_MS = 5000;

/** A file that cannot be read is kept under this name, and not overwritten. */
export const asideOf = (file: string): string => `${file}.bad`;

export function setAside(file: string): void {
  try {
    renameSync(file, asideOf(file));
  } catch {
    // A folder that cannot be written to: the file stays where it is.
  }
}

/**
 * Keeps a file as it should be by now, each time it is called; where that fails, it is tried again until it is there.
 * @param told why it cannot be written; null when it is.
 */
export function keptWhole(file: string, text: () => string, told: (why: string | null) => void): () => void {
  let again: NodeJS.Timeout | undefined;
  const keep = () => {
    clearTimeout(again);
    try {
      writeWhole(file, text());
      told(null);
    } catch (error) {
      told(reasonOf(error));
      again = setTimeout(keep, AGAIN_MS).unref();
    }
  };
  return keep;
}

/** The same as `writeWhole`, without waiting. @param still asked before it is moved into place: whether it is wanted yet. */
export async function writeWholeSoon(file: string, text: string, still = () => true): Promise<void> {
  const beside = `${file}.new`;
  try {
    mkdirSync(dirname(file), { recursive: true });
    await writeFile(beside, text, OWN);
    if (still()) await rename(beside, file);
  } catch (error) {
    await rm(beside, { force: true }).catch(() => undefined);
    throw error;
  }
}
