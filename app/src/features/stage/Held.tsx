// What is held over the show by hand, on every place, and the way to give it back: values, channels, lamps of a check.

import { useHovlix, useLive, useMay, type Hovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Mark } from './Mark';
import { heldWords } from './model';
import { WORDS } from './words';

export function HeldMark() {
  const app = useHovlix();
  const may = useMay('operator');
  const say = useSession((session) => session.say);
  const words = useLive((live) => heldWords(live));
  if (!words) return null;
  const release = () => {
    const undo = releaseAll(app);
    say('Released: the show has its lamps back.', undo ? { undo } : {});
  };
  return (
    <Mark
      look="full"
      words={may ? WORDS.release(words) : words}
      label={may ? WORDS.byHandRelease : WORDS.byHand}
      hint={words}
      onPress={may ? release : undefined}
    />
  );
}

/** Gives everything back. @returns what takes it in hand again. */
function releaseAll({ conducting, draft }: Hovlix): (() => void) | undefined {
  const { live } = conducting.store.getState();
  const { values } = draft.store.getState();
  const { held, test } = live;
  if (live.hands.some((one) => one.on)) draft.close(1);
  if (held.length > 0) conducting.act({ type: 'free-channels', universe: null });
  if (test) conducting.act({ type: 'end-test' });
  const channels = held
    .filter(({ by }) => by === undefined)
    .map(({ universe, address, value }) => ({ universe, address, value }));
  if (values.length === 0 && channels.length === 0) return undefined;
  return () => {
    if (values.length > 0) draft.put(values);
    if (channels.length > 0) conducting.act({ type: 'hold-channels', channels: channels.slice(0, 2000) });
  };
}
