// Music counted another way: half the tempo, bars from another beat, three for four. The light goes along.

import { useState } from 'react';
import type { Reading } from '@hovlix/core/analysis';
import { wordsFor } from '@hovlix/core/problem';
import type { Command } from '@hovlix/core/show';
import type { Song } from '@hovlix/core/song';
import { readingsOf } from '../../host/files/bring-in';
import { useHovlix } from '../../host/hovlix';
import type { Readings } from '../../host/sound/analysis-messages';
import { useSession } from '../../host/session';

export type Grid = Readings['now'];

/** Bars of a song as they were found in another reading. Where the tempo halves or doubles, light stays where it sounds. */
export function commandsFor(song: Song, grid: Grid, reading: Reading | 'found'): Command[] {
  const bars: Command = {
    type: 'set-bars',
    song: song.id,
    anchors: [...grid.tempo.anchors],
    meter: grid.meter.map((change) => ({ ...change, denominator: change.denominator as 4 | 8 })),
  };
  if (reading !== 'half' && reading !== 'double') return [bars];
  return [{ type: 'scale-tempo', song: song.id, factor: reading === 'half' ? 0.5 : 2 }, bars];
}

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
    say(found ? wordsFor(found.problem) : 'The music of this song is not on this device.', { tone: 'bad' });
    return undefined;
  };
  const take = (grid: Grid, reading: Reading | 'found'): void => {
    if (!document.together(commandsFor(song, grid, reading))) return;
    say(`“${song.title}” is at ${grid.bpm.toFixed(1)} bpm now.`, { undo: document.takingBack() });
  };
  return { busy, ask, take };
}
