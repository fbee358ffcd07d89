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

export function BareSheet({ onClose }: { readonly onClose: () => void }) {
  const { document } = useHovlix();
  const [title, setTitle] = useState('New song');
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
    <Sheet title="Song without music" onClose={onClose}>
      <Typed label="Title" value={title} read={named} onChange={setTitle} />
      <Pair>
        <Typed label="Tempo, beats a minute" value={bpm} read={decimal(20, 400)} onChange={setBpm} numeric />
        <Typed label="Bars" value={bars} read={wholeNumber(1, 2000)} onChange={setBars} numeric />
      </Pair>
      <Choose
        label="Meter"
        value={meter}
        choices={METERS.map((value) => ({ value, name: value }))}
        onChoose={setMeter}
      />
      <Quiet>For songs you play to a click, or with no recording. The click is in Bars and tempo.</Quiet>
      <Row>
        <Button kind="primary" onPress={add}>
          Add song
        </Button>
      </Row>
    </Sheet>
  );
}
