// What belongs to this window or this person: theme, what is said in passing.

import { create } from 'zustand';
import { z } from 'zod';

const Habits = z.object({
  theme: z.enum(['night', 'day']).default('night'),
  /** Seconds a blackout takes to come and to go. */
  blackoutFade: z.number().min(0).max(60).default(0),
});
type Habits = z.infer<typeof Habits>;
const KEY = 'hovlix-habits-1';

type Session = {
  readonly theme: Habits['theme'];
  readonly blackoutFade: Habits['blackoutFade'];
  readonly setBlackoutFade: (seconds: number) => void;
  /** One sentence that is shown for a while, with an undo where that makes sense. */
  readonly said: { readonly text: string; readonly tone: 'good' | 'bad'; readonly undo?: () => void } | null;
  /** The masters lie open over the place. */
  readonly masters: boolean;
  /** Lamps that are being worked on, ringed in the stage picture. */
  readonly marked: readonly string[];
  readonly mark: (lamps: readonly string[]) => void;
  readonly setMasters: (masters: boolean) => void;
  readonly setTheme: (theme: 'night' | 'day') => void;
  readonly say: (text: string, options?: { readonly tone?: 'good' | 'bad'; readonly undo?: () => void }) => void;
  readonly hush: () => void;
};

export const useSession = create<Session>((set, get) => ({
  ...keptHabits(),
  said: null,
  masters: false,
  marked: [],
  mark: (marked) => set({ marked }),
  setMasters: (masters) => set({ masters }),
  setTheme: (theme) => {
    set({ theme });
    keep(get());
  },
  setBlackoutFade: (blackoutFade) => {
    set({ blackoutFade });
    keep(get());
  },
  say: (text, { tone = 'good', undo } = {}) => set({ said: { text, tone, ...(undo ? { undo } : {}) } }),
  hush: () => set({ said: null }),
}));

function keep({ theme, blackoutFade }: Habits): void {
  window.localStorage.setItem(KEY, JSON.stringify({ theme, blackoutFade }));
}

function keptHabits(): Habits {
  try {
    const kept = Habits.safeParse(JSON.parse(window.localStorage.getItem(KEY) ?? '{}'));
    return kept.success ? kept.data : Habits.parse({});
  } catch {
    // Not readable: nothing is lost but a habit.
    return Habits.parse({});
  }
}
