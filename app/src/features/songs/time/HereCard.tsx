// The beats of the chosen bars, put right by hand.

import { useState } from 'react';
import { timeAt } from '@hovlix/core/time';
import { barLineAt, beatsOfBars, evenBars, timeOfBar, type Song } from '@hovlix/core/song';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Stepper } from '../../../ui/Stepper';
import { readSeconds, secondsOfText } from '../close-up/grid';
import { barLabel, preciseText, rangeText, type BarRange } from '../model';
import { TapAlong } from './TapAlong';

type Props = { readonly song: Song; readonly range: BarRange };

const STEP = 0.01;

export function HereCard({ song, range }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const [tapping, setTapping] = useState(false);
  const { first, last } = range;
  const begins = timeOfBar(song, first);
  const moved = (to: number) => barLineAt(song, first, to);
  const move = (to: number) => {
    const anchors = moved(to);
    if (anchors) document.make({ type: 'set-passage', song: song.id, anchors: [...anchors] });
    else say(`Bar ${barLabel(first)} must begin between the bars beside it.`, { tone: 'bad' });
  };
  const even = () => {
    document.make({ type: 'set-passage', song: song.id, anchors: [...evenBars(song, first, last)] });
    say(`${rangeText(range)} go evenly now.`, { undo: document.takingBack() });
  };
  if (tapping) return <TapAlong song={song} bar={first} onDone={() => setTapping(false)} />;
  const { from, to } = beatsOfBars(song, first, last);
  const length = timeAt(song.tempo, to) - timeAt(song.tempo, from);
  return (
    <Column gap={10} role="group" aria-label={`Beats of ${rangeText(range).toLowerCase()}`}>
      <Stepper
        name={`Bar ${barLabel(first)} begins at`}
        value={preciseText(begins)}
        less={`Bar ${barLabel(first)} begins 10 ms earlier`}
        more={`Bar ${barLabel(first)} begins 10 ms later`}
        onLess={moved(begins - STEP) ? () => move(begins - STEP) : undefined}
        onMore={moved(begins + STEP) ? () => move(begins + STEP) : undefined}
      />
      <Typed
        key={begins}
        label={`Bar ${barLabel(first)} begins at, minutes and seconds`}
        value={preciseText(begins)}
        read={readSeconds}
        onChange={(text) => move(secondsOfText(text)!)}
        numeric
      />
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => setTapping(true)}>Tap along from bar {barLabel(first)}</Button>
        {last > first && <Button onPress={even}>One even tempo in these bars</Button>}
      </Row>
      {last > first && <Quiet>Evenly, they last {length.toFixed(2)} s, from their first line to their last.</Quiet>}
    </Column>
  ); // prettier-ignore
}
