// Which lamp types this person likes and used last: of this browser, not of the show.

import { create } from 'zustand';
import { z } from 'zod';

const Habits = z.object({ favourites: z.array(z.string()), recent: z.array(z.string()) });
const KEY = 'hovlix-types-1';
const MOST_RECENT = 8;

type TypeHabits = z.infer<typeof Habits> & {
  readonly toggleFavourite: (id: string) => void;
  readonly noteUse: (id: string) => void;
};

export const useTypeHabits = create<TypeHabits>((set, get) => {
  const keep = (change: Partial<z.infer<typeof Habits>>) => {
    const { favourites, recent } = { ...get(), ...change };
    set({ favourites, recent });
    window.localStorage.setItem(KEY, JSON.stringify({ favourites, recent }));
  };
  return {
    ...kept(),
    toggleFavourite: (id) => {
      const { favourites } = get();
      keep({ favourites: favourites.includes(id) ? favourites.filter((one) => one !== id) : [...favourites, id] });
    },
    noteUse: (id) => keep({ recent: [id, ...get().recent.filter((one) => one !== id)].slice(0, MOST_RECENT) }),
  };
});

function kept(): z.infer<typeof Habits> {
  try {
    const read = Habits.safeParse(JSON.parse(window.localStorage.getItem(KEY) ?? ''));
    return read.success ? read.data : { favourites: [], recent: [] };
  } catch {
    // Nothing kept yet, or not readable: nothing is lost but an order.
    return { favourites: [], recent: [] };
  }
}
