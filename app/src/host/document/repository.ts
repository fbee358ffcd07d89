// Everything Hovlix keeps on this device, behind one door.
//
//   shows                 what is here, for the list of shows     current   id of the one that was open
//   show:ID               { show, chain, pending, tab }: a whole copy of a show
//   journal:ID:TAB:N      the edits since, one key each, by the tab that made or heard them
//   steps:ID              what can be undone and redone
//   music:HASH, music:HASH:N, peaks:HASH, envelopes:HASH   a song's file in pieces, its waveform, what followers hear
//
// An edit is written as it is made, as one small key, so killing the browser loses nothing but a write on its way.

import { fromByteArray, toByteArray } from 'base64-js';
import { z } from 'zod';
import { ok, type Problem, type Result } from '@hovlix/core/problem';
import {
  Command,
  confirmed,
  copyOf,
  History,
  NO_HISTORY,
  ORIGIN,
  proposed,
  readShow,
  rigInUse,
  type Copy,
} from '@hovlix/core/show';
import { OLD_SNAPSHOT, oldJournal } from './old-journal';
import type { Store } from './storage';

/** A show as the list tells of it, without opening it. */
const Entry = z.object({
  id: z.string(),
  name: z.string(),
  songs: z.number().default(0),
  lamps: z.number().default(0),
  /** Bytes of the show and its music. */
  bytes: z.number().default(0),
  /** When it was changed last, in ms since 1970. */
  changedAt: z.number().default(0),
  /** The change it is at, and the one at which it was written to a file last. */
  head: z.string().default(''),
  exported: z.string().optional(),
  /** When it was deleted: it is swept away an hour later, and can be brought back until then. */
  removedAt: z.number().optional(),
});
export type ShowEntry = z.infer<typeof Entry>;

export type Music = {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly peaks: Uint8Array | undefined;
  readonly envelopes: Uint8Array | undefined;
};

/** An edit in the journal: made here and not confirmed, confirmed, or one's own that was confirmed later. */
const Line = z.union([
  z.object({ type: z.enum(['made', 'heard']), id: z.string(), command: Command }),
  z.object({ type: z.literal('confirmed'), id: z.string() }),
]);
export type Line = z.infer<typeof Line>;

export type Repository = {
  readonly shows: () => Promise<readonly ShowEntry[]>;
  readonly currentId: () => Promise<string | null>;
  /** The copy with its journal replayed; undefined when there is none of that name. */
  readonly load: (id: string) => Promise<Result<Copy> | undefined>;
  /** Writes the whole copy and empties its journal; with `current`, it is what opens next time. */
  readonly save: (copy: Copy, options?: { readonly current?: boolean }) => Promise<Problem | undefined>;
  /** Takes a show out of the list; it can be brought back for an hour. */
  readonly remove: (id: string) => Promise<Problem | undefined>;
  readonly bringBack: (id: string) => Promise<Problem | undefined>;
  /** Notes that a show was written to a file as it is. */
  readonly exported: (id: string) => Promise<Problem | undefined>;
  /** Clears away what was deleted long enough ago, and music that no show has any more. */
  readonly sweep: () => Promise<void>;
  readonly append: (id: string, line: Line) => Promise<Problem | undefined>;
  readonly steps: (id: string) => Promise<History>;
  readonly putSteps: (id: string, history: History) => Promise<Problem | undefined>;
  readonly putMusic: (hash: string, music: Music) => Promise<Problem | undefined>;
  readonly music: (hash: string) => Promise<Music | undefined>;
  readonly peaks: (hash: string) => Promise<Uint8Array | undefined>;
  /** What followers hear in a song, as `readEnvelopes` takes it. */
  readonly envelopes: (hash: string) => Promise<Uint8Array<ArrayBuffer> | undefined>;
  readonly putEnvelopes: (hash: string, bytes: Uint8Array) => Promise<Problem | undefined>;
};

/** 3 MB of music a key: a multiple of three, so that base64 has no padding inside. */
const PIECE = 3 * 1024 * 1024;

const Index = z.array(Entry);
const ChangeShape = z.object({ id: z.string(), command: Command });
const Snapshot = z.object({
  show: z.unknown(),
  chain: z.array(z.string()).min(1),
  pending: z.array(ChangeShape),
  tab: z.string(),
});
const MusicHead = z.object({ pieces: z.number().int().min(1), bytes: z.number().int().min(1) });

