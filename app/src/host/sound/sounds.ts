// What followers can hear in the songs of the open show: from this device, from the server, or found out anew.

import { readEnvelopes } from '@hovlix/core/music';
import type { FromAnalysis, ToAnalysis } from './analysis-messages';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';
import type { Light } from '../light/light';
import type { Repository } from '../document/repository';
import { startAnalysisWorker } from '../workers';

/**
 * Follows the document: each song's envelopes reach the light worker, and the server where it has none. Music that was
 * analysed before there were envelopes is listened to again, one song after the other.
 */
export function followSounds(document: Document, repository: Repository, light: Light, link: Conducting): void {
  const known = new Map<string, Uint8Array<ArrayBuffer>>();
  const looking = new Set<string>();
  const served = () => link.store.getState().conductor === 'server';
  const operates = () => link.store.getState().may === 'operator';

  const heard = (hash: string, bytes: Uint8Array<ArrayBuffer>) => {
    if (known.has(hash) || !readEnvelopes(bytes, hash).ok) return;
    known.set(hash, bytes);
    light.tell({ type: 'sound', hash, bytes });
    void bringToServer(hash, bytes);
  };

  const bringToServer = async (hash: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> => {
    if (!served() || !operates()) return;
    try {
      const there = await fetch(addressOf(hash), { method: 'HEAD' });
      if (there.status === 200) return;
      const headers = { 'content-type': 'application/octet-stream' };
      await fetch(addressOf(hash), { method: 'PUT', headers, body: bytes });
    } catch {
      // It is gone: when it is back, all known sounds are brought again.
    }
  };

  const look = async (hash: string): Promise<void> => {
    const here = (await repository.envelopes(hash)) ?? (await fromServer(hash));
    if (here) return heard(hash, here);
    const music = await repository.music(hash);
    const found = music && (await listenedTo(new File([music.bytes], hash)));
    if (!found) return;
    await repository.putEnvelopes(hash, found);
    heard(hash, found);
  };

  let queue = Promise.resolve();
  const follow = () => {
    const songs = document.store.getState().show?.songs ?? [];
    for (const { music } of songs) {
      if (!music || known.has(music.hash) || looking.has(music.hash)) continue;
      looking.add(music.hash);
      // One after the other: listening takes a processor of its own.
      queue = queue.then(() => look(music.hash)).finally(() => looking.delete(music.hash));
    }
  };

  const fromServer = async (hash: string): Promise<Uint8Array<ArrayBuffer> | undefined> => {
    if (!served()) return undefined;
    try {
      const answer = await fetch(addressOf(hash));
      return answer.status === 200 ? new Uint8Array(await answer.arrayBuffer()) : undefined;
    } catch {
      return undefined;
    }
  };

  let songs: unknown;
  document.store.subscribe(({ show }) => {
    if (show?.songs === songs) return;
    songs = show?.songs;
    follow();
  });
  link.store.subscribe(({ conductor }, before) => {
    if (conductor !== 'server' || before.conductor === 'server') return;
    for (const [hash, bytes] of known) void bringToServer(hash, bytes);
    follow();
  });
}

const addressOf = (hash: string) => `/api/sounds/${hash}`;

function listenedTo(file: File): Promise<Uint8Array<ArrayBuffer> | undefined> {
  return new Promise((resolve) => {
    const worker = startAnalysisWorker();
    const done = (bytes: Uint8Array<ArrayBuffer> | undefined) => {
      worker.terminate();
      resolve(bytes);
    };
    worker.onmessage = (event: MessageEvent<FromAnalysis>) => {
      if (event.data.type !== 'done') return;
      const { result } = event.data;
      done(result.ok ? result.value.kept.envelopes : undefined);
    };
    worker.onerror = () => done(undefined);
    worker.postMessage({ type: 'analyse', file } satisfies ToAnalysis);
  });
}
