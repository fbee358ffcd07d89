// Which song plays at a time of another machine.

import { seconds, type Seconds } from '../units';
import type { Song } from './schema';

type Timed = Pick<Song, 'id' | 'timecode' | 'duration'>;

/**
 * The song that has begun last at a time of day and is not over, and where it is. A song without a time of its own begins
 * at 0, and counts only while it is the chosen one.
 */
export function songAtTimecode<S extends Timed>(
  songs: readonly S[],
  time: number,
  chosen: string | undefined,
): { readonly song: S; readonly songTime: Seconds } | undefined {
  let found: { readonly song: S; readonly songTime: Seconds } | undefined;
  for (const song of songs) {
    const begins = song.timecode ?? (song.id === chosen ? 0 : undefined);
    if (begins === undefined || time < begins || time >= begins + song.duration) continue;
    const songTime = seconds(time - begins);
    if (!found || songTime < found.songTime) found = { song, songTime };
  }
  return found;
}
