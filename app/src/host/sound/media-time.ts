// Where music is, between two steps of its clock: some browsers set that of an audio element forward every 40 to 80 ms only.

/** So many steps count: what is read right after one is late by as much as readings lie apart, and of three the best is near. */
const STEPS = 3;
/** Longer than any step: the music stood still, or nobody looked. */
const LONG_SECONDS = 0.15;

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
  /** By step, how far the music was ahead of its place had it begun with the local clock. */
  const ahead = new Float64Array(STEPS);
  let steps = 0;
  let last = NaN;
  let stepped = 0;
  let looked = 0;
  let pace = 1;
  const forget = () => {
    steps = 0;
    last = NaN;
  };
  return {
    forget,
    read(media, local, rate) {
      if (rate !== pace || local - Math.max(stepped, looked) > LONG_SECONDS) forget();
      pace = rate;
      looked = local;
      // Until it says something else, nothing sounds yet.
      if (Number.isNaN(last)) stepped = local;
      else if (media !== last) {
        ahead.copyWithin(1, 0);
        ahead[0] = media - local * rate;
        steps = Math.min(STEPS, steps + 1);
        stepped = local;
      } else if (local - stepped > LONG_SECONDS) forget();
      last = media;
      let most = -Infinity;
      for (let i = 0; i < steps; i++) most = Math.max(most, ahead[i]!);
      return steps > 0 ? most + local * rate : media;
    },
  };
}
