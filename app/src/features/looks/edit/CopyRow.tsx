// What some lamps do, given to others.

import { create } from 'zustand';
import { heardBy, saidAgain, setsAnything, type LookValue } from '@hovlix/core/light';
import { rigInUse, type Show } from '@hovlix/core/show';
import { useDraft, useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { WORDS } from './words';

/** What was copied last in this window; it outlives a change of lamps and of looks. */
const useCopied = create<{ readonly value: LookValue | null; readonly put: (value: LookValue) => void }>((set) => ({
  value: null,
  put: (value) => set({ value }),
}));

export function CopyRow({ show }: { readonly show: Show }) {
  const { draft } = useHovlix();
  const say = useSession((session) => session.say);
  const values = useDraft((state) => state.values);
  const count = useDraft((state) => state.chosen.length);
  const { value: copied, put } = useCopied();
  const who = draft.whos()[0];
  const heard = who && heardBy(values, who, rigInUse(show).casting);
  const copy = () => {
    if (!heard) return;
    put(heard);
    say(WORDS.copiedChooseOther);
  };
  const paste = () => {
    if (!copied) return;
    draft.say(saidAgain(copied, values));
    say(WORDS.theSameNow(count, count === 1 ? 'lamp does' : 'lamps do'), { undo: () => void draft.undo() });
  };
  return (
    <>
      {heard && setsAnything(heard) && (
        <Chip small name={WORDS.copy} label={WORDS.copyWhatThese} on={false} onPress={copy} />
      )}
      {copied && <Chip small name={WORDS.paste} label={WORDS.pasteOntoThese} on={false} onPress={paste} />}
    </>
  );
}