/** @param tab a name no other open page has: its journal is its own. */
export function repository(store: Store, tab = 'tab'): Repository {
  let lines = 0;
  const read = async <T>(key: string, schema: z.ZodType<T>): Promise<T | undefined> => {
    const text = await store.getItem(key);
    return text === null ? undefined : parsed(text, schema);
  };
  const write = async (entries: readonly (readonly [string, string])[]): Promise<Problem | undefined> => {
    try {
      for (const [key, value] of entries) await store.setItem(key, value);
      return undefined;
    } catch (error) {
      return storageProblem(error);
    }
  };
  const keysOf = async (prefix: string) => (await store.getAllKeys()).filter((key) => key.startsWith(prefix)).sort();
  const index = async () => (await read('shows', Index)) ?? [];

  const linesOf = async (id: string, of: string): Promise<readonly Line[]> => {
    const keys = await keysOf(`journal:${id}:${of}:`);
    const texts = await store.getMany(keys);
    const all: Line[] = [];
    for (const key of keys) {
      const line = parsed(texts[key] ?? '', Line);
      // A line that does not fit was half written when the browser was killed: what came before it counts.
      if (!line) break;
      all.push(line);
    }
    return all;
  };

  const amend = async (id: string, change: Partial<ShowEntry>): Promise<Problem | undefined> => {
    const all = await index();
    return write([['shows', JSON.stringify(all.map((one) => (one.id === id ? { ...one, ...change } : one)))]]);
  };
  const musicOf = async (id: string): Promise<readonly string[]> => {
    const text = (await store.getItem(`show:${id}`)) ?? '';
    // Hashes are found as text: an old show need not be understood to keep its music.
    return [...text.matchAll(/"hash":"([0-9a-f]{64})"/g)].map((found) => found[1]!);
  };
  /** What other open pages made that nobody confirmed yet is still to be sent. */
  const withOtherTabs = async (id: string, own: string, copy: Copy): Promise<Copy> => {
    const tabs = new Set((await keysOf(`journal:${id}:`)).filter((key) => isLine(key, id)).map(tabOf));
    tabs.delete(own);
    let all = copy;
    for (const one of tabs) {
      const lines = await linesOf(id, one);
      const confirmed = new Set(lines.flatMap((line) => (line.type === 'confirmed' ? [line.id] : [])));
      for (const line of lines)
        if (line.type === 'made' && !confirmed.has(line.id) && !all.chain.includes(line.id)) all = withLine(all, line);
    }
    return all;
  };

  return {
    shows: async () => (await index()).filter(({ removedAt }) => removedAt === undefined),
    currentId: () => store.getItem('current'),
    async load(id) {
      const text = await store.getItem(`show:${id}`);
      if (text === null) return undefined;
      const old = parsed(text, OLD_SNAPSHOT);
      if (old) {
        const show = readShow(await oldJournal(store, id, old), 'the show kept in this browser');
        return show.ok ? ok(copyOf(show.value, [ORIGIN])) : show;
      }
      const snapshot = parsed(text, Snapshot);
      if (!snapshot) return undefined;
      const show = readShow(snapshot.show, 'the show kept in this browser');
      if (!show.ok) return show;
      const own = await linesOf(id, snapshot.tab);
      const copy = own.reduce(withLine, copyOf(show.value, snapshot.chain, snapshot.pending));
      return ok(await withOtherTabs(id, snapshot.tab, copy));
    },
    async save(copy, { current = true } = {}) {
      const { show } = copy;
      const id = show.id as string;
      const old = await keysOf(`journal:${id}:`);
      const all = await index();
      const body = JSON.stringify({ show: copy.base, chain: copy.chain, pending: copy.pending, tab });
      const at = all.findIndex((one) => one.id === id);
      const entry = entryOf(copy, body.length, all[at]);
      const next = at >= 0 ? all.with(at, entry) : [...all, entry];
      const problem = await write([
        [`show:${id}`, body],
        ['shows', JSON.stringify(next)],
        ...(current ? [['current', id] as const] : []),
      ]);
      // Another tab may have told its journal what this one has not heard of yet: only one's own goes.
      const mine = (key: string) => key.startsWith(`journal:${id}:${tab}:`) || isOld(key, id);
      if (!problem) await store.removeMany(old.filter(mine));
      return problem;
    },
    async remove(id) {
      if ((await store.getItem('current')) === id) await store.removeMany(['current']);
      return amend(id, { removedAt: Date.now() });
    },
    bringBack: (id) => amend(id, { removedAt: undefined }),
    async exported(id) {
      const entry = (await index()).find((one) => one.id === id);
      return entry && amend(id, { exported: entry.head });
    },
    async sweep() {
      const all = await index();
      const over = all.filter(({ removedAt }) => removedAt !== undefined && Date.now() - removedAt > BACK_FOR_MS);
      if (over.length === 0) return;
      const left = all.filter((one) => !over.includes(one));
      const hashes = new Set<string>();
      for (const { id } of over) (await musicOf(id)).forEach((hash) => hashes.add(hash));
      for (const { id } of left) (await musicOf(id)).forEach((hash) => hashes.delete(hash));
      if (await write([['shows', JSON.stringify(left)]])) return;
      for (const { id } of over)
        await store.removeMany([
          `show:${id}`,
          `steps:${id}`,
          ...(await keysOf(`journal:${id}:`)).filter((key) => isLine(key, id)),
        ]);
      for (const hash of hashes)
        await store.removeMany([
          `music:${hash}`,
          `peaks:${hash}`,
          `envelopes:${hash}`,
          ...(await keysOf(`music:${hash}:`)),
        ]);
    },
    append: (id, line) => write([[`journal:${id}:${tab}:${String(++lines).padStart(9, '0')}`, JSON.stringify(line)]]),
    steps: async (id) => (await read(`steps:${id}`, History)) ?? NO_HISTORY,
    putSteps: (id, history) => write([[`steps:${id}`, JSON.stringify(history)]]),
    async putMusic(hash, { bytes, peaks, envelopes }) {
      const pieces = Math.ceil(bytes.length / PIECE);
      const entries: [string, string][] = [];
      for (let i = 0; i < pieces; i++)
        entries.push([`music:${hash}:${i}`, fromByteArray(bytes.subarray(i * PIECE, (i + 1) * PIECE))]);
      if (peaks) entries.push([`peaks:${hash}`, fromByteArray(peaks)]);
      if (envelopes) entries.push([`envelopes:${hash}`, fromByteArray(envelopes)]);
      // The head comes last: music without it is not there.
      entries.push([`music:${hash}`, JSON.stringify({ pieces, bytes: bytes.length })]);
      const problem = await write(entries);
      if (problem) await store.removeMany(entries.map(([key]) => key)).catch(() => undefined);
      return problem;
    },
    async music(hash) {
      const head = await read(`music:${hash}`, MusicHead);
      if (!head) return undefined;
      const bytes = new Uint8Array(head.bytes);
      for (let i = 0; i < head.pieces; i++) {
        const piece = await store.getItem(`music:${hash}:${i}`);
        if (piece === null) return undefined;
        bytes.set(toByteArray(piece), i * PIECE);
      }
      return { bytes, peaks: await this.peaks(hash), envelopes: await this.envelopes(hash) };
    },
    async peaks(hash) {
      const text = await store.getItem(`peaks:${hash}`);
      return text === null ? undefined : toByteArray(text);
    },
    async envelopes(hash) {
      const text = await store.getItem(`envelopes:${hash}`);
      return text === null ? undefined : Uint8Array.from(toByteArray(text));
    },
    putEnvelopes: (hash, bytes) => write([[`envelopes:${hash}`, fromByteArray(bytes)]]),
  };
}

