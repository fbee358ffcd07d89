import type { Look } from '@hovlix/core/light';

/** One line in plain words on what a look does: which parts, and how it comes. */
export function plainWords(look: Look, parts: readonly { readonly id: string; readonly name: string }[]): string {
  const names = look.values.flatMap((value) => parts.find((part) => part.id === value.part)?.name ?? []);
  const unique = [...new Set(names)];
  const who = unique.length > 2 ? `${unique.length} parts` : unique.join(', ');
  const how = look.fadeIn > 0 ? `fades in ${look.fadeIn} ${look.fadeIn === 1 ? 'beat' : 'beats'}` : 'at once';
  return [how, who, look.keep ? 'stays through songs' : ''].filter(Boolean).join(' · ');
}
