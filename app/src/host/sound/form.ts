// In which form a recording is played here.

import { startMusicWorker } from '../workers';

/** Types by what Hovlix keeps. */
export const MIME = { wav: 'audio/wav', flac: 'audio/flac', mp3: 'audio/mpeg', ogg: 'audio/ogg' } as const;

/** A recording in another form, and where the music begins in that, in seconds. */
export type Form = { readonly recording: Blob; readonly begins: number };

/** A recording as it is, and in a better form where there is one; a browser may still refuse that. */
export type Playing = { readonly recording: Blob; readonly better?: Form };

export type ToMusicWorker = { readonly recording: Blob; readonly as: 'mp3' | 'ogg' };
/** Undefined where it has no other form. */
export type FromMusicWorker = Form | undefined;

/** Made where it helps, away from the page. Where it cannot be, as in a page whose server went, there is only the file as it is. */
export async function playingForm(audio: HTMLAudioElement, recording: Blob): Promise<Playing> {
  const as = betterForm(audio, recording);
  const better = as && (await made({ recording, as }));
  return better ? { recording, better } : { recording };
}

/**
 * As what a recording is played, where its own form is one in which browsers guess where a moment is: MP3 anywhere, and Ogg
 * Vorbis where the browser is built on Blink, as others find their way in it.
 */
function betterForm(audio: HTMLAudioElement, { type }: Blob): ToMusicWorker['as'] | undefined {
  const takes = (codec: string) => audio.canPlayType(`audio/mp4; codecs="${codec}"`) !== '';
  // One name for it is common, the other that of the standard (RFC 6381, clause 3.3).
  if (type === MIME.mp3) return takes('mp3') || takes('mp4a.6B') ? 'mp3' : undefined;
  const isBlink = /Chrom(e|ium)\//.test(navigator.userAgent);
  return type === MIME.ogg && isBlink && audio.canPlayType('audio/mp4') ? 'ogg' : undefined;
}

/** A worker that has not answered by then, as where its script does not come, is not waited for. */
const GIVES_UP_MS = 8000;

function made(wanted: ToMusicWorker): Promise<FromMusicWorker> {
  return new Promise((resolve) => {
    const worker = startMusicWorker();
    const giveUp = setTimeout(() => done(undefined), GIVES_UP_MS);
    const done = (form: FromMusicWorker) => {
      clearTimeout(giveUp);
      worker.terminate();
      resolve(form);
    };
    worker.onmessage = ({ data }: MessageEvent<FromMusicWorker>) => done(data);
    worker.onerror = () => done(undefined);
    worker.postMessage(wanted);
  });
}
