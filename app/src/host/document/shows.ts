// The shows on this device: begun, opened, copied, named, deleted, and brought in as files.

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Bundle } from '@hovlix/core/files';
import type { Problem } from '@hovlix/core/problem';
import { copyOf, edit, emptyShow, headOf, type Chain, type Copy, type Show } from '@hovlix/core/show';
import { isOn } from '@hovlix/core/live';
import { id } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import { DEMO, demoShow } from '../files/demo-music';
import { zipFormats } from '../files/formats';
import { freshId } from '../fresh-id';
import type { Document } from './document';
import type { Repository, ShowEntry } from './repository';

/** Of two copies of one show, which has more in it; `both` where each has what the other has not. */
export type Newer = 'file' | 'here' | 'same' | 'both';

/** A question that somebody has to answer before a show is opened. */
export type Asking =
  | { readonly type: 'put-on'; readonly copy: Copy }
  | { readonly type: 'import'; readonly bundle: Bundle; readonly here: ShowEntry; readonly newer: Newer };

export type ShowsState = {
  /** What is on this device; undefined until it was looked at. */
  readonly list: readonly ShowEntry[] | undefined;
  readonly asking: Asking | null;
};

export type Shows = {
  readonly store: StoreApi<ShowsState>;
  readonly refresh: () => Promise<void>;
  /** A show with nothing in it, and opens it. */
  readonly begin: (name: string) => Promise<void>;
  /** Opens a show: on every screen where that disturbs nobody, else it asks. */
  readonly open: (id: string) => Promise<Problem | undefined>;
  /** Opens one with light on this screen alone. */
  readonly lookInto: (id: string) => Promise<Problem | undefined>;
  readonly putOn: (id: string) => Promise<Problem | undefined>;
  readonly openDemo: () => Promise<Problem | undefined>;
  readonly duplicate: (id: string) => Promise<Problem | undefined>;
  readonly rename: (id: string, name: string) => Promise<Problem | undefined>;
  readonly remove: (id: string) => Promise<Problem | undefined>;
  readonly bringBack: (id: string) => Promise<Problem | undefined>;
  /** Brings in a .hovlix file. Where the show is here already it asks; else it is opened. */
  readonly bringIn: (name: string, bytes: Uint8Array) => Promise<Problem | undefined>;
  /** Answers the question: what to do with a file, or how to open a show. */
  readonly answer: (how: 'replace' | 'both' | 'put-on' | 'here' | 'cancel') => Promise<void>;
  /** Keeps a copy that grew apart from the one on stage beside it, under a name that says where it is from. */
  readonly keepBeside: (copy: Copy, from: string) => Promise<string>;
};

type Ports = {
  readonly repository: Repository;
  readonly document: Document;
  readonly conducting: Conducting;
  /** Is told of music that is on this device from now on. */
  readonly came: (hash: string) => void;
};

const NAME_LENGTH = 120;
const named = (name: string, more: string) => `${name.slice(0, NAME_LENGTH - more.length)}${more}`;
/** The same show under an id and a history of its own. */
const asNew = (show: Show, name: string): Copy => copyOf({ ...show, id: id<'Show'>(freshId()), name }, [freshId()]);

