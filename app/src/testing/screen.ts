// A screen without a page: it conducts the test show by itself, and keeps what it has acted.

import { createStore } from 'zustand/vanilla';
import { AT_REST, reduced, type Action, type LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { testShow } from '../../../core/src/testing/show';

/** MIDI that comes in from a device, at a moment of the page's own clock. */
export type Bytes = (device: string, data: readonly number[], at: number) => void;

export function bareScreen(show: Show = testShow()) {
  const live: { live: LiveState } = { live: AT_REST };
  const acted: Action[] = [];
  const conducting = {
    screen: 'me',
    store: createStore(() => live),
    now: () => seconds(performance.now() / 1000),
    act(action: Action) {
      acted.push(action);
      const { live: now } = conducting.store.getState();
      conducting.store.setState({ live: reduced(now, { seq: now.seq + 1, at: conducting.now(), who: 'me', action }) });
    },
  };
  const document = { store: createStore(() => ({ show })) };
  const stage = { conducting, document, player: {} } as never;
  return { stage, acted, state: () => conducting.store.getState().live, now: conducting.now };
}
