// A song that has no light yet, lit with the looks there are: a start to edit from.

import { beatOfBar } from '../time';
import { barSpan } from './bars';
import type { Clip } from './lane-schema';
import type { Song } from './schema';

/** Bars that one look stays, where no section says where the music changes. */
const BARS_EACH = 8;

/** Clips for a lane: the looks in turn, a new one with each section, or every eight bars. */
export function looksInTurn(song: Song, looks: readonly Clip['look'][], fresh: (n: number) => string): readonly Clip[] {
  if (looks.length === 0) return [];
  const { first, last } = barSpan(song);
  const marked = song.sections.map(({ bar }) => bar).filter((bar) => bar > first && bar <= last);
  const every = Array.from({ length: Math.ceil((last + 1 - first) / BARS_EACH) }, (_, i) => first + i * BARS_EACH);
  const starts = marked.length > 0 ? [first, ...marked] : every;
  return starts.map((bar, i) => ({
    id: fresh(i) as Clip['id'],
    look: looks[i % looks.length]!,
    from: beatOfBar(song.meter, bar),
    to: beatOfBar(song.meter, starts[i + 1] ?? last + 1),
  }));
}
