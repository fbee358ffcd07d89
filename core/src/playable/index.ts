// Music as a browser can play it from any moment.

import { mp3Packets } from './mp3';
import { mp4Of } from './mp4';
import { vorbisPackets } from './vorbis';

export { firstFrame, tagLength } from './mpeg';

/** A file's parts in order, and where the music begins in it, in seconds. */
export type Playable = { readonly parts: readonly Uint8Array[]; readonly begins: number };

/**
 * MP3 and Ogg Vorbis as MP4, whose tables say where each packet lies: without them a browser that is sent to a moment
 * guesses where that is, and may be off by seconds. Nothing of the sound is changed.
 * @returns undefined where it is something else, or cannot be told apart into packets.
 */
export function asMp4(bytes: Uint8Array, type: 'mp3' | 'ogg'): Playable | undefined {
  const packets = type === 'mp3' ? mp3Packets(bytes) : vorbisPackets(bytes);
  return packets && { parts: mp4Of(packets), begins: packets.before / packets.rate };
}
