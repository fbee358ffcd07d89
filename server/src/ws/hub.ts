// Screens on WebSockets: lines of the conductor's hub.

import type { IncomingMessage, Server } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import { conductorHub, LOOK_MS, type Hub as ConductorHub, type Session, type Visitor } from '@hovlix/core/conduct';
import type { Right } from '@hovlix/core/live';
import { now } from '../clock';
import type { ConnectionsStore } from '../connect/store';

const MOST_BYTES = 32 * 1024 * 1024;
/** A screen that takes its messages slower than this is closed; it comes back and gets a snapshot. */
const MOST_WAITING = 64 * 1024 * 1024;
/** Screens of this computer itself are counted apart: no phone takes a place from them. */
const MOST_SCREENS = 64;
const MOST_SCREENS_OF_DEVICES = 56;
const MOST_SCREENS_A_DEVICE = 8;

export type Hub = {
  /** Takes the screens of one more server. `admit` says who a request is; undefined for somebody else. */
  readonly attach: (server: Server, admit: (request: IncomingMessage) => Visitor | undefined) => void;
  readonly screens: (device?: string) => number;
  /** Ends what a device has open. */
  readonly sendAway: (device: string) => void;
  /** Tells a device what it may do from now on. */
  readonly tellRight: (device: string, may: Right) => void;
  readonly showLevels: (universe: number, levels: Uint8Array, merged: boolean) => void;
  /** What this computer does by itself. */
  readonly act: ConductorHub['act'];
  readonly edit: ConductorHub['edit'];
  readonly tell: ConductorHub['tell'];
  readonly close: () => void;
};

/**
 * @param watch is told which universes screens want to see. @param learn is told which screen learns from gear.
 * @param status how this computer is, as its own screens or devices may know it; told with each beat.
 */
export function startHub(
  session: Session,
  connections: ConnectionsStore,
  watch: (universes: readonly number[]) => void,
  learn?: (screen: string | null) => void,
  status?: (own: boolean) => object,
): Hub {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_BYTES });
  const hub = conductorHub({
    now,
    session,
    connections,
    watch,
    ...(learn ? { learn } : {}),
    ...(status ? { status: (own) => ({ ...status(own) }) } : {}),
  });
  const devices = new Map<WebSocket, string | undefined>();

  const looking = setInterval(() => {
    hub.look();
    // A phone that fell asleep says nothing, not even goodbye; one that is there answers without being asked twice.
    for (const socket of sockets.clients) if (socket.readyState === socket.OPEN) socket.ping();
  }, LOOK_MS);

  function meet(socket: WebSocket, visitor: Visitor): void {
    devices.set(socket, visitor.device?.id);
    const line = hub.meet(
      {
        send(text) {
          if (socket.readyState !== socket.OPEN) return;
          if (socket.bufferedAmount > MOST_WAITING) return socket.terminate();
          socket.send(text);
        },
        close: () => socket.terminate(),
        waiting: () => socket.bufferedAmount,
      },
      visitor,
    );
    socket.on('pong', line.alive);
    socket.on('error', () => socket.terminate());
    socket.on('close', () => {
      devices.delete(socket);
      line.closed();
    });
    socket.on('message', (data) => line.hear(data.toString()));
  }

  const visitors = (which: (device: Visitor['device']) => boolean) =>
    hub.visitors().filter(({ device }) => which(device)).length;

  function isFull({ device }: Visitor): boolean {
    if (!device) return visitors((one) => one === null) >= MOST_SCREENS;
    return (
      visitors((one) => one !== null) >= MOST_SCREENS_OF_DEVICES ||
      visitors((one) => one?.id === device.id) >= MOST_SCREENS_A_DEVICE
    );
  }

  return {
    attach(server, admit) {
      server.on('upgrade', (request, socket, head) => {
        socket.on('error', () => socket.destroy());
        const refuse = (status: string) => socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
        const visitor = request.url === '/conductor' ? admit(request) : undefined;
        if (!visitor) return refuse('403 Forbidden');
        if (isFull(visitor)) return refuse('503 Service Unavailable');
        sockets.handleUpgrade(request, socket, head, (screen) => meet(screen, visitor));
      });
    },
    screens: (id) => visitors((one) => id === undefined || one?.id === id),
    sendAway(id) {
      for (const [socket, device] of devices) if (device === id) socket.close(4001, 'sent away');
    },
    tellRight: hub.tellRight,
    act: hub.act,
    edit: hub.edit,
    tell: hub.tell,
    showLevels: (universe, levels, merged) =>
      hub.showLevels(universe, () => Buffer.from(levels).toString('hex'), merged),
    close() {
      clearInterval(looking);
      for (const socket of sockets.clients) socket.terminate();
      sockets.close();
    },
  };
}
