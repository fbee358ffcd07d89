// What is asked of the server and of storage: keys and fetchers in one place.

import { queryOptions, type QueryClient } from '@tanstack/react-query';
import { Status } from '@hovlix/core/connect';
import { readLog } from '@hovlix/core/live';
import type { Repository } from '../host/document/repository';
import type { Sounds } from '../host/sound/sounds';

const STATUS = ['status'];
/** It comes with each beat of the line; where it stays away for so long, in ms, it is asked for. */
const STATUS_LATE = 2500;
type Age = { readonly state: { readonly dataUpdatedAt: number } };

/** What goes out and what the stand-in says arrives, once a second while there is a server: see {@link takeStatus}. */
export const statusQuery = (served: boolean) =>
  queryOptions({
    queryKey: STATUS,
    enabled: served,
    refetchInterval: ({ state }: Age) => (Date.now() - state.dataUpdatedAt < STATUS_LATE ? STATUS_LATE : 1000),
    queryFn: async ({ signal }) => {
      const response = await fetch('/api/status', { signal });
      if (!response.ok) throw new Error(`The server answered ${response.status}`);
      return Status.parse(await response.json());
    },
  });

/** Keeps what the conductor told of its computer where all of the page looks for it. */
export function takeStatus(queries: QueryClient, told: unknown): void {
  const read = Status.safeParse(told);
  if (read.success) queries.setQueryData(STATUS, read.data);
}

/** What was pressed before this screen came; null where nobody else kept it. */
export const logQuery = (served: boolean) =>
  queryOptions({
    queryKey: ['log'],
    enabled: served,
    staleTime: Infinity,
    gcTime: 0,
    queryFn: async ({ signal }) => {
      const response = await fetch('/api/log', { signal });
      if (!response.ok) throw new Error(`The server answered ${response.status}`);
      const read = readLog(await response.text(), 'the log');
      return read.ok ? read.value : null;
    },
  });

/** Music may be on its way to this device: what was not here is looked for again. */
const untilThere = ({ state }: { readonly state: { readonly data: unknown } }) => (state.data === null ? 2000 : false);

/** Whether a recording is on this device; looked for again until it is. */
export const hasMusicQuery = (hasMusic: (hash: string) => Promise<boolean>, hash: string | undefined) =>
  queryOptions({
    queryKey: ['has-music', hash ?? ''],
    enabled: hash !== undefined,
    refetchInterval: ({ state }) => (state.data === false ? 2000 : false),
    queryFn: () => (hash === undefined ? true : hasMusic(hash)),
  });

/** A song's waveform: one byte a hundredth of a second; null where it is not kept here. */
export const peaksQuery = (repository: Repository, hash: string | undefined) =>
  queryOptions({
    queryKey: ['peaks', hash ?? ''],
    enabled: hash !== undefined,
    staleTime: Infinity,
    refetchInterval: untilThere,
    queryFn: async () => (hash === undefined ? null : ((await repository.peaks(hash)) ?? null)),
  });

/** What followers hear in a song, as `readEnvelopes` takes it; null where neither this device nor the server knows it. */
export const envelopesQuery = (sounds: Pick<Sounds, 'find'>, hash: string | undefined) =>
  queryOptions({
    queryKey: ['envelopes', hash ?? ''],
    enabled: hash !== undefined,
    staleTime: Infinity,
    refetchInterval: untilThere,
    queryFn: async () => (hash === undefined ? null : ((await sounds.find(hash)) ?? null)),
  });

/** How much this page keeps and may keep, in bytes, and whether the browser promised not to clear it away. */
export const roomQuery = queryOptions({
  queryKey: ['room'],
  refetchInterval: 30_000,
  queryFn: async () => {
    const { usage = 0, quota = 0 } = (await navigator.storage?.estimate?.()) ?? {};
    return { usage, quota, persisted: (await navigator.storage?.persisted?.()) ?? false };
  },
});

export const askToKeep = async (): Promise<boolean> => (await navigator.storage?.persist?.()) ?? false;

/** What only this computer's own screens may ask: opening to phones, a new code, sending a device away. */
export async function askHost(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: object): Promise<void> {
  const response = await fetch(path, {
    method,
    ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
  });
  if (!response.ok) throw new Error(`The server answered ${response.status}`);
}
