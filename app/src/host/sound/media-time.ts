// Where music is, between two steps of its clock: some browsers set that of an audio element forward every 40 to 80 ms only.

/** A reading says where the music is at least; how much it is ahead of this is known for so long, in seconds. */
const KEPT_SECONDS = 0.5;
/** Further behind than any step: the music stood still for a moment. */
const STOOD_SECONDS = 0.15;

export type MediaTime = {
  /**
   * Takes a reading; the more often, the nearer.
   * @param media what the clock says, @param local when, @param rate how fast it goes: all in seconds.
   * @returns where the music is now.
   */
  readonly read: (media: number, local: number, rate: number) => number;
  /** It was stopped, or sent somewhere else. */
  readonly forget: () => void;
};

export function mediaTime(): MediaTime {
  /** How far the music is ahead of its place had it begun with the local clock: the most of this half second, and the one before. */
  let ahead = -Infinity;
  let before = -Infinity;
  let since = 0;
  let pace = 1;
  /** What the clock said first: until it says something else, nothing sounds yet. */
  let first: number | undefined;
  const forget = () => {
    ahead = -Infinity;
    before = -Infinity;
    first = undefined;
  };
  return {
    forget,
    read(media, local, rate) {
      const now = media - local * rate;
      if (rate !== pace || Math.max(ahead, before) - now > STOOD_SECONDS) forget();
      pace = rate;
      first ??= media;
      if (ahead === -Infinity && before === -Infinity && media === first) return media;
      if (local - since > KEPT_SECONDS) {
        before = local - since > 2 * KEPT_SECONDS ? -Infinity : ahead;
        ahead = -Infinity;
        since = local;
      }
      ahead = Math.max(ahead, now);
      return Math.max(ahead, before) + local * rate;
    },
  };
}
