// Real packets: a tablet on one side, the conductor on the other.

import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { conductorHub, session } from '@hovlix/core/conduct';
import { NO_OSC, type OscIn } from '@hovlix/core/connect';
import { Control } from '@hovlix/core/gig';
import { PROTOCOL, type Entry } from '@hovlix/core/live';
import { decodeOsc, encodeOsc, type OscValue } from '@hovlix/core/wire';
import { testShow } from '../../../core/src/testing/show';
import { now } from '../clock';
import { connectionsStore } from '../connect/store';
import { followGear } from '../gear/gear';
import { until } from '../testing/wait';
import { followOsc } from './osc';

const open: { close: () => void }[] = [];
afterEach(() => open.splice(0).forEach((one) => one.close()));

async function bound(address = '127.0.0.1'): Promise<Socket> {
  const socket = createSocket('udp4').bind(0, address);
  await once(socket, 'listening');
  open.push(socket);
  return socket;
}

async function computer(...made: object[]) {
  const nothing = () => undefined;
  const show = { ...testShow(), controls: made.map((one) => Control.parse(one)) };
  const pressedBy = new Set<string>();
  const entry = ({ who, action }: Entry) => void pressedBy.add(`${action.type} by ${who}`);
  const following = { entry, show: nothing, changed: nothing, keep: nothing };
  const shared = session(now, following, { show, chain: ['first'] });
  const hub = conductorHub({ now, session: shared, learn: (screen) => gear.learn(screen) });
  const told: Record<string, unknown>[] = [];
  const wire = { send: (text: string) => void told.push(JSON.parse(text)), close: nothing, waiting: () => 0 };
  const line = hub.meet(wire, { device: null });
  const page = (message: object) => line.hear(JSON.stringify(message));
  page({ type: 'hello', protocol: PROTOCOL, screen: 'page', show: null });
  const connections = connectionsStore(undefined, nothing);
  const gear = followGear({ connections, session: shared, hub, say: nothing });
  const osc = followOsc({ connections, ...gear.osc, host: '127.0.0.1' });
  open.push(osc, gear);
  const free = await bound();
  const { port } = free.address() as AddressInfo;
  free.close();
  open.splice(open.indexOf(free), 1);
  const set = (change: Partial<OscIn>) =>
    void connections.edit({
      type: 'set-osc',
      osc: { ...(connections.connections().osc ?? { ...NO_OSC, port }), ...change },
    });
  const tablet = await bound();
  const send = (bytes: Uint8Array) => tablet.send(bytes, port, '127.0.0.1');
  return {
    osc,
    port,
    set,
    send,
    page,
    told: (type: string) => told.filter((one) => one['type'] === type),
    say: (address: string, types = '', ...values: OscValue[]) => send(encodeOsc(address, types, values)),
    state: () => shared.conductor.state(),
    pressedBy,
    standing: () => shared.conductor.state().standing.filter(({ on }) => on),
  };
}

const foot = {
  kind: 'switch',
  id: 'f',
  name: 'Foot',
  source: { by: 'osc', address: '/tablet/1' },
  does: { press: [{ act: 'look', look: 'red' }] },
};

test('nothing is heard until it is wanted; then words and controls work, and the report tells what came from where', async () => {
  const { osc, set, say, state, standing, told, pressedBy } = await computer(foot);
  expect(osc.report()).toBeNull();
  say('/hovlix/blackout', 'i', 1);
  await new Promise((resolve) => setTimeout(resolve, 50));
  set({ on: true });
  expect(osc.report()).toEqual({ last: null, bad: 0, lastBad: null, deaf: null });
  say('/tablet/1', 'f', 1);
  await until(() => standing().length === 1);
  expect(state().blackout.on).toBe(false);
  expect(told('happened')).toMatchObject([{ control: 'f', words: expect.stringContaining('Red') }]);
  say('/hovlix/blackout', 'i', 1);
  await until(() => state().blackout.on);
  expect(osc.report()?.last).toMatchObject({ address: '/hovlix/blackout', values: '1', from: '127.0.0.1', by: 'word' });
  say('/hovlix/master', 'f', 0.5);
  await until(() => state().master.to === 0.5);
  // The log says what a control did, and what a program.
  expect([...pressedBy].filter((one) => !one.endsWith('by page'))).toEqual([
    'pad by pedals',
    'blackout by OSC',
    'master by OSC',
  ]);
  say('/tablet/9', 'fs', 0.12345, 'x');
  await until(() => osc.report()?.last?.by === 'nobody');
  expect(osc.report()?.last).toMatchObject({ address: '/tablet/9', values: '0.123 “x”' });
  set({ on: false });
  expect(osc.report()).toBeNull();
});

