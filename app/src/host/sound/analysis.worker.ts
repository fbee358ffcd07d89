// Decodes and analyses a file away from the page.

import { sha256 } from '@noble/hashes/sha2.js';
import { analyse, offsetBetween } from '@hovlix/core/music';
import { failed } from '@hovlix/core/problem';
import type { FromAnalysis, ToAnalysis } from './analysis-messages';

let cancelled = false;
const say = (message: FromAnalysis) => self.postMessage(message);
/** Lets a cancel message in: messages are only heard between tasks. */
const breathe = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

self.onmessage = async (event: MessageEvent<ToAnalysis>) => {
  const message = event.data;
  if (message.type === 'cancel') return void (cancelled = true);
  if (message.type === 'compare')
    return say({ type: 'compared', offset: offsetBetween(message.before, message.after) });
  const { name } = message.file;
  try {
    await work(message.file);
  } catch (error) {
    // A file that vanished half-way, or one that nobody foresaw: it is said, and the next one has its turn.
    const detail = error instanceof Error ? error.message : String(error);
    say({ type: 'done', result: failed({ code: 'audio-broken', name, detail }), hash: '' });
  }
};

async function work(file: File): Promise<void> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  // The browser's own digest is only there under https or on this computer, not for a phone in a hall.
  const digest = sha256(bytes);
  const hash = Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join('');
  const result = await analyse(bytes, file.name, async (progress) => {
    say({ type: 'progress', progress });
    await breathe();
    return cancelled ? 'stop' : 'go-on';
  });
  say({ type: 'done', result, hash });
}
