// Keeps a recording where it should be: beside a song, or on a deck of the stand-in player.

import { clamp } from '@hovlix/core/units';
import type { Sounder } from './sounder';

/** Farther off than this it jumps; nearer, it goes a little faster or slower until it is there. */
const JUMP_SECONDS = 0.08;
/** Nearer than this nobody hears it. */
const HEARD_SECONDS = 0.012;
const CATCH_UP = 0.015;
/** What was sent somewhere is waited for so long, in seconds. */
const WAITED_SECONDS = 1;
/** A browser takes a moment until it sounds; longer than this it was busy. */
const MOST_LATE = 0.3;

/** By how much faster a recording that is `off` seconds late goes (early, below 0: slower), of the pace it should have. */
export function catchUp(off: number): number {
  if (Math.abs(off) < HEARD_SECONDS) return 1;
  return off > 0 ? 1 + CATCH_UP : 1 - CATCH_UP;
}

export type Together = {
  /** It should be at `place` seconds now, and go by `rate`. It is started where it does not play. */
  readonly keepAt: (place: number, rate: number) => void;
};

/** @param now a steady clock, in seconds. */
export function together(
  sound: Pick<Sounder, 'audio' | 'at' | 'goTo'>,
  now = () => performance.now() / 1000,
): Together {
  const { audio } = sound;
  let sent: { readonly to: number; readonly at: number } | undefined;
  /** How long this browser takes from being sent somewhere until it sounds: it is sent as far ahead. */
  let late = 0;
  const send = (place: number, rate: number): void => {
    const to = place + late * rate;
    sent = { to, at: now() };
    sound.goTo(to);
  };
  return {
    keepAt(place, rate) {
      if (audio.paused) {
        send(place, rate);
        audio.playbackRate = rate;
        // A browser that wants a touch first gets one with the next press.
        return void audio.play().catch(() => undefined);
      }
      const at = sound.at();
      const off = place - at;
      if (sent) {
        const waits = audio.seeking || Math.abs(at - sent.to) < 0.001;
        if (waits && now() - sent.at < WAITED_SECONDS) return;
        if (!waits) late = clamp(late + off / rate, 0, MOST_LATE);
        sent = undefined;
      }
      const jumps = Math.abs(off) > JUMP_SECONDS;
      if (jumps) send(place, rate);
      const wanted = rate * (jumps ? 1 : catchUp(off));
      if (audio.playbackRate !== wanted) audio.playbackRate = wanted;
    },
  };
}
