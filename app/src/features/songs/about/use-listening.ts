// A file that is listened to, one at a time, and given up when whoever waits for it goes.

import { useEffect, useRef, useState } from 'react';
import { wordsFor } from '@hovlix/core/problem';
import type { Song } from '@hovlix/core/song';
import { analyseFile, type Job } from '../../../host/files/bring-in';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';

export type Listening = {
  /** How much of it is done, 0…1; null while nothing is listened to. */
  readonly share: number | null;
  readonly listen: (file: File) => Promise<Song | undefined>;
  readonly cancel: () => void;
};

export function useListening(): Listening {
  const { repository, player } = useHovlix();
  const say = useSession((session) => session.say);
  const [share, setShare] = useState<number | null>(null);
  const job = useRef<Job | null>(null);
  useEffect(() => () => job.current?.cancel(), []);
  return {
    share,
    cancel: () => job.current?.cancel(),
    async listen(file) {
      if (job.current) return undefined;
      setShare(0);
      job.current = analyseFile(file, repository, setShare);
      const heard = await job.current.done;
      job.current = null;
      setShare(null);
      if (heard.ok) {
        if (heard.value.music) player.came(heard.value.music.hash);
        return heard.value;
      }
      say(wordsFor(heard.problem), { tone: heard.problem.code === 'cancelled' ? 'good' : 'bad' });
      return undefined;
    },
  };
}
