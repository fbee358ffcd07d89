// What a file says of itself: ID3, Vorbis comments, RIFF info, chunks of AIFF.

import { parseBuffer } from 'music-metadata';
import { isAiff } from './aiff';
import { audioTypeOf } from './decode';

/** Only what the file says, and what can be true. */
export type Tags = {
  readonly title?: string;
  readonly artist?: string;
  /** Beats a minute. */
  readonly bpm?: number;
  readonly key?: string;
};

const LONGEST = 120;

/** Reads the tags of a recording. Damaged or missing ones are left out; this never fails. */
export async function readTags(bytes: Uint8Array): Promise<Tags> {
  const type = isAiff(bytes) ? 'aiff' : audioTypeOf(bytes);
  if (!type) return {};
  try {
    const { common } = await parseBuffer(bytes, { path: `recording.${type}` }, { duration: false, skipCovers: true });
    const text = (value: string | undefined) => value?.replaceAll(/\s+/g, ' ').trim().slice(0, LONGEST);
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
