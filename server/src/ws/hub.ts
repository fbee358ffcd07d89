// Screens on WebSockets: each message is checked, answered, and passed on to the others.

import type { Server } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import { FromScreen, PROTOCOL, readMessage, type ToScreen } from '@hovlix/core/live';
import { now } from '../clock';
import { isLocal } from '../http/origin';
import type { Session } from './session';

const MOST_BYTES = 32 * 1024 * 1024;
/** A screen may send so many messages a second; a dragged fader sends 60. */
const MOST_PER_SECOND = 300;
/** A screen that takes its messages slower than this is closed; it comes back and gets a snapshot. */
const MOST_WAITING = 64 * 1024 * 1024;

export type Hub = { readonly screens: () => number; readonly close: () => void };

export function startHub(server: Server, session: Session): Hub {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_BYTES });
  server.on('upgrade', (request, socket, head) => {
    socket.on('error', () => socket.destroy());
    if (request.url !== '/conductor' || !isLocal(request.headers.host, request.headers.origin)) {
      socket.end('HTTP/1.1 403 Forbidden\r\nConnection: close\r\n\r\n');
      return;
    }
    sockets.handleUpgrade(request, socket, head, (screen) => meet(screen));
  });

  const tell = (screen: WebSocket, message: ToScreen) => {
    if (screen.readyState !== screen.OPEN) return;
    if (screen.bufferedAmount > MOST_WAITING) return screen.terminate();
    screen.send(JSON.stringify(message));
  };
  const tellOthers = (than: WebSocket | undefined, message: ToScreen) => {
    for (const screen of sockets.clients) if (screen !== than) tell(screen, message);
  };

  function meet(screen: WebSocket): void {
    let who = 'a screen';
    let allowance = MOST_PER_SECOND;
    const refill = setInterval(() => (allowance = MOST_PER_SECOND), 1000);
    screen.on('close', () => clearInterval(refill));
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
          who = message.screen;
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
    screens: () => sockets.clients.size,
    close() {
      for (const screen of sockets.clients) screen.terminate();
      sockets.close();
    },
  };
}

function refused(why: string): ToScreen {
  return { type: 'refused', why };
}
