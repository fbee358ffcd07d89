// Whether the stage shows the song one looks at here. Of all screens one programs; looking on the others changes nothing.

import { useHovlix, useLink, useLive, useMay } from '../../host/hovlix';
import { Chip } from '../../ui/Chip';
import { WORDS } from './words';

export function StageFollows() {
  const { conducting } = useHovlix();
  const may = useMay('operator');
  const screens = useLink((link) => link.screens);
  const on = useLive((live) => live.programs === conducting.screen);
  if (!may || (on && screens <= 1)) return null;
  return (
    <Chip
      small
      name={on ? WORDS.stageFollows : WORDS.stageHolds}
      label={on ? WORDS.stageFollowsScreen : WORDS.stageDoesNot}
      on={on}
      onPress={() => conducting.act({ type: 'program', screen: on ? null : conducting.screen })}
    />
  );
}
