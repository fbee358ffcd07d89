// Acts that are done by the screen itself: it is locked, or what is on is put into the show.

import { Look } from '@hovlix/core/light';
import { valuesNow, type Moment } from '@hovlix/core/live';
import { nextNumber, rigInUse } from '@hovlix/core/show';
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
export function storeNow({ document }: Pick<Stage, 'document'>, moment: Moment): boolean {
  const { say } = useSession.getState();
  const { show } = moment;
  const values = valuesNow(moment, rigInUse(show).casting);
  if (values.length === 0) {
    say('Nothing to store: no look is on, and nothing is by hand.', { tone: 'bad' });
    return false;
  }
  const number = nextNumber(show);
  const name = `Look ${number}`;
  const look = Look.parse({ id: freshId(), number, name, fadeIn: 1, fadeOut: 1, values });
  document.make({ type: 'store-look', look });
  say(`“${name}” is a look now.`);
  return true;
}
