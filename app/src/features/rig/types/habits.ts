// Which lamp types this person likes and used last: of this browser, not of the show.

import { create } from 'zustand';
import { z } from 'zod';
import { kept } from '../../../host/kept';

const Habits = z.object({ favourites: z.array(z.string()), recent: z.array(z.string()) });
type Habits = z.infer<typeof Habits>;
const HABITS = kept<Habits>('hovlix-types-1', Habits, { favourites: [], recent: [] });
const MOST_RECENT = 8;

type TypeHabits = Habits & {
  readonly toggleFavourite: (id: string) => void;
  readonly noteUse: (id: string) => void;
};

export const useTypeHabits = create<TypeHabits>((set, get) => {
  const keep = (change: Partial<Habits>) => {
    set(change);
    HABITS.keep((now) => ({ ...now, ...change }));
  };
  return {
    ...HABITS.read(),
    toggleFavourite: (id) => {
      const { favourites } = get();
      keep({ favourites: favourites.includes(id) ? favourites.filter((one) => one !== id) : [...favourites, id] });
    },
    noteUse: (id) => keep({ recent: [id, ...get().recent.filter((one) => one !== id)].slice(0, MOST_RECENT) }),
  };
});

HABITS.heard((habits) => useTypeHabits.setState(habits));
