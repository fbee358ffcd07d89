// A master for each role that somebody plays in this rig.

import { rampAt } from '@hovlix/core/light';
import type { Role } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { useHovlix, useLive } from '../../host/hovlix';
import { Slider } from '../../ui/Slider';

/** Where a fader is going, rather than where it is on its way. */
export const SETTLED = seconds(Number.MAX_SAFE_INTEGER);

/** Roles that have lamps here. */
export function rolesCast(show: Show): readonly Role[] {
  const { casting } = rigInUse(show);
  return show.roles.filter(({ id }) => casting.some(({ role, fixtures }) => role === id && fixtures.length > 0));
}

export function RoleFaders({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const masters = useLive((live) => live.roleMasters);
  const levelOf = (id: Role['id']) => {
    const master = masters.find(({ role }) => role === id);
    return master ? rampAt(master.ramp, SETTLED) : 1;
  };
  return rolesCast(show).map(({ id, name }) => (
    <Slider
      key={id}
      label={name}
      value={levelOf(id) * 100}
      low={0}
      high={100}
      step={1}
      unit="%"
      onChange={(value) => app.conducting.act({ type: 'role-master', role: id, level: value / 100 })}
    />
  ));
}
