// Screens on WebSockets: each message is checked, answered, and passed on to the others.

import type { IncomingMessage, Server } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import { FromScreen, PROTOCOL, readMessage, type ToScreen } from '@hovlix/core/live';
import { now } from '../clock';
import type { ConnectionsStore } from '../connect/store';
import type { Session } from './session';

const MOST_BYTES = 32 * 1024 * 1024;
/** A screen may send so many messages a second; a dragged fader sends 60. */
const MOST_PER_SECOND = 300;
/** A screen that takes its messages slower than this is closed; it comes back and gets a snapshot. */
const MOST_WAITING = 64 * 1024 * 1024;
/** A screen that has so much waiting gets no more levels: the newest will do when it has caught up. */
const LEVELS_WAITING = 64 * 1024;
const MOST_SCREENS = 64;
const MOST_SCREENS_A_DEVICE = 8;
const HEARTBEAT_MS = 10_000;

/** Who asks to come in: a screen of this computer, or a device that has joined. */
export type Visitor = { readonly device: { readonly id: string; readonly name: string } | null };

export type Hub = {
  /** Takes the screens of one more server. `admit` says who a request is; undefined for somebody else. */
  readonly attach: (server: Server, admit: (request: IncomingMessage) => Visitor | undefined) => void;
  readonly screens: (device?: string) => number;
  /** Ends what a device has open. */
  readonly sendAway: (device: string) => void;
  readonly showLevels: (universe: number, levels: Uint8Array, merged: boolean) => void;
  readonly close: () => void;
};

/** @param watch is told which universes screens want to see. */
export function startHub(
  session: Session,
  connections: ConnectionsStore,
  watch: (universes: readonly number[]) => void,
): Hub {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_BYTES });
  const visitors = new Map<WebSocket, Visitor>();
  const watching = new Map<WebSocket, number>();
  const answered = new WeakSet<WebSocket>();
  const screens = (device?: string) =>
    device === undefined
      ? visitors.size
      : [...visitors.values()].filter((visitor) => visitor.device?.id === device).length;

  const tell = (screen: WebSocket, message: ToScreen) => {
    if (screen.readyState !== screen.OPEN) return;
    if (screen.bufferedAmount > MOST_WAITING) return screen.terminate();
    screen.send(JSON.stringify(message));
  };
  const tellOthers = (than: WebSocket | undefined, message: ToScreen) => {
    for (const screen of sockets.clients) if (screen !== than) tell(screen, message);
  };
  const tellWatch = () => watch([...new Set(watching.values())]);
  const connectionsMessage = (): ToScreen => ({
    type: 'connections',
    connections: { ...connections.connections() },
    revision: connections.revision(),
  });
  connections.onChange(() => tellOthers(undefined, connectionsMessage()));

  // A phone that fell asleep says nothing, not even goodbye.
  const heartbeat = setInterval(() => {
    for (const screen of sockets.clients) {
      if (!answered.has(screen)) screen.terminate();
      answered.delete(screen);
      if (screen.readyState === screen.OPEN) screen.ping();
    }
  }, HEARTBEAT_MS);

  function meet(screen: WebSocket, visitor: Visitor): void {
    visitors.set(screen, visitor);
    answered.add(screen);
    let who = visitor.device?.name ?? 'a screen';
    let allowance = MOST_PER_SECOND;
    const refill = setInterval(() => (allowance = MOST_PER_SECOND), 1000);
    screen.on('pong', () => answered.add(screen));
    screen.on('close', () => {
      clearInterval(refill);
      visitors.delete(screen);
      if (watching.delete(screen)) tellWatch();
    });
    screen.on('error', () => screen.terminate());
    screen.on('message', (data, binary) => {
      if (allowance-- <= 0)
        return allowance === -1 ? tell(screen, refused('Too many messages in a second.')) : undefined;
      if (binary) return tell(screen, refused('The message is not text.'));
      const read = readMessage(FromScreen, data.toString());
      if (!read.ok) return tell(screen, refused(read.why));
      const message = read.value;
      switch (message.type) {
        case 'hello':
          who = visitor.device?.name ?? message.screen;
          return welcome(screen, message.show);
        case 'ping':
          return tell(screen, { type: 'pong', sent: message.sent, now: now() });
        case 'act':
          return tellOthers(undefined, { type: 'entries', entries: [session.act(who, message.action)] });
        case 'show': {
          const why = session.open(message.show, message.revision);
          if (why) return tell(screen, refused(why));
          return tellOthers(screen, { type: 'show', show: message.show, revision: message.revision });
        }
        case 'edit':
          return edited(screen, message);
        case 'connections-edit': {
          const outcome = connections.edit(message.patches, message.revision);
          if (outcome === 'done') return;
          if (outcome !== 'stale') tell(screen, refused(outcome.why));
          return tell(screen, connectionsMessage());
        }
        case 'watch':
          if (message.universe === null) watching.delete(screen);
          else watching.set(screen, message.universe);
          return tellWatch();
      }
    });
  }

  function welcome(screen: WebSocket, has: { id: string; revision: number } | null): void {
    const document = session.document();
    tell(screen, {
      type: 'welcome',
      protocol: PROTOCOL,
      now: now(),
      state: session.conductor.state(),
      show: document ? { id: document.show.id, revision: document.revision } : null,
    });
    tell(screen, connectionsMessage());
    if (document && (!has || (has.id === document.show.id && has.revision < document.revision)))
      tell(screen, { type: 'show', show: { ...document.show }, revision: document.revision });
  }

  function edited(screen: WebSocket, { patches, revision }: { patches: readonly unknown[]; revision: number }): void {
    const outcome = session.edit(patches, revision);
    if (outcome === 'done') return tellOthers(screen, { type: 'edit', patches: patches as never, revision: revision });
    const document = session.document();
    if (outcome !== 'stale') tell(screen, refused(outcome.why));
    // The screen's copy and ours have parted: ours, which all the others have, stands.
    if (document) tell(screen, { type: 'show', show: { ...document.show }, revision: document.revision });
  }

  return {
    attach(server, admit) {
      server.on('upgrade', (request, socket, head) => {
        socket.on('error', () => socket.destroy());
        const refuse = (status: string) => socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
        const visitor = request.url === '/conductor' ? admit(request) : undefined;
        if (!visitor) return refuse('403 Forbidden');
        if (screens() >= MOST_SCREENS || (visitor.device && screens(visitor.device.id) >= MOST_SCREENS_A_DEVICE))
          return refuse('503 Service Unavailable');
        sockets.handleUpgrade(request, socket, head, (screen) => meet(screen, visitor));
      });
    },
    screens,
    sendAway(device) {
      for (const [screen, visitor] of visitors) if (visitor.device?.id === device) screen.close(4001, 'sent away');
    },
    showLevels(universe, levels, merged) {
      let message: string | undefined;
      for (const screen of sockets.clients) {
        if (!merged && watching.get(screen) !== universe) continue;
        if (screen.readyState !== screen.OPEN || screen.bufferedAmount > LEVELS_WAITING) continue;
        message ??= JSON.stringify({
          type: 'levels',
          universe,
          levels: Buffer.from(levels).toString('hex'),
          merged,
        } satisfies ToScreen);
        screen.send(message);
      }
    },
    close() {
      clearInterval(heartbeat);
      for (const screen of sockets.clients) screen.terminate();
      sockets.close();
    },
  };
}

function refused(why: string): ToScreen {
  return { type: 'refused', why };
}
