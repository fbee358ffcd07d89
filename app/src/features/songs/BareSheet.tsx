// A new song without a recording: tempo, meter and so many bars.

import { useState } from 'react';
import { router } from 'expo-router';
import { bareSong } from '@hovlix/core/song';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { Choose, decimal, named, Pair, Typed, wholeNumber } from '../../ui/form';
import { Button, Quiet, Row } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { METERS, type MeterName } from './model';
import { WORDS } from './words';

export function BareSheet({ onClose }: { readonly onClose: () => void }) {
  const { document } = useHovlix();
  const [title, setTitle] = useState(WORDS.newSong);
  const [bpm, setBpm] = useState(120);
  const [bars, setBars] = useState(64);
  const [meter, setMeter] = useState<MeterName>('4/4');
  const add = () => {
    const [numerator, denominator] = meter.split('/').map(Number) as [number, 4 | 8];
    const added = bareSong({ id: freshId(), title, bpm, meter: { numerator, denominator }, bars });
    document.make({ type: 'add-song', added });
    onClose();
    router.push(`/songs/${added.id}`);
  };
  return (
    <Sheet title={WORDS.songWithoutMusic} onClose={onClose}>
      <Typed label={WORDS.title} value={title} read={named} onChange={setTitle} />
      <Pair>
        <Typed label={WORDS.tempoBeatsMinute} value={bpm} read={decimal(20, 400)} onChange={setBpm} numeric />
        <Typed label={WORDS.bars} value={bars} read={wholeNumber(1, 2000)} onChange={setBars} numeric />
      </Pair>
      <Choose
        label={WORDS.meter}
        value={meter}
        choices={METERS.map((value) => ({ value, name: value }))}
        onChoose={setMeter}
      />
      <Quiet>{WORDS.songsYouPlay}</Quiet>
      <Row>
        <Button kind="primary" onPress={add}>
          {WORDS.addSong}
        </Button>
      </Row>
    </Sheet>
  );
}
