// Looks and chases as far as a lane lets them: only some roles, only some families.

import { inFamilies, type Chase, type Family, type Look, type LookValue } from '../light';
import { attributeOf } from '../rig';
import type { LookLane } from '../song';

export type Narrower = { readonly look: (look: Look) => Look; readonly chase: (chase: Chase) => Chase };

/** The same look narrowed gives the same object, so that what was compiled of it is known again. */
export function narrower({ roles, families }: NonNullable<LookLane['only']>): Narrower {
  const wanted = families && new Set<Family>(families);
  const narrow = (values: readonly LookValue[]): LookValue[] => {
    const theirs = roles ? values.filter(({ role }) => role !== undefined && roles.includes(role)) : values;
    return [...(wanted ? inFamilies(theirs, wanted, (name) => attributeOf(name).family) : theirs)];
  };
  return {
    look: once((look: Look) => ({ ...look, values: narrow(look.values) })),
    chase: once((chase: Chase) => ({
      ...chase,
      steps: chase.steps.map((step) => ({ ...step, values: narrow(step.values) })),
    })),
  };
}

/** A change that gives the same object for the same one. */
export function once<One extends object>(make: (one: One) => One): (one: One) => One {
  const known = new WeakMap<One, One>();
  return (one) => {
    const made = known.get(one) ?? make(one);
    known.set(one, made);
    return made;
  };
}
