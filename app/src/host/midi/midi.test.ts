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
  grant({ inputs: new Map([['a', input]]) });
  await starting;
  expect([one.store.getState().state, input.onmidimessage]).toEqual(['off', null]);
  // Asked again, the new answer counts.
  const again = one.start(stage);
  grant({ inputs: new Map([['a', input]]) });
  await again;
  expect(one.store.getState()).toMatchObject({ state: 'on', inputs: ['Pads'] });
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
