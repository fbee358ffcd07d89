// Switches, keys, knobs and pedals as this screen sees them: its own, and those of the computer that conducts.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { controlSurface, type ControlSurface, type Felt, type Happened } from '@hovlix/core/gear';
import type { Source } from '@hovlix/core/gig';
import { localSeconds } from '../conduct/local-clock';
import type { Playing } from './act';
import { gearHostOf } from './gear-host';

export type ControlsState = {
  /** Set while a control learns: the next thing that is pressed is taken for it, and does nothing else. */
  readonly learns: ((source: Source) => void) | null;
  readonly happened: Happened | null;
  /** Switches that are down now. */
  readonly down: readonly string[];
};

export type Controls = ControlSurface & {
  readonly store: StoreApi<ControlsState>;
  readonly onFelt: (take: (felt: Felt) => void) => () => void;
};

/** @param clock in seconds; gestures are told apart by it. */
export function controls(stage: Playing, clock: () => number = localSeconds): Controls {
  const store = createStore<ControlsState>(() => ({ learns: null, happened: null, down: [] }));
  const listeners = new Set<(felt: Felt) => void>();
  /** What is held of what is plugged into the computer. */
  const heldThere = new Set<string>();
  const onFelt = (felt: Felt) => {
    for (const listener of listeners) listener(felt);
    const { down } = store.getState();
    if (down.includes(felt.control) !== felt.held)
      store.setState({ down: felt.held ? [...down, felt.control] : down.filter((id) => id !== felt.control) });
  };
  const onHappened = (happened: Happened) => store.setState({ happened });
  const surface = controlSurface({ host: gearHostOf(stage), clock, onFelt, onHappened });
  const { conducting } = stage;

  /** What learned last: a second word about it may come when its sheet is closed already. */
  let lately: ((source: Source) => void) | null = null;
  const listen = (take: ((source: Source) => void) | null) => {
    if ((take !== null) !== (store.getState().learns !== null)) conducting.say({ type: 'learn', on: take !== null });
    surface.learn(take && learned);
    store.setState({ learns: take });
  };
  const learn = (take: ((source: Source) => void) | null) => {
    if (take) lately = null;
    const once = (source: Source) => {
      listen(null);
      lately = take;
      take?.(source);
    };
    listen(take && once);
  };
  const learned = (source: Source) => {
    const { learns } = store.getState();
    // Nothing is learned as such at once: it belongs to what was learned before.
    if ('sends' in source && source.sends === 'toggle') lately?.(source);
    else (learns ?? lately)?.(source);
  };
  // What is plugged into the computer that conducts is shown and learned here like our own.
  conducting.onGear((told) => {
    if (told.type === 'learned') learned(told.source);
    else if (told.type === 'felt') {
      if (told.held) heldThere.add(told.control);
      else heldThere.delete(told.control);
      onFelt({ ...told, at: clock() });
    } else onHappened({ ...told, at: clock() });
  });
  // A conductor that lost this screen has forgotten that it learns, and tells it no more of what is let go.
  conducting.store.subscribe(({ conductor }, before) => {
    if (before.conductor === 'server' && conductor !== 'server') {
      for (const control of heldThere) onFelt({ control, down: false, held: false, at: clock(), gestures: [] });
      heldThere.clear();
    }
    const isBack = conductor !== before.conductor && (conductor === 'server' || conductor === 'browser');
    if (isBack && store.getState().learns) conducting.say({ type: 'learn', on: true });
  });
  return {
    ...surface,
    store,
    learn,
    onFelt(take) {
      listeners.add(take);
      return () => void listeners.delete(take);
    },
  };
}
