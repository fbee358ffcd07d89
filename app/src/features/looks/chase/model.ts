// What a list of steps says, worked out without React.

import { ASPECTS, type Chase, type LookValue, type Step } from '@hovlix/core/light';
import { attributeOf } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';

/** All a step says: the look it is built on, then its own. */
export function valuesOf(show: Show, step: Step): readonly LookValue[] {
  const look = show.looks.find(({ id }) => id === step.look);
  return [...(look?.values ?? []), ...step.values];
}

export function stepName(show: Show, step: Step, place: number): string {
  const look = show.looks.find(({ id }) => id === step.look);
  if (!look) return step.values.length > 0 ? `Step ${place + 1}` : `Step ${place + 1}, dark`;
  return step.values.length > 0 ? `${look.name}, changed` : look.name;
}

/** What is another in a step than in the one before it, by name: roles and what they do. */
export function changesBetween(show: Show, before: Step, after: Step): readonly string[] {
  const [from, to] = [saidIn(valuesOf(show, before)), saidIn(valuesOf(show, after))];
  const keys = [...new Set([...from.keys(), ...to.keys()])].filter((key) => from.get(key) !== to.get(key));
  const roles = new Map<string, string[]>();
  for (const key of keys) {
    const [role = '', aspect = ''] = key.split('\n');
    const name = show.roles.find(({ id }) => id === role)?.name ?? 'single lamps';
    roles.set(name, [...(roles.get(name) ?? []), aspect]);
  }
  return [...roles].map(([role, aspects]) => `${role}: ${[...new Set(aspects)].join(', ')}`);
}

function saidIn(values: readonly LookValue[]): ReadonlyMap<string, string> {
  const said = new Map<string, string>();
  const say = (value: LookValue, aspect: string, what: unknown) => {
    const key = `${value.role ?? ''}\n${aspect}`;
    said.set(key, `${said.get(key) ?? ''}${JSON.stringify([value.pick, value.lamps, what])}`);
  };
  for (const value of values) {
    for (const aspect of ASPECTS) if (value[aspect]) say(value, aspect, value[aspect]);
    for (const [attribute, drive] of Object.entries(value.more ?? {}))
      say(value, attributeOf(attribute).name.toLowerCase(), drive);
    if (value.waves) say(value, 'waves', value.waves);
    if (value.followers) say(value, 'followers', value.followers);
  }
  return said;
}

/** The chase with a step put in after a place (-1: first); a step made so begins as a copy of what it follows. */
export function withStepAfter(chase: Chase, place: number, step: Partial<Step> & { readonly id: Step['id'] }): Chase {
  const model = chase.steps[Math.max(0, place)];
  const fresh: Step = { values: [], fade: 0, hold: 1, level: 1, ...(model ?? {}), ...step };
  return { ...chase, steps: [...chase.steps.slice(0, place + 1), fresh, ...chase.steps.slice(place + 1)] };
}
