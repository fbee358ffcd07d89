// The decks of the DJ player stand-in, as the server tells of them.

import { queryOptions } from '@tanstack/react-query';
import type { Deck, DeckCommand } from '@hovlix/core/player';

const answered = async (response: Response): Promise<readonly Deck[]> => {
  if (response.ok) return (await response.json()) as readonly Deck[];
  const said = (await response.json().catch(() => ({}))) as { readonly error?: string };
  throw new Error(said.error ?? `The server answered ${response.status}`);
};

/** Twice a second: another screen may be at them, too. */
export const decksQuery = queryOptions({
  queryKey: ['decks'],
  refetchInterval: 500,
  queryFn: async ({ signal }) => answered(await fetch('/api/decks', { signal })),
});

export const onDeck = async (asked: { readonly deck: number; readonly does: DeckCommand }): Promise<readonly Deck[]> =>
  answered(
    await fetch('/api/decks', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(asked),
    }),
  );
