// An audio element that sounds what it is asked for: at a moment of the music, that moment.

import { mediaTime } from './media-time';

/** Types by what Hovlix keeps. */
export const MIME = { wav: 'audio/wav', flac: 'audio/flac', mp3: 'audio/mpeg', ogg: 'audio/ogg' } as const;

export type Sounder = {
  readonly audio: HTMLAudioElement;
  /** Resolves once it can be played, to false where something else was loaded meanwhile. */
  readonly load: (recording: Blob) => Promise<boolean>;
  readonly unload: () => void;
  /** Where it is, in seconds of the music; the more often it is asked, the nearer. */
  readonly at: () => number;
  readonly goTo: (time: number) => void;
};

/** A browser that has not said no by then, in milliseconds, is one that first wants a touch. */
const SAYS_NO_MS = 500;

/**
 * As what a recording is played, where its own form is one in which browsers guess where a moment is: MP3 anywhere, and Ogg
 * Vorbis where the browser is built on Blink, as others find their way in it.
 */
function betterForm(audio: HTMLAudioElement, { type }: Blob): 'mp3' | 'ogg' | undefined {
  const takes = (codec: string) => audio.canPlayType(`audio/mp4; codecs="${codec}"`) !== '';
  // One name for it is common, the other that of the standard (RFC 6381, clause 3.3).
  if (type === MIME.mp3) return takes('mp3') || takes('mp4a.6B') ? 'mp3' : undefined;
  const isBlink = /Chrom(e|ium)\//.test(navigator.userAgent);
  return type === MIME.ogg && isBlink && audio.canPlayType('audio/mp4') ? 'ogg' : undefined;
}

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
  const better = async (recording: Blob) => {
    const form = betterForm(audio, recording);
    if (!form) return undefined;
    const [bytes, { asMp4 }] = await Promise.all([recording.arrayBuffer(), import('@hovlix/core/playable')]);
    return asMp4(new Uint8Array(bytes), form);
  };

  return {
    audio,
    async load(recording) {
      const mine = ++loads;
      giveUp();
      // Where it cannot be made, as in a page whose server went, the file is played as it is.
      const form = await better(recording).catch(() => undefined);
      if (mine !== loads) return false;
      begins = form?.begins ?? 0;
      if (form && (await opens(new Blob([...form.parts] as BlobPart[], { type: 'audio/mp4' })))) return mine === loads;
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
