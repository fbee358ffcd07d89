// The beats of the chosen bars, put right by hand.

import { useState } from 'react';
import { beatOfBar, meterAtBar, pulseLength, pulsesInBar, timeAt } from '@hovlix/core/time';
import { barLineAt, beatLineAt, beatsOfBars, evenBars, type Keeps, type Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Stepper } from '../../../ui/Stepper';
import { readSeconds, secondsOfText } from '../close-up/grid';
import { barLabel, preciseText, rangeText, type BarRange } from '../model';
import { TapAlong } from './TapAlong';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly range: BarRange; readonly keeps: Keeps };

const STEP = 0.01;

export function HereCard({ song, range, keeps }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const [tapping, setTapping] = useState(false);
  const { first, last } = range;
  const pulses = pulsesInBar(meterAtBar(song.meter, first));
  const [pulse, setPulse] = useState(0);
  // The first of a bar takes the whole bars beside it along; one within it only the beats beside it.
  const length = pulseLength(meterAtBar(song.meter, first));
  const begins = timeAt(song.tempo, beats(beatOfBar(song.meter, first) + pulse * length));
  const moved = (to: number) => (pulse === 0 ? barLineAt(song, first, to) : beatLineAt(song, first, pulse, to));
  const name = pulse === 0 ? WORDS.barBegins(barLabel(first)) : WORDS.beatBar(pulse + 1, barLabel(first));
  const move = (to: number) => {
    const anchors = moved(to);
    if (anchors) document.make({ type: 'set-passage', song: song.id, anchors: [...anchors], keeps });
    else if (pulse === 0) say(WORDS.barMustBegin(barLabel(first)), { tone: 'bad' });
    else say('A beat must lie between the beats beside it.', { tone: 'bad' });
  };
  const even = () => {
    document.make({ type: 'set-passage', song: song.id, anchors: [...evenBars(song, first, last)], keeps });
    say(WORDS.goEvenlyNow(rangeText(range)), { undo: document.takingBack() });
  };
  if (tapping) return <TapAlong song={song} bar={first} keeps={keeps} onDone={() => setTapping(false)} />;
  const { from, to } = beatsOfBars(song, first, last);
  const lasts = timeAt(song.tempo, to) - timeAt(song.tempo, from);
  return (
    <Column gap={10} role="group" aria-label={WORDS.beatsOf(rangeText(range).toLowerCase())}>
      {pulses > 1 && (
        <Segments
          label={WORDS.whichBeat}
          value={String(pulse)}
          choices={Array.from({ length: Math.min(8, pulses) }, (_, i) => ({
            value: String(i),
            name: i === 0 ? WORDS.barLine : WORDS.beat(i + 1),
          }))}
          onChoose={(value) => setPulse(Number(value))}
        />
      )}
      <Stepper
        name={WORDS.at(name)}
        value={preciseText(begins)}
        less={WORDS.n10MsEarlier(name)}
        more={WORDS.n10MsLater(name)}
        onLess={moved(begins - STEP) ? () => move(begins - STEP) : undefined}
        onMore={moved(begins + STEP) ? () => move(begins + STEP) : undefined}
      />
      <Typed
        key={pulse}
        label={WORDS.minutesSeconds(name)}
        value={preciseText(begins)}
        read={readSeconds}
        patient
        onChange={(text) => move(secondsOfText(text)!)}
        numeric
      />
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => setTapping(true)}>{WORDS.tapAlongFrom(barLabel(first))}</Button>
        {last > first && <Button onPress={even}>{WORDS.oneEvenTempo}</Button>}
      </Row>
      {last > first && <Quiet>{WORDS.evenlyTheyLast(lasts.toFixed(2))}</Quiet>}
    </Column>
  );
}
