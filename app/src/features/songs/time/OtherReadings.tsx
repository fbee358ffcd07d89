// Other ways to count the music, each as the analysis hears it, and the passages it is not sure of.

import { useState } from 'react';
import type { Reading } from '@hovlix/core/analysis';
import type { Song } from '@hovlix/core/song';
import type { Readings } from '../../../host/sound/analysis-messages';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { rangeText } from '../model';
import { isAsFound, useReadings, type Grid } from '../readings';
import { WORDS } from './words';

const NAMES: Readonly<Record<Reading, string>> = {
  half: WORDS.halfTheTempo,
  double: WORDS.doubleTheTempo,
  'off-beat': WORDS.beatsBetweenThese,
  'other-beat': WORDS.barsFromAnother,
  'other-meter': WORDS.threeBeatsBar,
};

type Props = { readonly song: Song; readonly onTapAlong: (first: number, last: number) => void };

export function OtherReadings({ song, onTapAlong }: Props) {
  const { busy, ask, take } = useReadings(song);
  const [found, setFound] = useState<{ readonly of: Song['tempo']; readonly readings: Readings } | null>(null);
  const listen = async () => {
    const readings = await ask();
    setFound(readings ? { of: song.tempo, readings } : null);
  };
  // Where the bars changed since, what was offered is out of date.
  const readings = found?.of === song.tempo ? found.readings : null;
  if (!song.music) return null;
  if (!readings)
    return (
      <Column gap={8}>
        <Words fontWeight="600">{WORDS.beatsNotRight}</Words>
        <Row>
          <Button disabled={busy} onPress={() => void listen()}>
            {busy ? WORDS.listening : WORDS.showOtherReadings}
          </Button>
        </Row>
      </Column>
    );
  const asFound = isAsFound(song, readings.now);
  return (
    <Column gap={8} role="group" aria-label={WORDS.otherReadings}>
      <Words fontWeight="600">{WORDS.otherReadingsMusic}</Words>
      {!asFound && <Choice name={WORDS.asTheyWere} grid={readings.now} onTake={() => take(readings.now)} />}
      {asFound &&
        readings.others.map(({ reading, grid }) => (
          <Choice key={reading} name={nameOf(reading, grid)} grid={grid} onTake={() => take(grid)} />
        ))}
      <Quiet>{WORDS.sectionsLightStay}</Quiet>
      {asFound &&
        readings.doubtful.slice(0, 6).map(({ first, last }) => (
          <Row key={first} gap={8} justifyContent="space-between">
            <Words flex={1}>{WORDS.notSure(rangeText({ first, last }))}</Words>
            <Button label={WORDS.tapAlongNamed(rangeText({ first, last }))} onPress={() => onTapAlong(first, last)}>
              {WORDS.tapAlong}
            </Button>
          </Row>
        ))}
    </Column>
  );
}

function nameOf(reading: Reading, { meter }: Grid): string {
  const { numerator, denominator } = meter[0]!;
  const beats = denominator === 8 ? numerator / 3 : numerator;
  return reading === 'other-meter' && beats === 4 ? WORDS.fourBeatsBar : NAMES[reading];
}

function Choice({ name, grid, onTake }: { readonly name: string; readonly grid: Grid; readonly onTake: () => void }) {
  const { numerator, denominator } = grid.meter[0]!;
  const begins = grid.downbeats[0] ?? 0;
  return (
    <Row gap={8} justifyContent="space-between">
      <Column flex={1} minWidth={0}>
        <Words>{name}</Words>
        <Quiet>{WORDS.bpmBar1(grid.bpm.toFixed(1), numerator, denominator, begins.toFixed(2))}</Quiet>
      </Column>
      <Button label={WORDS.takeNamed(name)} onPress={onTake}>
        {WORDS.take}
      </Button>
    </Row>
  );
}
