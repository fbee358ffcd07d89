// What a file says of itself: ID3, Vorbis comments, RIFF info, chunks of AIFF, boxes of MP4.

import { parseBuffer } from 'music-metadata';
import { respelled } from '../text-of';
import { isAiff } from './aiff';
import { audioTypeOf } from './decode';
import { packedAs } from './packed';
import { letters } from '../bytes';
import { chunkOf } from './riff';

/** Only what the file says, and what can be true. */
export type Tags = {
  readonly title?: string;
  readonly artist?: string;
  /** Beats a minute. */
  readonly bpm?: number;
  readonly key?: string;
};

const LONGEST = 120;

/**
 * Reads the tags of a recording. Damaged or missing ones are left out; this never fails.
 * @param language of the computer: tags that say nothing of how they are written are read as its programs write.
 */
export async function readTags(bytes: Uint8Array, language = ''): Promise<Tags> {
  const packed = packedAs(bytes);
  const type = isAiff(bytes) ? 'aiff' : packed === 'MP4 or M4A' ? 'm4a' : audioTypeOf(bytes);
  if (!type) return {};
  try {
    const { common } = await parseBuffer(bytes, { path: `recording.${type}` }, { duration: false, skipCovers: true });
    const text = (value = '') => respelled(value, language).replaceAll(/\s+/g, ' ').trim().slice(0, LONGEST);
    const [title, artist, key] = [text(common.title), text(common.artist), text(common.key)];
    const bpm = Number(common.bpm);
    return {
      ...(title ? { title } : {}),
      ...(artist ? { artist } : {}),
      ...(bpm >= 20 && bpm <= 400 ? { bpm } : {}),
      ...(key ? { key } : {}),
    };
  } catch {
    return {};
  }
}

/** The chunk of a WAV file that says the same (ID3v2.4, “Main Structure” and “Native Frames”); none for no tags. */
export function tagChunks({ title, artist, bpm, key }: Tags): readonly Uint8Array[] {
  const said = { TIT2: title, TPE1: artist, TBPM: bpm === undefined ? undefined : String(Math.round(bpm)), TKEY: key };
  const frames = Object.entries(said).flatMap(([name, text]) => (text ? [frameOf(name, text)] : []));
  if (frames.length === 0) return [];
  const size = frames.reduce((sum, { length }) => sum + length, 0);
  return [chunkOf('id3 ', letters('ID3'), Uint8Array.of(4, 0, 0, ...sevenBits(size)), ...frames)];
}

/** A text in UTF-8. */
function frameOf(name: string, text: string): Uint8Array {
  const said = new TextEncoder().encode(text);
  const out = new Uint8Array(11 + said.length);
  out.set([...letters(name), ...sevenBits(said.length + 1), 0, 0, 3]);
  out.set(said, 11);
  return out;
}

const sevenBits = (size: number): readonly number[] => [21, 14, 7, 0].map((shift) => (size >> shift) & 127);
