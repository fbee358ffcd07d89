// That light does not leave as it should, on pages that show no stage.

import { View } from '@tamagui/core';
import { Row, Words } from '../../../ui/pieces';
import { useHealth } from '../../stage/use-health';

/** @param inset from the sides, in pixels. */
export function Trouble({ inset = 0 }: { readonly inset?: number }) {
  const { colour, text } = useHealth();
  if (colour === '$live' || colour === '$faint') return null;
  return (
    <Row gap={10} role="status" testID="trouble" paddingHorizontal={inset}>
      <View width={14} height={14} borderRadius={7} backgroundColor={colour} flexShrink={0} />
      <Words fontSize={22} lineHeight={28} fontWeight="600">
        {text}
      </Words>
    </Row>
  );
}
