// Music counted another way: half the tempo, bars from another beat, three for four. The light goes along.

import { useState } from 'react';
import { wordsFor } from '@hovlix/core/problem';
import type { OneCommand } from '@hovlix/core/show';
import type { Song } from '@hovlix/core/song';
import { readingsOf } from '../../host/files/bring-in';
import { useHovlix } from '../../host/hovlix';
import type { Readings } from '../../host/sound/analysis-messages';
import { useSession } from '../../host/session';
import { songBpm } from './model';
import { WORDS } from './words';

export type Grid = Readings['now'];

/** Bars of a song as they are in another reading. Where the tempo halves or doubles by it, light stays where it sounds. */
export function commandsFor(song: Song, grid: Pick<Grid, 'bpm' | 'tempo' | 'meter'>): OneCommand[] {
  const octaves = Math.round(Math.log2(grid.bpm / songBpm(song)));
  const factor = octaves > 0 ? 2 : 0.5;
  const scaled = Array.from({ length: Math.abs(octaves) }, (): OneCommand => ({
    type: 'scale-tempo',
    song: song.id,
    factor,
  }));
  const meter = grid.meter.map((change) => ({ ...change, denominator: change.denominator as 4 | 8 }));
  return [...scaled, { type: 'set-bars', song: song.id, anchors: [...grid.tempo.anchors], meter }];
}

/** The reading at a tempo, within a tenth or so: as it was found, or half or double of that. */
export const gridAt = ({ now, others }: Readings, bpm: number): Grid | undefined =>
  [now, ...others.filter(({ reading }) => reading === 'half' || reading === 'double').map(({ grid }) => grid)].find(
    (grid) => Math.abs(Math.log2(grid.bpm / bpm)) < 0.15,
  );

/** Whether a song's bars are still as they were found: nobody put them right by hand. */
export const isAsFound = ({ tempo }: Song, { tempo: found }: Grid): boolean =>
  tempo.anchors.length === found.anchors.length &&
  [tempo.anchors[0]!, tempo.anchors.at(-1)!].every((anchor, i) => {
    const other = i === 0 ? found.anchors[0]! : found.anchors.at(-1)!;
    return Math.abs(anchor.time - other.time) < 0.02 && Math.abs(anchor.beat - other.beat) < 0.01;
  });

/** Looks for other readings when asked, and takes one. */
export function useReadings(song: Song) {
  const { document, repository } = useHovlix();
  const say = useSession((session) => session.say);
  const [busy, setBusy] = useState(false);
  const ask = async (): Promise<Readings | undefined> => {
    setBusy(true);
    const found = await readingsOf(song, repository).finally(() => setBusy(false));
    if (found?.ok) return found.value;
    say(found ? wordsFor(found.problem) : WORDS.musicNotHere, { tone: 'bad' });
    return undefined;
  };
  const take = (grid: Grid): void => {
    if (!document.together(commandsFor(song, grid))) return;
    say(WORDS.isAtTempo(song.title, grid.bpm.toFixed(1)), { undo: document.takingBack() });
  };
  return { busy, ask, take };
}
