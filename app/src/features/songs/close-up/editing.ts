import type { Lane, Song } from '@hovlix/core/song';
import type { Grid, Window } from './grid';

/** What every editor of a lane gets in Close-up. */
export type Editing<Of extends Lane> = {
  readonly song: Song;
  readonly lane: Of;
  readonly grid: Grid;
  readonly window: Window;
  /** Pixels to the left of the bars. */
  readonly gutter: number;
  /** Whether this device may change anything. */
  readonly may: boolean;
};

/** What is chosen, with one more or one less. */
export function toggledIn(chosen: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(chosen);
  if (!next.delete(id)) next.add(id);
  return next;
}
