// What lies on lanes, moved in time all together.

import { beats, type Beats } from '../units';
import type { Lane } from './lane-schema';

/** A lane with every place on it put through `at`, and every length, from where it begins, through `length`; both rise. */
export function movedLane(
  lane: Lane,
  at: (beat: Beats) => number,
  length: (of: Beats, from: number) => number = (of) => of,
): Lane {
  const place = (beat: Beats) => beats(at(beat));
  const stretch = (of: Beats, from: number) => beats(length(of, from));
  switch (lane.type) {
    case 'looks':
      return {
        ...lane,
        clips: lane.clips.map((clip) => ({
          ...clip,
          from: place(clip.from),
          to: place(clip.to),
          ...(clip.fadeIn === undefined ? {} : { fadeIn: stretch(clip.fadeIn, clip.from) }),
          ...(clip.fadeOut === undefined ? {} : { fadeOut: stretch(clip.fadeOut, clip.to - clip.fadeOut) }),
        })),
      };
    case 'hits':
      return {
        ...lane,
        notes: lane.notes.map((note) => ({ ...note, at: place(note.at), length: stretch(note.length, note.at) })),
      };
    case 'actions':
      return { ...lane, actions: lane.actions.map((action) => ({ ...action, at: place(action.at) })) };
    case 'curve':
      return { ...lane, points: lane.points.map((point) => ({ ...point, at: place(point.at) })) };
  }
}
