// Counts the flashes of a show away from the page.

import { flashReport } from '@hovlix/core/engine';
import { readEnvelopes, type Envelopes } from '@hovlix/core/music';
import type { FromFlash, ToFlash } from './flash-messages';

const say = (message: FromFlash) => self.postMessage(message);

self.onmessage = async ({ data }: MessageEvent<ToFlash>) => {
  const sounds = new Map<string, Envelopes>();
  for (const { hash, bytes } of data.sounds) {
    const read = readEnvelopes(bytes, hash);
    if (read.ok) sounds.set(hash, read.value);
  }
  const found = await flashReport(data.show, sounds, async (progress) => {
    say({ type: 'progress', progress });
    return 'go-on';
  });
  say({ type: 'done', found: found ?? [] });
};
