import { createStore } from 'zustand/vanilla';
import type { Document, DocumentState } from '../document/document';
import { repository } from '../document/repository';
import { memoryStore } from '../document/storage';
import { DEMO, followDemo } from './demo-music';

test('a screen that joins the demo asks only for music that came with it, and that is waited for', async () => {
  const [shipped, own] = ['a'.repeat(64), 'b'.repeat(64)];
  const asked: string[] = [];
  const answer = (address: string) => ({
    ok: true,
    headers: { get: () => null },
    text: async () => JSON.stringify({ songs: [{ music: { hash: shipped } }] }),
    arrayBuffer: async () => new Uint8Array([1, 2, address.length]).buffer,
  });
  const fetched = async (address: string) => (asked.push(address), answer(address));
  Object.assign(globalThis, { fetch: fetched });
  const songs = [shipped, own].map((hash) => ({ music: { hash, type: 'ogg' } }));
  const store = createStore<DocumentState>(() => ({ show: null }) as unknown as DocumentState);
  const kept = repository(memoryStore());
  const demo = followDemo({ store } as unknown as Document, kept, fail);
  // Nothing is on its way while another show is open.
  await demo.settled();
  store.setState({ show: { id: DEMO, songs } as unknown as DocumentState['show'] });
  let settled = false;
  const waited = demo.settled().then(() => (settled = true));
  await Promise.resolve();
  expect(settled).toBe(false);
  await demo.bring();
  await waited;
  expect(asked).toEqual([
    '/demo/show.json',
    ...['ogg', 'peaks', 'envelopes'].map((ending) => `/demo/music/${shipped}.${ending}`),
  ]);
  expect(await kept.hasMusic(shipped)).toBe(true);
  expect(await kept.hasMusic(own)).toBe(false);
});

const fail = () => {
  throw new Error('nothing is to be told');
};
