// The one object that holds the hosts together, made once at the app's root and passed down.

import { createContext, useContext, useMemo, useSyncExternalStore } from 'react';
import { useStore } from 'zustand';
import type { Problem } from '@hovlix/core/problem';
import type { Chase, Look } from '@hovlix/core/light';
import type { LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { freshId } from './fresh-id';
import { bringInShow } from './bring-in';
import { conducting, type Conducting, type LinkState } from './conduct';
import { document, type Document } from './document';
import { draft, type Draft, type DraftState } from './draft';
import { light, type Light, type Stage } from './light';
import { connectionsDocument, type ConnectionsDocument, type ConnectionsState } from './connections-document';
import { midi, type Midi } from './midi';
import { microphone, type Microphone } from './microphone';
import { player, type Player } from './player';
import { repository, type Repository } from './repository';
import { deviceStore } from './storage';
import { followSounds } from './sounds';
import { startLightWorker } from './workers';

export type Hovlix = {
  readonly repository: Repository;
  readonly document: Document;
  readonly light: Light;
  readonly conducting: Conducting;
  readonly connections: ConnectionsDocument;
  readonly player: Player;
  readonly microphone: Microphone;
  readonly midi: Midi;
  /** The look in the making. */
  readonly draft: Draft;
  /** Opens what was open last, or the demo. */
  readonly start: () => Promise<Problem | undefined>;
  readonly openDemo: () => Promise<Problem | undefined>;
};

export function hovlix(): Hovlix {
  const kept = repository(deviceStore());
  const doc = document(kept);
  const lamps = light(startLightWorker());
  const link = conducting(doc, lamps, `screen-${freshId().slice(0, 8)}`);
  followSounds(doc, kept, lamps, link);
  const openDemo = async (): Promise<Problem | undefined> => {
    try {
      const response = await fetch('/demo/boathouse.hovlix');
      if (!response.ok) return { code: 'unreachable', what: 'The demo show' };
      return await bringInShow('boathouse.hovlix', new Uint8Array(await response.arrayBuffer()), kept, doc);
    } catch {
      return { code: 'unreachable', what: 'The demo show' };
    }
  };
  return {
    repository: kept,
    document: doc,
    light: lamps,
    conducting: link,
    connections: connectionsDocument(link),
    player: player(kept, doc, link),
    microphone: microphone(link),
    midi: midi(),
    draft: draft(doc, link),
    openDemo,
    async start() {
      // A scanned code has done its work, or is of no use any more: it does not stay in the address.
      if (/^#\d{6}$/.test(window.location.hash)) window.history.replaceState(null, '', window.location.pathname);
      const id = await kept.currentId();
      const last = id === null ? undefined : await kept.load(id);
      const problem = last?.ok ? await doc.open(last.value) : await openDemo();
      void link.start();
      return last && !last.ok ? last.problem : problem;
    },
  };
}

const Context = createContext<Hovlix | null>(null);
export const HovlixProvider = Context.Provider;

export function useHovlix(): Hovlix {
  const value = useContext(Context);
  if (!value) throw new Error('There is no HovlixProvider above this component');
  return value;
}

/** A part of the open show; undefined until one is open. `pick` must give the same object for the same show. */
export function useShow<T>(pick: (show: Show) => T): T | undefined {
  return useStore(useHovlix().document.store, ({ history }) => (history ? pick(history.show) : undefined));
}

/** Everything that can stand or lie on a lane: looks, then chases. The same list for the same show. */
export function usePlays(): readonly (Look | Chase)[] {
  const looks = useShow((show) => show.looks);
  const chases = useShow((show) => show.chases);
  return useMemo(() => [...(looks ?? []), ...(chases ?? [])], [looks, chases]);
}

export function useLive<T>(pick: (live: LiveState) => T): T {
  return useStore(useHovlix().conducting.store, ({ live }) => pick(live));
}

export function useLink<T>(pick: (link: LinkState) => T): T {
  return useStore(useHovlix().conducting.store, pick);
}

export function useConnections<T>(pick: (state: ConnectionsState) => T): T {
  return useStore(useHovlix().connections.store, pick);
}

export function useDraft<T>(pick: (draft: DraftState) => T): T {
  return useStore(useHovlix().draft.store, pick);
}

export function useStage(): Stage {
  const { light: lamps } = useHovlix();
  return useSyncExternalStore(lamps.onStage, lamps.stage);
}
