// Everything Hovlix keeps on this device, behind one door.
//
//   shows                 [{ id, name }] of all shows here       current   id of the one that was open
//   show:ID               { show, revision }: a whole show        journal:ID:REVISION   the edits since, one key each
//   music:HASH, music:HASH:N, peaks:HASH, envelopes:HASH   a song's file in pieces, its waveform, what followers hear
//
// An edit is written as it is made, as one small key, so killing the browser loses nothing but a write on its way.

import { fromByteArray, toByteArray } from 'base64-js';
import { z } from 'zod';
import { ok, type Problem, type Result } from '@hovlix/core/problem';
import { patched, readShow, type Change, type Show } from '@hovlix/core/show';
import type { Store } from './storage';

export type Kept = { readonly show: Show; readonly revision: number };
export type ShowEntry = { readonly id: string; readonly name: string };
export type Music = {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly peaks: Uint8Array | undefined;
  readonly envelopes: Uint8Array | undefined;
};

export type Repository = {
  readonly shows: () => Promise<readonly ShowEntry[]>;
  readonly currentId: () => Promise<string | null>;
  /** The show with its journal replayed; undefined when there is none of that name. */
  readonly load: (id: string) => Promise<Result<Kept> | undefined>;
  /** Writes the whole show and empties its journal; it becomes the current one. */
  readonly save: (kept: Kept) => Promise<Problem | undefined>;
  /** Adds one change to the journal; `revision` is the show's after it. */
  readonly append: (id: string, revision: number, change: Change) => Promise<Problem | undefined>;
  readonly putMusic: (hash: string, music: Music) => Promise<Problem | undefined>;
  readonly music: (hash: string) => Promise<Music | undefined>;
  readonly peaks: (hash: string) => Promise<Uint8Array | undefined>;
  /** What followers hear in a song, as `readEnvelopes` takes it. */
  readonly envelopes: (hash: string) => Promise<Uint8Array<ArrayBuffer> | undefined>;
  readonly putEnvelopes: (hash: string, bytes: Uint8Array) => Promise<Problem | undefined>;
};

/** 3 MB of music a key: a multiple of three, so that base64 has no padding inside. */
const PIECE = 3 * 1024 * 1024;

const Index = z.array(z.object({ id: z.string(), name: z.string() }));
const Snapshot = z.object({ show: z.unknown(), revision: z.number().int().min(0) });
const JournalLine = z.object({
  patches: z.array(z.custom<Change['patches'][number]>((value) => typeof value === 'object')),
});
const MusicHead = z.object({ pieces: z.number().int().min(1), bytes: z.number().int().min(1) });

export function repository(store: Store): Repository {
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
  const journalKeys = async (id: string) => {
    const prefix = `journal:${id}:`;
    const keys = (await store.getAllKeys()).filter((key) => key.startsWith(prefix));
    return keys
      .map((key) => ({ key, revision: Number(key.slice(prefix.length)) }))
      .sort((a, b) => a.revision - b.revision);
  };

  return {
    shows: async () => (await read('shows', Index)) ?? [],
    currentId: () => store.getItem('current'),
    async load(id) {
      const snapshot = await read(`show:${id}`, Snapshot);
      if (!snapshot) return undefined;
      const lines = (await journalKeys(id)).filter((line) => line.revision > snapshot.revision);
      const texts = await store.getMany(lines.map((line) => line.key));
      const first = readShow(snapshot.show, 'the show kept in this browser');
      if (!first.ok) return first;
      return ok(
        replayed(
          first.value,
          snapshot.revision,
          lines.map((line) => ({ ...line, text: texts[line.key] ?? null })),
        ),
      );
    },
    async save({ show, revision }) {
      const old = await journalKeys(show.id);
      const index = (await read('shows', Index)) ?? [];
      const entry = { id: show.id as string, name: show.name };
      const at = index.findIndex((one) => one.id === show.id);
      const next = at >= 0 ? index.with(at, entry) : [...index, entry];
      const problem = await write([
        [`show:${show.id}`, JSON.stringify({ show, revision })],
        ['shows', JSON.stringify(next)],
        ['current', show.id],
      ]);
      if (!problem) await store.removeMany(old.filter((line) => line.revision <= revision).map((line) => line.key));
      return problem;
    },
    append: (id, revision, change) =>
      write([[`journal:${id}:${String(revision).padStart(9, '0')}`, JSON.stringify({ patches: change.patches })]]),
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

/** Lays the journal's lines on as long as they follow one another; a gap ends it, so a lost line never mixes two states. */
function replayed(
  show: Show,
  revision: number,
  lines: readonly { readonly revision: number; readonly text: string | null }[],
): Kept {
  let kept: Kept = { show, revision };
  for (const line of lines) {
    const change = line.text === null ? undefined : parsed(line.text, JournalLine);
    if (!change || line.revision !== kept.revision + 1) return kept;
    const next = tried(kept.show, change.patches);
    if (!next) return kept;
    kept = { show: next, revision: line.revision };
  }
  return kept;
}

function tried(show: Show, patches: Change['patches']): Show | undefined {
  try {
    const read = readShow(patched(show, patches), 'the journal');
    return read.ok ? read.value : undefined;
  } catch {
    // A line that does not fit was half written when the browser was killed.
    return undefined;
  }
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
