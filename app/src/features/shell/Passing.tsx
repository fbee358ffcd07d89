// What the conductor and other screens say in passing, in words.

import { useEffect } from 'react';
import { stepWords } from '@hovlix/core/show';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { capital } from '../../ui/capital';
import { WORDS } from './words';

export function Passing() {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  useEffect(() => {
    const bad = (text: string) => say(text, { tone: 'bad' });
    app.document.onMissed(({ edited }, of) =>
      bad(edited.ops.length === 0 ? WORDS.notAppliedSomebody(stepWords(of)) : WORDS.onlyPartlyApplied(stepWords(of))),
    );
    app.conducting.onWord((word) => {
      switch (word.type) {
        case 'not-sent':
          return bad(WORDS.notSentConnection);
        case 'late':
          // What a microphone hears comes many times a second: the next moment of it is there already.
          if (word.action === 'heard') return;
          return bad(WORDS.yourPressTook);
        case 'left':
          // A device may have no name of its own: “the computer”.
          return say(WORDS.hasGoneWhat(capital(word.name)));
        case 'put-on':
          return say(WORDS.nowPut(word.show, word.by));
        case 'refused-edit':
          return bad(WORDS.notApplied(word.why));
        case 'refused':
          return bad(word.why);
        case 'parted': {
          const from = app.conducting.store.getState().device ?? 'this computer';
          return void app.shows.keepBeside(word.copy, from).then((name) => say(WORDS.yourCopyNo(name)));
        }
      }
    });
  }, [app, say]);
  useEffect(() => {
    // Said before it happens: a store that is full takes no more edits.
    void navigator.storage?.estimate?.().then(({ usage = 0, quota = 0 }) => {
      if (quota > 0 && quota - usage < NEARLY_FULL) say(WORDS.storageDeviceAlmost, { tone: 'bad' });
    });
  }, [say]);
  return null;
}

/** Bytes left below which somebody should know: a song or two. */
const NEARLY_FULL = 100e6;
