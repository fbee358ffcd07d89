// Acts that are done by the screen itself: it is locked, or what is on is put into the show.

import type { Moment } from '@hovlix/core/live';
import { id } from '@hovlix/core/units';
import { freshId } from '../fresh-id';
import { useSession } from '../session';
import type { Stage } from '../conduct/gestures';

/** A screen with a code of its own is unlocked by that alone. */
export function turnLock(to: 'toggle' | 'on' | 'off'): boolean {
  const { locked, setLocked, pin, say } = useSession.getState();
  const wanted = to === 'toggle' ? !locked : to === 'on';
  if (locked && !wanted && pin !== null) {
    say('This screen is unlocked with its code.', { tone: 'bad' });
    return false;
  }
  setLocked(wanted);
  return true;
}

/** What is on becomes a look, named by its number; it can be named anew later, or taken back at once. */
export async function storeNow({ document }: Pick<Stage, 'document'>, moment: Moment): Promise<void> {
  const { say } = useSession.getState();
  const { lookOfNow } = await import('@hovlix/core/stored');
  const look = lookOfNow(moment, id<'Look'>(freshId()));
  if (!look) return say('Nothing to store: no look is on, and nothing is by hand.', { tone: 'bad' });
  document.make({ type: 'store-look', look });
  say(`“${look.name}” is a look now.`);
}
