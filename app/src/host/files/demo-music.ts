// The demo comes with Hovlix: its show, and the music of its songs as files beside it. A screen that joins while the demo
// is on brings the music to its own store.

import { failed, type Problem, type Result } from '@hovlix/core/problem';
import { readShow, type Show } from '@hovlix/core/show';
import { recordingsOf } from '@hovlix/core/song';
import type { Document } from '../document/document';
import type { Repository } from '../document/repository';

/** The id of the show that comes with Hovlix. */
export const DEMO = 'boathouse';

const SHOW = '/demo/show.json';

/** The demo's show as it ships. */
export async function demoShow(): Promise<Result<Show>> {
  try {
    const response = await fetch(SHOW);
    if (response.ok) return readShow(await response.json(), 'the demo');
  } catch {
    // No server, or another page in its place.
  }
  return failed({ code: 'unreachable', what: 'The demo show' });
}

/** The page comes first: 4 MB of music wait so long for it, in ms, unless somebody plays. */
const PAGE_FIRST = 2500;

export type DemoMusic = {
  /** Fetches it now, if it is not here yet: somebody wants to hear it. */
  readonly bring: () => Promise<void>;
  /** Ends when it has come, or will not: what to wait for before saying that music is not here. */
  readonly settled: () => Promise<void>;
};

/**
 * Follows the document; while the demo is open, what is missing of its music is fetched once.
 * @param tell is told why it cannot be kept.
 */
export function followDemo(document: Document, repository: Repository, tell: (problem: Problem) => void): DemoMusic {
  let brought: Promise<void> | undefined;
  let wanted: ReturnType<typeof recordingsOf> | undefined;
  let ended = () => {};
  const end = new Promise<void>((resolve) => (ended = resolve));
  const fetched = () =>
    (brought ??=
      wanted &&
      bring(wanted, repository)
        .then((problem) => problem && tell(problem))
        .catch(() => void (brought = undefined))
        .finally(ended));
  document.store.subscribe(({ show }) => {
    if (wanted || show?.id !== DEMO) return;
    wanted = recordingsOf(show.songs);
    setTimeout(fetched, PAGE_FIRST);
  });
  return {
    bring: async () => fetched(),
    settled: async () => (wanted ? end : undefined),
  };
}

/** One song after the other; music that was added to the demo here did not come with it, and is not asked for. */
async function bring(wanted: ReturnType<typeof recordingsOf>, repository: Repository): Promise<Problem | undefined> {
  let shipped: string | undefined;
  for (const { hash, type } of wanted) {
    if (await repository.hasMusic(hash)) continue;
    shipped ??= await (await fetch(SHOW)).text();
    const bytes = shipped.includes(hash) ? await part(hash, type) : undefined;
    if (!bytes) continue;
    const [peaks, envelopes] = await Promise.all([part(hash, 'peaks'), part(hash, 'envelopes')]);
    const problem = await repository.putMusic(hash, { bytes, peaks, envelopes });
    // Where there is no room for one there is none for the next.
    if (problem) return problem;
  }
  return undefined;
}

async function part(hash: string, ending: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
  const response = await fetch(`/demo/music/${hash}.${ending}`);
  // A host that answers any address with its page has no such file.
  const isPage = response.headers.get('content-type')?.startsWith('text/html') ?? false;
  return response.ok && !isPage ? new Uint8Array(await response.arrayBuffer()) : undefined;
}
