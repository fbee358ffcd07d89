// Whether the stage shows the song one looks at here. Of all screens one programs; looking on the others changes nothing.

import { useMedia, View } from '@tamagui/core';
import { useHovlix, useLink, useLive, useMay } from '../../host/hovlix';
import { chipLook } from '../../ui/Chip';
import { Words } from '../../ui/pieces';
import { WORDS } from './words';

export function StageFollows() {
  const { conducting } = useHovlix();
  const { wide } = useMedia();
  const may = useMay('operator');
  const screens = useLink((link) => link.screens);
  const on = useLive((live) => live.programs === conducting.screen);
  if (!may || (on && screens <= 1)) return null;
  return (
    <View
      {...chipLook(on, true)}
      // On a phone in two lines: the time of the song has its room.
      width={wide ? 'auto' : 'min-content'}
      aria-pressed={on}
      aria-label={on ? WORDS.stageFollowsScreen : WORDS.stageDoesNot}
      onPress={() => conducting.act({ type: 'program', screen: on ? null : conducting.screen })}
    >
      <Words fontWeight="600" fontSize={14} lineHeight={17} textAlign="center" color={on ? '$ground' : '$text'}>
        {on ? WORDS.stageFollows : WORDS.stageHolds}
      </Words>
    </View>
  );
}
