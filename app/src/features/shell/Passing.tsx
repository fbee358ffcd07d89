// What the conductor and other screens say in passing, in words.

import { useEffect } from 'react';
import { stepWords } from '@hovlix/core/show';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';

/** A device may have no name of its own: “the computer” begins a sentence with a capital. */
const capital = (name: string) => name.charAt(0).toUpperCase() + name.slice(1);

export function Passing() {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  useEffect(() => {
    const bad = (text: string) => say(text, { tone: 'bad' });
    app.document.onMissed(({ edited }, of) =>
      bad(
        edited.ops.length === 0
          ? `Not applied: ${stepWords(of)}. Somebody changed or removed it meanwhile.`
          : `Only partly applied: ${stepWords(of)}. Somebody changed the rest meanwhile.`,
      ),
    );
    app.conducting.onWord((word) => {
      switch (word.type) {
        case 'not-sent':
          return bad('Not sent: the connection to Hovlix was lost. Press it again when it is back.');
        case 'late':
          // What a microphone hears comes many times a second: the next moment of it is there already.
          if (word.action === 'heard') return;
          return bad('Your press took too long to reach Hovlix and was not played. The network is slow.');
        case 'left':
          return say(`${capital(word.name)} has gone. What it held was released.`);
        case 'put-on':
          return say(`“${word.show}” is on now: ${word.by} put it on.`);
        case 'refused-edit':
          return bad(`Not applied. ${word.why}`);
        case 'refused':
          return bad(word.why);
        case 'parted': {
          const from = app.conducting.store.getState().device ?? 'this computer';
          return void app.shows
            .keepBeside(word.copy, from)
            .then((name) => say(`Your copy no longer matched the one on stage. It is kept in Shows as “${name}”.`));
        }
      }
    });
  }, [app, say]);
  useEffect(() => {
    // Said before it happens: a store that is full takes no more edits.
    void navigator.storage?.estimate?.().then(({ usage = 0, quota = 0 }) => {
      if (quota > 0 && quota - usage < NEARLY_FULL)
        say('Storage on this device is almost full. In Shows, export what you do not need here and delete it.', { tone: 'bad' }); // prettier-ignore
    });
  }, [say]);
  return null;
}

/** Bytes left below which somebody should know: a song or two. */
const NEARLY_FULL = 100e6;
