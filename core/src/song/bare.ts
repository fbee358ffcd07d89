// Songs without a recording: a tempo, a meter, and so many bars.

import { barLength, beatOfBar, pulseLength, steadyTempo, timeAt } from '../time';
import { beats, id, seconds } from '../units';
import type { Song } from './schema';

export type BareSong = {
  readonly id: string;
  readonly title: string;
  /** Felt beats a minute. */
  readonly bpm: number;
  readonly meter: Pick<Song['meter'][number], 'numerator' | 'denominator'>;
  readonly bars: number;
};

/** A song to be played to a click, or to nothing: bar 1 begins with it, and it lasts for its bars. */
export function bareSong({ id: name, title, bpm, meter, bars }: BareSong): Song {
  const first = { bar: 0, ...meter };
  const tempo = { anchors: [...steadyTempo(bpm * pulseLength(first)).anchors] };
  // A hair less than its bars, so that no further one begins.
  const end = beatOfBar([first], bars) - barLength(first) * 1e-6;
  const lane = (of: string, called: string) => ({
    id: id<'Lane'>(of),
    name: called,
    type: 'looks' as const,
    blend: 'highest' as const,
    clips: [],
  });
  return {
    id: id<'Song'>(name),
    title,
    by: '',
    music: null,
    duration: seconds(timeAt(tempo, beats(end))),
    tempo,
    meter: [first],
    sections: [],
    lanes: [lane('looks', 'Looks'), lane('accents', 'Accents')],
  };
}