test('a page that learns is told the address, which does nothing meanwhile', async () => {
  const { set, say, page, told, state } = await computer();
  set({ on: true });
  page({ type: 'learn', on: true });
  say('/hovlix/blackout', 'i', 1);
  await until(() => told('learned').length === 1);
  expect(told('learned')).toMatchObject([{ source: { by: 'osc', address: '/hovlix/blackout' } }]);
  expect(state().blackout.on).toBe(false);
});

test('what cannot be read or done is counted with its reason, and what comes after it is heard', async () => {
  const { osc, set, send, say, state } = await computer();
  set({ on: true });
  send(new TextEncoder().encode('hello'));
  await until(() => osc.report()!.bad === 1);
  expect(osc.report()!.lastBad).toContain('multiple of four');
  send(new Uint8Array(5000));
  await until(() => osc.report()!.lastBad === 'a packet of 5000 bytes');
  say('/hovlix/look', 's', 'Nothing of the kind');
  await until(() => osc.report()!.bad === 3);
  expect(osc.report()!.lastBad).toContain('“Nothing of the kind”');
  say('/hovlix/freeze', 'T', true);
  await until(() => state().frozen !== null);
});

test('a flood of presses changes the state sixty times a second, and what comes after it is heard', async () => {
  const { osc, set, say, state } = await computer();
  set({ on: true });
  const before = state().seq;
  const began = now();
  for (let i = 0; i < 3000; i++) {
    say('/hovlix/blackout');
    // Packets that the system has no room for would not be a flood.
    if (i % 50 === 0) await new Promise((resolve) => setTimeout(resolve, 2));
  }
  await until(() => osc.report()!.bad > 1000);
  const seconds = Math.ceil(now() - began) + 1;
  expect(state().seq - before).toBeGreaterThan(0);
  expect(state().seq - before).toBeLessThanOrEqual(60 * seconds);
  await new Promise((resolve) => setTimeout(resolve, 1100));
  say('/hovlix/tempo', 'f', 101);
  await until(() => state().tempo.bpm === 101);
});

test('a taken port is said, and heard as soon as it is free', async () => {
  const { osc, set, port, say, state } = await computer();
  const other = createSocket('udp4').bind(port, '127.0.0.1');
  await once(other, 'listening');
  set({ on: true });
  await until(() => osc.report()!.deaf !== null);
  expect(osc.report()!.deaf).toContain(`port ${port}`);
  other.close();
  await until(() => osc.report()!.deaf === null);
  say('/hovlix/tempo', 'f', 99);
  await until(() => state().tempo.bpm === 99);
});

test('whoever sent something is told what is on, at the port where they listen; two tablets are', async () => {
  const { set, say, port, standing } = await computer(foot);
  const ear = await bound();
  const other = await bound('127.0.0.2');
  const ears = (ear.address() as AddressInfo).port;
  const heard: OscValue[] = [];
  ear.on('message', (bytes: Buffer) => {
    const packet = decodeOsc(bytes);
    if (packet.kind === 'messages') heard.push(packet.messages[0]!.values[0]!);
  });
  set({ on: true, answersAt: ears });
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(heard).toEqual([]);
  say('/hovlix/tap');
  await until(() => heard.at(-1) === 0);
  // Pressed by another one: both know.
  other.send(encodeOsc('/tablet/1', 'f', [1]), port, '127.0.0.1');
  await until(() => standing().length === 1 && heard.at(-1) === 1);
  set({ answersAt: null });
  say('/hovlix/all-off');
  await until(() => standing().length === 0);
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(heard.at(-1)).toBe(1);
});
