// Recordings that come in, many at once: kept at once, listened to in the background, songs when they are done. What
// waits goes on after the page was reloaded.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { failed as failure, ok, wordsFor, type Problem, type Result } from '@hovlix/core/problem';
import { recordingsOf, songOfRecording, type Song } from '@hovlix/core/song';
import type { Document } from '../document/document';
import type { IntakeEntry, Repository } from '../document/repository';
import { freshId } from '../fresh-id';
import type { FromAnalysis, Listened, ToAnalysis } from '../sound/analysis-messages';
import { startAnalysisWorker } from '../workers';
import { listenTo, offsetOf, unpackFor } from './bring-in';

export type IntakeItem = {
  readonly id: string;
  /** The show it is for. */
  readonly show: string;
  readonly name: string;
  readonly state: 'kept' | 'waiting' | 'listening' | 'found' | 'failed';
  /** How much of the listening is done, 0…1. */
  readonly share: number;
  /** Why there is no song. */
  readonly wrong?: string;
  readonly found?: IntakeEntry['found'];
  /** It was missing here, and its song is as it was. */
  readonly back?: boolean;
};

export type Intake = {
  readonly store: StoreApi<{ readonly items: readonly IntakeItem[] }>;
  /** Songs that came of the files, in their order, once all of them were listened to. */
  readonly add: (files: readonly File[]) => Promise<readonly string[]>;
  /** One that waits or is listened to is given up; one that is done leaves the list. */
  readonly drop: (id: string) => void;
  /** Takes up what was left when the page was closed. */
  readonly resume: () => Promise<void>;
};

/** Listened to at once; a phone with two cores keeps one for its page. */
const AT_ONCE = (globalThis.navigator?.hardwareConcurrency ?? 2) > 2 ? 2 : 1;

/** Two files of one recording begin and end so near to each other, in seconds, and rise and fall so much alike. */
const COPY_SECONDS = 3;
const COPY_ALIKE = 0.6;

