// A new song without a recording: tempo, meter and so many bars.

import { router } from 'expo-router';
import { z } from 'zod';
import { bareSong } from '@hovlix/core/song';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { ChoiceEntry, Entry, typed, useEntries } from '../../ui/entry';
import { decimal, named, Pair, wholeNumber } from '../../ui/form';
import { Button, Quiet, Row } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { METERS } from './model';
import { WORDS } from './words';

const SONG = z.object({
  title: typed(named),
  bpm: typed(decimal(20, 400)),
  bars: typed(wholeNumber(1, 2000)),
  meter: z.enum(METERS),
});

export function BareSheet({ onClose }: { readonly onClose: () => void }) {
  const { document } = useHovlix();
  const { control, handleSubmit } = useEntries(SONG, { title: WORDS.newSong, bpm: '120', bars: '64', meter: '4/4' });
  const add = handleSubmit(({ title, bpm, bars, meter }) => {
    const [numerator, denominator] = meter.split('/').map(Number) as [number, 4 | 8];
    const added = bareSong({ id: freshId(), title, bpm, meter: { numerator, denominator }, bars });
    document.make({ type: 'add-song', added });
    onClose();
    router.push(`/songs/${added.id}`);
  });
  const line = { control, onEnter: () => void add() };
  return (
    <Sheet title={WORDS.songWithoutMusic} onClose={onClose}>
      <Entry {...line} name="title" label={WORDS.title} />
      <Pair>
        <Entry {...line} name="bpm" label={WORDS.tempoBeatsMinute} numeric />
        <Entry {...line} name="bars" label={WORDS.bars} numeric />
      </Pair>
      <ChoiceEntry
        control={control}
        name="meter"
        label={WORDS.meter}
        choices={METERS.map((value) => ({ value, name: value }))}
      />
      <Quiet>{WORDS.songsYouPlay}</Quiet>
      <Row>
        <Button kind="primary" onPress={() => void add()}>
          {WORDS.addSong}
        </Button>
      </Row>
    </Sheet>
  );
}
