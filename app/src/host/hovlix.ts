// The one object that holds the hosts together, made once at the app's root and passed down.

import { createContext, useContext, useMemo, useSyncExternalStore } from 'react';
import { useStore } from 'zustand';
import { lightPads } from '@hovlix/core/gear';
import { failed, wordsFor, type Problem } from '@hovlix/core/problem';
import type { Chase, Look } from '@hovlix/core/light';
import { maySay, type LiveState, type Right } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { conducting, type Conducting, type LinkState } from './conduct/conduct';
import { controls, type Controls } from './controls/controls';
import { bareHostOf } from './controls/bare-host';
import { followGameButtons } from './controls/game-buttons';
import { connectionsDocument, type ConnectionsDocument, type ConnectionsState } from './document/connections-document';
import { document, type Document } from './document/document';
import { draft, type Draft, type DraftState } from './document/draft';
import { repository, storageProblem, type Music, type Repository } from './document/repository';
import { shows, type Shows, type ShowsState } from './document/shows';
import { deviceStore } from './document/storage';
import { followDemo } from './files/demo-music';
import { intake, type Intake } from './files/intake';
import { freshId } from './fresh-id';
import { light, type Light, type Stage } from './light/light';
import { outside, type Outside } from './midi/outside';
import { midi, type Midi } from './midi/midi';
import { useSession } from './session';
import { click, type Click } from './sound/click';
import { followDeeds } from './sound/deeds';
import { microphone, type Microphone } from './sound/microphone';
import { player, type Player } from './sound/player';
import { followSounds, type Sounds } from './sound/sounds';
import { startLightWorker } from './workers';

export type Hovlix = {
  readonly repository: Repository;
  readonly document: Document;
  /** Music by its hash, also where it is still on its way to this device; undefined where it does not come. */
  readonly musicOf: (hash: string) => Promise<Music | undefined>;
  /** Whether music is on this device; said once what is on its way has come. */
  readonly hasMusic: (hash: string) => Promise<boolean>;
  /** The shows on this device. */
  readonly shows: Shows;
  readonly light: Light;
  /** What followers hear in songs. */
  readonly sounds: Sounds;
  readonly conducting: Conducting;
  readonly connections: ConnectionsDocument;
  /** Recordings that are brought in. */
  readonly intake: Intake;
  readonly player: Player;
  readonly click: Click;
  readonly microphone: Microphone;
  readonly midi: Midi;
  /** Pedals, keys and knobs. */
  readonly controls: Controls;
  /** The MIDI clock that comes in. */
  readonly outside: Outside;
  /** The look in the making. */
  readonly draft: Draft;
  /** Looks for the conductor; where there is none and nothing was open, opens the demo. */
  readonly start: () => Promise<Problem | undefined>;
};

export function hovlix(): Hovlix {
  const name = freshId().slice(0, 8);
  const kept = repository(deviceStore(), name);
  const doc = document(kept);
  const lamps = light(startLightWorker());
  const link = conducting(doc, lamps, `screen-${name}`);
  const demoMusic = followDemo(doc, kept, (problem) => useSession.getState().say(wordsFor(problem), { tone: 'bad' }));
  const sounds = followSounds(doc, kept, lamps, link);
  followPresses(doc);
  const sound = player(kept, doc, link, demoMusic.bring);
  const all = shows({ repository: kept, document: doc, conducting: link, came: sound.came });
  const ways = connectionsDocument(link);
  /** The computer that conducts listens to its MIDI ports itself: a page on it would hear everything twice. */
  const yields = () => {
    const { conductor, device } = link.store.getState();
    return conductor === 'server' && device === null && (ways.store.getState().connections?.midi?.on ?? false);
  };
  const gear = midi(yields);
  followDeeds(doc, link, sound, gear);
  const incoming = intake(doc, kept, sound.came);
  followShow(doc, incoming);
  const stage = { document: doc, conducting: link, player: sound };
  const pedals = controls(stage);
  gear.onHeard(pedals.message);
  followGameButtons(pedals, doc);
  let dark: (() => void) | undefined;
  gear.store.subscribe(({ state }) => {
    if ((state === 'on') === (dark !== undefined)) return;
    dark = dark ? void dark() : lightPads(bareHostOf(stage), gear, () => !yields());
  });
  return {
    repository: kept,
    document: doc,
    async musicOf(hash) {
      if (!(await kept.hasMusic(hash))) await demoMusic.bring();
      return kept.music(hash);
    },
    async hasMusic(hash) {
      if (await kept.hasMusic(hash)) return true;
      await demoMusic.settled();
      return kept.hasMusic(hash);
    },
    shows: all,
    light: lamps,
    sounds,
    conducting: link,
    connections: ways,
    intake: incoming,
    player: sound,
    click: click(doc, link),
    microphone: microphone(link),
    midi: gear,
    controls: pedals,
    outside: outside(stage, gear, yields),
    draft: draft(doc, link),
    async start() {
      // A scanned code has done its work, or is of no use any more: it does not stay in the address.
      if (/^#\d{6}$/.test(window.location.hash)) window.history.replaceState(null, '', window.location.pathname);
      if (useSession.getState().midi) void gear.start(stage);
      const reading = kept
        .currentId()
        .then((id) => (id === null ? undefined : kept.load(id)))
        // A store that cannot be read is told of, and keeps nobody from the light.
        .catch((error: unknown) => failed(storageProblem(error)));
      await link.start(reading.then((last) => (last?.ok ? last.value : undefined)));
      const last = await reading;
      // What could not be cleared away is, the next time.
      void kept.sweep().then(all.refresh, () => undefined);
      // A page from any web host shows at once what Hovlix is.
      if (!last && (await link.joined()).conductor === 'browser') return all.openDemo();
      return last && !last.ok ? last.problem : undefined;
    },
  };
}

/** Files that waited for a show are taken up when it is open. */
function followShow({ store }: Document, { resume }: Intake): void {
  store.subscribe(({ show }, before) => {
    if (show && show.id !== before.show?.id) void resume();
  });
}

/** What is done while a finger is down is one gesture. */
function followPresses({ press, lift }: Document): void {
  window.addEventListener('pointerdown', press, true);
  for (const end of ['pointerup', 'pointercancel', 'blur']) window.addEventListener(end, lift, true);
}

const Context = createContext<Hovlix | null>(null);
export const HovlixProvider = Context.Provider;

export function useHovlix(): Hovlix {
  const value = useContext(Context);
  if (!value) throw new Error('There is no HovlixProvider above this component');
  return value;
}

/** Something of the open show; undefined until one is open. `pick` must give the same object for the same show. */
export function useShow<T>(pick: (show: Show) => T): T | undefined {
  return useStore(useHovlix().document.store, ({ show }) => (show ? pick(show) : undefined));
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

export function useShows<T>(pick: (shows: ShowsState) => T): T {
  return useStore(useHovlix().shows.store, pick);
}

export function useConnections<T>(pick: (state: ConnectionsState) => T): T {
  return useStore(useHovlix().connections.store, pick);
}

export function useDraft<T>(pick: (draft: DraftState) => T): T {
  return useStore(useHovlix().draft.store, pick);
}

/** Whether this device may do what a right allows. */
export function useMay(right: Right): boolean {
  const may = useLink((link) => link.may);
  return right === 'operator' ? maySay(may, { type: 'edit' }) : right === 'player' ? may !== 'viewer' : true;
}

export function useStage(): Stage {
  const { light: lamps } = useHovlix();
  return useSyncExternalStore(lamps.onStage, lamps.stage);
}
