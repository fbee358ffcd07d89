// Everything Hovlix keeps on this device, behind one door.
//
//   shows                 what is here, for the list of shows     current   id of the one that was open
//   show:ID               { show, chain, pending }: a whole copy of a show
//   journal:ID:TAB:N      the edits since, one key each, by the tab that made or heard them
//   steps:ID              what can be undone and redone
//   music:HASH, music:HASH:N, peaks:HASH, envelopes:HASH   a song's file in pieces, its waveform, what followers hear
//   heard:HASH            what was heard of its beats, to count them another way
//   intake                files that wait to be listened to, and what was found in the last ones
//
// An edit is written as it is made, as one small key, so killing the browser loses nothing but a write on its way.

import { z } from 'zod';
import { ok, type Problem, type Result } from '@hovlix/core/problem';
import { recordingsOf } from '@hovlix/core/song';
import {
  Command,
  confirmed,
  copyOf,
  headOf,
  History,
  NO_HISTORY,
  ORIGIN,
  proposed,
  readShow,
  rigInUse,
  type Change,
  type Copy,
} from '@hovlix/core/show';
import { OLD_SNAPSHOT, oldJournal } from './old-journal';
import type { Store } from './storage';
import { bytesOf, textOf } from './text-of-bytes';

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
  /** As `readHeard` takes it. */
  readonly heard?: Uint8Array | undefined;
};

/**
 * An edit in the journal: made here and not confirmed yet, heard of, or one's own that was confirmed later. What has its
 * place in the order says which change it came `after`, so that the journals of several tabs are one.
 */
