// Whether the stage shows the song one looks at here. Of all screens one programs; looking on the others changes nothing.

import { useHovlix, useLink, useLive, useMay } from '../../host/hovlix';
import { Chip } from '../../ui/Chip';

export function StageFollows() {
  const { conducting } = useHovlix();
  const may = useMay('operator');
  const screens = useLink((link) => link.screens);
  const on = useLive((live) => live.programs === conducting.screen);
  if (!may || (on && screens <= 1)) return null;
  return (
    <Chip
      small
      name={on ? 'Stage follows' : 'Stage holds'}
      label={on ? 'The stage follows this screen' : 'The stage does not follow this screen'}
      on={on}
      onPress={() => conducting.act({ type: 'program', screen: on ? null : conducting.screen })}
    />
  );
}
