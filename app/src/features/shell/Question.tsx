// A question before a show is opened: it would end what is on, or it is here already.

import { useHovlix, useLink, useShow } from '../../host/hovlix';
import type { Asking, Newer } from '../../host/document/shows';
import { Button, Column, Quiet, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { WORDS } from './words';

const NEWER: Readonly<Record<Newer, string>> = {
  file: WORDS.fileNewerHas,
  here: WORDS.oneHereNewer,
  same: WORDS.theySame,
  both: WORDS.bothWereChanged,
};

type Props = { readonly asking: Asking };

export function Question({ asking }: Props) {
  const { shows } = useHovlix();
  const on = useShow((show) => show.name);
  const screens = useLink((link) => link.screens);
  const cancel = () => void shows.answer('cancel');
  if (asking.type === 'put-on')
    return (
      <Sheet title={asking.copy.show.name} onClose={cancel}>
        <Words>{WORDS.itsLooksGo(on ?? 'Another show', screens > 1 ? `, and ${screens} screens follow it` : '')}</Words>
        <Column gap={10} alignItems="flex-start">
          <Button kind="primary" onPress={() => void shows.answer('put-on')}>
            {WORDS.putShow}
          </Button>
          <Button onPress={() => void shows.answer('here')}>{WORDS.onlyLookInto}</Button>
          <Quiet>{WORDS.lookedIntoIts}</Quiet>
        </Column>
      </Sheet>
    );
  return (
    <Sheet title={WORDS.isHereAlready(asking.bundle.show.name)} onClose={cancel}>
      <Words>{NEWER[asking.newer]}</Words>
      <Quiet>
        {WORDS.fileWasWritten(
          asking.bundle.savedAt ? when(asking.bundle.savedAt) : 'at an unknown time',
          when(asking.here.changedAt),
        )}
      </Quiet>
      <Column gap={10} alignItems="flex-start">
        <Button kind="primary" onPress={() => void shows.answer('both')}>
          {WORDS.keepBoth}
        </Button>
        <Button onPress={() => void shows.answer('replace')}>{WORDS.replaceOneHere}</Button>
        <Button kind="quiet" onPress={cancel}>
          {WORDS.cancel}
        </Button>
      </Column>
    </Sheet>
  );
}

const when = (ms: number): string => new Date(ms).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
