// Looks and chases as far as a lane lets them speak: only to some roles, only of some families.

import { inFamilies, type Chase, type Family, type Look, type LookValue } from '../light';
import { attributeOf } from '../rig';
import type { LookLane } from '../song';

export type Narrower = { readonly look: (look: Look) => Look; readonly chase: (chase: Chase) => Chase };

/** The same look narrowed gives the same object, so that what was compiled of it is known again. */
export function narrower({ roles, families }: NonNullable<LookLane['only']>): Narrower {
  const looks = new WeakMap<Look, Look>();
  const chases = new WeakMap<Chase, Chase>();
  const wanted = families && new Set<Family>(families);
  const narrow = (values: readonly LookValue[]): LookValue[] => {
    const theirs = roles ? values.filter(({ role }) => role !== undefined && roles.includes(role)) : values;
    return [...(wanted ? inFamilies(theirs, wanted, (name) => attributeOf(name).family) : theirs)];
  };
  return {
    look: (look) => once(looks, look, () => ({ ...look, values: narrow(look.values) })),
    chase: (chase) =>
      once(chases, chase, () => ({
        ...chase,
        steps: chase.steps.map((step) => ({ ...step, values: narrow(step.values) })),
      })),
  };
}

function once<One extends object>(known: WeakMap<One, One>, key: One, make: () => One): One {
  const before = known.get(key);
  if (before) return before;
  const made = make();
  known.set(key, made);
  return made;
}
