// Some of many: a row each, ticked or not.

import Check from 'lucide-react-native/icons/check';
import { View } from '@tamagui/core';
import { usePalette } from './palette';
import { Column, Quiet, Words } from './pieces';

type Props = {
  readonly label: string;
  readonly items: readonly { readonly id: string; readonly name: string; readonly more?: string }[];
  readonly ticked: ReadonlySet<string>;
  readonly onTick: (id: string, on: boolean) => void;
};

export function Ticks({ label, items, ticked, onTick }: Props) {
  return (
    <Column role="group" aria-label={label}>
      {items.map(({ id, name, more }) => {
        const on = ticked.has(id);
        return (
          <View
            key={id}
            render="button"
            role="checkbox"
            aria-checked={on}
            aria-label={name}
            onPress={() => onTick(id, !on)}
            flexDirection="row"
            alignItems="center"
            gap={12}
            minHeight={48}
            paddingHorizontal={4}
            borderWidth={0}
            borderBottomWidth={1}
            borderColor="$line"
            backgroundColor="transparent"
            cursor="pointer"
          >
            <TickBox on={on} />
            <Column flex={1} minWidth={0} alignItems="flex-start">
              <Words textAlign="left">{name}</Words>
              {more && <Quiet textAlign="left">{more}</Quiet>}
            </Column>
          </View>
        );
      })}
    </Column>
  );
}

/** The box itself, for rows of another make. */
export function TickBox({ on }: { readonly on: boolean }) {
  const palette = usePalette();
  return (
    <View
      width={24}
      height={24}
      borderRadius={8}
      borderWidth={2}
      borderColor={on ? '$doing' : '$faint'}
      backgroundColor={on ? '$doing' : 'transparent'}
      alignItems="center"
      justifyContent="center"
    >
      {on && <Check size={16} color={palette.onDoing} aria-hidden />}
    </View>
  );
}
