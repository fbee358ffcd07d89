import { TextDecoder, TextEncoder } from 'node:util';
import { writeBundle } from '@hovlix/core/files';
import { AT_REST, type Right } from '@hovlix/core/live';
import { copyOf, edit, ORIGIN, type Copy } from '@hovlix/core/show';
import { testShow } from '../../../../core/src/testing/show';
import { document } from './document';
import { repository } from './repository';
import { shows } from './shows';
import { memoryStore } from './storage';

// What jsdom lacks of a browser.
Object.assign(globalThis, { TextDecoder, TextEncoder });

/** A device with its shows, and what was asked of the conductor. */
function device({ screens = 1, playing = false, may = 'operator' as Right, conductor = 'server' as const } = {}) {
  const kept = repository(memoryStore());
  const doc = document(kept);
  const put: string[] = [];
  const into: string[] = [];
  const came: string[] = [];
  const song = playing ? { playing: true } : null;
  const state = { live: { ...AT_REST, song }, screens, may, conductor, here: false };
  const conducting = {
    store: { getState: () => state },
    now: () => 0,
    joined: async () => state,
    putOn: (copy: Copy) => {
      put.push(copy.show.name);
      void doc.open(copy);
    },
    lookInto: async (copy: Copy) => void into.push(copy.show.name),
  };
  const ports = { repository: kept, document: doc, conducting: conducting as never };
  return { all: shows({ ...ports, came: (hash) => void came.push(hash) }), kept, doc, put, into, came };
}
const names = async (one: ReturnType<typeof device>) => {
  await one.all.refresh();
  return one.all.store.getState().list!.map(({ name }) => name);
};
const file = (copy: Copy) => writeBundle({ show: copy.show, chain: copy.chain, savedAt: 1, music: new Map() });
const renamed = (copy: Copy, change: string, name: string) =>
  copyOf(edit(copy.show, { type: 'rename-show', name }).show, [...copy.chain, change]);
const first = copyOf(testShow(), [ORIGIN, 'a']);

test('whoever is alone puts a show on by beginning or opening it, and is not asked', async () => {
  const one = device();
  await one.all.begin('Tin Lantern');
  expect(one.put).toEqual(['Tin Lantern']);
  expect(await names(one)).toEqual(['Tin Lantern']);
  const { show } = one.doc.store.getState();
  expect([show?.rigs[0]!.fixtures, show?.looks, show?.songs, show?.roles, show?.profiles]).toEqual([
    [],
    [],
    [],
    [],
    [],
  ]);
});

test('while something plays, or somebody else is there, it asks first', async () => {
  for (const busy of [{ screens: 2 }, { playing: true }]) {
    const one = device(busy);
    await one.all.begin('Next');
    expect(one.put).toEqual([]);
    expect(one.all.store.getState().asking).toMatchObject({ type: 'put-on', copy: { show: { name: 'Next' } } });
    await one.all.answer('here');
    expect(one.into).toEqual(['Next']);
  }
});

test('who may not put a show on looks into it', async () => {
  const one = device({ may: 'player' });
  await one.all.begin('Mine');
  expect([one.put, one.into]).toEqual([[], ['Mine']]);
});

test.each([
  ['the same', first, 'same'],
  ['with more in it', renamed(first, 'b', 'Later'), 'file'],
  ['with less in it', copyOf({ ...testShow(), name: 'Before' }, [ORIGIN]), 'here'],
  ['of another branch', renamed(copyOf(testShow(), [ORIGIN]), 'x', 'Other'), 'both'],
])('a file of a show that is here already, %s', async (_, other, newer) => {
  const one = device();
  await one.kept.save(first);
  expect(await one.all.bringIn('x.hovlix', file(other))).toBeUndefined();
  const { asking } = one.all.store.getState();
  if (newer === 'same') {
    expect([asking, one.put]).toEqual([null, ['Test show']]);
    return;
  }
  expect(asking).toMatchObject({ type: 'import', newer });
  // Cancelled, nothing has changed; both kept, each is there with a history of its own; replaced, only the new one is.
  await one.all.answer('cancel');
  expect(await names(one)).toEqual(['Test show']);
  await one.all.bringIn('x.hovlix', file(other));
  await one.all.answer('both');
  expect(await names(one)).toEqual(['Test show', `${other.show.name}, from a file`]);
  await one.all.bringIn('x.hovlix', file(other));
  await one.all.answer('replace');
  expect((await names(one))[0]).toBe(other.show.name);
});

test('the file of a show that came over the network brings its music', async () => {
  const one = device();
  const hash = 'a'.repeat(64);
  const show = testShow();
  const songs = show.songs.map((song) => ({
    ...song,
    music: { hash, name: 'take.wav', type: 'wav' as const, bytes: 3 },
  }));
  const joined = copyOf({ ...show, songs }, [ORIGIN, 'a']);
  await one.kept.save(joined);
  expect(await one.kept.hasMusic(hash)).toBe(false);
  const music = new Map([[hash, { bytes: Uint8Array.of(1, 2, 3), peaks: undefined, envelopes: undefined }]]);
  const bundle = writeBundle({ show: joined.show, chain: joined.chain, savedAt: 1, music });
  expect(await one.all.bringIn('friday.hovlix', bundle)).toBeUndefined();
  expect([...(await one.kept.music(hash))!.bytes]).toEqual([1, 2, 3]);
  // What was said of its absence is over; opened once more, nothing comes.
  expect(one.came).toEqual([hash]);
  await one.all.bringIn('joined.hovlix', bundle);
  expect(one.came).toEqual([hash]);
});

test('a copy is a show of its own; a copy that grew apart says where it is from', async () => {
  const one = device();
  await one.kept.save(first);
  await one.all.duplicate('test');
  const beside = await one.all.keepBeside(renamed(first, 'z', 'Boathouse'), 'the tablet');
  expect(beside).toMatch(/^Boathouse, from the tablet, \d/);
  expect(await names(one)).toEqual(['Test show', 'Test show, copy', beside]);
  const ids = one.all.store.getState().list!.map((entry) => entry.id);
  expect(new Set(ids).size).toBe(3);
  const kept = await one.kept.load(ids[2]!);
  expect(kept?.ok && kept.value.chain).toHaveLength(1);
});

test('a name given to a show that is not open is kept, and known as a change', async () => {
  const one = device();
  await one.kept.save(first);
  expect(await one.all.rename('test', 'Winter')).toBeUndefined();
  expect(await names(one)).toEqual(['Winter']);
  const back = await one.kept.load('test');
  expect(back?.ok && [back.value.chain.slice(0, 2), back.value.chain.length]).toEqual([[ORIGIN, 'a'], 3]);
  expect(await one.all.rename('gone', 'x')).toMatchObject({ code: 'unreachable' });
});
