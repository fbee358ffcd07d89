// Screens on WebSockets: each message is checked, answered, and passed on to the others.

import type { IncomingMessage, Server } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import { FromScreen, maySay, PROTOCOL, readMessage, RIGHT_WORDS, type Right, type ToScreen } from '@hovlix/core/live';
import { headOf, since } from '@hovlix/core/show';
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
/** Screens of this computer itself are counted apart: no phone takes a place from them. */
const MOST_SCREENS = 64;
const MOST_SCREENS_OF_DEVICES = 56;
const MOST_SCREENS_A_DEVICE = 8;
/** A line is looked at so often, and each screen hears from us every second. */
const LOOK_MS = 500;
/** A screen that has said nothing for so long lets go of what it held, and after twice that counts as gone. */
const SILENT_MS = 1500;
/** A press that was so long on its way is not played any more, in seconds. */
const LATE_SECONDS = 0.3;

/** Who asks to come in: a screen of this computer, or a device that has joined. */
export type Visitor = {
  readonly device: { readonly id: string; readonly name: string; readonly may: Right } | null;
};

export type Hub = {
  /** Takes the screens of one more server. `admit` says who a request is; undefined for somebody else. */
  readonly attach: (server: Server, admit: (request: IncomingMessage) => Visitor | undefined) => void;
  readonly screens: (device?: string) => number;
  /** Ends what a device has open. */
  readonly sendAway: (device: string) => void;
  /** Tells a device what it may do from now on. */
  readonly tellRight: (device: string, may: Right) => void;
  readonly showLevels: (universe: number, levels: Uint8Array, merged: boolean) => void;
  readonly close: () => void;
};

/** One line to one screen. */
type Line = {
  readonly socket: WebSocket;
  readonly visitor: Visitor;
  /** What the screen calls itself; empty before its first word. */
  screen: string;
  heardAt: number;
  /** It let go of what it held, as nothing was heard of it. */
  released: boolean;
  watching: number | null;
};

