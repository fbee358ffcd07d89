// What the beat is, at an instant: of the song that sounds, else of the free clock.

import { freeBeat, type LiveState } from '../live';
import type { Seconds } from '../units';
import type { SongProgram } from './program';

/** The beat of a song at a moment of its music, like `beatAt`, over flat arrays. */
export function songBeat(song: SongProgram, time: number): number {
  const { anchorTimes, anchorBeats } = song;
  const low = anchorBefore(song, time);
  const from = anchorTimes[low]!;
  const share = (time - from) / (anchorTimes[low + 1]! - from);
  return anchorBeats[low]! + share * (anchorBeats[low + 1]! - anchorBeats[low]!);
}

/** Beats a second at a moment of a song's music. */
export function songPace(song: SongProgram, time: number): number {
  const { anchorTimes, anchorBeats } = song;
  const low = anchorBefore(song, time);
  return (anchorBeats[low + 1]! - anchorBeats[low]!) / (anchorTimes[low + 1]! - anchorTimes[low]!);
}

/** Index of the anchor whose line a moment lies on. */
function anchorBefore({ anchorTimes }: SongProgram, time: number): number {
  let low = 0;
  let high = anchorTimes.length - 2;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (anchorTimes[middle]! <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The beat by which standing looks run. */
export function standingBeat(
  live: Pick<LiveState, 'tempo'>,
  song: SongProgram | undefined,
  songTime: number,
  at: Seconds,
): number {
  return song ? songBeat(song, songTime) : freeBeat(live, at);
}
