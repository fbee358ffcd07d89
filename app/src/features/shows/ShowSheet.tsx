// One show: its name, a copy of it, its file, and how to be rid of it.

import { router } from 'expo-router';
import { someOf } from '@hovlix/core/counted';
import { wordsFor, type Problem } from '@hovlix/core/problem';
import { bundleOf, fileNameOf } from '../../host/files/bring-in';
import { saveFile } from '../../host/files/save-file';
import { DEMO } from '../../host/files/demo-music';
import type { ShowEntry } from '../../host/document/repository';
import { useHovlix, useLink, useMay } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { named, Typed } from '../../ui/form';
import { Hold } from '../../ui/Hold';
import { Button, Column, Quiet, Row } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { WORDS } from './words';

type Props = { readonly entry: ShowEntry; readonly on: boolean; readonly onClose: () => void };

export function ShowSheet({ entry, on, onClose }: Props) {
  const { shows, repository, musicOf, document } = useHovlix();
  const say = useSession((session) => session.say);
  const here = useLink((link) => link.here);
  const may = useMay('operator');
  const done = (words?: string) => (problem: Problem | undefined) => {
    if (problem) say(wordsFor(problem), { tone: 'bad' });
    else if (words) say(words);
  };
  const open = (work: Promise<Problem | undefined>) =>
    void work.then((problem) => {
      done()(problem);
      onClose();
      if (!problem) router.push('/songs');
    });
  const exportShow = async () => {
    const open = document.store.getState().copy;
    const kept = open?.show.id === entry.id ? undefined : await repository.load(entry.id);
    const copy = open?.show.id === entry.id ? open : kept?.ok ? kept.value : undefined;
    if (!copy) return say(WORDS.showCannotRead, { tone: 'bad' });
    const name = fileNameOf(copy.show.name);
    const { file, lacks } = await bundleOf(copy, musicOf);
    saveFile(name, file, 'application/zip');
    await repository.exported(entry.id);
    await shows.refresh();
    if (lacks.length === 0) say(WORDS.exportedAs(name));
    else say(WORDS.exportedWithout(name, someOf(lacks)), { tone: 'bad' });
  };
  const remove = async () => {
    const problem = await shows.remove(entry.id);
    if (problem) return say(wordsFor(problem), { tone: 'bad' });
    onClose();
    say(WORDS.isDeleted(entry.name), { undo: () => void shows.bringBack(entry.id).then(done()) });
  };
  // Nobody else is known to have what would be lost.
  const only = entry.id !== DEMO && entry.exported !== entry.head;
  return (
    <Sheet title={entry.name} onClose={onClose}>
      <Column gap={10} alignItems="flex-start">
        {(!on || here) && may && (
          <Button kind="primary" onPress={() => open(shows.putOn(entry.id))}>
            {WORDS.putShow}
          </Button>
        )}
        {!on && (
          <>
            <Button onPress={() => open(shows.lookInto(entry.id))}>{WORDS.onlyLookInto}</Button>
            <Quiet>{WORDS.itsLightScreen}</Quiet>
          </>
        )}
      </Column>
      {(may || !on) && (
        <Typed
          label={WORDS.name}
          value={entry.name}
          read={named}
          onChange={(name) => void shows.rename(entry.id, name).then(done())}
        />
      )}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => void exportShow()}>{WORDS.export}</Button>
        <Button onPress={() => void shows.duplicate(entry.id).then(done(`A copy of “${entry.name}” is in the list.`))}>
          {WORDS.duplicate}
        </Button>
      </Row>
      {on ? (
        <Quiet>{WORDS.openPutAnother}</Quiet>
      ) : only ? (
        <Column gap={6} alignItems="flex-start">
          <Hold onHeld={() => void remove()}>{WORDS.holdToDelete}</Hold>
          <Quiet>{WORDS.noFileWas}</Quiet>
        </Column>
      ) : (
        <Row>
          <Button onPress={() => void remove()}>{WORDS.delete}</Button>
        </Row>
      )}
    </Sheet>
  );
}
