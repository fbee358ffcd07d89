// What cannot be kept right now, by what it is about, for screens to say; the console hears of each once.

export type Troubles = {
  /** A trouble, in words; null where it is over. */
  readonly say: (about: string, why: string | null) => void;
  readonly list: () => readonly string[];
};

export function troubles(warn: (why: string) => void): Troubles {
  const now = new Map<string, string>();
  return {
    say(about, why) {
      if (why === null) return void now.delete(about);
      if (now.get(about) === why) return;
      now.set(about, why);
      warn(why);
    },
    list: () => [...now.values()],
  };
}
