// A question before a show is opened: it would end what is on, or it is here already.

import { useHovlix, useLink, useShow, useShows } from '../../host/hovlix';
import type { Newer } from '../../host/document/shows';
import { Button, Column, Quiet, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';

const NEWER: Readonly<Record<Newer, string>> = {
  file: 'The file is newer: it has everything that is here, and more.',
  here: 'The one here is newer: it has everything that is in the file, and more.',
  same: 'They are the same.',
  both: 'Both were changed since they were the same: each has something the other has not.',
};

export function Asking() {
  const { shows } = useHovlix();
  const asking = useShows((state) => state.asking);
  const on = useShow((show) => show.name);
  const screens = useLink((link) => link.screens);
  if (!asking) return null;
  const cancel = () => void shows.answer('cancel');
  if (asking.type === 'put-on')
    return (
      <Sheet title={asking.copy.show.name} onClose={cancel}>
        <Words>
          “{on ?? 'Another show'}” is on{screens > 1 ? `, and ${screens} screens follow it` : ''}. Its looks go dark
          when another show is put on.
        </Words>
        <Column gap={10} alignItems="flex-start">
          <Button kind="primary" onPress={() => void shows.answer('put-on')}>
            Put this show on
          </Button>
          <Button onPress={() => void shows.answer('here')}>Only look into it here</Button>
          <Quiet>Looked into, its light is on this screen alone. The stage keeps what it has.</Quiet>
        </Column>
      </Sheet>
    ); // prettier-ignore
  return (
    <Sheet title={`“${asking.bundle.show.name}” is here already`} onClose={cancel}>
      <Words>{NEWER[asking.newer]}</Words>
      <Quiet>
        The file was written {asking.bundle.savedAt ? when(asking.bundle.savedAt) : 'at an unknown time'}; the one here
        was changed {when(asking.here.changedAt)}.
      </Quiet>
      <Column gap={10} alignItems="flex-start">
        <Button kind="primary" onPress={() => void shows.answer('both')}>
          Keep both
        </Button>
        <Button onPress={() => void shows.answer('replace')}>Replace the one here</Button>
        <Button kind="quiet" onPress={cancel}>
          Cancel
        </Button>
      </Column>
    </Sheet>
  );
}

const when = (ms: number): string => new Date(ms).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