/** @param watch is told which universes screens want to see. */
export function startHub(
  session: Session,
  connections: ConnectionsStore,
  watch: (universes: readonly number[]) => void,
): Hub {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MOST_BYTES });
  const lines = new Set<Line>();
  const rightOf = ({ visitor }: Line): Right => visitor.device?.may ?? 'operator';
  const nameOf = ({ visitor, screen }: Line) => visitor.device?.name ?? (screen || 'a screen');

  const send = ({ socket }: Line, text: string) => {
    if (socket.readyState !== socket.OPEN) return;
    if (socket.bufferedAmount > MOST_WAITING) return socket.terminate();
    socket.send(text);
  };
  const tell = (line: Line, message: ToScreen) => send(line, JSON.stringify(message));
  const tellAll = (message: ToScreen, except?: Line) => {
    const text = JSON.stringify(message);
    for (const line of lines) if (line !== except && line.screen !== '') send(line, text);
  };
  const tellWatch = () => watch([...new Set([...lines].flatMap(({ watching }) => watching ?? []))]);
  const connectionsMessage = (): ToScreen => ({ type: 'connections', connections: { ...connections.connections() } });
  connections.onChange(() => tellAll(connectionsMessage()));
  const act = (who: string, action: Parameters<Session['act']>[1]) =>
    tellAll({ type: 'entries', entries: [session.act(who, action)] });
  const showMessage = (by?: string): ToScreen | undefined => {
    const order = session.order();
    return (
      order && { type: 'show', show: { ...order.show }, chain: [...order.chain], ...(by === undefined ? {} : { by }) }
    );
  };

  /** What a screen held ends with it; what it switched on stays. */
  const letGo = (line: Line) => {
    if (line.released || line.screen === '') return;
    line.released = true;
    session.preview(line.screen, null);
    const before = session.conductor.state();
    const holds =
      before.standing.some(({ holders }) => holders?.includes(line.screen)) ||
      before.sounding.some(({ by, lifted }) => by === line.screen && lifted === undefined) ||
      before.held.some(({ by }) => by === line.screen) ||
      before.test?.by === line.screen;
    if (!holds && before.programs !== line.screen) return;
    act('conductor', { type: 'gone', screen: line.screen });
    if (holds) tellAll({ type: 'left', name: nameOf(line) });
  };
  const isBack = (line: Line) => [...lines].some((one) => one !== line && one.screen === line.screen);

  const look = setInterval(() => {
    const at = Date.now();
    for (const line of lines) {
      const silent = at - line.heardAt;
      if (silent > SILENT_MS * 2) line.socket.terminate();
      else if (silent > SILENT_MS) letGo(line);
      if (line.socket.readyState === line.socket.OPEN) line.socket.ping();
    }
  }, LOOK_MS);
  const beat = setInterval(() => tellAll({ type: 'beat', screens: lines.size }), 1000);

  function meet(socket: WebSocket, visitor: Visitor): void {
    const line: Line = { socket, visitor, screen: '', heardAt: Date.now(), released: false, watching: null };
    lines.add(line);
    let allowance = MOST_PER_SECOND;
    const refill = setInterval(() => (allowance = MOST_PER_SECOND), 1000);
    const heard = () => {
      line.heardAt = Date.now();
    };
    socket.on('pong', heard);
    socket.on('close', () => {
      clearInterval(refill);
      lines.delete(line);
      if (line.watching !== null) tellWatch();
      setTimeout(() => isBack(line) || letGo(line), SILENT_MS).unref();
    });
    socket.on('error', () => socket.terminate());
    socket.on('message', (data, binary) => {
      heard();
      if (allowance-- <= 0) return allowance === -1 ? tell(line, refused('Too many messages in a second.')) : undefined;
      if (binary) return tell(line, refused('The message is not text.'));
      const read = readMessage(FromScreen, data.toString());
      if (!read.ok) return tell(line, refused(read.why));
      const message = read.value;
      if (!maySay(rightOf(line), message)) {
        if (message.type === 'edit') tell(line, { type: 'refused-edit', id: message.change.id, why: notAllowed(line) });
        return tell(line, refused(notAllowed(line)));
      }
      if (line.screen === '' && message.type !== 'hello' && message.type !== 'ping')
        return tell(line, refused('Say hello first.'));
      take(line, message);
    });
  }

  const notAllowed = (line: Line) =>
    `This device ${RIGHT_WORDS[rightOf(line)]}. Whoever is at the computer can change that in Connect.`;

  function take(line: Line, message: ReturnType<typeof FromScreen.parse>): void {
    switch (message.type) {
      case 'hello':
        return welcome(line, message);
      case 'ping':
        return tell(line, { type: 'pong', sent: message.sent, now: now() });
      case 'act':
        if (message.at !== undefined && now() - message.at > LATE_SECONDS)
          return tell(line, { type: 'late', action: message.action.type });
        return act(line.screen, message.action);
      case 'edit': {
        const outcome =
          session.order()?.show.id === message.show
            ? session.edit(message.change)
            : { why: 'That show is not on any more.' };
        if (outcome === 'again') return;
        if (outcome !== 'done') return tell(line, { type: 'refused-edit', id: message.change.id, why: outcome.why });
        return tellAll({ type: 'changes', show: message.show, changes: [message.change] });
      }
      case 'preview':
        if (session.order()?.show.id !== message.show) return;
        session.preview(line.screen, message.ops);
        return tellAll({ type: 'preview', screen: line.screen, show: message.show, ops: message.ops as never }, line);
      case 'put-on': {
        if (message.ifNone && session.order()) return;
        const why = session.putOn(message.show, message.chain);
        if (why) return tell(line, refused(why));
        act('conductor', { type: 'show-on', show: session.order()!.show.id });
        return tellAll(showMessage(nameOf(line))!);
      }
      case 'connections-edit': {
        const why = connections.edit(message.command);
        return why === undefined ? undefined : tell(line, refused(why));
      }
      case 'watch':
        line.watching = message.universe;
        return tellWatch();
    }
  }

  function welcome(line: Line, hello: { screen: string; show: { id: string; head: string } | null }): void {
    const namesake = [...lines].find((one) => one !== line && one.screen === hello.screen);
    if (namesake && namesake.visitor.device?.id !== line.visitor.device?.id) {
      tell(line, refused('Another screen goes by this name. Reload the page.'));
      return line.socket.close();
    }
    // The same page, back on a new line before the old one was found dead.
    namesake?.socket.terminate();
    line.screen = hello.screen;
    const order = session.order();
    const state = session.conductor.state();
    tell(line, {
      type: 'welcome',
      protocol: PROTOCOL,
      now: now(),
      state,
      show: order ? { id: order.show.id, head: headOf(order.chain) } : null,
      may: rightOf(line),
    });
    tell(line, connectionsMessage());
    tell(line, { type: 'beat', screens: lines.size });
    const held = state.programs !== null && [...lines].some(({ screen }) => screen === state.programs);
    if (!line.visitor.device && !held) act(line.screen, { type: 'program', screen: line.screen });
    if (!order) return;
    const missed = hello.show?.id === order.show.id ? since(order, hello.show.head) : undefined;
    if (missed) return tell(line, { type: 'changes', show: order.show.id, changes: [...missed] });
    tell(line, showMessage()!);
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
    screens: (device) => count(({ visitor }) => device === undefined || visitor.device?.id === device),
    sendAway(device) {
      for (const { socket, visitor } of lines) if (visitor.device?.id === device) socket.close(4001, 'sent away');
    },
    tellRight(device, may) {
      for (const line of lines) if (line.visitor.device?.id === device) tell(line, { type: 'may', may });
    },
    showLevels(universe, levels, merged) {
      let text: string | undefined;
      for (const { socket, watching, screen } of lines) {
        if (screen === '' || (!merged && watching !== universe)) continue;
        if (socket.readyState !== socket.OPEN || socket.bufferedAmount > LEVELS_WAITING) continue;
        text ??= JSON.stringify({
          type: 'levels',
          universe,
          levels: Buffer.from(levels).toString('hex'),
          merged,
        } satisfies ToScreen);
        socket.send(text);
      }
    },
    close() {
      clearInterval(look);
      clearInterval(beat);
      for (const { socket } of lines) socket.terminate();
      sockets.close();
    },
  };

  function count(which: (line: Line) => boolean): number {
    return [...lines].filter(which).length;
  }

  function isFull({ device }: Visitor): boolean {
    if (!device) return count(({ visitor }) => !visitor.device) >= MOST_SCREENS;
    return (
      count(({ visitor }) => visitor.device !== null) >= MOST_SCREENS_OF_DEVICES ||
      count(({ visitor }) => visitor.device?.id === device.id) >= MOST_SCREENS_A_DEVICE
    );
  }
}

function refused(why: string): ToScreen {
  return { type: 'refused', why };
}
