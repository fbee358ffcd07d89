// Where the open show flashes too often, counted in a worker.

import type { FlashStretch } from '@hovlix/core/engine';
import type { Show } from '@hovlix/core/show';
import type { FromFlash, ToFlash } from './flash-messages';
import type { Repository } from '../document/repository';
import { startFlashWorker } from '../workers';

export type FlashJob = { readonly cancel: () => void; readonly done: Promise<readonly FlashStretch[] | undefined> };

/** @returns the stretches; undefined where it was cancelled or the worker stopped. */
export function countShow(show: Show, repository: Repository, progress: (share: number) => void): FlashJob {
  const worker = startFlashWorker();
  let cancel = () => undefined as void;
  const done = new Promise<readonly FlashStretch[] | undefined>((resolve) => {
    cancel = () => {
      worker.terminate();
      resolve(undefined);
    };
    worker.onmessage = ({ data }: MessageEvent<FromFlash>) => {
      if (data.type === 'progress') return progress(data.progress);
      worker.terminate();
      resolve(data.found);
    };
    worker.onerror = cancel;
    void begin(worker, show, repository);
  });
  return { cancel: () => cancel(), done };
}

async function begin(worker: Worker, show: Show, repository: Repository): Promise<void> {
  const hashes = [...new Set(show.songs.flatMap(({ music }) => music?.hash ?? []))];
  const sounds = await Promise.all(
    hashes.map(async (hash) => {
      const bytes = await repository.envelopes(hash);
      return bytes ? [{ hash, bytes }] : [];
    }),
  );
  worker.postMessage({ show, sounds: sounds.flat() } satisfies ToFlash);
}
