// Of many songs one is found by its title or artist, and they can stand in another order.

import { Field } from '../../ui/Field';
import { Column } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { WORDS } from './list-words';
import { SORTS, type SongSort } from './model';

type Props = {
  readonly text: string;
  readonly sort: SongSort;
  readonly onText: (text: string) => void;
  readonly onSort: (sort: SongSort) => void;
};

export function FindSongs({ text, sort, onText, onSort }: Props) {
  return (
    <Column paddingHorizontal={14} paddingBottom={12} gap={8}>
      <Field label={WORDS.searchSongsBy} value={text} onChange={onText} placeholder={WORDS.titleOrArtist} />
      <Segments label={WORDS.order} value={sort} choices={SORTS} onChoose={onSort} />
    </Column>
  );
}
