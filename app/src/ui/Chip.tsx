// One of several things to choose, in a row that scrolls.

import type { ReactNode } from 'react';
import { View } from '@tamagui/core';
import { Words } from './pieces';

type Props = {
  readonly name: string;
  readonly on: boolean;
  readonly onPress: () => void;
  /** For those who cannot see; the name else. */
  readonly label?: string;
  readonly picture?: ReactNode;
  readonly small?: boolean;
  /** One of a list of tabs, rather than a button by itself. */
  readonly tab?: boolean;
};

export function Chip({ name, on, onPress, label, picture, small = false, tab = false }: Props) {
  return (
    <View
      render="button"
      {...(tab ? { role: 'tab', 'aria-selected': on } : { 'aria-pressed': on })}
      aria-label={label}
      onPress={onPress}
      minHeight={44}
      minWidth={44}
      paddingHorizontal={small ? 12 : 16}
      flexDirection="row"
      alignItems="center"
      justifyContent="center"
      gap={8}
      borderWidth={0}
      borderRadius={22}
      cursor="pointer"
      backgroundColor={on ? '$text' : '$well'}
      flexShrink={0}
    >
      {picture}
      <Words fontWeight="600" fontSize={small ? 14 : 15} whiteSpace="nowrap" color={on ? '$ground' : '$text'}>
        {name}
      </Words>
    </View>
  );
}
