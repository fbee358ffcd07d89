import { finder } from '@hovlix/core/letters';
import { familiesOf, mainColour, movingWords, type Chase, type Look } from '@hovlix/core/light';
import { hexFromChromaticity } from '@hovlix/core/colour';
import { attributeOf } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { inOrder } from '../../ui/in-order';

type Named = readonly { readonly id: string; readonly name: string }[];

export const isChase = (one: Look | Chase): one is Chase => 'steps' in one;

/** One line in plain words on what a look or a chase does: how it comes, who is in it, what moves. */
export function plainWords(one: Look | Chase, roles: Named): string {
  const values = isChase(one) ? one.steps.flatMap((step) => step.values) : one.values;
  const names = values.flatMap((value) => roles.find((role) => role.id === value.role)?.name ?? []);
  const unique = [...new Set(names)];
  const who = unique.length > 2 ? `${unique.length} roles` : unique.join(', ');
  const how = one.fadeIn > 0 ? `fades in ${one.fadeIn} ${one.fadeIn === 1 ? 'beat' : 'beats'}` : 'at once';
  const moving = movingWords(values);
  const steps = isChase(one) ? `chase, ${one.steps.length} ${one.steps.length === 1 ? 'step' : 'steps'}` : '';
  return [steps, how, who, moving, one.keep ? 'stays through songs' : ''].filter(Boolean).join(' · ');
}

/** Looks and chases in their own order, looks first, that fit a search and a choice of role or folder. */
export function shownPlays(
  show: Show,
  text: string,
  filter: { readonly role?: string; readonly folder?: string; readonly kind?: 'chases' },
): readonly (Look | Chase)[] {
  const found = finder(text);
  const fits = (one: Look | Chase) => {
    if (filter.kind === 'chases' && !isChase(one)) return false;
    if (filter.folder !== undefined && one.folder !== filter.folder) return false;
    const values = isChase(one)
      ? one.steps.flatMap((step) => [...step.values, ...(show.looks.find(({ id }) => id === step.look)?.values ?? [])])
      : one.values;
    if (filter.role !== undefined && !values.some((value) => value.role === filter.role)) return false;
    if (text.trim() === '') return true;
    const attributes = values.flatMap((value) => [...familiesOf(value, (name) => attributeOf(name).family)]);
    const names = [one.name, String(one.number), one.folder ?? '', ...attributes, plainWords(one, show.roles)].join(
      ' ',
    );
    return found(names);
  };
  return [...show.looks, ...show.chases].filter(fits);
}

export function foldersOf(show: Show): readonly string[] {
  const names = [...show.looks, ...show.chases].flatMap(({ folder }) => folder ?? []);
  return [...new Set(names)].sort(inOrder);
}

/** The colour a look is known by, for pickers; undefined for one without any. */
export function mainHex(look: Look): string | undefined {
  const colour = mainColour(look.values);
  return colour && hexFromChromaticity(colour);
}

/** All that the steps of a chase say. */
export function valuesInSteps(show: Show, { steps }: Chase): Look['values'] {
  const looks = new Set<string>(steps.flatMap(({ look }) => look ?? []));
  return [
    ...show.looks.filter(({ id }) => looks.has(id)).flatMap(({ values }) => values),
    ...steps.flatMap(({ values }) => values),
  ];
}
