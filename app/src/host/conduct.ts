// The link to the conductor: the server when there is one, else the light worker. Screens act through it and follow it.

import { createStore, type StoreApi } from 'zustand/vanilla';
import {
  AT_REST,
  clockOffset,
  PROTOCOL,
  readMessage,
  reduced,
  ToScreen,
  type Action,
  type Entry,
  type FromScreen,
  type LiveState,
} from '@hovlix/core/live';
import { seconds, type Seconds } from '@hovlix/core/units';
import type { Document } from './document';
import type { Light } from './light';
import { localSeconds } from './local-clock';

export type LinkState = {
  readonly live: LiveState;
  /** Who conducts: this browser alone, the server, or a server that has gone and is being looked for. */
  readonly conductor: 'looking' | 'browser' | 'server' | 'lost';
  /** The last thing the conductor refused, in its words. */
  readonly refused: string | null;
};

/** Levels of one universe as they leave the computer. */
export type Levels = { readonly universe: number; readonly levels: Uint8Array };

export type Conducting = {
  readonly store: StoreApi<LinkState>;
  readonly act: (action: Action) => void;
  /** The conductor's clock. */
  readonly now: () => Seconds;
  /** Looks for a server where this page came from. */
  readonly start: () => Promise<void>;
  readonly say: (message: FromScreen) => void;
  /** This screen's own name among the screens. */
  readonly screen: string;
  /** The connections of the conductor's computer, each time they change. */
  readonly onConnections: (take: (connections: unknown, revision: number) => void) => void;
  /** Shows a universe as it goes out while subscribed; one at a time on each screen. */
  readonly watch: (universe: number, take: (levels: Levels) => void) => () => void;
};

const AGAIN_MS = 2000;
const PINGS = 6;
const PING_EVERY_MS = 10000;
/** A screen that woke up waits so long for its socket to answer before it takes a new one. */
const AWAKE_WITHIN_MS = 1500;
/** The host sent this device away. */
const SENT_AWAY = 4001;

export function conducting(document: Document, light: Light, screen: string): Conducting {
  const store = createStore<LinkState>(() => ({ live: AT_REST, conductor: 'looking', refused: null }));
  let socket: WebSocket | undefined;
  let offset = 0;
  let exchanges: { sent: number; now: number; received: number }[] = [];
  let heardAt = 0;
  let takeConnections: (connections: unknown, revision: number) => void = () => undefined;
  let watched: { readonly universe: number; readonly take: (levels: Levels) => void } | undefined;

  const now = () => seconds(localSeconds() + offset);
  const say = (message: FromScreen) => {
    if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify(message));
  };
  const served = () => store.getState().conductor === 'server';
  const take = (entry: Entry) => store.setState(({ live }) => ({ live: reduced(live, entry) }));
  light.onEntry(take);

  document.onChange((kept, change) => {
    light.tell({ type: 'show', show: kept.show });
    if (!served()) return;
    if (change) say({ type: 'edit', patches: change.patches as never, revision: change.from });
    else if (!following) say({ type: 'show', show: { ...kept.show }, revision: kept.revision });
  });
  /** True while a change came from the conductor itself and must not be sent back to it. */
  let following = false;
  const follow = (work: () => void) => {
    following = true;
    work();
    following = false;
  };

  const opened = () => {
    const { history, revision } = document.store.getState();
    say({ type: 'hello', protocol: PROTOCOL, screen, show: history ? { id: history.show.id, revision } : null });
    exchanges = [];
    ping();
  };
  const ping = () => say({ type: 'ping', sent: localSeconds() });

  const heard = (text: string) => {
    const read = readMessage(ToScreen, text);
    if (!read.ok) return store.setState({ refused: read.why });
    const message = read.value;
    switch (message.type) {
      case 'welcome': {
        if (exchanges.length === 0) offset = message.now - localSeconds();
        light.tell({ type: 'clock', offset });
        light.tell({ type: 'state', state: message.state });
        store.setState({ conductor: 'server', live: message.state, refused: null });
        if (watched) say({ type: 'watch', universe: watched.universe });
        const { history, revision } = document.store.getState();
        const mine = history && { id: history.show.id as string, revision };
        const behind = mine && (!message.show || message.show.id !== mine.id || message.show.revision < mine.revision);
        if (behind) say({ type: 'show', show: { ...history.show }, revision });
        return;
      }
      case 'pong':
        exchanges = [...exchanges.slice(1 - PINGS), { sent: message.sent, now: message.now, received: localSeconds() }];
        offset = clockOffset(exchanges);
        light.tell({ type: 'clock', offset });
        if (exchanges.length < PINGS) ping();
        return;
      case 'entries':
        for (const entry of message.entries) {
          take(entry);
          light.tell({ type: 'entry', entry });
        }
        return;
      case 'show':
        return follow(() => document.follow(message.show, message.revision));
      case 'edit':
        return follow(() => document.followPatches(message.patches as never, message.revision));
      case 'connections':
        return takeConnections(message.connections, message.revision);
      case 'levels': {
        const levels = levelsFromHex(message.levels);
        if (watched?.universe === message.universe) watched.take({ universe: message.universe, levels });
        if (message.merged) light.tell({ type: 'theirs', universe: message.universe, levels });
        return;
      }
      case 'refused':
        return store.setState({ refused: message.why });
    }
  };

  const connect = () => {
    const { protocol, host } = window.location;
    socket = new WebSocket(`${protocol === 'https:' ? 'wss' : 'ws'}://${host}/conductor`);
    socket.onopen = opened;
    socket.onmessage = (event) => {
      heardAt = localSeconds();
      heard(String(event.data));
    };
    socket.onclose = ({ code }) => {
      if (code === SENT_AWAY) return window.location.reload();
      // The worker takes over from the same state and the same clock, so the picture goes on.
      store.setState({ conductor: 'lost' });
      setTimeout(connect, AGAIN_MS);
    };
  };

  /** A screen that slept has an old clock and perhaps a dead socket, which nobody told it of. */
  const awake = () => {
    if (window.document.visibilityState !== 'visible' || !served()) return;
    const asked = localSeconds();
    exchanges = [];
    ping();
    setTimeout(() => heardAt < asked && socket?.close(), AWAKE_WITHIN_MS);
  };

  return {
    store,
    now,
    act(action) {
      if (served()) say({ type: 'act', action });
      else light.tell({ type: 'act', who: screen, action });
    },
    async start() {
      if (!(await hasServer())) return store.setState({ conductor: 'browser' });
      connect();
      setInterval(ping, PING_EVERY_MS);
      window.document.addEventListener('visibilitychange', awake);
      window.addEventListener('online', awake);
    },
    say,
    screen,
    onConnections: (take) => {
      takeConnections = take;
    },
    watch(universe, take) {
      const mine = { universe, take };
      watched = mine;
      say({ type: 'watch', universe });
      return () => {
        if (watched !== mine) return;
        watched = undefined;
        say({ type: 'watch', universe: null });
      };
    },
  };
}

function levelsFromHex(text: string): Uint8Array {
  const levels = new Uint8Array(512);
  for (let i = 0; i < 512; i++) levels[i] = Number.parseInt(text.slice(i * 2, i * 2 + 2), 16) || 0;
  return levels;
}

/** A static host answers with a page or a 404; our server with its status, or that this device has to join first. */
async function hasServer(): Promise<boolean> {
  try {
    const response = await fetch('/api/status', { cache: 'no-store' });
    if (response.status === 401) window.location.reload();
    return response.ok && (response.headers.get('content-type') ?? '').includes('json');
  } catch {
    return false;
  }
}
