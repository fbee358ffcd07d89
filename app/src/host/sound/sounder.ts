// An audio element that sounds what it is asked for: at a moment of the music, that moment.

import { playingForm, type Playing } from './form';
import { mediaTime } from './media-time';

export type Sounder = {
  readonly audio: HTMLAudioElement;
  /** Resolves once it can be played, to false where something else was loaded meanwhile. */
  readonly load: (music: Blob | Playing) => Promise<boolean>;
  readonly unload: () => void;
  /** Where it is, in seconds of the music; the more often it is asked, the nearer. */
  readonly at: () => number;
  readonly goTo: (time: number) => void;
};

/** A browser that has not said no by then, in milliseconds, is one that first wants a touch. */
const SAYS_NO_MS = 500;

export function sounder(): Sounder {
  const audio = new Audio();
  audio.preload = 'auto';
  audio.preservesPitch = true;
  let url: string | undefined;
  /** Where the music begins in what is played, in seconds. */
  let begins = 0;
  const time = mediaTime();
  let loads = 0;
  let giveUp: () => void = () => undefined;

  const show = (recording: Blob): void => {
    if (url) URL.revokeObjectURL(url);
    url = URL.createObjectURL(recording);
    audio.src = url;
  };
  /** Whether the browser takes it. */
  const opens = (recording: Blob) =>
    new Promise<boolean>((resolve) => {
      giveUp = () => resolve(false);
      audio.onloadedmetadata = () => resolve(true);
      audio.onerror = () => resolve(false);
      setTimeout(() => resolve(true), SAYS_NO_MS);
      show(recording);
    });

  return {
    audio,
    async load(music) {
      const mine = ++loads;
      giveUp();
      const { recording, better } = music instanceof Blob ? await playingForm(audio, music) : music;
      if (mine !== loads) return false;
      begins = better?.begins ?? 0;
      if (better && (await opens(better.recording))) return mine === loads;
      if (mine !== loads) return false;
      begins = 0;
      show(recording);
      return true;
    },
    unload() {
      loads++;
      giveUp();
      audio.pause();
      if (url) URL.revokeObjectURL(url);
      url = undefined;
    },
    at() {
      const media = audio.currentTime - begins;
      const moves = !audio.paused && !audio.seeking;
      if (!moves) time.forget();
      return Math.max(0, moves ? time.read(media, performance.now() / 1000, audio.playbackRate) : media);
    },
    goTo(to) {
      time.forget();
      audio.currentTime = to + begins;
    },
  };
}
