// Roles that a key or a pad has chosen: what is done next to the chosen ones is done to these.

import { chosenNow, roleName } from '@hovlix/core/live';
import { useHovlix, useLive, useMay, useShow } from '../../host/hovlix';
import { Mark } from './Mark';
import { WORDS } from './words';

export function ChosenMark() {
  const { conducting } = useHovlix();
  const may = useMay('operator');
  const chosen = useLive((live) => live.chosen);
  const show = useShow((one) => one);
  const roles = show ? chosenNow({ show, live: { chosen } }) : [];
  if (!show || roles.length === 0) return null;
  const words = WORDS.chosen(roles.map((role) => roleName(show, role)).join(', '));
  return (
    <Mark
      look="full"
      words={words}
      label={may ? WORDS.chooseNone(words) : words}
      hint={words}
      onPress={may ? () => conducting.act({ type: 'choose', roles: [] }) : undefined}
    />
  );
}
