// What a browser unpacks and Hovlix does not, as M4A and Opus: asked for by the worker that listens, which has no means for it.

import type { Unpacked } from './analysis-messages';

/** Longer music is not unpacked: two channels of half an hour take 600 MB. */
const LONGEST_SECONDS = 30 * 60;
/** Half an hour at 384 kb/s, in bytes. */
const LARGEST = 86e6;

/** The sound of a file, at this rate. */
export async function unpacked(file: File, rate: number): Promise<Unpacked> {
  if (file.size > LARGEST) return 'too long';
  try {
    const sound = await new OfflineAudioContext(1, 1, rate).decodeAudioData(await file.arrayBuffer());
    if (sound.duration > LONGEST_SECONDS) return 'too long';
    const channels = Array.from({ length: sound.numberOfChannels }, (_, i) => sound.getChannelData(i).slice());
    return { channels, rate: sound.sampleRate };
  } catch {
    return 'unknown';
  }
}
