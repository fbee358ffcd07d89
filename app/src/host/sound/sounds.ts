// What followers can hear in songs: from this device, from the server, or found out anew.

import { faultOfEnvelopes } from '@hovlix/core/music';
import type { FromAnalysis, ToAnalysis } from './analysis-messages';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';
import type { Light } from '../light/light';
import type { Repository } from '../document/repository';
import { startAnalysisWorker } from '../workers';

export type Sounds = {
  /** The light knows what can be heard in a recording. */
  readonly knows: (hash: string) => boolean;
  /** Tells it to the light, as soon as that is found; false where nobody knows it. */
  readonly bring: (hash: string) => Promise<boolean>;
  /** Its bytes, as `readEnvelopes` takes them, from this device or from the server. */
  readonly find: (hash: string) => Promise<Uint8Array<ArrayBuffer> | undefined>;
};

/**
 * Follows the document and what plays. A show has hundreds of songs, and a phone none of their music: only that of the song
 * that is on, or that somebody looks at, is brought to the light. What this device can hear in its music goes to a server
 * that has it not. Music that was analysed before there were envelopes is listened to again, one song after the other.
 */
export function followSounds(document: Document, repository: Repository, light: Light, link: Conducting): Sounds {
  const known = new Set<string>();
  const looking = new Map<string, Promise<boolean>>();
  /** What the server that is there has, or is being brought. */
  const offered = new Set<string>();
  const served = () => link.store.getState().conductor === 'server';
  const operates = () => link.store.getState().may === 'operator';
  const songs = () => document.store.getState().show?.songs ?? [];

  // One after the other: listening takes a processor of its own.
  let turn: Promise<unknown> = Promise.resolve();
  const listenedAnew = (hash: string): Promise<Uint8Array<ArrayBuffer> | undefined> => {
    const done = turn.then(async () => {
      const there = await repository.envelopes(hash);
      const music = there ? undefined : await repository.music(hash);
      const found = music && (await listenedTo(new File([music.bytes], hash)));
      if (found) await repository.putEnvelopes(hash, found);
      return there ?? found;
    });
    turn = done.catch(() => undefined);
    return done;
  };

  const find = async (hash: string) => (await repository.envelopes(hash)) ?? (await fromServer(hash));

  const look = async (hash: string): Promise<boolean> => {
    const bytes = (await find(hash)) ?? (await listenedAnew(hash));
    if (!bytes || faultOfEnvelopes(bytes, hash)) return false;
    known.add(hash);
    light.tell({ type: 'sound', hash, bytes });
    return true;
  };

  const bring = (hash: string): Promise<boolean> => {
    if (known.has(hash)) return Promise.resolve(true);
    const already = looking.get(hash);
    if (already) return already;
    const doing = look(hash)
      .catch(() => false)
      .finally(() => looking.delete(hash));
    looking.set(hash, doing);
    return doing;
  };

  const fromServer = async (hash: string): Promise<Uint8Array<ArrayBuffer> | undefined> => {
    if (!served()) return undefined;
    try {
      const answer = await fetch(addressOf(hash));
      if (answer.status !== 200) return undefined;
      offered.add(hash);
      return new Uint8Array(await answer.arrayBuffer());
    } catch {
      return undefined;
    }
  };

  /** Brings the server what this device can hear in music that it has. */
  const offer = async (hash: string): Promise<void> => {
    if (!served() || !operates() || offered.has(hash)) return;
    offered.add(hash);
    try {
      if (!(await repository.hasMusic(hash))) return void offered.delete(hash);
      const there = await fetch(addressOf(hash), { method: 'HEAD' });
      if (there.status === 200) return;
      const bytes = (await repository.envelopes(hash)) ?? (await listenedAnew(hash));
      if (!bytes) return;
      const headers = { 'content-type': 'application/octet-stream' };
      await fetch(addressOf(hash), { method: 'PUT', headers, body: bytes });
    } catch {
      // It is gone: when it is back, it is asked anew.
      offered.delete(hash);
    }
  };

  const offerAll = async (): Promise<void> => {
    for (const { music } of songs()) if (music) await offer(music.hash);
  };

  /** Of the song that is on. */
  const bringPlaying = (): void => {
    const playing = link.store.getState().live.song?.id;
    const music = songs().find(({ id }) => id === playing)?.music;
    if (music) void bring(music.hash).then(() => offer(music.hash));
  };

  let before: unknown;
  document.store.subscribe(({ show }) => {
    if (show?.songs === before) return;
    before = show?.songs;
    bringPlaying();
    void offerAll();
  });
  link.store.subscribe(({ conductor, live }, was) => {
    // Its music may have come since it was opened.
    if (live.song?.id !== was.live.song?.id || live.song?.playing !== was.live.song?.playing) bringPlaying();
    if (conductor !== 'server' || was.conductor === 'server') return;
    offered.clear();
    bringPlaying();
    void offerAll();
  });
  return { knows: (hash) => known.has(hash), bring, find };
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
