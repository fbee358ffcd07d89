// A hit lane in Close-up: a row for each pad, notes on them, how hard they are; and what can be done with them.

import { useMemo, useState } from 'react';
import { beatsOfBars, type HitLane, type Note } from '@hovlix/core/song';
import { useHovlix, useShow } from '../../../host/hovlix';
import { Column, Quiet, Row } from '../../../ui/pieces';
import type { Editing } from './editing';
import { gridLength } from './grid';
import { HitTools } from './HitTools';
import { NoteForm } from './NoteForm';
import { PadColumn } from './PadColumn';
import { Roll } from './Roll';
import { movedNotes, padsOf } from './roll';
import { useChosenKeys } from './use-chosen-keys';
import { Velocities } from './Velocities';
import { WORDS } from './words';

export function HitEditor({ song, lane, grid, window, gutter, may }: Editing<HitLane>) {
  const { document } = useHovlix();
  const kit = useShow((show) => show.kits.find(({ id }) => id === lane.kit));
  const pads = useMemo(() => padsOf(kit, lane), [kit, lane]);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [padNote, setPad] = useState<number | null>(null);
  const pad = pads.find(({ note }) => note === padNote) ?? pads[0];
  const { from, to } = beatsOfBars(song, window.first, window.first + window.count - 1);
  const selected = lane.notes.filter(({ id }) => chosen.has(id));
  const on = { song: song.id, lane: lane.id };
  const put = (notes: readonly Note[]) =>
    notes.length > 0 && document.make({ type: 'put-notes', ...on, notes: [...notes] });
  const remove = (notes: readonly Note[]) => {
    if (notes.length === 0) return;
    document.make({ type: 'remove-notes', ...on, notes: notes.map(({ id }) => id) });
    setChosen(new Set());
  };
  const inView = lane.notes.filter(({ at }) => at >= from && at < to);
  useChosenKeys({
    wanted: may,
    remove: () => remove(selected),
    all: () => setChosen(new Set(inView.map(({ id }) => id))),
    none: () => setChosen(new Set()),
    any: selected.length > 0,
    nudge: (way, rows) => put(movedNotes(song, selected, way * gridLength(song, grid, window.first), rows, pads)),
  });
  if (pads.length === 0) return <Quiet padding={16}>{WORDS.laneHasNo}</Quiet>;
  return (
    <Column flex={1} minHeight={0}>
      <Row flex={1} minHeight={0} overflowY="auto" alignItems="flex-start">
        <PadColumn pads={pads} lane={lane} kit={kit} width={gutter} chosen={pad?.note} onChoose={setPad} />
        <Roll
          window={window}
          grid={grid}
          pads={pads}
          lane={lane}
          from={from}
          to={to}
          may={may}
          chosen={chosen}
          onChoose={setChosen}
          onPad={setPad}
          onPut={put}
        />
      </Row>
      <Velocities window={window} gutter={gutter} notes={inView} chosen={chosen} may={may} onPut={put} />
      {!may ? null : selected.length > 0 ? (
        <NoteForm
          song={song}
          grid={grid}
          first={window.first}
          notes={selected}
          onPut={put}
          onRemove={() => remove(selected)}
          onDone={() => setChosen(new Set())}
        />
      ) : (
        pad && (
          <HitTools
            song={song}
            lane={lane}
            grid={grid}
            window={window}
            gutter={gutter}
            kit={kit}
            pad={pad}
            notes={inView}
            from={from}
            to={to}
            onPut={put}
          />
        )
      )}
    </Column>
  );
}
