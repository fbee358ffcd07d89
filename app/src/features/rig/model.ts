import type { Contribution, Darkness } from '@hovlix/core/engine';

/** What keeps a lamp dark, and what to do about it. */
export function darkWords(reason: Darkness): string {
  switch (reason) {
    case 'not-cast':
      return 'It plays no part in this rig. Cast it in one.';
    case 'nothing-speaks':
      return 'Nothing asks it to shine now: no look is on and no clip lies here.';
    case 'level-0':
      return 'What asks for it asks for level 0.';
    case 'master-down':
      return 'The grand master is down.';
    case 'blackout':
      return 'Blackout is on.';
    case 'not-sending':
      return 'Master output is off: nothing is sent at all.';
  }
}

/** One line a source: which attributes it gives, and how much of it counts. The strongest last, as the last one wins. */
export function contributionWords(contributions: readonly Contribution[]): readonly string[] {
  const sources = new Map<string, { attributes: string[]; weight: number }>();
  for (const { source, attribute, values, weight } of contributions) {
    const line = sources.get(source) ?? { attributes: [], weight };
    line.attributes.push(attribute === 'level' ? `level ${Math.round(values[0]! * 100)} %` : attribute);
    line.weight = Math.min(line.weight, weight);
    sources.set(source, line);
  }
  return [...sources].map(
    ([source, { attributes, weight }]) =>
      `${source}: ${attributes.join(', ')}${weight < 0.995 ? ` (${Math.round(weight * 100)} % in)` : ''}`,
  );
}
