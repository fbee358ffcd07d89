// Music that comes in and is analysed, and shows that go out as files.

import type { MusicFile } from '@hovlix/core/files';
import type { Offset } from '@hovlix/core/music';
import { failed, ok, type Result } from '@hovlix/core/problem';
import type { Copy } from '@hovlix/core/show';
import { recordingsOf, songOfRecording, type Song } from '@hovlix/core/song';
import { freshId } from '../fresh-id';
import type { FromAnalysis, Listened, Readings, ToAnalysis, Unpacked } from '../sound/analysis-messages';
import type { Repository } from '../document/repository';
import { startAnalysisWorker } from '../workers';
import { zipFormats } from './formats';

export type Job<T = Song> = { readonly cancel: () => void; readonly done: Promise<Result<T>> };

/** Gives a worker the sound of a file that it cannot unpack, as far as this browser can. */
export function unpackFor(worker: Worker, file: File, rate: number): void {
  const answer = (sound: Unpacked) => {
    const hand = typeof sound === 'string' ? [] : sound.channels.map(({ buffer }) => buffer);
    worker.postMessage({ type: 'unpacked', sound } satisfies ToAnalysis, hand);
  };
  void import('../sound/unpack').then(({ unpacked }) => unpacked(file, rate)).then(answer, () => answer('unknown'));
}

/** Listens to a file in a worker. */
export function listenTo(file: File, progress: (share: number) => void): Job<Listened> {
  const worker = startAnalysisWorker();
  let cancel = () => undefined as void;
  const done = new Promise<Result<Listened>>((resolve) => {
    cancel = () => {
      worker.postMessage({ type: 'cancel' } satisfies ToAnalysis);
      resolve(failed({ code: 'cancelled' }));
    };
    worker.onmessage = ({ data }: MessageEvent<FromAnalysis>) => {
      if (data.type === 'progress') progress(data.progress);
      else if (data.type === 'unpack') unpackFor(worker, file, data.rate);
      else if (data.type === 'done') resolve(data.result);
    };
    worker.onerror = (event) =>
      resolve(failed({ code: 'audio-broken', name: file.name, detail: event.message || 'the worker stopped' }));
    worker.postMessage({ type: 'analyse', file } satisfies ToAnalysis);
  }).finally(() => worker.terminate());
  return { cancel: () => cancel(), done };
}

/** How else a song's music can be counted; undefined where the music is not on this device. */
export async function readingsOf({ music }: Song, repository: Repository): Promise<Result<Readings> | undefined> {
  if (!music) return undefined;
  const heard = (await repository.heard(music.hash)) ?? (await heardAnew(music.hash, music.name, repository));
  if (!heard) return undefined;
  const worker = startAnalysisWorker();
  return new Promise<Result<Readings>>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<FromAnalysis>) => data.type === 'readings' && resolve(data.readings);
    worker.onerror = ({ message }) => resolve(failed({ code: 'audio-broken', name: music.name, detail: message }));
    worker.postMessage({ type: 'read', heard, name: music.name } satisfies ToAnalysis);
  }).finally(() => worker.terminate());
}

/** Music that was listened to before anything was kept of it is listened to once more. */
async function heardAnew(hash: string, name: string, repository: Repository): Promise<Uint8Array | undefined> {
  const music = await repository.music(hash);
  const listened = music && (await listenTo(new File([music.bytes], name), () => undefined).done);
  if (!listened?.ok) return undefined;
  await repository.putFound(hash, listened.value.kept);
  return listened.value.kept.heard;
}

/** Analyses a file, keeps its bytes, and makes a song of it. Nothing is kept when it is cancelled. */
export function analyseFile(file: File, repository: Repository, progress: (share: number) => void): Job {
  const job = listenTo(file, progress);
  const done = job.done.then(async (result): Promise<Result<Song>> => {
    if (!result.ok) return result;
    const { analysis, hash, file: plain, tags, kept } = result.value;
    // Read again rather than held meanwhile: a long mix should be in memory once.
    const bytes = await plain.arrayBuffer().then(
      (buffer) => new Uint8Array(buffer),
      () => undefined,
    );
    if (!bytes) return failed({ code: 'audio-broken', name: file.name, detail: 'the file is not there any more' });
    const problem = await repository.putMusic(hash, { bytes, ...kept });
    return problem
      ? failed(problem)
      : ok(songOfRecording({ name: file.name, hash, bytes: bytes.length, tags }, analysis, freshId));
  });
  return { cancel: job.cancel, done };
}

/** How much later the music of one song is than that of another; undefined where one of them is not kept here. */
export async function offsetOf(before: Song, after: Song, repository: Repository): Promise<Offset | undefined> {
  const [one, other] = await Promise.all(
    [before, after].map(({ music }) => (music ? repository.peaks(music.hash) : undefined)),
  );
  if (!one || !other) return undefined;
  const worker = startAnalysisWorker();
  const offset = await new Promise<Offset | undefined>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<FromAnalysis>) => data.type === 'compared' && resolve(data.offset);
    worker.onerror = () => resolve(undefined);
    worker.postMessage({ type: 'compare', before: one, after: other } satisfies ToAnalysis);
  });
  worker.terminate();
  return offset;
}

/** A show with its music as a .hovlix file, and the recordings it lacks because this device has them not. */
export async function bundleOf(
  { show, chain }: Pick<Copy, 'show' | 'chain'>,
  musicOf: (hash: string) => Promise<MusicFile | undefined>,
): Promise<{ readonly file: Blob; readonly lacks: readonly string[] }> {
  const music = new Map<string, MusicFile>();
  const lacks: string[] = [];
  for (const { hash, name } of recordingsOf(show.songs)) {
    const kept = await musicOf(hash);
    if (kept) music.set(hash, kept);
    else lacks.push(name);
  }
  const { writeBundle } = await zipFormats();
  const bytes = writeBundle({ show, chain, savedAt: Date.now(), music });
  return { file: new Blob([bytes], { type: 'application/zip' }), lacks };
}

/** What a show is called as a file. */
export const fileNameOf = (name: string): string =>
  `${
    name
      .replaceAll(/[^\p{L}\p{M}\p{N}]+/gu, '-')
      .replaceAll(/^-|-$/g, '')
      .toLowerCase() || 'show'
  }.hovlix`;
