// What belongs to this window or this person: theme, what is said in passing.

import { create } from 'zustand';
import { z } from 'zod';
import { kept, keptInWindow } from './kept';

const Habits = z.object({
  theme: z.enum(['night', 'day']).default('night'),
  /** Seconds a blackout takes to come and to go. */
  blackoutFade: z.number().min(0).max(60).default(0),
  /** Bars that the music begins earlier than asked, to play along; and whether the sheet goes along with it. */
  leadIn: z.number().int().min(0).max(2).default(0),
  follow: z.boolean().default(true),
  /** MIDI was turned on here, and is asked for again as the page opens. */
  midi: z.boolean().default(false),
  /** What follows a MIDI clock from outside, and whether ours is sent. */
  follows: z.enum(['nothing', 'tempo', 'songs']).default('nothing'),
  sendsClock: z.boolean().default(false),
  /** Whether the tempo goes by the microphone; how much louder it is heard, in dB; and below which dB it is not heard. */
  micLeads: z.boolean().default(false),
  micGain: z.number().min(-30).max(30).default(0),
  micGate: z.number().min(-90).max(0).default(-90),
  /** Four to eight figures that unlock this screen; none where holding is enough. */
  pin: z
    .string()
    .regex(/^\d{4,8}$/)
    .nullable()
    .default(null),
  /** Shows whose first steps were left, and those whose way out was seen to. */
  pathLeft: z.array(z.string()).max(200).default([]),
  connected: z.array(z.string()).max(200).default([]),
});
type Habits = z.infer<typeof Habits>;
const HABITS = kept<Habits>('hovlix-habits-1', Habits, Habits.parse({}));

/** A screen that is locked stays so when its page is loaded anew, as by a finger that pulls it down. */
const LOCK = keptInWindow('hovlix-locked');

type Session = {
  readonly theme: Habits['theme'];
  readonly blackoutFade: Habits['blackoutFade'];
  readonly setBlackoutFade: (seconds: number) => void;
  readonly leadIn: Habits['leadIn'];
  readonly follow: Habits['follow'];
  readonly setRehearsal: (habits: { readonly leadIn?: number; readonly follow?: boolean }) => void;
  readonly midi: boolean;
  readonly setMidi: (midi: boolean) => void;
  readonly follows: Habits['follows'];
  readonly sendsClock: boolean;
  readonly setClock: (habits: { readonly follows?: Habits['follows']; readonly sendsClock?: boolean }) => void;
  readonly micLeads: boolean;
  readonly micGain: number;
  readonly micGate: number;
  readonly setMicrophone: (habits: Partial<Pick<Habits, 'micLeads' | 'micGain' | 'micGate'>>) => void;
  readonly pin: Habits['pin'];
  readonly setPin: (pin: string | null) => void;
  /** The screen takes no touch and no key but those of pedals. */
  readonly locked: boolean;
  readonly setLocked: (locked: boolean) => void;
  readonly pathLeft: Habits['pathLeft'];
  readonly connected: Habits['connected'];
  /** Leaves the first steps of a show, or takes them up again. */
  readonly leavePath: (show: string, left: boolean) => void;
  /** The way out of a show was seen to, or can wait. */
  readonly goOnConnected: (show: string) => void;
  /** One sentence that is shown for a while, with an undo where that makes sense. */
  readonly said: { readonly text: string; readonly tone: 'good' | 'bad'; readonly undo?: () => void } | null;
  /** The masters lie open over the place. */
  readonly masters: boolean;
  /** Lamps that are being worked on, ringed in the stage picture. */
  readonly marked: readonly string[];
  readonly mark: (lamps: readonly string[]) => void;
  readonly setMasters: (masters: boolean) => void;
  /** The tempo lies open over the place. */
  readonly tempo: boolean;
  readonly setTempo: (tempo: boolean) => void;
  readonly setTheme: (theme: 'night' | 'day') => void;
  readonly say: (text: string, options?: { readonly tone?: 'good' | 'bad'; readonly undo?: () => void }) => void;
  readonly hush: () => void;
  /** Lamps are to be added as soon as the rig is in sight. */
  readonly adding: boolean;
  readonly setAdding: (adding: boolean) => void;
  /** Takes keys before anything else does, while a check or the like wants them. @returns what ends that. */
  readonly takeKeys: (taker: KeyTaker) => () => void;
  readonly keyTakers: readonly KeyTaker[];
};

/** True where the key was for it. */
type KeyTaker = (event: KeyboardEvent) => boolean;

export const useSession = create<Session>((set, get) => {
  const habit = (changed: Partial<Habits>) => {
    set(changed);
    HABITS.keep((now) => ({ ...now, ...changed }));
  };
  return {
    ...HABITS.read(),
    said: null,
    masters: false,
    marked: [],
    mark: (marked) => set({ marked }),
    setMasters: (masters) => set({ masters }),
    tempo: false,
    setTempo: (tempo) => set({ tempo }),
    setTheme: (theme) => habit({ theme }),
    setBlackoutFade: (blackoutFade) => habit({ blackoutFade }),
    setRehearsal: habit,
    setMidi: (midi) => habit({ midi }),
    setClock: habit,
    setMicrophone: habit,
    setPin: (pin) => habit({ pin }),
    locked: LOCK.read() !== undefined,
    setLocked(locked) {
      LOCK.keep(locked ? 'yes' : undefined);
      set({ locked });
    },
    leavePath: (show, left) => {
      const others = get().pathLeft.filter((one) => one !== show);
      habit({ pathLeft: left ? [...others, show].slice(-200) : others });
    },
    goOnConnected: (show) => {
      habit({ connected: [...get().connected.filter((one) => one !== show), show].slice(-200) });
    },
    say: (text, { tone = 'good', undo } = {}) => set({ said: { text, tone, ...(undo ? { undo } : {}) } }),
    hush: () => set({ said: null }),
    adding: false,
    setAdding: (adding) => set({ adding }),
    keyTakers: [],
    takeKeys(taker) {
      set({ keyTakers: [...get().keyTakers, taker] });
      return () => set({ keyTakers: get().keyTakers.filter((one) => one !== taker) });
    },
  };
});

// What a person chose in another window holds here, too; which gear a window listens to is its own.
HABITS.heard(({ theme, blackoutFade, leadIn, follow, pin, pathLeft, connected }) =>
  useSession.setState({ theme, blackoutFade, leadIn, follow, pin, pathLeft, connected }),
);
