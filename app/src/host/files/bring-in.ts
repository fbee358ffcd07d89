// Music that comes in and is analysed, and shows that go out as files.

import type { z } from 'zod';
import { writeBundle, type MusicFile } from '@hovlix/core/files';
import { writeEnvelopes, type Analysis, type Offset } from '@hovlix/core/music';
import { failed, ok, type Result } from '@hovlix/core/problem';
import type { Copy } from '@hovlix/core/show';
import { recordingsOf, Song } from '@hovlix/core/song';
import { freshId } from '../fresh-id';
import type { FromAnalysis, ToAnalysis } from '../sound/analysis-messages';
import type { Repository } from '../document/repository';
import { startAnalysisWorker } from '../workers';

export type Job = { readonly cancel: () => void; readonly done: Promise<Result<Song>> };

/** Analyses a file in a worker, keeps its bytes, and makes a song of it. Nothing is kept when it is cancelled. */
export function analyseFile(file: File, repository: Repository, progress: (share: number) => void): Job {
  const worker = startAnalysisWorker();
  let cancel = () => undefined as void;
  const analysed = new Promise<Result<{ analysis: Analysis; hash: string }>>((resolve) => {
    cancel = () => {
      worker.postMessage({ type: 'cancel' } satisfies ToAnalysis);
      resolve(failed({ code: 'cancelled' }));
    };
    worker.onmessage = (event: MessageEvent<FromAnalysis>) => {
      const message = event.data;
      if (message.type === 'progress') return progress(message.progress);
      if (message.type !== 'done') return;
      const { result, hash } = message;
      resolve(result.ok ? ok({ analysis: result.value, hash }) : result);
    };
    worker.onerror = (event) =>
      resolve(failed({ code: 'audio-broken', name: file.name, detail: event.message || 'the worker stopped' }));
    worker.postMessage({ type: 'analyse', file } satisfies ToAnalysis);
  });
  const done = analysed.then(async (result): Promise<Result<Song>> => {
    worker.terminate();
    if (!result.ok) return result;
    const { analysis, hash } = result.value;
    // Read again rather than held meanwhile: a long mix should be in memory once.
    const bytes = await file.arrayBuffer().then(
      (buffer) => new Uint8Array(buffer),
      () => undefined,
    );
    if (!bytes) return failed({ code: 'audio-broken', name: file.name, detail: 'the file is not there any more' });
    const problem = await repository.putMusic(hash, {
      bytes,
      peaks: analysis.peaks,
      envelopes: writeEnvelopes(analysis.envelopes),
    });
    return problem ? failed(problem) : ok(songFrom(file.name, analysis, hash, bytes.length));
  });
  return { cancel: () => cancel(), done };
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

function songFrom(fileName: string, analysis: Analysis, hash: string, bytes: number): Song {
  const title = fileName
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .replaceAll(/[_\s]+/g, ' ')
    .trim()
    .slice(0, 120);
  return Song.parse({
    id: freshId(),
    title: title || 'Untitled',
    by: '',
    music: { hash, name: fileName.slice(0, 255), type: analysis.type, bytes },
    duration: analysis.duration,
    tempo: { anchors: [...analysis.tempo.anchors] },
    meter: analysis.meter.map((change) => ({ ...change, denominator: change.denominator as 4 | 8 })),
    sections: [],
    lanes: [
      { id: 'looks', name: 'Looks', type: 'looks', clips: [] },
      { id: 'accents', name: 'Accents', type: 'looks', clips: [] },
    ],
  } satisfies z.input<typeof Song>);
}

/** A show with its music as a .hovlix file. */
export async function bundleOf({ show, chain }: Pick<Copy, 'show' | 'chain'>, repository: Repository): Promise<Blob> {
  const music = new Map<string, MusicFile>();
  for (const { hash } of recordingsOf(show.songs)) {
    const kept = await repository.music(hash);
    if (kept) music.set(hash, kept);
  }
  return new Blob([writeBundle({ show, chain, savedAt: Date.now(), music })], { type: 'application/zip' });
}

/** What a show is called as a file. */
export const fileNameOf = (name: string): string =>
  `${
    name
      .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
      .replaceAll(/^-|-$/g, '')
      .toLowerCase() || 'show'
  }.hovlix`;
