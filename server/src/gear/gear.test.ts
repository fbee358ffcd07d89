// Gear plugged into this computer, through the port of a stand-in: what it does, and what screens are told.

import { conductorHub, session } from '@hovlix/core/conduct';
import { NO_CONNECTIONS, NO_MIDI, type Connections } from '@hovlix/core/connect';
import { Control } from '@hovlix/core/gig';
import { PROTOCOL } from '@hovlix/core/live';
import { testShow } from '../../../core/src/testing/show';
import { now } from '../clock';
import { until } from '../testing/wait';
import { followGear } from './gear';
import { plainPortName } from './ports';

const NOTE_ON = 0x90;
/** Longer than a contact bounces, in ms. */
const passed = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const BOARD = 'Board';

function computer(...made: object[]) {
  const show = { ...testShow(), controls: made.map((one) => Control.parse(one)) };
  const nothing = () => undefined;
  const following = { entry: nothing, show: nothing, changed: nothing, keep: nothing };
  const shared = session(now, following, { show, chain: ['first'] });
  const hub = conductorHub({ now, session: shared, learn: (screen) => gear.learn(screen) });
  const told: Record<string, unknown>[] = [];
  const wire = { send: (text: string) => void told.push(JSON.parse(text)), close: nothing, waiting: () => 0 };
  const line = hub.meet(wire, { device: null });
  const say = (message: object) => line.hear(JSON.stringify(message));
  say({ type: 'hello', protocol: PROTOCOL, screen: 'page', show: null });
  let connections: Connections = NO_CONNECTIONS;
  let changed: () => void = nothing;
  const sent: (readonly number[])[] = [];
  let step: (bytes: readonly number[]) => void = nothing;
  const gear = followGear({
    connections: { connections: () => connections, onChange: (take) => void (changed = () => take(connections)) },
    session: shared,
    hub,
    say: nothing,
    standIns: [{ name: BOARD, hear: (take) => void (step = take), send: (bytes) => void sent.push(bytes) }],
  });
  return {
    gear,
    told: (type: string) => told.filter((one) => one['type'] === type),
    say,
    sent,
    step: (...bytes: number[]) => step(bytes),
    midi(change: Partial<typeof NO_MIDI>) {
      connections = { ...connections, midi: { ...(connections.midi ?? NO_MIDI), ...change } };
      changed();
    },
    state: () => shared.conductor.state(),
    looks: () => shared.shown()!.looks.map(({ name }) => name),
  };
}

const note = (number: number, press: object[]) => ({
  kind: 'switch',
  id: `n${number}`,
  name: `N${number}`,
  source: { by: 'note', device: BOARD, channel: null, number },
  does: { press },
});

test('a note holds a look, another stores what is on; a page that learns is told, and what it learns does nothing', async () => {
  const { gear, midi, step, state, told, say, sent, looks } = computer(
    note(60, [{ act: 'look', look: 'red', press: 'flash' }]),
    note(61, [{ act: 'store' }]),
    note(62, [{ act: 'lock', to: 'toggle' }]),
  );
  try {
    step(NOTE_ON, 60, 100);
    expect(state().standing).toEqual([]);
    expect(gear.report()).toBeNull();
    midi({ on: true });
    step(NOTE_ON, 60, 100);
    expect(state().standing).toMatchObject([{ look: 'red', on: true }]);
    expect(told('felt').at(-1)).toMatchObject({ control: 'n60', held: true });
    expect(told('happened')).toMatchObject([{ control: 'n60', gesture: 'press', words: expect.stringMatching(/Red/) }]);
    await until(() => sent.some(([status, number, level]) => status === NOTE_ON && number === 60 && level === 127));
    const before = looks();
    step(NOTE_ON, 61, 100);
    expect(looks()).toHaveLength(before.length + 1);
    // Only a screen can be locked.
    step(NOTE_ON, 62, 100);
    step(NOTE_ON, 60, 0);
    expect(state().standing.filter(({ on }) => on)).toEqual([]);
    say({ type: 'learn', on: true });
    step(NOTE_ON, 60, 100);
    expect(told('learned')).toMatchObject([{ source: { by: 'note', device: BOARD, number: 60 } }]);
    step(NOTE_ON, 60, 0);
    expect(state().standing.filter(({ on }) => on)).toEqual([]);
    expect(gear.report()).toMatchObject({ inputs: [BOARD], last: { channel: 1, note: 60 } });
    // What is held is let go where nobody will hear the foot come up.
    await passed(60);
    step(NOTE_ON, 60, 100);
    await passed(60);
    expect(state().standing.filter(({ on }) => on)).toHaveLength(1);
    midi({ on: false });
    expect(state().standing.filter(({ on }) => on)).toEqual([]);
    step(NOTE_ON, 60, 100);
    expect(state().standing.filter(({ on }) => on)).toEqual([]);
  } finally {
    gear.close();
  }
});

test('ports are called as a browser calls them', () => {
  expect(plainPortName('Stomp:Stomp MIDI 1 20:0', 'linux')).toBe('Stomp MIDI 1');
  expect(plainPortName('Through:Port-0 14:0', 'linux')).toBe('Through Port-0');
  expect(plainPortName('Stomp 2', 'win32')).toBe('Stomp');
  expect(plainPortName('Stomp Port 1', 'darwin')).toBe('Stomp Port 1');
});
