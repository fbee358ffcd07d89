// A foot controller without a foot: its switches on the screen, its MIDI through a port of the computer.

import { useQuery } from '@tanstack/react-query';
import { View } from '@tamagui/core';
import { footQuery, stepOn } from '../../data/foot';
import { useHeld } from '../../ui/held';
import { Column, Quiet, Row, Words } from '../../ui/pieces';
import { MIDI } from './words';

const NOTE_ON = 0x90;
const NOTE_OFF = 0x80;
const FIRST = 60;
const SWITCHES = [1, 2, 3, 4, 5];

export function StandInFoot() {
  const { data: got } = useQuery(footQuery);
  const lit = (note: number) => (got?.findLast(([status, of]) => status === NOTE_ON && of === note)?.[2] ?? 0) > 0;
  return (
    <Column gap={8} role="group" aria-label={MIDI.standIn}>
      <Words fontWeight="600">{MIDI.standIn}</Words>
      <Row gap={8}>
        {SWITCHES.map((number) => (
          <Switch key={number} number={number} on={lit(FIRST + number - 1)} />
        ))}
      </Row>
      <Quiet>{MIDI.standInHint}</Quiet>
    </Column>
  );
}

function Switch({ number, on }: { readonly number: number; readonly on: boolean }) {
  const note = FIRST + number - 1;
  const held = useHeld({
    down: () => void stepOn([NOTE_ON, note, 127]),
    up: () => void stepOn([NOTE_OFF, note, 0]),
  });
  return (
    <View
      render="button"
      flex={1}
      minHeight={56}
      alignItems="center"
      justifyContent="center"
      borderRadius={14}
      borderWidth={2}
      borderColor={on ? '$doing' : '$line'}
      backgroundColor={on ? '$sunken' : '$well'}
      cursor="pointer"
      aria-label={MIDI.switch(number, on)}
      {...held}
    >
      <Words fontWeight="600" color={on ? '$doingText' : '$text'}>
        {String(number)}
      </Words>
    </View>
  );
}
