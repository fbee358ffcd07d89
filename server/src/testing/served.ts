// A server as tests need it: a hub on sockets, the own door and the phones' door, and what its output was told.

import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { session, type Session } from '@hovlix/core/conduct';
import { AT_REST, logText, PROTOCOL, type FromScreen, type Right, type ToScreen } from '@hovlix/core/live';
import { ORIGIN } from '@hovlix/core/show';
import { testShow } from '../../../core/src/testing/show';
import { now } from '../clock';
import { connectionsStore, type ConnectionsStore } from '../connect/store';
import { ownDoor, phonesDoor } from '../http/doors';
import { isLocal } from '../http/origin';
import { pairing, type Pairing } from '../http/pairing';
import { site, type Desk } from '../http/site';
import { soundStore } from '../sounds';
import { startHub, type Hub } from '../ws/hub';
import { until } from './wait';

export let server: Server;
export let hub: Hub;
export let shared: Session;
export let connections: ConnectionsStore;
export let known: Pairing;
export let phonesServer: Server;
export let phonesPort: number;
export let watched: readonly number[] = [];
const joinFolder = join(__dirname, '../../join');
export let port: number;
export const followed: string[] = [];
export const screens: WebSocket[] = [];

/** A server with both its doors for each test of a file. */
export function serveEachTest(): void {
  beforeEach(async () => {
    const folder = mkdtempSync(join(tmpdir(), 'hovlix-site-'));
    mkdirSync(join(folder, '_expo'));
    writeFileSync(join(folder, 'index.html'), '<h1>Hovlix</h1>');
    writeFileSync(join(folder, '_expo/entry-abc.js'), '1');
    followed.length = 0;
    shared = session(now, {
      show: (show) => followed.push(`show ${show.name}`),
      changed: (ops) => followed.push(`changed ${ops.length}`),
      entry: (entry) => followed.push(entry.action.type),
      keep: () => undefined,
    });
    connections = connectionsStore(undefined, (why) => void (why && followed.push(why)));
    known = pairing(undefined, Date.now);
    hub = startHub(shared, connections, (universes) => (watched = universes));
    const desk = {
      status: (host: boolean) => ({ host, screens: hub.screens() }) as never,
      sounds: soundStore(join(folder, 'sounds'), (sounds) => followed.push(`sounds ${sounds.length}`)),
      openToPhones: async () => undefined,
      log: () => logText({ begin: AT_REST, entries: [] }),
      frames: async () => [],
      decks: async () => [],
      foot: async () => [],
      renewCode: () => known.renew(),
      sendAway(device: string) {
        hub.sendAway(device);
        return known.revoke(device);
      },
      grantTo: (may: Right) => known.grantTo(may),
      setRight(device: string, may: Right) {
        const there = known.setRight(device, may);
        if (there) hub.tellRight(device, may);
        return there;
      },
      answer: (one: string, letIn: boolean) => known.answer(one, letIn),
    } satisfies Desk;
    server = createServer(site(folder, desk, ownDoor));
    hub.attach(server, ({ headers }) => (isLocal(headers.host, headers.origin) ? { device: null } : undefined));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    port = (server.address() as AddressInfo).port;
    phonesServer = createServer(
      site(
        folder,
        desk,
        phonesDoor(known, () => [`hall.test:${phonesPort}`], joinFolder),
      ),
    );
    hub.attach(phonesServer, ({ headers }) => {
      const device = known.deviceOf(headers.cookie);
      return device ? { device } : undefined;
    });
    await new Promise<void>((resolve) => phonesServer.listen(0, '127.0.0.1', resolve));
    phonesPort = (phonesServer.address() as AddressInfo).port;
  });
  afterEach(() => {
    for (const screen of screens.splice(0)) screen.terminate();
    hub.close();
    server.close();
    phonesServer.close();
  });
}

export type Screen = {
  readonly heard: ToScreen[];
  readonly say: (message: FromScreen | string) => void;
  readonly leave: () => void;
  readonly hears: <T extends ToScreen['type']>(type: T) => Promise<Extract<ToScreen, { type: T }>>;
};

export async function screen(origin = `http://localhost:${port}`): Promise<Screen> {
  const socket = new WebSocket(`ws://localhost:${port}/conductor`, { origin });
  screens.push(socket);
  const heard: ToScreen[] = [];
  socket.on('message', (data) => heard.push(JSON.parse(String(data))));
  await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
  return {
    heard,
    leave: () => socket.terminate(),
    say: (message) => socket.send(typeof message === 'string' ? message : JSON.stringify(message)),
    hears: (type) => until(() => heard.find((message) => message.type === type)) as never,
  };
}

export const hello = (name = 'test', show: { id: string; head: string } | null = null): FromScreen => ({
  type: 'hello',
  protocol: PROTOCOL,
  screen: name,
  show,
});
export const putOn = (chain: string[] = [ORIGIN], ifNone = false): FromScreen => ({
  type: 'put-on',
  show: json(),
  chain,
  ...(ifNone ? { ifNone } : {}),
});
export const rename = (change: string, title: string): FromScreen => ({
  type: 'edit',
  show: 'test',
  change: { id: change, command: { type: 'rename-song', song: 'song', title } },
});
export const json = () => JSON.parse(JSON.stringify(testShow()));
export const page = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
  new Promise<{ status: number; headers: Record<string, unknown>; body: string }>((resolve) =>
    request(
      { port, path, method, host: '127.0.0.1', headers: { host: `localhost:${port}`, ...headers } },
      (response) => {
        let body = '';
        response
          .on('data', (part) => (body += part))
          .on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
      },
    ).end(),
  );
