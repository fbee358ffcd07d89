// On or off, with its name beside it.

import { View } from '@tamagui/core';
import { Words } from './pieces';

type Props = { readonly label: string; readonly on: boolean; readonly onChange: (on: boolean) => void };

export function Switch({ label, on, onChange }: Props) {
  return (
    <View
      render="button"
      role="switch"
      aria-checked={on}
      aria-label={label}
      onPress={() => onChange(!on)}
      flexDirection="row"
      alignItems="center"
      justifyContent="space-between"
      gap={12}
      minHeight={44}
      padding={0}
      borderWidth={0}
      backgroundColor="transparent"
      cursor="pointer"
      width="100%"
    >
      <Words textAlign="left" flexShrink={1}>
        {label}
      </Words>
      <View width={48} height={28} borderRadius={14} padding={3} backgroundColor={on ? '$doing' : '$well'}>
        <View
          width={22}
          height={22}
          borderRadius={11}
          backgroundColor={on ? '$onDoing' : '$quiet'}
          marginLeft={on ? 20 : 0}
        />
      </View>
    </View>
  );
}
