// The conductor's clock as this screen knows it.

import { clockOf } from '@hovlix/core/live';
import { seconds, type Seconds } from '@hovlix/core/units';
import { localSeconds } from './local-clock';

const PINGS = 6;
/** While the clock may be further off than this, in seconds, it is asked again at every look. */
const SURE = 0.1;

export type ConductorsClock = {
  readonly now: () => Seconds;
  /** Seconds that it is ahead of this screen's. */
  readonly offset: () => number;
  /** How far off that can be at most, in seconds: a page that loads, and a slow line, hear late. */
  readonly doubt: () => number;
  /** Whether it is known well enough. */
  readonly isSure: () => boolean;
  /** Nothing is known of the clock at the other end of a new line. */
  readonly begin: () => void;
  /** What the greeting says, until there are exchanges. */
  readonly greeted: (now: number) => void;
  readonly answered: (answer: { readonly sent: number; readonly now: number }) => void;
  readonly askIfUnsure: () => void;
};

/** @param ask sends a question with the time it is sent at. */
export function conductorsClock(ask: (sent: number) => void): ConductorsClock {
  let offset = 0;
  let doubt = Infinity;
  let exchanges: readonly { readonly sent: number; readonly now: number; readonly received: number }[] = [];
  return {
    now: () => seconds(localSeconds() + offset),
    offset: () => offset,
    doubt: () => doubt,
    isSure: () => doubt <= SURE,
    begin() {
      exchanges = [];
      doubt = Infinity;
    },
    greeted(now) {
      if (exchanges.length === 0) offset = now - localSeconds();
    },
    answered({ sent, now }) {
      exchanges = [...exchanges.slice(1 - PINGS), { sent, now, received: localSeconds() }];
      ({ offset, doubt } = clockOf(exchanges));
      if (exchanges.length < PINGS) ask(localSeconds());
    },
    askIfUnsure() {
      if (doubt > SURE) ask(localSeconds());
    },
  };
}