/** @param came is told of each recording that is on this device now. */
export function intake(document: Document, repository: Repository, came: (hash: string) => void): Intake {
  const store = createStore<{ readonly items: readonly IntakeItem[] }>(() => ({ items: [] }));
  const running = new Map<string, () => void>();
  const waiting: IntakeEntry[] = [];
  const kept = new Map<string, IntakeEntry>();
  const ended = new Map<string, () => void>();

  const change = (id: string, to: Partial<IntakeItem>) =>
    store.setState(({ items }) => ({ items: items.map((item) => (item.id === id ? { ...item, ...to } : item)) }));
  const show = (item: IntakeItem) => store.setState(({ items }) => ({ items: [...items, item] }));
  const save = () => repository.putIntake([...kept.values()]);
  const end = (id: string, to: Partial<IntakeItem>) => {
    change(id, to);
    ended.get(id)?.();
    ended.delete(id);
  };
  const failed = async (id: string, problem: Problem) => {
    const entry = kept.get(id);
    kept.delete(id);
    await save();
    if (entry && !isUsed(entry.hash)) await repository.dropMusic(entry.hash);
    if (problem.code !== 'cancelled') return end(id, { state: 'failed', wrong: wordsFor(problem) });
    end(id, {});
    store.setState(({ items }) => ({ items: items.filter((item) => item.id !== id) }));
  };
  const openShow = () => document.store.getState().show?.id;
  const songs = () => document.store.getState().show?.songs ?? [];
  /** A song with this recording, as its music or beside it. */
  const songWith = (hash: string) => songs().find((song) => recordingsOf([song]).some((one) => one.hash === hash));
  const isUsed = (hash: string) =>
    songWith(hash) !== undefined || [...kept.values()].some((entry) => entry.hash === hash);

  const listen = async (entry: IntakeEntry): Promise<void> => {
    const { id, name, hash } = entry;
    const music = await repository.music(hash);
    if (!music) return failed(id, { code: 'audio-broken', name, detail: 'it is not on this device any more' });
    const job = listenTo(new File([music.bytes], name), (share) => change(id, { share }));
    running.set(id, job.cancel);
    change(id, { state: 'listening', share: 0 });
    const result = await job.done;
    running.delete(id);
    if (!result.ok) return failed(id, result.problem);
    const { analysis, tags, sure, kept: parts } = result.value;
    const problem = await repository.putFound(hash, parts);
    if (problem) return failed(id, problem);
    if (entry.back !== undefined) {
      const found = { song: entry.back, sure: 1 };
      kept.set(id, { ...entry, found });
      await save();
      return end(id, { state: 'found', share: 1, found, back: true });
    }
    const heard = songOfRecording({ name, hash, bytes: entry.bytes, tags }, analysis, freshId);
    const like = await copyOf(heard);
    // It may have been given up while it was compared.
    if (!kept.has(id)) return isUsed(hash) ? undefined : repository.dropMusic(hash);
    if (openShow() !== entry.show) {
      // Another show was opened meanwhile: it is taken up again when its own is.
      waiting.push(entry);
      return change(id, { state: 'waiting', share: 0 });
    }
    const there = songs().find((song) => song.music?.hash === hash);
    // Another page may have been quicker.
    const song = there ?? heard;
    if (!there) document.make({ type: 'add-song', added: song });
    const found = { song: song.id, sure, ...(like && !there ? { like: like.id } : {}) };
    kept.set(id, { ...entry, found });
    await save();
    end(id, { state: 'found', share: 1, found });
  };

  /** The song whose recording this is another file of: as an MP3 beside a WAV, or louder. */
  const copyOf = async (song: Song): Promise<Song | undefined> => {
    for (const other of songs()) {
      if (
        !other.music ||
        other.music.hash === song.music?.hash ||
        Math.abs(other.duration - song.duration) > COPY_SECONDS
      )
        continue;
      const offset = await offsetOf(other, song, repository);
      if (offset && offset.alike >= COPY_ALIKE && Math.abs(offset.seconds) <= COPY_SECONDS) return other;
    }
    return undefined;
  };

  const pump = () => {
    while (running.size < AT_ONCE) {
      const at = waiting.findIndex((entry) => entry.show === openShow());
      const [next] = at < 0 ? [] : waiting.splice(at, 1);
      if (!next) return;
      running.set(next.id, () => undefined);
      void listen(next).finally(() => {
        running.delete(next.id);
        pump();
      });
    }
  };

  const take = async (id: string, file: File): Promise<void> => {
    if (file.size === 0) return failed(id, { code: 'empty-file', name: file.name });
    const shown = document.store.getState().show;
    const known = await digestOf(file);
    if (!known.ok) return failed(id, known.problem);
    if (!shown) return failed(id, { code: 'cancelled' });
    const { hash, file: plain } = known.value;
    const there = songs().find(({ music }) => music?.hash === hash);
    const missed = (await repository.hasMusic(hash)) ? undefined : songWith(hash);
    if (there && !missed)
      return end(id, { state: 'failed', wrong: `“${file.name}” is in this show already: “${there.title}”.` });
    if ([...kept.values()].some((entry) => entry.hash === hash && !entry.found))
      return end(id, { state: 'failed', wrong: `“${file.name}” is here twice.` });
    const bytes = new Uint8Array(await plain.arrayBuffer());
    // It may have been cancelled while it was read, or while it was kept.
    const wanted = () => store.getState().items.some((item) => item.id === id);
    if (!wanted()) return;
    const problem = await repository.putMusic(hash, { bytes, peaks: undefined, envelopes: undefined });
    if (problem) return failed(id, problem);
    came(hash);
    if (!wanted()) return isUsed(hash) ? undefined : repository.dropMusic(hash);
    const back = missed && { back: missed.id };
    const entry = { id, show: shown.id, name: file.name, hash, bytes: bytes.length, ...back };
    kept.set(id, entry);
    await save();
    change(id, { state: 'waiting' });
    waiting.push(entry);
    pump();
  };

  return {
    store,
    async add(files) {
      const all = files.map((file) => ({ id: freshId(), file }));
      for (const { id, file } of all) show({ id, show: openShow() ?? '', name: file.name, state: 'kept', share: 0 });
      const done = all.map(({ id }) => new Promise<void>((resolve) => ended.set(id, resolve)));
      for (const { id, file } of all) await take(id, file);
      await Promise.all(done);
      const { items } = store.getState();
      return all.flatMap(({ id }) => items.find((item) => item.id === id)?.found?.song ?? []);
    },
    drop(id) {
      const cancel = running.get(id);
      if (cancel) return cancel();
      const at = waiting.findIndex((entry) => entry.id === id);
      if (at >= 0) {
        waiting.splice(at, 1);
        return void failed(id, { code: 'cancelled' });
      }
      kept.delete(id);
      void save();
      end(id, {});
      store.setState(({ items }) => ({ items: items.filter((item) => item.id !== id) }));
    },
    async resume() {
      const shows = new Set((await repository.shows()).map(({ id }) => id));
      for (const entry of await repository.intake()) {
        const { id, name, hash, found } = entry;
        if (kept.has(id)) continue;
        // Its show is gone for good.
        if (!shows.has(entry.show) && entry.show !== openShow()) {
          if (!found && !isUsed(hash)) await repository.dropMusic(hash);
          continue;
        }
        kept.set(id, entry);
        const state = found ? 'found' : 'waiting';
        const back = entry.back !== undefined;
        show({ id, show: entry.show, name, state, share: found ? 1 : 0, ...(found ? { found, back } : {}) });
        if (!found) waiting.push(entry);
      }
      await save();
      pump();
    },
  };
}

/** A file as it is to be kept, and its hash. */
function digestOf(file: File): Promise<Result<Pick<Listened, 'hash' | 'file'>>> {
  const worker = startAnalysisWorker();
  const unread = failure({ code: 'audio-broken', name: file.name, detail: 'the file cannot be read' } as const);
  return new Promise<Result<Pick<Listened, 'hash' | 'file'>>>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<FromAnalysis>) => {
      if (data.type === 'unpack') unpackFor(worker, file, data.rate);
      else if (data.type === 'digest') resolve(ok(data));
      else resolve(data.type === 'done' && !data.result.ok ? data.result : unread);
    };
    worker.onerror = () => resolve(unread);
    worker.postMessage({ type: 'digest', file } satisfies ToAnalysis);
  }).finally(() => worker.terminate());
}
