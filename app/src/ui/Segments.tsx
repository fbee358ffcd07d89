// One of a few: a switch with a place for each choice.

import { View } from '@tamagui/core';
import { Row, Words } from './pieces';

type Props<T extends string> = {
  /** Names the group for those who cannot see where it stands. */
  readonly label: string;
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly name: string }[];
  readonly onChoose: (value: T) => void;
};

export function Segments<T extends string>({ label, value, choices, onChoose }: Props<T>) {
  return (
    <Row
      backgroundColor="$well"
      borderRadius={22}
      role="group"
      aria-label={label}
      alignSelf="flex-start"
      maxWidth="100%"
      flexWrap="wrap"
    >
      {choices.map((choice) => {
        const on = choice.value === value;
        return (
          <View
            key={choice.value}
            render="button"
            aria-pressed={on}
            onPress={() => onChoose(choice.value)}
            minHeight={44}
            paddingHorizontal={16}
            justifyContent="center"
            borderWidth={0}
            borderRadius={22}
            cursor="pointer"
            backgroundColor={on ? '$text' : 'transparent'}
          >
            <Words fontWeight="600" fontSize={14} color={on ? '$ground' : '$text'}>
              {choice.name}
            </Words>
          </View>
        );
      })}
    </Row>
  );
}
