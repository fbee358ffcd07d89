import { Command, edit, edited, historyOf } from '@hovlix/core/show';
import { testShow } from '../../../core/src/testing/show';
import { document } from './document';
import { repository, storageProblem } from './repository';
import { memoryStore } from './storage';

const show = testShow();
const rename = (title: string) => Command.parse({ type: 'rename-song', song: 'song', title });

test('a show comes back with the edits that were journalled after it was written', async () => {
  const store = memoryStore();
  const kept = repository(store);
  await kept.save({ show, revision: 3 });
  let history = historyOf(show);
  for (const [i, title] of ['One', 'Two', 'Three'].entries()) {
    const step = edited(history, rename(title));
    history = step.history;
    await kept.append(show.id, 4 + i, step.change);
  }
  const back = await repository(store).load(show.id);
  expect(back?.ok && back.value).toEqual({ show: history.show, revision: 6 });
  expect(await kept.currentId()).toBe('test');
  expect(await kept.shows()).toEqual([{ id: 'test', name: 'Test show' }]);
});

test('a half-written or missing journal line ends the replay; what came before it is kept', async () => {
  const store = memoryStore();
  const kept = repository(store);
  await kept.save({ show, revision: 0 });
  const first = edit(show, rename('One'));
  const second = edit(first.show, rename('Two'));
  await kept.append(show.id, 1, first.change);
  await kept.append(show.id, 2, second.change);
  await kept.append(show.id, 4, second.change);
  store.items.set('journal:test:000000002', '{"patches":[{"op":"rep');
  const back = await kept.load(show.id);
  expect(back?.ok && [back.value.show.songs[0]!.title, back.value.revision]).toEqual(['One', 1]);
});

test('writing the whole show empties its journal and no other', async () => {
  const store = memoryStore();
  const kept = repository(store);
  store.items.set('journal:other:000000001', '{}');
  await kept.append(show.id, 1, edit(show, rename('One')).change);
  await kept.save({ show, revision: 1 });
  expect([...store.items.keys()].filter((key) => key.startsWith('journal'))).toEqual(['journal:other:000000001']);
});

test('music of several pieces comes back byte for byte; what is not there is undefined', async () => {
  const kept = repository(memoryStore());
  const bytes = Uint8Array.from({ length: 7_000_001 }, (_, i) => (i * 31) & 255);
  expect(await kept.putMusic('h', { bytes, peaks: Uint8Array.of(1, 2), envelopes: Uint8Array.of(3) })).toBeUndefined();
  const back = await kept.music('h');
  expect(Buffer.compare(Buffer.from(back!.bytes), Buffer.from(bytes))).toBe(0);
  expect(back!.peaks).toEqual(Uint8Array.of(1, 2));
  expect(back!.envelopes).toEqual(Uint8Array.of(3));
  expect(await kept.music('other')).toBeUndefined();
});

test('storage full: said as such, nothing half kept, and the work goes on in memory', async () => {
  const store = memoryStore();
  const kept = repository(store);
  const doc = document(kept);
  await doc.open({ show, revision: 0 });
  store.full = true;
  expect(await kept.putMusic('h', { bytes: new Uint8Array(10), peaks: undefined, envelopes: undefined })).toEqual({
    code: 'storage-full',
  });
  doc.make(rename('Still here'));
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(doc.store.getState().problem).toEqual({ code: 'storage-full' });
  expect(doc.store.getState().history?.show.songs[0]!.title).toBe('Still here');
  store.full = false;
  doc.undo();
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(doc.store.getState().problem).toBeNull();
  expect(storageProblem(new Error('disk on fire'))).toEqual({ code: 'storage-broken', detail: 'disk on fire' });
});

test('followers hear of mine as patches on the revision before, and of others as a whole show', async () => {
  const doc = document(repository(memoryStore()));
  const heard: unknown[] = [];
  await doc.open({ show, revision: 7 });
  doc.onChange((kept, change) => heard.push([kept.revision, change?.from ?? null]));
  doc.make(rename('Mine'));
  doc.followPatches(edit(doc.store.getState().history!.show, rename('Theirs')).change.patches, 8);
  doc.followPatches([], 3);
  expect(heard).toEqual([
    [8, 7],
    [9, null],
  ]);
  doc.undo();
  expect(doc.store.getState().history?.show.songs[0]!.title).toBe('Song');
  doc.follow({ format: 'rubbish' }, 99);
  expect(doc.store.getState().problem?.code).toBe('bad-value');
});