const Line = z.union([
  z.object({ type: z.literal('made'), id: z.string(), command: Command }),
  z.object({ type: z.literal('heard'), id: z.string(), command: Command, after: z.string() }),
  z.object({ type: z.literal('confirmed'), id: z.string(), after: z.string() }),
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
  /** Clears away what was deleted long enough ago, and music that no show has had for a day. */
  readonly sweep: () => Promise<void>;
  /** @param history what can be undone after an edit of one's own: it is written with it, or neither is. */
  readonly append: (id: string, line: Line, history?: History) => Promise<Problem | undefined>;
  readonly steps: (id: string) => Promise<History>;
  readonly putMusic: (hash: string, music: Music) => Promise<Problem | undefined>;
  readonly hasMusic: (hash: string) => Promise<boolean>;
  readonly music: (hash: string) => Promise<Music | undefined>;
  readonly peaks: (hash: string) => Promise<Uint8Array | undefined>;
  /** What followers hear in a song, as `readEnvelopes` takes it. */
  readonly envelopes: (hash: string) => Promise<Uint8Array<ArrayBuffer> | undefined>;
  readonly putEnvelopes: (hash: string, bytes: Uint8Array) => Promise<Problem | undefined>;
  /** What was heard of the beats, as `readHeard` takes it. */
  readonly heard: (hash: string) => Promise<Uint8Array | undefined>;
  /** What a listener found out about music that is kept already. */
  readonly putFound: (hash: string, found: Omit<Music, 'bytes'>) => Promise<Problem | undefined>;
  readonly intake: () => Promise<readonly IntakeEntry[]>;
  readonly putIntake: (entries: readonly IntakeEntry[]) => Promise<Problem | undefined>;
  /** Takes music away, unless a show has it, or one that can still be brought back. */
  readonly dropMusic: (hash: string) => Promise<void>;
};

/** 3 MB of music a key: a multiple of three, so that base64 has no padding inside. */
const PIECE = 3 * 1024 * 1024;

/** A file that was brought in: it waits, or it is a song by now and may want a look. */
const IntakeEntry = z.object({
  id: z.string(),
  /** The show it is for. */
  show: z.string(),
  name: z.string(),
  hash: z.string(),
  bytes: z.number(),
  /** It is the recording of this song, and was not on this device. */
  back: z.string().optional(),
  /** The song it became, how sure its beats are, 0…1, and the song that it is another copy of. */
  found: z.object({ song: z.string(), sure: z.number(), like: z.string().optional() }).optional(),
});
export type IntakeEntry = z.infer<typeof IntakeEntry>;
const Intake = z.array(IntakeEntry);

const Index = z.array(Entry);
const ChangeShape = z.object({ id: z.string(), command: Command });
const Snapshot = z.object({
  show: z.unknown(),
  chain: z.array(z.string()).min(1),
  pending: z.array(ChangeShape),
});
/** When it was looked for, and since when each recording was needed by nobody, in milliseconds. */
const Unneeded = z.object({ at: z.number(), since: z.record(z.string(), z.number()) });
const MusicHead = z.object({ pieces: z.number().int().min(1), bytes: z.number().int().min(1) });

/** @param tab a name no other open page has: so its lines have keys of their own. */
export function repository(store: Store, tab = 'tab'): Repository {
  let count = 0;
  const read = async <T>(key: string, schema: z.ZodType<T>): Promise<T | undefined> => {
    const text = await store.getItem(key);
    return text === null ? undefined : parsed(text, schema);
  };
  /** All of it or nothing. */
  const write = async (entries: readonly (readonly [string, string])[]): Promise<Problem | undefined> => {
    try {
      await store.setMany(Object.fromEntries(entries));
      return undefined;
    } catch (error) {
      return storageProblem(error);
    }
  };
  const eraseMusic = async (hash: string): Promise<void> =>
    store.removeMany([
      ...[`music:${hash}`, `peaks:${hash}`, `envelopes:${hash}`, `heard:${hash}`],
      ...(await keysOf(`music:${hash}:`)),
    ]);
  const keysOf = async (prefix: string) => (await store.getAllKeys()).filter((key) => key.startsWith(prefix)).sort();
  const index = async () => (await read('shows', Index)) ?? [];
  let turn: Promise<unknown> = Promise.resolve();
  /** The list of shows is read and written by one at a time, also of several tabs: else one would lose the other's. */
  const alone = <T>(work: () => Promise<T>): Promise<T> => {
    const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
    const mine = turn.then(() => (locks ? locks.request('hovlix-shows', work) : work()));
    turn = mine.catch(() => undefined);
    return mine as Promise<T>;
  };

  /** The lines of all tabs; one that is no line was half written when the browser was killed. */
  const linesOf = async (id: string): Promise<readonly { readonly key: string; readonly line: Line }[]> => {
    const keys = (await keysOf(`journal:${id}:`)).filter((key) => isLine(key, id));
    const texts = await store.getMany(keys);
    return keys.flatMap((key) => {
      const line = parsed(texts[key] ?? '', Line);
      return line ? [{ key, line }] : [];
    });
  };

  const amend = (id: string, change: Partial<ShowEntry>): Promise<Problem | undefined> =>
    alone(async () => {
      const all = await index();
      return write([['shows', JSON.stringify(all.map((one) => (one.id === id ? { ...one, ...change } : one)))]]);
    });
  /** The music of a show, also what its last edits brought, and what can be brought back in it. */
  const musicOf = async (id: string): Promise<readonly string[]> => {
    const lines = (await keysOf(`journal:${id}:`)).filter((key) => isLine(key, id));
    const texts = Object.values(await store.getMany([`show:${id}`, `steps:${id}`, ...lines]));
    // Hashes are found as text: an old show need not be understood to keep its music.
    return texts.flatMap((text) => [...(text ?? '').matchAll(/"hash":"([0-9a-f]{64})"/g)].map((found) => found[1]!));
  };
  /** Shows that were deleted so long ago are gone, with music that no other has. */
  const clearShows = async (age: number): Promise<void> => {
    const all = await index();
    const over = all.filter(({ removedAt }) => removedAt !== undefined && Date.now() - removedAt > age);
    if (over.length === 0) return;
    const left = all.filter((one) => !over.includes(one));
    const hashes = new Set<string>();
    for (const { id } of over) (await musicOf(id)).forEach((hash) => hashes.add(hash));
    (await neededBy(left)).forEach((hash) => hashes.delete(hash));
    if (await write([['shows', JSON.stringify(left)]])) return;
    for (const { id } of over)
      await store.removeMany([
        `show:${id}`,
        `steps:${id}`,
        ...(await keysOf(`journal:${id}:`)).filter((key) => isLine(key, id)),
      ]);
    for (const hash of hashes) await eraseMusic(hash);
  };
  const neededBy = async (entries: readonly ShowEntry[]): Promise<ReadonlySet<string>> => {
    const needed = new Set(((await read('intake', Intake)) ?? []).map(({ hash }) => hash));
    for (const { id } of entries) (await musicOf(id)).forEach((hash) => needed.add(hash));
    return needed;
  };
  /** Music whose song was taken out of its show, or that was half kept, goes once it was needed by nobody for so long. */
  const clearMusic = async (age: number): Promise<void> => {
    const kept = (await store.getAllKeys()).flatMap(
      (key) => /^(?:music|peaks|envelopes|heard):([0-9a-f]{64})/.exec(key)?.[1] ?? [],
    );
    const needed = await neededBy(await index());
    const before = (await read('unneeded', Unneeded))?.since ?? {};
    const now = Date.now();
    const since: Record<string, number> = {};
    for (const hash of new Set(kept)) {
      if (needed.has(hash)) continue;
      since[hash] = before[hash] ?? now;
      if (now - since[hash] < age) continue;
      await eraseMusic(hash);
      delete since[hash];
    }
    await write([['unneeded', JSON.stringify({ at: now, since })]]);
  };
  /** Music that is kept anew has its day before it, whatever was noted of it: half of it must not go while it comes. */
  const neededAgain = (hash: string) =>
    alone(async () => {
      const noted = await read('unneeded', Unneeded);
      if (noted?.since[hash] === undefined) return;
      const { [hash]: _, ...since } = noted.since;
      if (await write([['unneeded', JSON.stringify({ ...noted, since })]])) await store.removeMany(['unneeded']);
    });
  let madeRoomAt = -Infinity;
  /** Where the browser has no room left: what was deleted a while ago makes some, though it could still be brought back. */
  const writeInRoom = async (entries: readonly (readonly [string, string])[]): Promise<Problem | undefined> => {
    const problem = await write(entries);
    if (problem?.code !== 'storage-full' || Date.now() - madeRoomAt < ROOM_AGAIN_MS) return problem;
    madeRoomAt = Date.now();
    const clear = alone(async () => {
      await clearShows(SURE_MS);
      await clearMusic(SURE_MS);
    });
    return clear.then(
      () => write(entries),
      () => problem,
    );
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
      const lines = (await linesOf(id)).map(({ line }) => line);
      return ok(withLines(copyOf(show.value, snapshot.chain, snapshot.pending), lines));
    },
    save: (copy, { current = true } = {}) =>
      alone(async () => {
        const { show } = copy;
        const id = show.id as string;
        const [old, lines] = [await keysOf(`journal:${id}:`), await linesOf(id)];
        const all = await index();
        const body = JSON.stringify({ show: copy.base, chain: copy.chain, pending: copy.pending });
        const at = all.findIndex((one) => one.id === id);
        const entry = entryOf(copy, body.length, all[at]);
        const next = at >= 0 ? all.with(at, entry) : [...all, entry];
        const problem = await write([
          [`show:${id}`, body],
          ['shows', JSON.stringify(next)],
          ...(current ? [['current', id] as const] : []),
        ]);
        if (problem) return problem;
        // What another tab made and nobody confirmed yet stays, and what was noted since; all that is in what was written goes.
        const placed = new Set(copy.chain);
        const made = new Set(copy.pending.map((one) => one.id));
        const isWritten = ({ type, id: of }: Line) => placed.has(of) || (type === 'made' && made.has(of));
        const over = lines.filter(({ line }) => isWritten(line)).map(({ key }) => key);
        await store.removeMany([...over, ...old.filter((key) => isOld(key, id))]);
        return undefined;
      }),
    async remove(id) {
      if ((await store.getItem('current')) === id) await store.removeMany(['current']);
      return amend(id, { removedAt: Date.now() });
    },
    bringBack: (id) => amend(id, { removedAt: undefined }),
    async exported(id) {
      const entry = (await index()).find((one) => one.id === id);
      return entry && amend(id, { exported: entry.head });
    },
    sweep: () =>
      alone(async () => {
        await clearShows(BACK_FOR_MS);
        const checked = (await read('unneeded', Unneeded))?.at ?? 0;
        if (Date.now() - checked > UNNEEDED_MS) await clearMusic(UNNEEDED_MS);
      }),
    append: (id, line, history) =>
      writeInRoom([
        [`journal:${id}:${tab}:${String(++count).padStart(9, '0')}`, JSON.stringify(line)],
        ...(history ? [[`steps:${id}`, JSON.stringify(history)] as const] : []),
      ]),
    steps: async (id) => (await read(`steps:${id}`, History)) ?? NO_HISTORY,
    async putMusic(hash, { bytes, ...found }) {
      const pieces = Math.ceil(bytes.length / PIECE);
      const entries: [string, string][] = [];
      for (let i = 0; i < pieces; i++)
        entries.push([`music:${hash}:${i}`, textOf(bytes.subarray(i * PIECE, (i + 1) * PIECE))]);
      entries.push(...foundEntries(hash, found));
      await neededAgain(hash);
      // The head comes last: music without it is not there.
      entries.push([`music:${hash}`, JSON.stringify({ pieces, bytes: bytes.length })]);
      // Of music that is kept already nothing is lost when it cannot be kept once more.
      const there = new Set(await store.getAllKeys());
      // Piece by piece: a mix of an hour is not in memory once more for being kept.
      let problem: Problem | undefined;
      for (const entry of entries) problem ??= await writeInRoom([entry]);
      if (problem)
        await store.removeMany(entries.map(([key]) => key).filter((key) => !there.has(key))).catch(() => undefined);
      return problem;
    },
    hasMusic: async (hash) => (await read(`music:${hash}`, MusicHead)) !== undefined,
    async music(hash) {
      const head = await read(`music:${hash}`, MusicHead);
      if (!head) return undefined;
      const bytes = new Uint8Array(head.bytes);
      for (let i = 0; i < head.pieces; i++) {
        const piece = await store.getItem(`music:${hash}:${i}`);
        if (piece === null) return undefined;
        bytes.set(bytesOf(piece), i * PIECE);
      }
      return { bytes, peaks: await this.peaks(hash), envelopes: await this.envelopes(hash) };
    },
    async peaks(hash) {
      const text = await store.getItem(`peaks:${hash}`);
      return text === null ? undefined : bytesOf(text);
    },
    async envelopes(hash) {
      const text = await store.getItem(`envelopes:${hash}`);
      return text === null ? undefined : bytesOf(text);
    },
    putEnvelopes: (hash, bytes) => write([[`envelopes:${hash}`, textOf(bytes)]]),
    async heard(hash) {
      const text = await store.getItem(`heard:${hash}`);
      return text === null ? undefined : bytesOf(text);
    },
    dropMusic: (hash) =>
      alone(async () => {
        if (!(await neededBy(await index())).has(hash)) await eraseMusic(hash);
      }),
    putFound: (hash, found) => write(foundEntries(hash, found)),
    intake: async () => (await read('intake', Intake)) ?? [],
    putIntake: (entries) => write([['intake', JSON.stringify(entries)]]),
  };
}

