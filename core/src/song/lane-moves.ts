// What lies on lanes, moved in time all together.

import { beats, type Beats } from '../units';
import type { Lane } from './lane-schema';

/** A lane with every place on it put through `at`, and every length through `length`; both rise. */
export function movedLane(lane: Lane, at: (beat: Beats) => number, length: (of: Beats) => number = (of) => of): Lane {
  const place = (beat: Beats) => beats(at(beat));
  const stretch = (of: Beats) => beats(length(of));
  switch (lane.type) {
    case 'looks':
      return {
        ...lane,
        clips: lane.clips.map((clip) => ({
          ...clip,
          from: place(clip.from),
          to: place(clip.to),
          ...(clip.fadeIn === undefined ? {} : { fadeIn: stretch(clip.fadeIn) }),
          ...(clip.fadeOut === undefined ? {} : { fadeOut: stretch(clip.fadeOut) }),
        })),
      };
    case 'hits':
      return {
        ...lane,
        notes: lane.notes.map((note) => ({ ...note, at: place(note.at), length: stretch(note.length) })),
      };
    case 'actions':
      return { ...lane, actions: lane.actions.map((action) => ({ ...action, at: place(action.at) })) };
    case 'curve':
      return { ...lane, points: lane.points.map((point) => ({ ...point, at: place(point.at) })) };
  }
}
