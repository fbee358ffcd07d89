import { midi } from './midi';
import { microphone } from '../sound/microphone';

const stage = {} as never;

test('MIDI that is switched off while the browser still asks stays off when it is granted', async () => {
  let grant: (access: unknown) => void = () => undefined;
  Object.assign(navigator, { requestMIDIAccess: () => new Promise((resolve) => (grant = resolve)) });
  const one = midi();
  const starting = one.start(stage);
  expect(one.store.getState().state).toBe('asking');
  one.stop();
  const input = { name: 'Pads', onmidimessage: null };
  grant({ inputs: new Map([['a', input]]), outputs: new Map() });
  await starting;
  expect([one.store.getState().state, input.onmidimessage]).toEqual(['off', null]);
  // Asked again, the new answer counts.
  const again = one.start(stage);
  const sent: unknown[] = [];
  const output = { name: 'Amp', send: (bytes: number[]) => sent.push(bytes) };
  grant({ inputs: new Map([['a', input]]), outputs: new Map([['b', output]]) });
  await again;
  expect(one.store.getState()).toMatchObject({ state: 'on', inputs: ['Pads'], outputs: ['Amp'] });
  // Channels count from 1 for people; a note that is sent is let go of too.
  one.send({ kind: 'program', channel: 2, program: 11 });
  one.send({ kind: 'control', channel: 16, control: 7, value: 100 });
  one.send({ kind: 'note', channel: 1, note: 60, velocity: 90 });
  expect(sent).toEqual([
    [0xc1, 11],
    [0xbf, 7, 100],
    [0x90, 60, 90],
    [0x80, 60, 0],
  ]);
});

test('a microphone that is switched off while the browser still asks is let go when it is granted', async () => {
  let grant: (stream: unknown) => void = () => undefined;
  const getUserMedia = () => new Promise((resolve) => (grant = resolve));
  Object.defineProperty(navigator, 'mediaDevices', { value: { getUserMedia }, configurable: true });
  const one = microphone({ act: () => undefined } as never);
  const starting = one.start();
  expect(one.store.getState().state).toBe('asking');
  one.stop();
  const track = { stop: jest.fn() };
  grant({ getTracks: () => [track] });
  await starting;
  expect(one.store.getState().state).toBe('off');
  expect(track.stop).toHaveBeenCalled();
});
