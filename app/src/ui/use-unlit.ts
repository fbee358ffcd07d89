import { unlitPlays } from '@hovlix/core/show';
import { useShow } from '../host/hovlix';
import { WORDS } from './words';

/** What a card or pad says of a look or chase that lights nothing in the rig in use; undefined where it lights something. */
export function useUnlit(play: unknown): string | undefined {
  const unlit = useShow((show) => typeof play === 'string' && unlitPlays(show).has(play));
  return unlit ? WORDS.noLampsInThisRig : undefined;
}
