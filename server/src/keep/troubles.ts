// What cannot be kept right now, by what it is about, for screens to say; the console hears of each once.

export type Troubles = {
  /** A trouble, in words; null where it is over. */
  readonly say: (about: string, why: string | null) => void;
  /** What has happened and cannot be put right here: said for long enough that somebody reads it. */
  readonly tell: (why: string) => void;
  readonly list: () => readonly string[];
};

const TOLD_FOR_MS = 15 * 60_000;

/** @param wall ms since 1970. */
export function troubles(warn: (why: string) => void, wall: () => number = Date.now): Troubles {
  const now = new Map<string, string>();
  let told: { readonly why: string; readonly until: number }[] = [];
  return {
    say(about, why) {
      if (why === null) return void now.delete(about);
      if (now.get(about) === why) return;
      now.set(about, why);
      warn(why);
    },
    tell(why) {
      told.push({ why, until: wall() + TOLD_FOR_MS });
      warn(why);
    },
    list() {
      told = told.filter(({ until }) => wall() < until);
      return [...now.values(), ...told.map(({ why }) => why)];
    },
  };
}
