// The music of the demo comes with Hovlix: a screen that joins while the demo is on brings it to its own store.

import type { Bundle } from '@hovlix/core/files';
import { failed, type Result } from '@hovlix/core/problem';
import { recordingsOf } from '@hovlix/core/song';
import type { Document } from '../document/document';
import type { Repository } from '../document/repository';
import { zipFormats } from './formats';

/** The id of the show that comes with Hovlix. */
export const DEMO = 'boathouse';

/** The demo as it ships. */
export async function demoBundle(): Promise<Result<Bundle>> {
  try {
    const response = await fetch('/demo/boathouse.hovlix');
    if (!response.ok) return failed({ code: 'unreachable', what: 'The demo show' });
    const { readBundle } = await zipFormats();
    return readBundle(new Uint8Array(await response.arrayBuffer()), 'boathouse.hovlix');
  } catch {
    return failed({ code: 'unreachable', what: 'The demo show' });
  }
}

/** The page comes first: 4 MB of music wait so long for it, in ms, unless somebody plays. */
const PAGE_FIRST = 2500;

/**
 * Follows the document; while the demo is open, what is missing of its music is fetched once.
 * @returns what to wait for before saying that music is not here.
 */
export function followDemo(document: Document, repository: Repository): () => Promise<void> {
  let brought: Promise<void> | undefined;
  let hashes: readonly string[] | undefined;
  const fetched = () => (brought ??= hashes && bring(hashes, repository).catch(() => undefined));
  document.store.subscribe(({ show }) => {
    if (hashes || show?.id !== DEMO) return;
    hashes = recordingsOf(show.songs).map(({ hash }) => hash);
    setTimeout(fetched, PAGE_FIRST);
  });
  return () => fetched() ?? Promise.resolve();
}

async function bring(hashes: readonly string[], repository: Repository): Promise<void> {
  const here = await Promise.all(hashes.map((hash) => repository.hasMusic(hash)));
  const missing = hashes.filter((_, i) => !here[i]);
  if (missing.length === 0) return;
  const bundle = await demoBundle();
  if (!bundle.ok) return;
  for (const hash of missing) {
    const music = bundle.value.music.get(hash);
    if (music) await repository.putMusic(hash, { ...music, bytes: Uint8Array.from(music.bytes) });
  }
}