/** A deleted show can be brought back for so long. */
const BACK_FOR_MS = 3600_000;

const lineKey = (id: string) => new RegExp(`^journal:${id.replaceAll(/[.*+?^$()|[\]\\{}]/g, '\\$&')}:[^:]+:\\d{9}$`);
const isLine = (key: string, id: string): boolean => lineKey(id).test(key);
/** Of before edits travelled as commands. */
const isOld = (key: string, id: string): boolean => /^\d{9}$/.test(key.slice(`journal:${id}:`.length));
const tabOf = (key: string): string => key.split(':').at(-2)!;

function withLine(copy: Copy, line: Line): Copy {
  if (line.type === 'made')
    return copy.pending.some(({ id }) => id === line.id) ? copy : proposed(copy, line.id, line.command).copy;
  if (line.type === 'heard') return confirmed(copy, line).copy;
  const own = copy.pending.find(({ id }) => id === line.id);
  return own ? confirmed(copy, own).copy : copy;
}

function entryOf({ show, chain }: Copy, length: number, before: ShowEntry | undefined): ShowEntry {
  const music = new Map(
    show.songs.flatMap((song) => (song.music ? [[song.music.hash, song.music.bytes] as const] : [])),
  );
  const head = chain.at(-1) ?? ORIGIN;
  return {
    id: show.id,
    name: show.name,
    songs: show.songs.length,
    lamps: rigInUse(show).fixtures.length,
    bytes: length + [...music.values()].reduce((sum, one) => sum + one, 0),
    changedAt: before && before.head === head ? before.changedAt : Date.now(),
    head,
    ...(before?.exported === undefined ? {} : { exported: before.exported }),
  };
}

function parsed<T>(text: string, schema: z.ZodType<T>): T | undefined {
  try {
    const result = schema.safeParse(JSON.parse(text));
    return result.success ? result.data : undefined;
  } catch {
    // Half-written text counts as absent.
    return undefined;
  }
}

export function storageProblem(error: unknown): Problem {
  const text = error instanceof Error ? `${error.name} ${error.message} ${String(error.cause ?? '')}` : String(error);
  if (/quota|storage.*full|disk.*full/i.test(text)) return { code: 'storage-full' };
  return { code: 'storage-broken', detail: error instanceof Error ? error.message : text };
}
