// The light of the chosen bars earlier or later, by steps.

import { useState } from 'react';
import { create, useStore } from 'zustand';
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
import { WORDS } from './words';

type Props = { readonly song: Song; readonly lane: Lane; readonly range: BarRange };

type Moved = { readonly of: string; readonly moves: readonly { readonly id: string; readonly by: number }[] };

/** How the light of the chosen bars was moved since they were chosen, in this window: by buttons and keys alike. */
const useMoved = create<Moved>(() => ({ of: '', moves: [] }));

/** Moves what lies on some bars of a lane, or of all; once moved, it is taken from where it is. */
export function useNudge(song: Song, range: BarRange | null, lane: Lane['id'] | undefined) {
  const { document } = useHovlix();
  const of = `${song.id} ${range?.first} ${range?.last} ${lane ?? ''}`;
  const known = useMoved();
  const past = useStore(document.store, ({ steps }) => steps.past);
  // What was taken back is where it was.
  const moves = known.of === of ? known.moves.filter(({ id }) => past.some((step) => step.id === id)) : [];
  const moved = moves.reduce((sum, { by }) => sum + by, 0);
  return {
    moved,
    nudge: (by: number) => {
      if (!range) return;
      const { from, to } = beatsOfBars(song, range.first, range.last);
      const there = { from: from + moved, to: to + moved, by };
      const id = document.make({
        type: 'shift-light',
        song: song.id,
        ...(lane ? { lane } : {}),
        ...there,
        id: freshId(),
      });
      if (id) useMoved.setState({ of, moves: [...moves, { id, by }] });
    },
  };
}

export function MoveRow({ song, lane, range }: Props) {
  const [grid, setGrid] = useState<Grid>('beat');
  const [which, setWhich] = useState<'lane' | 'all'>('lane');
  const { moved, nudge } = useNudge(song, range, which === 'lane' ? lane.id : undefined);
  const step = gridLength(song, grid, range.first);
  return (
    <Column paddingHorizontal={16} gap={6} role="group" aria-label={WORDS.moveTheLight}>
      <Row gap={8} flexWrap="wrap">
        <Segments
          label={WORDS.whatMoves}
          value={which}
          choices={[
            { value: 'lane', name: lane.name },
            { value: 'all', name: WORDS.allLanes },
          ]}
          onChoose={setWhich}
        />
        <PickOne
          label={WORDS.step}
          value={grid}
          choices={GRIDS.filter((one) => one !== 'off').map((value) => ({ value, name: GRID_NAMES[value] }))}
          onChoose={setGrid}
        />
      </Row>
      <Stepper
        name={WORDS.moveTheLight}
        value={`${moved > 0 ? '+' : ''}${String(Math.round(moved * 1000) / 1000).replace('-', '−')} ${Math.abs(moved) === 1 ? 'beat' : 'beats'}`}
        less={WORDS.lightEarlier}
        more={WORDS.lightLater}
        onLess={() => nudge(-step)}
        onMore={() => nudge(step)}
      />
    </Column>
  );
}
