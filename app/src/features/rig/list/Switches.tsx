// The address switches as they look on the lamp: 1 at the left, up is on.

import { View } from '@tamagui/core';
import { dipSwitches, type Patched } from '@hovlix/core/rig';
import { Row } from '../../../ui/pieces';

export function Switches({ address }: { readonly address: Patched['fixture']['address'] }) {
  return (
    <Row gap={2} aria-hidden>
      {dipSwitches(address).map((on, i) => (
        <View key={i} position="relative" width={8} height={18} borderRadius={2} backgroundColor="$well">
          <View
            position="absolute"
            left={1}
            right={1}
            top={on ? 1 : 9}
            height={8}
            borderRadius={1}
            backgroundColor={on ? '$text' : '$faint'}
          />
        </View>
      ))}
    </Row>
  );
}
