// What is asked of the server and of storage: keys and fetchers in one place.

import { queryOptions } from '@tanstack/react-query';
import { z } from 'zod';
import type { Repository } from '../host/repository';

const Sender = z.object({
  protocol: z.enum(['sacn', 'artnet']),
  host: z.string(),
  port: z.number(),
  packets: z.number(),
  error: z.string().nullable(),
  errorAt: z.number().nullable(),
});

const NodeUniverse = z.object({
  universe: z.number(),
  protocol: z.enum(['sacn', 'artnet']),
  source: z.string(),
  priority: z.number().nullable(),
  framesPerSecond: z.number(),
  packets: z.number(),
  lost: z.number(),
  longestGapMs: z.number(),
  changes: z.number(),
  levels: z.array(z.number()),
});

const Status = z.object({
  version: z.string(),
  screens: z.number(),
  output: z
    .object({
      sending: z.boolean(),
      framesPerSecond: z.number(),
      skipped: z.number(),
      universes: z.array(z.number()),
      senders: z.array(Sender),
    })
    .nullable(),
  node: z.object({ universes: z.array(NodeUniverse), bad: z.number(), lastBad: z.string().nullable() }).nullable(),
});
export type Status = z.infer<typeof Status>;

/** What goes out and what the stand-in says arrives, once a second while there is a server. */
export const statusQuery = (served: boolean) =>
  queryOptions({
    queryKey: ['status'],
    enabled: served,
    refetchInterval: 1000,
    queryFn: async ({ signal }) => {
      const response = await fetch('/api/status', { signal });
      if (!response.ok) throw new Error(`The server answered ${response.status}`);
      return Status.parse(await response.json());
    },
  });

/** A song's waveform: one byte a hundredth of a second; null where it is not kept here. */
export const peaksQuery = (repository: Repository, hash: string | undefined) =>
  queryOptions({
    queryKey: ['peaks', hash ?? ''],
    enabled: hash !== undefined,
    staleTime: Infinity,
    queryFn: async () => (hash === undefined ? null : ((await repository.peaks(hash)) ?? null)),
  });

export const showsQuery = (repository: Repository) =>
  queryOptions({ queryKey: ['shows'], queryFn: () => repository.shows() });
