// Changing a set: its order, what is at each place, and what happens between songs.

import { useState } from 'react';
import { Entry, type SetList } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Choose, named, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { SortableList } from '../../../ui/SortableList';
import { Switch } from '../../../ui/Switch';
import { EntryForm } from './EntryForm';
import { entryTitle, entryWords, nextSetName, ownSet, songsLeft } from './model';
import { SetFiles } from './SetFiles';
import { WORDS } from './words';

/** How long the light of the place that is left takes, in beats. */
const JUMP_FADES = [
  { value: '0', name: 'Cuts' },
  { value: '1', name: '1 beat' },
  { value: '2', name: '2 beats' },
  { value: '4', name: '4 beats' },
];

type Props = { readonly show: Show; readonly set: SetList; readonly onDone: () => void };

export function SetEditor({ show, set: shown, onDone }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const [fresh] = useState(freshId);
  const [open, setOpen] = useState<Entry['id'] | null>(null);
  const set = ownSet(show, shown, fresh);
  const store = (next: SetList) => document.make({ type: 'store-set', set: next });
  const put = (change: Partial<SetList>) => store({ ...set, ...change });
  const add = (entry: object) => put({ entries: [...set.entries, Entry.parse({ id: freshId(), ...entry })] });
  const change = (entry: Entry) => put({ entries: set.entries.map((one) => (one.id === entry.id ? entry : one)) });
  const left = songsLeft(show, set);
  const another = () => {
    const entries = set.entries.map((entry) => ({ ...entry, id: freshId() as Entry['id'] }));
    const next = { ...set, id: freshId() as SetList['id'], name: nextSetName(show), entries };
    document.together([
      { type: 'store-set', set },
      { type: 'store-set', set: next },
      { type: 'choose-set', set: next.id },
    ]);
  };
  const remove = () => {
    document.make({ type: 'remove-set', set: set.id });
    say(WORDS.goneItsSongs(set.name), { undo: document.takingBack() });
    onDone();
  };
  return (
    <Column gap={16} role="group" aria-label={WORDS.changeTheSet}>
      <Row justifyContent="space-between" gap={8} alignItems="flex-end">
        <Column flex={1}>
          <Typed label={WORDS.nameSet} value={set.name} read={named} onChange={(name) => put({ name })} />
        </Column>
        <Button kind="primary" onPress={onDone}>
          {WORDS.done}
        </Button>
      </Row>
      <Column>
        <SortableList
          items={set.entries}
          opens
          nameOf={(entry) => entryTitle(show, entry)}
          onOrder={(entries) => put({ entries: [...entries] })}
        >
          {(entry) => (
            <Column gap={8}>
              <Row justifyContent="space-between" gap={8} minHeight={52}>
                <Column flexShrink={1} minWidth={0}>
                  <Words numberOfLines={1}>{entryTitle(show, entry)}</Words>
                  <Quiet numberOfLines={1}>
                    {entry.encore ? 'encore · ' : ''}
                    {entryWords(show, entry)}
                  </Quiet>
                </Column>
                <Button
                  label={WORDS.change(entryTitle(show, entry))}
                  kind="quiet"
                  onPress={() => setOpen(open === entry.id ? null : entry.id)}
                >
                  {open === entry.id ? WORDS.done : WORDS.changeAlone}
                </Button>
              </Row>
              {open === entry.id && (
                <EntryForm
                  show={show}
                  entry={entry}
                  onChange={change}
                  onRemove={() => put({ entries: set.entries.filter(({ id }) => id !== entry.id) })}
                />
              )}
            </Column>
          )}
        </SortableList>
      </Column>
      {show.songs.length > 0 && (
        <Choose
          label={WORDS.addASong}
          value=""
          choices={[
            { value: '', name: left.length > 0 ? WORDS.chooseASong : WORDS.allSongsChoose },
            ...[...left, ...show.songs.filter((song) => !left.includes(song))].map(({ id, title }) => ({
              value: id as string,
              name: title,
            })),
          ]}
          onChoose={(song) => song !== '' && add({ kind: 'song', song })}
        />
      )}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => add({ kind: 'pause', minutes: 15 })}>{WORDS.addAPause}</Button>
        {show.looks.length > 0 && (
          <Button onPress={() => add({ kind: 'look', look: show.looks[0]!.id })}>{WORDS.addALook}</Button>
        )}
      </Row>
      <Segments
        label={WORDS.whenSongOver}
        titled
        value={set.after}
        choices={[
          { value: 'wait', name: WORDS.wait },
          { value: 'ready', name: WORDS.prepareTheNext },
          { value: 'play', name: WORDS.playTheNext },
        ]}
        onChoose={(after) => put({ after })}
      />
      <Segments
        label={WORDS.jumpToSections}
        titled
        value={set.jumps}
        choices={[
          { value: 'bar', name: WORDS.nextBar },
          { value: 'now', name: WORDS.atOnce },
        ]}
        onChoose={(jumps) => put({ jumps })}
      />
      <Segments
        label={WORDS.lightJump}
        titled
        value={String(set.jumpFade ?? 0)}
        choices={JUMP_FADES}
        onChoose={(length) => put({ jumpFade: Number(length) })}
      />
      <Switch
        label={WORDS.stopDarknessAfter}
        on={set.dark === true}
        onChange={(dark) => {
          const { dark: _, ...rest } = set;
          store(dark ? { ...rest, dark } : rest);
        }}
      />
      <SetFiles show={show} set={set} />
      <Row gap={8} flexWrap="wrap">
        <Button onPress={another}>{WORDS.anotherSet}</Button>
        {show.sets.some(({ id }) => id === set.id) && (
          <Button kind="quiet" onPress={remove}>
            {WORDS.deleteThisSet}
          </Button>
        )}
      </Row>
    </Column>
  );
}
