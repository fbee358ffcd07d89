// The bars of a song put right by hand: where bar 1 begins, the meter, the tempo.

import { useState } from 'react';
import { useStore } from 'zustand';
import { beatOfBar, meterAtBar, timeAt } from '@hovlix/core/time';
import type { Keeps, Song } from '@hovlix/core/song';
import { useHovlix } from '../../../host/hovlix';
import { Choose, decimal, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Sheet } from '../../../ui/Sheet';
import { Stepper } from '../../../ui/Stepper';
import { Switch } from '../../../ui/Switch';
import { METERS, preciseText, rangeText, songBpm, type BarRange, type MeterName } from '../model';
import { HereCard } from './HereCard';
import { OtherReadings } from './OtherReadings';
import { TapAlong } from './TapAlong';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly range: BarRange | null; readonly onClose: () => void };

export function TimeSheet({ song, range, onClose }: Props) {
  const { document, click } = useHovlix();
  const clicks = useStore(click.store, ({ on }) => on);
  const [keeps, setKeeps] = useState<Keeps>('bars');
  const [tapping, setTapping] = useState<number | null>(null);
  const shift = (pulses: number) => document.make({ type: 'shift-bars', song: song.id, pulses, keeps });
  const move = (ms: number) => document.make({ type: 'move-bars', song: song.id, seconds: ms / 1000, keeps });
  const scale = (factor: 0.5 | 2) => document.make({ type: 'scale-tempo', song: song.id, factor });
  const here = meterAtBar(song.meter, range?.first ?? 0);
  const meter = `${here.numerator}/${here.denominator}`;
  const setMeter = (name: string) => {
    const [numerator, denominator] = name.split('/').map(Number) as [number, 1 | 2 | 4 | 8 | 16];
    const bars = range ? { first: range.first, last: range.last } : { first: 0, last: null };
    document.make({ type: 'set-meter', song: song.id, ...bars, numerator, denominator });
  };
  const begins = timeAt(song.tempo, beatOfBar(song.meter, 0));
  if (tapping !== null)
    return (
      <Sheet title={WORDS.barsAndTempo} low onClose={onClose}>
        <TapAlong song={song} bar={tapping} keeps={keeps} onDone={() => setTapping(null)} />
      </Sheet>
    );
  return (
    <Sheet title={WORDS.barsAndTempo} low onClose={onClose}>
      <Segments
        titled
        label={WORDS.whenBarsMove}
        value={keeps}
        choices={[
          { value: 'bars', name: 'goes with the bars' },
          { value: 'sound', name: 'stays where it is' },
        ]}
        onChoose={setKeeps}
      />
      {range && <HereCard key={range.first} song={song} range={range} keeps={keeps} />}
      <Column gap={8}>
        <Stepper
          name={WORDS.bar1Begins}
          value={preciseText(begins)}
          less={WORDS.bar1Beat}
          more={WORDS.bar1BeatLater}
          onLess={() => shift(-1)}
          onMore={() => shift(1)}
        />
        <Stepper
          name={WORDS.allBarLines}
          value="10 ms"
          less={WORDS.allBars10}
          more={WORDS.allBars10Ms}
          onLess={() => move(-10)}
          onMore={() => move(10)}
        />
      </Column>
      <Switch label={WORDS.clickEachBeat} on={clicks} onChange={click.turn} />
      <Choose
        label={range ? WORDS.meterOf(rangeText(range).toLowerCase()) : WORDS.meterAllBars}
        value={METERS.find((one) => one === meter) ?? (meter as MeterName)}
        choices={[...new Set([...METERS, meter as MeterName])].map((value) => ({ value, name: value }))}
        hint={range ? WORDS.lightKeepsIts : WORDS.chooseBarsFirst}
        onChoose={setMeter}
      />
      <Column gap={8}>
        <Typed
          label={WORDS.oneTempoThroughout}
          value={Math.round(songBpm(song) * 100) / 100}
          hint={WORDS.musicWasMade}
          read={decimal(20, 400)}
          onChange={(bpm) => document.make({ type: 'steady-tempo', song: song.id, bpm, keeps })}
          numeric
        />
        <Row gap={8}>
          <Button onPress={() => scale(0.5)}>{WORDS.halfTheTempo}</Button>
          <Button onPress={() => scale(2)}>{WORDS.doubleTheTempo}</Button>
        </Row>
        <Quiet>{WORDS.halfDoubleLight}</Quiet>
      </Column>
      <OtherReadings song={song} onTapAlong={setTapping} />
    </Sheet>
  );
}
