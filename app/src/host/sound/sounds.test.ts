import { createStore } from 'zustand/vanilla';
import { envelopesOf, LOUDNESS_BANDS, writeEnvelopes } from '@hovlix/core/music';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';
import { repository } from '../document/repository';
import { memoryStore } from '../document/storage';
import type { Light } from '../light/light';
import type { ToLight } from '../light/light-messages';
import { followSounds } from './sounds';

const heardAs = (level: number) => writeEnvelopes(envelopesOf(new Uint8Array(100 * LOUDNESS_BANDS).fill(level)));
const hashOf = (letter: string) => letter.repeat(64);
const songs = ['a', 'b', 'c'].map((letter) => ({ id: `song-${letter}`, music: { hash: hashOf(letter), type: 'ogg' } }));

/** A device with a show of three songs, beside a server that knows some of them. */
function device(onServer: readonly string[], may: 'operator' | 'player' = 'operator') {
  const asked: string[] = [];
  const server = new Map(onServer.map((letter) => [hashOf(letter), heardAs(1)]));
  const fetched = async (address: string, { method = 'GET' }: { method?: string } = {}) => {
    const hash = address.slice('/api/sounds/'.length);
    asked.push(`${method} ${hash[0]}`);
    const there = server.get(hash);
    if (method === 'PUT') server.set(hash, heardAs(2));
    return { status: there ? 200 : 204, arrayBuffer: async () => there!.buffer };
  };
  Object.assign(globalThis, { fetch: fetched });
  const kept = repository(memoryStore());
  const documents = createStore(() => ({ show: null as unknown }));
  const link = createStore(() => ({ conductor: 'none' as string, may, live: { song: undefined as unknown } }));
  const told: ToLight[] = [];
  const sounds = followSounds(
    { store: documents } as unknown as Document,
    kept,
    { tell: (message: ToLight) => told.push(message) } as unknown as Light,
    { store: link } as unknown as Conducting,
  );
  return {
    asked,
    kept,
    sounds,
    server,
    join: () => link.setState({ conductor: 'server' }),
    leave: () => link.setState({ conductor: 'browser' }),
    opens: (letter: string, playing = false) => link.setState({ live: { song: { id: `song-${letter}`, playing } } }),
    shows: () => documents.setState({ show: { songs } }),
    told: () => told.map((message) => (message.type === 'sound' ? message.hash[0] : message.type)),
    keeps: (letter: string) =>
      kept.putMusic(hashOf(letter), { bytes: new Uint8Array(9), peaks: undefined, envelopes: heardAs(3) }),
  };
}

/** Long enough for what was begun to be done. */
const done = () => new Promise((resolve) => setTimeout(resolve, 20));

test('a phone that joins a show asks for nothing until a song is opened, and then for that one, once', async () => {
  const phone = device(['a', 'b', 'c']);
  phone.shows();
  phone.join();
  await done();
  expect(phone.asked).toEqual([]);
  phone.opens('b');
  await done();
  expect(phone.asked).toEqual(['GET b']);
  expect(phone.told()).toEqual(['b']);
  expect(phone.sounds.knows(hashOf('b'))).toBe(true);
  phone.opens('b', true);
  phone.opens('c');
  phone.opens('b');
  await done();
  expect(phone.asked).toEqual(['GET b', 'GET c']);
});

test('what somebody looks at is brought too, and from this device where it has it', async () => {
  const laptop = device(['a']);
  await laptop.keeps('c');
  laptop.shows();
  laptop.join();
  const [first, again] = [laptop.sounds.bring(hashOf('c')), laptop.sounds.bring(hashOf('c'))];
  expect(await Promise.all([first, again])).toEqual([true, true]);
  expect(laptop.told()).toEqual(['c']);
  expect(laptop.asked.filter((one) => one.startsWith('GET'))).toEqual([]);
  // Nobody knows it: that is said, and asked anew the next time.
  expect(await laptop.sounds.bring(hashOf('b'))).toBe(false);
  expect(laptop.sounds.knows(hashOf('b'))).toBe(false);
});

test('pictures of what a song sounds like have it from the server, too', async () => {
  const phone = device(['b']);
  phone.shows();
  expect(await phone.sounds.find(hashOf('b'))).toBeUndefined();
  phone.join();
  expect(await phone.sounds.find(hashOf('b'))).toEqual(heardAs(1));
  expect(await phone.sounds.find(hashOf('c'))).toBeUndefined();
  expect(phone.told()).toEqual([]);
});

test('a server that has not what this device hears in its music is brought it, and each server anew', async () => {
  const laptop = device(['a']);
  await laptop.keeps('a');
  await laptop.keeps('b');
  laptop.shows();
  await done();
  expect(laptop.asked).toEqual([]);
  laptop.join();
  await done();
  expect(laptop.asked).toEqual(['HEAD a', 'HEAD b', 'PUT b']);
  laptop.leave();
  laptop.server.delete(hashOf('a'));
  laptop.join();
  await done();
  expect(laptop.asked.slice(3)).toEqual(['HEAD a', 'PUT a', 'HEAD b']);
});

test('music that came after its song was opened is heard, and offered, once it plays', async () => {
  const laptop = device([]);
  laptop.shows();
  laptop.join();
  laptop.opens('a');
  await done();
  expect(laptop.told()).toEqual([]);
  await laptop.keeps('a');
  laptop.opens('a', true);
  await done();
  expect(laptop.told()).toEqual(['a']);
  expect(laptop.server.has(hashOf('a'))).toBe(true);
});

test('who may only play brings a server nothing', async () => {
  const phone = device([], 'player');
  await phone.keeps('a');
  phone.shows();
  phone.join();
  phone.opens('a');
  await done();
  expect(phone.told()).toEqual(['a']);
  expect(phone.asked).toEqual([]);
});