export function shows({ repository, document, conducting, came }: Ports): Shows {
  const store = createStore<ShowsState>(() => ({ list: undefined, asking: null }));
  const refresh = async () => store.setState({ list: await repository.shows() });
  const ask = (asking: Asking | null) => store.setState({ asking });

  /** Nothing is on that would go, and nobody else is there. */
  const quiet = () => {
    const { live, screens, here } = conducting.store.getState();
    const now = conducting.now();
    return here || (screens <= 1 && !live.song?.playing && !live.standing.some((one) => isOn(one, now)));
  };
  const openCopy = async (copy: Copy): Promise<void> => {
    const { may, conductor } = await conducting.joined();
    // Without the line, or the right, a show can still be looked into.
    if (may !== 'operator' || conductor === 'lost') return conducting.lookInto(copy);
    if (quiet()) return conducting.putOn(copy);
    ask({ type: 'put-on', copy });
  };
  const keepAndOpen = async (copy: Copy): Promise<Problem | undefined> => {
    const problem = await repository.save(copy, { current: false });
    if (problem) return problem;
    await refresh();
    await openCopy(copy);
    return undefined;
  };
  const loaded = async (wanted: string): Promise<{ readonly copy: Copy } | { readonly problem: Problem }> => {
    // The one that is open is newer than what was written of it.
    const open = document.store.getState().copy;
    if (open?.show.id === wanted) return { copy: open };
    const kept = await repository.load(wanted);
    if (kept?.ok) return { copy: kept.value };
    return { problem: kept ? kept.problem : { code: 'unreachable', what: 'That show' } };
  };
  const withCopy = async (wanted: string, work: (copy: Copy) => Promise<Problem | undefined | void>) => {
    const found = await loaded(wanted);
    const problem = 'problem' in found ? found.problem : await work(found.copy);
    await refresh();
    return problem ?? undefined;
  };
  /** Keeps the music of a bundle that is not here yet. */
  const keepMusic = async (music: Bundle['music']): Promise<Problem | undefined> => {
    for (const [hash, file] of music) {
      if (await repository.hasMusic(hash)) continue;
      const problem = await repository.putMusic(hash, { ...file, bytes: Uint8Array.from(file.bytes) });
      if (problem) return problem;
      came(hash);
    }
    return undefined;
  };
  const takeIn = async ({ show, chain, music }: Bundle, as: Copy = copyOf(show, chain)) =>
    (await keepMusic(music)) ?? keepAndOpen(as);
  const bringIn = async (name: string, bytes: Uint8Array): Promise<Problem | undefined> => {
    const { readBundle } = await zipFormats();
    const read = readBundle(bytes, name);
    if (!read.ok) return read.problem;
    const here = (await repository.shows()).find((one) => one.id === read.value.show.id);
    if (!here) return takeIn(read.value);
    const found = await loaded(here.id);
    if ('problem' in found) return takeIn(read.value);
    const newer = newerOf(read.value, found.copy);
    // A phone that joined has the show without its music.
    if (newer === 'same') return (await keepMusic(read.value.music)) ?? openCopy(found.copy).then(() => undefined);
    ask({ type: 'import', bundle: read.value, here, newer });
    return undefined;
  };

  return {
    store,
    refresh,
    async begin(name) {
      // Whoever begins something of their own wants it kept.
      void navigator.storage?.persist?.();
      const own = { id: freshId(), name: name.trim().slice(0, NAME_LENGTH) || 'My show', rig: freshId() };
      await keepAndOpen(copyOf(emptyShow(own), [freshId()]));
    },
    open: (wanted) => withCopy(wanted, openCopy),
    lookInto: (wanted) => withCopy(wanted, (copy) => conducting.lookInto(copy)),
    putOn: (wanted) => withCopy(wanted, async (copy) => conducting.putOn(copy)),
    async openDemo() {
      const here = (await repository.shows()).find((one) => one.id === DEMO);
      if (here) return withCopy(DEMO, openCopy);
      const show = await demoShow();
      // Its music follows by itself (followDemo).
      return show.ok ? keepAndOpen(copyOf(show.value)) : show.problem;
    },
    duplicate: (wanted) =>
      withCopy(wanted, ({ show }) => repository.save(asNew(show, named(show.name, ', copy')), { current: false })),
    rename: (wanted, name) =>
      withCopy(wanted, async (copy) => {
        if (document.store.getState().copy?.show.id === wanted) {
          document.make({ type: 'rename-show', name });
          await document.written();
          return undefined;
        }
        const { show } = edit(copy.show, { type: 'rename-show', name });
        return repository.save(copyOf(show, [...copy.chain, freshId()]), { current: false });
      }),
    async remove(wanted) {
      const problem = await repository.remove(wanted);
      await refresh();
      return problem;
    },
    async bringBack(wanted) {
      const problem = await repository.bringBack(wanted);
      await refresh();
      return problem;
    },
    bringIn,
    async answer(how) {
      const { asking } = store.getState();
      ask(null);
      if (!asking || how === 'cancel') return;
      if (asking.type === 'put-on') {
        if (how === 'put-on') conducting.putOn(asking.copy);
        else await conducting.lookInto(asking.copy);
        return;
      }
      const { show, chain } = asking.bundle;
      if (how === 'both') {
        await takeIn(asking.bundle, asNew(show, named(show.name, ', from a file')));
        return;
      }
      const copy = copyOf(show, chain);
      // The one that is open is put in its place first: it is replaced, not parted from.
      if (document.store.getState().copy?.show.id === show.id) await document.open(copy);
      await takeIn(asking.bundle, copy);
    },
    async keepBeside(copy, from) {
      const time = new Date().toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
      const beside = asNew(copy.show, named(copy.show.name, `, from ${from}, ${time}`));
      await repository.save(beside, { current: false });
      await refresh();
      return beside.show.name;
    },
  };
}

/** Compares by the changes the copies came by; where a file has none, by what is in it. */
function newerOf(file: { readonly show: Show; readonly chain: Chain }, here: Copy): Newer {
  const [theirs, ours] = [headOf(file.chain), here.pending.at(-1)?.id ?? headOf(here.chain)];
  if (JSON.stringify(file.show) === JSON.stringify(here.show)) return 'same';
  if (theirs === ours) return 'both';
  if (file.chain.includes(ours)) return 'file';
  return here.chain.includes(theirs) ? 'here' : 'both';
}
