// One of a few: a switch with a place for each choice. Tab comes to it once, arrows go along it.

import { ToggleGroup } from '@tamagui/toggle-group';
import { Column, Quiet, Words } from './pieces';

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
    <ToggleGroup
      type="single"
      disableDeactivation
      value={value}
      onValueChange={(chosen: string) => onChoose(chosen as T)}
      flexDirection="row"
      flexWrap="wrap"
      alignSelf="flex-start"
      alignItems="center"
      maxWidth="100%"
      borderRadius={22}
      backgroundColor="$well"
      aria-label={label}
    >
      {choices.map((choice) => {
        const on = choice.value === value;
        return (
          <ToggleGroup.Item
            key={choice.value}
            unstyled
            value={choice.value}
            // Tab goes to the group, which hands it to the chosen one.
            tabIndex={on ? 0 : -1}
            aria-pressed={on}
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
          </ToggleGroup.Item>
        );
      })}
    </ToggleGroup>
  );
}
