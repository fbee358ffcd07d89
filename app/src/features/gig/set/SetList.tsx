// Tonight's set: what comes in which order, and a press to go anywhere in it.

import { useState } from 'react';
import { Text, View } from '@tamagui/core';
import { setInUse, setsOf, type Entry, type SetList as List } from '@hovlix/core/gig';
import { entrySeconds, placeAt, toStop } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { run } from '../../../host/controls/act';
import { momentOf } from '../../../host/conduct/gestures';
import { useHovlix, useMay } from '../../../host/hovlix';
import { LongList } from '../../../ui/LongList';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Choose } from '../../../ui/form';
import { useMoment } from '../use-moment';
import { entryTitle, lengthWords } from './model';
import { SetEditor } from './SetEditor';
import { WORDS } from './words';

export function SetList({ show, onGone }: { readonly show: Show; readonly onGone?: () => void }) {
  const app = useHovlix();
  const may = useMay('operator');
  const [editing, setEditing] = useState(false);
  const set = setInUse(show);
  /** Looked up once for all rows. */
  const here = useMoment((moment) => {
    const { stops, at } = placeAt(moment);
    return stops[at]?.entry.id;
  });
  if (editing) return <SetEditor show={show} set={set} onDone={() => setEditing(false)} />;
  const sets = setsOf(show);
  const choose = (id: string) => {
    const chosen = sets.find((one) => one.id === id);
    if (chosen) app.document.make({ type: 'choose-set', set: chosen.id });
  };
  return (
    <>
      <Row justifyContent="space-between" gap={8}>
        <Text
          render="h2"
          margin={0}
          fontFamily="$heading"
          fontWeight="650"
          fontSize={20}
          color="$text"
          numberOfLines={1}
        >
          {set.name}
        </Text>
        {may && (
          <Button label={WORDS.changeSetList} onPress={() => setEditing(true)}>
            {WORDS.changeAlone}
          </Button>
        )}
      </Row>
      {sets.length > 1 && may && (
        <Choose
          label={WORDS.tonightsSet}
          value={set.id as string}
          choices={sets.map(({ id, name }) => ({ value: id as string, name }))}
          onChoose={choose}
        />
      )}
      <Column role="list" aria-label={WORDS.setList}>
        <LongList items={set.entries.map((entry, at) => ({ id: entry.id as string, entry, at }))} height={53}>
          {({ entry, at }) => (
            <EntryRow show={show} set={set} entry={entry} at={at} here={entry.id === here} onGone={onGone} />
          )}
        </LongList>
      </Column>
      <Quiet>{totalWords(show, set)}</Quiet>
    </>
  );
}

type RowProps = {
  readonly show: Show;
  readonly set: List;
  readonly entry: Entry;
  readonly at: number;
  readonly here: boolean;
  readonly onGone: (() => void) | undefined;
};

function EntryRow({ show, set, entry, at, here, onGone }: RowProps) {
  const app = useHovlix();
  const title = entryTitle(show, entry);
  const go = () => {
    const moment = momentOf(app);
    const stop = moment && placeAt(moment).stops.find((one) => one.entry.id === entry.id);
    if (moment && stop) void run(app, toStop(moment, stop));
    onGone?.();
  };
  const encore = entry.encore && !set.entries[at - 1]?.encore;
  const song = entry.kind === 'song' ? show.songs.find(({ id }) => id === entry.song) : undefined;
  const key = entry.kind === 'song' ? (entry.key ?? song?.key) : undefined;
  const notes = entry.notes ?? song?.notes;
  return (
    <div role="listitem">
      {encore && <Quiet paddingTop={10}>{WORDS.encore}</Quiet>}
      <View
        render="button"
        aria-label={WORDS.goTo(title)}
        aria-current={here}
        onPress={go}
        width="100%"
        flexDirection="row"
        alignItems="center"
        gap={12}
        minHeight={52}
        padding={0}
        borderWidth={0}
        borderBottomWidth={1}
        borderColor="$line"
        backgroundColor="transparent"
        cursor="pointer"
      >
        <Figures width={at > 98 ? 30 : 22} textAlign="right" color={here ? '$doingText' : '$quiet'}>
          {at + 1}
        </Figures>
        <Column flex={1} minWidth={0} alignItems="flex-start">
          <Words
            numberOfLines={1}
            textAlign="left"
            fontWeight={here ? '600' : '400'}
            color={here ? '$doingText' : '$text'}
          >
            {title}
          </Words>
          {(key ?? notes) !== undefined && (
            <Quiet numberOfLines={1} textAlign="left">
              {[key && WORDS.in(key), notes].filter(Boolean).join(' · ')}
            </Quiet>
          )}
        </Column>
        <Figures>{lengthWords(entrySeconds({ show }, entry))}</Figures>
      </View>
    </div>
  );
}

function totalWords(show: Show, set: List): string {
  const sum = (encore: boolean) =>
    set.entries
      .filter((entry) => (entry.encore === true) === encore)
      .reduce((all, entry) => all + entrySeconds({ show }, entry), 0);
  const encore = sum(true);
  return `${lengthWords(sum(false))} in all${encore > 0 ? `, and ${lengthWords(encore)} of encore` : ''}`;
}
