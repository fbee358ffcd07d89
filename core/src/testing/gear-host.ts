// A host of gear without a page: it conducts the test show by itself, and keeps what it has acted.

import { actionsSince, inTurn, timersOf, type GearHost } from '../gear';
import { AT_REST, reduced, type Action, type LiveState } from '../live';
import type { Show } from '../show';
import { seconds } from '../units';
import { testShow } from './show';

/** @param clock seconds; Jest's own clock where it is left out. */
export function testHost(first: Show = testShow(), clock: () => number = () => performance.now() / 1000) {
  let show = first;
  let live: LiveState = AT_REST;
  const acted: Action[] = [];
  const moment = () => ({ show, live, now: seconds(clock()) });
  const host: GearHost = {
    moment,
    press: moment,
    now: () => seconds(clock()),
    act(action) {
      acted.push(action);
      live = reduced(live, { seq: live.seq + 1, at: seconds(clock()), who: 'me', action });
    },
    doActs: (acts, down, at) =>
      inTurn(host, acts, (act) => actionsSince(moment(), act, down, clock() - at).forEach(host.act)),
    time: timersOf<NodeJS.Timeout>(globalThis),
  };
  return {
    host,
    acted,
    state: () => live,
    now: host.now,
    put: (next: Show) => void (show = next),
    on: () => live.standing.filter((one) => one.on).map(({ look }) => look as string),
  };
}