function foundEntries(hash: string, { peaks, envelopes, heard }: Omit<Music, 'bytes'>): [string, string][] {
  const kinds = { peaks, envelopes, heard };
  return Object.entries(kinds).flatMap(([kind, bytes]) =>
    bytes ? [[`${kind}:${hash}`, textOf(bytes)] as [string, string]] : [],
  );
}

/** A deleted show can be brought back for so long. */
const BACK_FOR_MS = 3600_000;
/** Where there is no room left, for so long: undo is offered for less. */
const SURE_MS = 60_000;
/** How often it is tried to make room. */
const ROOM_AGAIN_MS = 10_000;
/** Music that no song has may still be brought back by undo, or belong to a song that is being made. */
const UNNEEDED_MS = 24 * 3600_000;

const lineKey = (id: string) => new RegExp(`^journal:${id.replaceAll(/[.*+?^$()|[\]\\{}]/g, '\\$&')}:[^:]+:\\d{9}$`);
const isLine = (key: string, id: string): boolean => lineKey(id).test(key);
/** Of before edits travelled as commands. */
const isOld = (key: string, id: string): boolean => /^\d{9}$/.test(key.slice(`journal:${id}:`.length));

/** A copy with all that the journals know: what has its place in the order first, then what was only made. */
function withLines(snapshot: Copy, lines: readonly Line[]): Copy {
  const lineMade = lines.flatMap((line) => (line.type === 'made' ? [[line.id, line.command] as const] : []));
  const made = new Map([...snapshot.pending.map(({ id, command }) => [id, command] as const), ...lineMade]);
  const next = new Map<string, Change>();
  for (const line of lines) {
    if (line.type === 'made' || next.has(line.after)) continue;
    const command = line.type === 'heard' ? line.command : made.get(line.id);
    if (command) next.set(line.after, { id: line.id, command });
  }
  let copy = snapshot;
  for (let at = next.get(headOf(copy.chain)); at; at = next.get(at.id)) copy = confirmed(copy, at).copy;
  const known = new Set([...copy.chain, ...copy.pending.map(({ id }) => id)]);
  for (const [id, command] of made) if (!known.has(id)) copy = proposed(copy, id, command).copy;
  return copy;
}

function entryOf({ show, chain }: Copy, length: number, before: ShowEntry | undefined): ShowEntry {
  const head = chain.at(-1) ?? ORIGIN;
  return {
    id: show.id,
    name: show.name,
    songs: show.songs.length,
    lamps: rigInUse(show).fixtures.length,
    bytes: length + recordingsOf(show.songs).reduce((sum, { bytes }) => sum + bytes, 0),
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
