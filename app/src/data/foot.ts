// The foot controller stand-in: what it was sent last, as the server tells it.

import { queryOptions } from '@tanstack/react-query';
import { z } from 'zod';

const Got = z.array(z.array(z.number()));
type Got = z.infer<typeof Got>;

const answered = async (response: Response): Promise<Got> => {
  if (!response.ok) throw new Error(`The server answered ${response.status}`);
  return Got.parse(await response.json());
};

export const footQuery = queryOptions({
  queryKey: ['foot'],
  refetchInterval: 500,
  queryFn: async ({ signal }) => answered(await fetch('/api/foot', { signal })),
});

/** Steps on it, or lifts the foot: one MIDI message. */
export const stepOn = async (bytes: readonly number[]): Promise<Got> =>
  answered(
    await fetch('/api/foot', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ bytes }),
    }),
  );
