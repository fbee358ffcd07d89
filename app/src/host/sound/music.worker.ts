// Brings a recording into the form in which a browser finds each of its moments, away from the page.

import { asMp4 } from '@hovlix/core/playable';
import type { FromMusicWorker, ToMusicWorker } from './form';

self.onmessage = async ({ data: { recording, as } }: MessageEvent<ToMusicWorker>) =>
  self.postMessage(await formOf(recording, as).catch(() => undefined));

async function formOf(recording: Blob, as: ToMusicWorker['as']): Promise<FromMusicWorker> {
  const form = asMp4(new Uint8Array(await recording.arrayBuffer()), as);
  return form && { recording: new Blob([...form.parts] as BlobPart[], { type: 'audio/mp4' }), begins: form.begins };
}
