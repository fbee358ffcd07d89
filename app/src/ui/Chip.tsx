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
};

/** How a chip looks, whatever it does. */
export const chipLook = (on: boolean, small: boolean) =>
  ({
    render: 'button',
    minHeight: 44,
    minWidth: 44,
    paddingHorizontal: small ? 12 : 16,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'center',
    gap: 8,
    borderWidth: 0,
    borderRadius: 22,
    cursor: 'pointer',
    backgroundColor: on ? '$text' : '$well',
    flexShrink: 0,
  }) as const;

export function Chip({ name, on, onPress, label, picture, small = false }: Props) {
  return (
    <View {...chipLook(on, small)} aria-pressed={on} aria-label={label} onPress={onPress}>
      {picture}
      <ChipName on={on} small={small}>
        {name}
      </ChipName>
    </View>
  );
}

type NameProps = { readonly on: boolean; readonly small: boolean; readonly children: string };

export function ChipName({ on, small, children }: NameProps) {
  return (
    <Words fontWeight="600" fontSize={small ? 14 : 15} whiteSpace="nowrap" color={on ? '$ground' : '$text'}>
      {children}
    </Words>
  );
}
