import { wordsFor } from '@hovlix/core/problem';
import { useHovlix } from '../host/hovlix';
import { useSession } from '../host/session';
import { WORDS } from './words';

/** Opens .hovlix files; what is wrong with one is said. */
export function useOpenFile(): (files: readonly File[]) => void {
  const { shows } = useHovlix();
  const say = useSession((session) => session.say);
  const one = async (file: File): Promise<void> => {
    const problem = await shows.bringIn(file.name, new Uint8Array(await file.arrayBuffer()));
    if (problem) return say(wordsFor(problem), { tone: 'bad' });
    if (!shows.store.getState().asking) say(WORDS.opened(file.name));
  };
  return (files) => void files.reduce((before, file) => before.then(() => one(file)), Promise.resolve());
}
