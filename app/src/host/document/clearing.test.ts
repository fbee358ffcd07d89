// What is cleared away of what a browser keeps, and what never is.

import { Command, copyOf, edit } from '@hovlix/core/show';
import { testShow } from '../../../../core/src/testing/show';
import { repository } from './repository';
import { memoryStore } from './storage';

const show = testShow();
const rename = (title: string) => Command.parse({ type: 'rename-song', song: 'song', title });

test('music is taken away only where no show has it: as it was written, in an edit since, or in what can be undone', async () => {
  const store = memoryStore();
  const kept = repository(store);
  const hash = 'cd'.repeat(32);
  const added = { ...show.songs[0]!, id: 'own', music: { hash, name: 'a.ogg', type: 'ogg', bytes: 3 } };
  const add = Command.parse({ type: 'add-song', added });
  const bring = () => kept.putMusic(hash, { bytes: Uint8Array.of(1, 2, 3), peaks: undefined, envelopes: undefined });
  const isKept = async () => {
    await kept.dropMusic(hash);
    return kept.hasMusic(hash);
  };
  await kept.save(copyOf(show));
  await bring();
  expect(await isKept()).toBe(false);
  await bring();
  await kept.append(show.id, { type: 'made', id: 'x', command: add });
  expect(await isKept()).toBe(true);
  await kept.save(copyOf(edit(show, add).show));
  expect(await isKept()).toBe(true);
  // A show that was deleted can be brought back for an hour.
  await kept.remove(show.id);
  expect(await isKept()).toBe(true);
  await kept.bringBack(show.id);
  await kept.save(copyOf(show));
  const undo = { past: [[add]], future: [] } as never;
  await kept.append(show.id, { type: 'made', id: 'y', command: rename('Y') }, undo);
  expect(await isKept()).toBe(true);
});

test('a deleted show takes no music along that another one got with its last edits', async () => {
  jest.useFakeTimers({ doNotFake: ['setTimeout'] });
  const kept = repository(memoryStore());
  const hash = 'ef'.repeat(32);
  const added = { ...show.songs[0]!, id: 'own', music: { hash, name: 'a.ogg', type: 'ogg', bytes: 3 } };
  const add = Command.parse({ type: 'add-song', added });
  const other = { ...show, id: 'other' as typeof show.id };
  await kept.save(copyOf(edit(show, add).show));
  await kept.save(copyOf(other));
  await kept.putMusic(hash, { bytes: Uint8Array.of(1, 2, 3), peaks: undefined, envelopes: undefined });
  await kept.append(other.id, { type: 'made', id: 'x', command: add });
  await kept.remove(show.id);
  jest.setSystemTime(Date.now() + 3_700_000);
  await kept.sweep();
  expect((await kept.shows()).map(({ id }) => id)).toEqual(['other']);
  expect(await kept.hasMusic(hash)).toBe(true);
  jest.useRealTimers();
});

describe('music that no show has any more', () => {
  const DAY = 24 * 3600_000;
  const hash = 'ac'.repeat(32);
  const music = {
    bytes: Uint8Array.from({ length: 900 }, (_, i) => i & 255),
    peaks: Uint8Array.of(1),
    envelopes: undefined,
  };
  const added = { ...show.songs[0]!, id: 'own', music: { hash, name: 'a.ogg', type: 'ogg', bytes: 900 } };
  const add = Command.parse({ type: 'add-song', added });
  const later = (ms: number) => jest.setSystemTime(Date.now() + ms);
  beforeEach(() => jest.useFakeTimers({ doNotFake: ['setTimeout'] }));
  afterEach(() => jest.useRealTimers());

  test('goes once nobody needed it for a day, with all that was heard in it', async () => {
    const store = memoryStore();
    const kept = repository(store);
    await kept.save(copyOf(edit(show, add).show));
    await kept.putMusic(hash, music);
    await kept.sweep();
    await kept.save(copyOf(show));
    later(DAY + 1);
    await kept.sweep();
    expect(await kept.hasMusic(hash)).toBe(true);
    // Brought back in the meantime, its day begins anew.
    await kept.save(copyOf(edit(show, add).show));
    later(DAY + 1);
    await kept.sweep();
    await kept.save(copyOf(show));
    later(DAY + 1);
    await kept.sweep();
    expect(await kept.hasMusic(hash)).toBe(true);
    later(DAY + 1);
    await kept.sweep();
    expect([...store.items.keys()].filter((key) => key.includes(hash))).toEqual([]);
  });

  test('stays while its file waits to be listened to; what was half kept goes', async () => {
    const store = memoryStore();
    const kept = repository(store);
    await kept.save(copyOf(show));
    await kept.putMusic(hash, music);
    await kept.putIntake([{ id: 'a', show: 'test', name: 'a.ogg', hash, bytes: 900 }]);
    const half = 'bd'.repeat(32);
    store.items.set(`music:${half}:0`, 'AAAA');
    for (let days = 0; days < 3; days++) {
      later(DAY + 1);
      await kept.sweep();
    }
    expect(await kept.hasMusic(hash)).toBe(true);
    expect([...store.items.keys()].filter((key) => key.includes(half))).toEqual([]);
  });

  test('a file that is added anew after its day is kept whole, though room is made while it comes', async () => {
    const store = memoryStore();
    // Once there is no room for a moment, in the middle of it.
    let writes = 0;
    const setMany: typeof store.setMany = (entries) => {
      store.full = `peaks:${hash}` in entries && ++writes === 2;
      return store.setMany(entries);
    };
    const kept = repository({ ...store, setMany });
    await kept.save(copyOf(show));
    await kept.putMusic(hash, music);
    await kept.sweep();
    later(DAY / 2);
    expect(await kept.putMusic(hash, music)).toBeUndefined();
    expect(writes).toBe(3);
    expect((await kept.music(hash))?.bytes).toEqual(music.bytes);
  });

  test('a full store makes room for new music by what was deleted a minute ago and more', async () => {
    const store = memoryStore();
    const kept = repository(store);
    await kept.save(copyOf(edit(show, add).show));
    await kept.save(copyOf({ ...show, id: 'other' as typeof show.id }));
    await kept.putMusic(hash, music);
    const taken = [...store.items.values()].reduce((sum, { length }) => sum + length, 0);
    store.room = taken + 1000;
    const next = 'ce'.repeat(32);
    await kept.remove('test');
    expect(await kept.putMusic(next, music)).toEqual({ code: 'storage-full' });
    expect(await kept.hasMusic(hash)).toBe(true);
    later(70_000);
    expect(await kept.putMusic(next, music)).toBeUndefined();
    expect([await kept.hasMusic(hash), await kept.hasMusic(next)]).toEqual([false, true]);
    expect((await kept.load('other'))?.ok).toBe(true);
  });
});
