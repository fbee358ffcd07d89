// Which hits change too little of the rig's light to be a flash: told by whoever strikes them, so that the log knows.

import { pickedPlaces, type Hit } from '../light';
import { patchedFixtures, type Role } from '../rig';
import { rigInUse, type Show } from '../show';
import { FLASH_SHARE } from './flash-share';

/** By role, the output of each of its lamps, and that of all lamps of the rig together. */
type Outputs = { readonly roles: ReadonlyMap<Role['id'], readonly number[]>; readonly all: number };

const known = new WeakMap<Show, Outputs>();

function outputsOf(show: Show): Outputs {
  const before = known.get(show);
  if (before) return before;
  const rig = rigInUse(show);
  const lamps = patchedFixtures(rig, show.profiles).filter(({ profile }) => profile.kind !== 'hazer');
  const output = new Map(lamps.map(({ fixture, profile }) => [fixture.id, profile.output]));
  const outputs = {
    roles: new Map(rig.casting.map(({ role, fixtures }) => [role, fixtures.map((id) => output.get(id) ?? 0)])),
    all: lamps.reduce((sum, { profile }) => sum + profile.output, 0),
  };
  known.set(show, outputs);
  return outputs;
}

/** Whether a hit on a role leaves nine tenths of the rig's light as it is, whichever of its lamps answer. */
export function isFaint(show: Show, role: Role['id'], { pick, spread }: Pick<Hit, 'pick' | 'spread'>): boolean {
  const { roles, all } = outputsOf(show);
  const cast = roles.get(role) ?? [];
  const meant = pickedPlaces(pick, cast.length).map((place) => cast[place]!);
  const most = spread === 'all' ? meant.reduce((sum, one) => sum + one, 0) : Math.max(0, ...meant);
  return most < FLASH_SHARE * all;
}
