// One of a few: a switch with a place for each choice.

import { View } from '@tamagui/core';
import { Column, Quiet, Row, Words } from './pieces';

type Props<T extends string> = {
  /** Names the group for those who cannot see where it stands. */
  readonly label: string;
  /** Writes the name over it: wherever nothing else says what is chosen here. */
  readonly titled?: boolean;
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly name: string }[];
  readonly onChoose: (value: T) => void;
};

export function Segments<T extends string>({ titled = false, ...props }: Props<T>) {
  if (!titled) return <Choices {...props} />;
  return (
    <Column gap={6}>
      <Quiet fontWeight="600" aria-hidden>
        {props.label}
      </Quiet>
      <Choices {...props} />
    </Column>
  );
}

function Choices<T extends string>({ label, value, choices, onChoose }: Omit<Props<T>, 'titled'>) {
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
            minWidth={44}
            paddingHorizontal={16}
            alignItems="center"
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
