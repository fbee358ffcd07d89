// What chosen notes can be told: where, how long, how hard; to be one fewer.

import { counted } from '@hovlix/core/counted';
import type { Note, Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { Typed } from '../../../ui/form';
import { Column, Row, Words } from '../../../ui/pieces';
import { Stepper } from '../../../ui/Stepper';
import { ChosenHead } from './ChosenHead';
import { beatOfPlace, gridLength, placeText, readPlace, type Grid } from './grid';
import { harderNotes, longerNotes } from './roll';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly grid: Grid;
  readonly first: number;
  readonly notes: readonly Note[];
  readonly onPut: (notes: readonly Note[]) => void;
  readonly onRemove: () => void;
  readonly onDone: () => void;
};

const tidy = (number: number) => String(Math.round(number * 1000) / 1000);

/** The number that all share, or from the least to the most. */
function rangeOf(numbers: readonly number[], show: (number: number) => string): string {
  const [low, high] = [Math.min(...numbers), Math.max(...numbers)];
  return show(low) === show(high) ? show(low) : `${show(low)} – ${show(high)}`;
}

export function NoteForm({ song, grid, first, notes, onPut, onRemove, onDone }: Props) {
  const [only] = notes;
  const step = gridLength(song, grid, first);
  return (
    <Column
      gap={8}
      paddingHorizontal={12}
      paddingVertical={8}
      backgroundColor="$raised"
      borderTopWidth={1}
      borderColor="$line"
      role="group"
      aria-label={WORDS.chosenNotes}
    >
      <ChosenHead remove={WORDS.deleteNotes} onRemove={onRemove} onDone={onDone}>
        <Words fontWeight="600">{counted(notes.length, 'note')}</Words>
      </ChosenHead>
      <Row gap={8} flexWrap="wrap">
        <Stepper
          name={WORDS.velocity}
          value={`${rangeOf(
            notes.map(({ velocity }) => velocity * 100),
            (one) => String(Math.round(one)),
          )} %`}
          less={WORDS.softer}
          more={WORDS.harder}
          onLess={() => onPut(harderNotes(notes, -0.05))}
          onMore={() => onPut(harderNotes(notes, 0.05))}
        />
        <Stepper
          name={WORDS.length}
          value={`${rangeOf(
            notes.map(({ length }) => length),
            tidy,
          )} beats`}
          less={WORDS.shorter}
          more={WORDS.longer}
          onLess={() => onPut(longerNotes(notes, -step))}
          onMore={() => onPut(longerNotes(notes, step))}
        />
        {notes.length === 1 && only && (
          <Typed
            key={only.id}
            label={WORDS.barAndBeat}
            value={placeText(song, only.at)}
            read={readPlace(song)}
            patient
            onChange={(text) => {
              const at = beatOfPlace(song, text);
              if (at !== undefined) onPut([{ ...only, at: beats(at) }]);
            }}
            numeric
          />
        )}
      </Row>
    </Column>
  );
}
