// What keys do by themselves, in words: the list that ? opens.

import { View } from '@tamagui/core';
import { Button, Column, Figures, Row, Title, Words } from '../../ui/pieces';
import { WORDS } from './words';

const KEYS = [
  ['Space', 'play or pause the song'],
  ['T', 'tap the tempo'],
  ['B', 'blackout'],
  ['M', 'freeze the light, and let it go on'],
  ['1 – 9, Q …', 'the pads of the bank, as they show it'],
  ['N, P', 'next and previous look of the bank'],
  ['G, H', 'on in the set list, and back'],
  [WORDS.shiftGH, 'next and previous song of the set'],
  ['← →', 'walk the bars of a lead sheet'],
  [WORDS.shift, 'choose several bars'],
  [WORDS.ctrlOrC, 'copy the chosen bars, and paste them'],
  [WORDS.ctrlOrZ, 'undo'],
  [WORDS.ctrlOrShift, 'redo'],
  ['Enter', 'press what has the focus'],
  ['?', 'this list'],
] as const;

export function KeyList({ onClose }: { readonly onClose: () => void }) {
  return (
    <View position="absolute" right={12} top={12} zIndex={30} role="dialog" aria-label={WORDS.keys} maxWidth="94%">
      <Column
        backgroundColor="$raised"
        borderWidth={1}
        borderColor="$line"
        borderRadius={14}
        padding={20}
        gap={10}
        boxShadow="0 12px 40px rgba(0,0,0,0.4)"
      >
        <Row justifyContent="space-between" gap={24}>
          <Title fontSize={22}>{WORDS.keys}</Title>
          <Button onPress={onClose}>{WORDS.close}</Button>
        </Row>
        {KEYS.map(([key, does]) => (
          <Row key={key} gap={16}>
            <Figures width={150} color="$text">
              {key}
            </Figures>
            <Words>{does}</Words>
          </Row>
        ))}
      </Column>
    </View>
  );
}
