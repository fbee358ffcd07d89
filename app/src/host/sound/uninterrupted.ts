// Sound that the device itself stops, for a call, another app, or headphones that were pulled out: it is taken up again.

import type { Sounder } from './sounder';

/** How often it is tried whether the device lets it sound again. */
const AGAIN_MS = 1000;

export type Uninterrupted = {
  /** Stops it because somebody wants it. */
  readonly pause: () => void;
};

/**
 * @param place where the music is by now; undefined where it need not sound here.
 * @param tell what changes: whether the device has stopped it.
 */
export function uninterrupted(
  { audio, goTo }: Pick<Sounder, 'audio' | 'goTo'>,
  place: () => number | undefined,
  tell: (stopped: boolean) => void,
): Uninterrupted {
  let isMeant = true;
  let trying: ReturnType<typeof setInterval> | undefined;
  const end = () => {
    if (trying === undefined) return;
    clearInterval(trying);
    trying = undefined;
    tell(false);
  };
  const again = () => {
    const to = place();
    if (to === undefined) return end();
    if (!audio.paused) return;
    goTo(to);
    void audio.play().catch(() => undefined);
  };
  audio.addEventListener('play', () => void (isMeant = false));
  audio.addEventListener('playing', end);
  audio.addEventListener('pause', () => {
    if (isMeant || audio.ended || place() === undefined || trying !== undefined) return;
    tell(true);
    trying = setInterval(again, AGAIN_MS);
  });
  return {
    pause() {
      isMeant = true;
      end();
      audio.pause();
    },
  };
}
