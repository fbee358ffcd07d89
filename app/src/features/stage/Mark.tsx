// What every place says beside the stage: a word or two on a pill, and a press that leads on where there is one.

import { View } from '@tamagui/core';
import { Words } from '../../ui/pieces';

type Props = {
  readonly words: string;
  /** `full` is something that is on by hand, `line` a warning, `doing` the light itself. */
  readonly look: 'full' | 'line' | 'doing';
  readonly label?: string;
  readonly hint?: string;
  readonly onPress?: (() => void) | undefined;
  readonly testID?: string;
};

const SKINS = {
  full: { ground: '$warn', line: '$warn', ink: '$onDoing' },
  line: { ground: '#0c0a10', line: '$warn', ink: '$warn' },
  doing: { ground: '$doing', line: '$doing', ink: '$onDoing' },
} as const;

export function Mark({ words, look, label, hint, onPress, testID }: Props) {
  const skin = SKINS[look];
  const pressed = { render: 'button' as const, 'aria-label': label ?? words, cursor: 'pointer' as const, onPress };
  return (
    <View
      {...(onPress ? pressed : { render: 'div' as const, role: 'status' as const })}
      {...(testID ? { testID } : {})}
      {...(hint ? { 'aria-description': hint } : {})}
      height={onPress ? 44 : 30}
      paddingHorizontal={4}
      justifyContent="center"
      backgroundColor="transparent"
      borderWidth={0}
    >
      <View
        paddingHorizontal={10}
        height={26}
        justifyContent="center"
        borderRadius={13}
        borderWidth={1}
        borderColor={skin.line}
        backgroundColor={skin.ground}
      >
        <Words fontSize={12} lineHeight={16} fontWeight="600" color={skin.ink}>
          {words}
        </Words>
      </View>
    </View>
  );
}
