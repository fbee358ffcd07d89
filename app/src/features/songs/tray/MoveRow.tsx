// The light of the chosen bars earlier or later, by steps.

import { useState } from 'react';
import { beatsOfBars, type Lane, type Song } from '@hovlix/core/song';
import { useHovlix } from '../../../host/hovlix';
import { freshId } from '../../../host/fresh-id';
import { Column, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Stepper } from '../../../ui/Stepper';
import { gridLength, GRIDS, type Grid } from '../close-up/grid';
import { PickOne } from '../close-up/PickOne';
import { GRID_NAMES } from '../close-up/words';
import type { BarRange } from '../model';

type Props = { readonly song: Song; readonly lane: Lane; readonly range: BarRange };

/** Moves what lies on some beats; what was moved is where it is moved from the next time. */
export function useNudge(song: Song, range: BarRange) {
  const { document } = useHovlix();
  const { from, to } = beatsOfBars(song, range.first, range.last);
  return (by: number, from0 = 0, lane?: Lane['id']) =>
    document.make({ type: 'shift-light', song: song.id, ...(lane ? { lane } : {}), from: from + from0, to: to + from0, by, id: freshId() }); // prettier-ignore
}

export function MoveRow({ song, lane, range }: Props) {
  const [grid, setGrid] = useState<Grid>('beat');
  const [which, setWhich] = useState<'lane' | 'all'>('lane');
  /** How far it was moved since the bars were chosen. */
  const [moved, setMoved] = useState(0);
  const nudge = useNudge(song, range);
  const step = gridLength(song, grid, range.first);
  const move = (way: 1 | -1) => {
    nudge(way * step, moved, which === 'lane' ? lane.id : undefined);
    setMoved(moved + way * step);
  };
  return (
    <Column paddingHorizontal={16} gap={6} role="group" aria-label="Move the light">
      <Row gap={8} flexWrap="wrap">
        <Segments
          label="What moves"
          value={which}
          choices={[
            { value: 'lane', name: lane.name },
            { value: 'all', name: 'All lanes' },
          ]}
          onChoose={setWhich}
        />
        <PickOne label="Step" value={grid} choices={GRIDS.filter((one) => one !== 'off').map((value) => ({ value, name: GRID_NAMES[value] }))} onChoose={setGrid} />
      </Row>
      <Stepper
        name="Move the light"
        value={`${moved > 0 ? '+' : ''}${String(Math.round(moved * 1000) / 1000).replace('-', '−')} beats`}
        less="Light earlier"
        more="Light later"
        onLess={() => move(-1)}
        onMore={() => move(1)}
      />
    </Column>
  ); // prettier-ignore
}
