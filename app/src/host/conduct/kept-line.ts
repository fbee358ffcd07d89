// One line to a conductor, begun anew each time it is lost.

import { localSeconds } from './local-clock';
import { SENT_AWAY, type OpenLine, type OwnLine } from './lines';

const AGAIN_MS = 1000;
/** The conductor says something every second: silence of this length is a dead line. */
const DEAD_MS = 2500;
/** So long it may take to open a line, to be greeted and to get the show: over a bad Wi-Fi each of them is seconds. */
const GREETED_MS = 15_000;
/** How often the line is looked at. */
export const LOOK_MS = 400;

type Told = {
  /** The line is open, and what has to be known for a greeting is there. */
  readonly opened: () => void;
  readonly heard: (text: string) => void;
  readonly lost: () => void;
  /** Ends once a greeting can be made; undefined where it can be at once. */
  readonly ready: () => Promise<unknown> | undefined;
};

export type KeptLine = {
  readonly send: (text: string) => void;
  readonly connect: (open: OpenLine) => void;
  readonly leave: () => void;
  /** All that a screen has to know has come. */
  readonly settled: () => void;
  /**
   * Gives up a line that is silent, or takes too long to begin: not the first one, which has all the time it needs.
   * @returns whether there is one, and nothing is wrong with it.
   */
  readonly look: (greetedOnce: boolean) => boolean;
};

export function keptLine({ opened, heard, lost, ready }: Told): KeptLine {
  let line: OwnLine | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  let heardAt = 0;
  /** Since when a line is being opened and greeted; undefined once it is settled. */
  let openingAt: number | undefined;
  let lookedAt = 0;
  /** The last look came late, and was none. */
  let spared = false;

  const connect = (open: OpenLine) => {
    clearTimeout(again);
    const begin = () => {
      if (line !== mine) return;
      heardAt = localSeconds();
      opened();
    };
    const mine: OwnLine = open({
      opened: () => {
        const waits = ready();
        if (waits) void waits.then(begin);
        else begin();
      },
      heard(text) {
        if (line !== mine) return;
        heardAt = localSeconds();
        heard(text);
      },
      closed(code) {
        if (line !== mine) return;
        if (code === SENT_AWAY) return window.location.reload();
        line = undefined;
        lost();
        again = setTimeout(() => connect(open), AGAIN_MS);
      },
    });
    line = mine;
    openingAt = localSeconds();
    mine.start();
  };

  return {
    send: (text) => line?.send(text),
    connect,
    leave() {
      clearTimeout(again);
      const gone = line;
      line = undefined;
      gone?.close();
    },
    settled: () => void (openingAt = undefined),
    look(greetedOnce) {
      const at = localSeconds();
      // A page that was busy for long has not heard yet what came meanwhile: it looks once more before it believes in silence.
      spared = !spared && at - lookedAt > (2 * LOOK_MS) / 1000;
      lookedAt = at;
      if (!line || spared || !greetedOnce) return false;
      const [since, most] = openingAt === undefined ? [heardAt, DEAD_MS] : [openingAt, GREETED_MS];
      if (at - since > most / 1000) {
        line.fail();
        return false;
      }
      return openingAt === undefined;
    },
  };
}
