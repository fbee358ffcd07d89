// What follows a song as it plays, and leaves a page at rest in peace.

import type { Conducting } from './conduct';

/** Calls `work` every so many milliseconds while a song plays, on whatever screen, and once more when none does any longer. */
export function whilePlaying({ store }: Pick<Conducting, 'store'>, work: () => void, everyMs: number): void {
  let timer: ReturnType<typeof setInterval> | undefined;
  const look = () => {
    const plays = store.getState().live.song?.playing === true;
    if (plays === (timer !== undefined)) return;
    if (plays) {
      timer = setInterval(work, everyMs);
      return;
    }
    clearInterval(timer);
    timer = undefined;
    work();
  };
  look();
  store.subscribe(look);
}
