import { Command, copyOf, inverse, edit, ORIGIN, type Change } from '@hovlix/core/show';
import { testShow } from '../../../../core/src/testing/show';
import { document, type Leader } from './document';
import { repository, storageProblem, type Repository } from './repository';
import { memoryStore } from './storage';

const show = testShow();
const rename = (title: string) => Command.parse({ type: 'rename-song', song: 'song', title });
/** Edits of others in the journal, each after the one before. */
const heard = async (kept: Repository, ...titles: string[]) => {
  for (const [i, title] of titles.entries())
    await kept.append(show.id, { type: 'heard', id: title, command: rename(title), after: titles[i - 1] ?? ORIGIN });
};
const settle = () => new Promise((resolve) => setTimeout(resolve, 5));

test('a show comes back with the edits that were journalled after it was written', async () => {
  const store = memoryStore();
  const kept = repository(store, 'tab');
  await kept.save(copyOf(show));
  await heard(kept, 'One', 'Two');
  await kept.append(show.id, { type: 'made', id: 'Three', command: rename('Three') });
  const back = await repository(store, 'another tab').load(show.id);
  if (!back?.ok) throw new Error('it loads');
  expect(back.value.show.songs[0]!.title).toBe('Three');
  expect(back.value.base.songs[0]!.title).toBe('Two');
  expect([back.value.chain, back.value.pending.map(({ id }) => id)]).toEqual([[ORIGIN, 'One', 'Two'], ['Three']]);
  expect(await kept.currentId()).toBe('test');
  expect(await kept.shows()).toMatchObject([{ id: 'test', name: 'Test show', songs: 1, lamps: 5 }]);
});

test('an edit of one’s own that was confirmed later is in its place among those of others', async () => {
  const kept = repository(memoryStore());
  await kept.save(copyOf(show));
  await kept.append(show.id, { type: 'made', id: 'mine', command: rename('Mine') });
  await kept.append(show.id, {
    type: 'heard',
    id: 'theirs',
    command: Command.parse({ type: 'rename-show', name: 'Theirs' }),
    after: ORIGIN,
  });
  await kept.append(show.id, { type: 'confirmed', id: 'mine', after: 'theirs' });
  const back = await kept.load(show.id);
  expect(back?.ok && [back.value.chain, back.value.pending]).toEqual([[ORIGIN, 'theirs', 'mine'], []]);
  expect(back?.ok && [back.value.base.name, back.value.base.songs[0]!.title]).toEqual(['Theirs', 'Mine']);
});

test('a half-written journal line ends the replay; what came before it is kept', async () => {
  const store = memoryStore();
  const kept = repository(store);
  await kept.save(copyOf(show));
  await heard(kept, 'One', 'Two', 'Three');
  store.items.set('journal:test:tab:000000002', '{"type":"heard","id":"Two","comm');
  const back = await kept.load(show.id);
  expect(back?.ok && [back.value.show.songs[0]!.title, back.value.chain]).toEqual(['One', [ORIGIN, 'One']]);
});

test('journals of two tabs are one: what either heard counts, whichever wrote the show and whichever was closed first', async () => {
  const store = memoryStore();
  const [one, two] = [repository(store, 'one'), repository(store, 'two')];
  await one.save(copyOf(show));
  await one.append(show.id, { type: 'made', id: 'a', command: rename('A') });
  await two.append(show.id, { type: 'heard', id: 'a', command: rename('A'), after: ORIGIN });
  await one.append(show.id, { type: 'confirmed', id: 'a', after: ORIGIN });
  // One is closed; two goes on, is closed, and a third one opens.
  await two.append(show.id, { type: 'made', id: 'b', command: rename('B') });
  await two.append(show.id, { type: 'confirmed', id: 'b', after: 'a' });
  await two.append(show.id, { type: 'made', id: 'c', command: Command.parse({ type: 'rename-show', name: 'C' }) });
  const back = await repository(store, 'three').load(show.id);
  expect(back?.ok && [back.value.chain, back.value.pending.map(({ id }) => id)]).toEqual([[ORIGIN, 'a', 'b'], ['c']]);
  expect(back?.ok && [back.value.show.songs[0]!.title, back.value.show.name]).toEqual(['B', 'C']);
});

test('writing the whole show empties its own journal, and neither another show’s nor another tab’s', async () => {
  const store = memoryStore();
  const [one, two] = [repository(store, 'one'), repository(store, 'two')];
  store.items.set('journal:other:one:000000001', '{}');
  await one.append(show.id, { type: 'heard', id: 'x', command: rename('X'), after: ORIGIN });
  await two.append(show.id, { type: 'made', id: 'y', command: rename('Y') });
  await one.save(copyOf(show, [ORIGIN, 'x']));
  expect([...store.items.keys()].filter((key) => key.startsWith('journal')).sort()).toEqual([
    'journal:other:one:000000001',
    'journal:test:two:000000001',
  ]);
  // What the other tab made and nobody confirmed is still there to be sent.
  const back = await one.load(show.id);
  expect(back?.ok && back.value.pending.map(({ id }) => id)).toEqual(['y']);
});

test('a show of a version that counted revisions comes back with its journal of patches', async () => {
  const store = memoryStore();
  store.items.set('show:test', JSON.stringify({ show, revision: 3 }));
  const patch = (title: string) =>
    JSON.stringify({ patches: [{ op: 'replace', path: ['songs', 0, 'title'], value: title }] });
  store.items.set('journal:test:000000004', patch('Four'));
  store.items.set('journal:test:000000005', patch('Five'));
  store.items.set('journal:test:000000007', patch('Seven'));
  const kept = repository(store);
  const back = await kept.load('test');
  if (!back?.ok) throw new Error('it loads');
  expect(back.value.show.songs[0]!.title).toBe('Five');
  await kept.save(back.value);
  expect([...store.items.keys()].filter((key) => key.startsWith('journal'))).toEqual([]);
  expect(await kept.load('test')).toEqual(back);
});

test('a deleted show is out of the list, can be brought back, and is swept away with its music an hour later', async () => {
  jest.useFakeTimers({ doNotFake: ['setTimeout'] });
  const store = memoryStore();
  const kept = repository(store);
  const hash = 'ab'.repeat(32);
  const own = edit(
    show,
    Command.parse({
      type: 'add-song',
      added: { ...show.songs[0]!, id: 'own', music: { hash, name: 'a.ogg', type: 'ogg', bytes: 3 } },
    }),
  ).show;
  await kept.save(copyOf(own));
  await kept.save(copyOf({ ...show, id: 'other' as typeof show.id }));
  await kept.putMusic(hash, { bytes: Uint8Array.of(1, 2, 3), peaks: undefined, envelopes: undefined });
  await kept.remove('test');
  expect((await kept.shows()).map(({ id }) => id)).toEqual(['other']);
  await kept.sweep();
  await kept.bringBack('test');
  expect((await kept.load('test'))?.ok).toBe(true);
  await kept.remove('test');
  jest.setSystemTime(Date.now() + 3_700_000);
  await kept.sweep();
  expect(await kept.load('test')).toBeUndefined();
  expect(await kept.music(hash)).toBeUndefined();
  expect((await kept.load('other'))?.ok).toBe(true);
  jest.useRealTimers();
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
  await doc.open(copyOf(show));
  store.full = true;
  expect(await kept.putMusic('h', { bytes: new Uint8Array(10), peaks: undefined, envelopes: undefined })).toEqual({
    code: 'storage-full',
  });
  // Music that is kept already is not lost for want of room to keep it again.
  store.full = false;
  await kept.putMusic('there', { bytes: Uint8Array.of(1, 2), peaks: undefined, envelopes: undefined });
  store.full = true;
  await kept.putMusic('there', { bytes: Uint8Array.of(1, 2), peaks: Uint8Array.of(3), envelopes: undefined });
  expect((await kept.music('there'))?.bytes).toEqual(Uint8Array.of(1, 2));
  doc.make(rename('Still here'));
  await settle();
  expect(doc.store.getState().problem).toEqual({ code: 'storage-full' });
  expect(doc.store.getState().show?.songs[0]!.title).toBe('Still here');
  store.full = false;
  doc.undo();
  await settle();
  expect(doc.store.getState().problem).toBeNull();
  expect(storageProblem(new Error('disk on fire'))).toEqual({ code: 'storage-broken', detail: 'disk on fire' });
});

describe('the open show', () => {
  async function open() {
    const store = memoryStore();
    const kept = repository(store);
    const doc = document(kept);
    const sent: Change[] = [];
    const previews: unknown[] = [];
    const leader: Leader = {
      edit: (_, change) => void sent.push(change),
      preview: (_, ops) => void previews.push(ops),
    };
    doc.follow(leader);
    await doc.open(copyOf(show));
    const title = () => doc.store.getState().show?.songs[0]!.title;
    const journal = () => [...store.items.keys()].filter((key) => key.startsWith('journal:')).length;
    return { doc, sent, previews, title, journal, store, kept };
  }

  test('an edit is shown at once and sent; when it is confirmed it stays, and what others did goes below it', async () => {
    const { doc, sent, title } = await open();
    doc.make(rename('Mine'));
    expect([title(), sent.length]).toEqual(['Mine', 1]);
    doc.take('test', [{ id: 'theirs', command: Command.parse({ type: 'rename-show', name: 'Theirs' }) }]);
    doc.take('test', sent);
    expect(doc.store.getState().show?.name).toBe('Theirs');
    expect(doc.store.getState().copy).toMatchObject({ pending: [], chain: [ORIGIN, 'theirs', sent[0]!.id] });
  });

  test('an edit that did not fit any more is told to its author, and leaves no step', async () => {
    const { doc, sent } = await open();
    const missed: string[] = [];
    doc.onMissed((_, of) => missed.push(of));
    doc.make(rename('Mine'));
    doc.take('test', [{ id: 'theirs', command: Command.parse({ type: 'remove-song', song: 'song' }) }]);
    doc.take('test', sent);
    expect(missed).toEqual(['rename-song']);
    expect(doc.store.getState().steps.past).toEqual([]);
  });

  test('all that one finger does is one edit, one step and one line of the journal, and is seen as it goes', async () => {
    const { doc, sent, previews, title, journal } = await open();
    const drawn: (string | undefined)[] = [];
    doc.onChange((_, now) => drawn.push(now.songs[0]!.title));
    doc.press();
    for (let n = 0; n < 20; n++) doc.make(rename(`T${n}`));
    expect([title(), sent.length]).toEqual(['T19', 0]);
    await new Promise((resolve) => setTimeout(resolve, 80));
    expect(previews.at(-1)).toEqual([{ op: 'set', path: ['songs', 'song', 'title'], from: 'Song', to: 'T19' }]);
    // Somebody else's edit in the middle of it stays.
    doc.take('test', [{ id: 'theirs', command: Command.parse({ type: 'rename-show', name: 'Theirs' }) }]);
    doc.lift();
    await settle();
    expect(sent).toHaveLength(1);
    expect(previews.at(-1)).toBeNull();
    expect(doc.store.getState().steps.past).toHaveLength(1);
    expect([title(), doc.store.getState().show?.name, journal()]).toEqual(['T19', 'Theirs', 2]);
    expect(drawn.filter((one) => one?.startsWith('T')).length).toBeGreaterThan(18);
    doc.undo();
    expect(title()).toBe('Song');
  });

  test('an undo that was offered takes back its own edit, also after others', async () => {
    const { doc, title } = await open();
    doc.make(rename('One'));
    const back = doc.takingBack();
    doc.make(Command.parse({ type: 'rename-show', name: 'Two' }));
    back();
    expect([title(), doc.store.getState().show?.name]).toEqual(['Song', 'Two']);
  });

  test('what can be undone is still there after a reload', async () => {
    const { doc, sent, store } = await open();
    doc.make(rename('Mine'));
    doc.take('test', sent);
    await new Promise((resolve) => setTimeout(resolve, 350));
    const kept = repository(store, 'later');
    const again = document(kept);
    const back = await kept.load('test');
    if (!back?.ok) throw new Error('it loads');
    await again.open(back.value);
    await settle();
    expect(again.store.getState().steps.past).toMatchObject([
      { of: 'rename-song', ops: inverse(inverse(edit(show, rename('Mine')).ops)) },
    ]);
    again.undo();
    expect(again.store.getState().show?.songs[0]!.title).toBe('Song');
  });

  test('undo that is asked for as the page comes takes back the last edit of the page before', async () => {
    const { doc, sent, store } = await open();
    doc.make(rename('Mine'));
    doc.take('test', sent);
    await settle();
    const again = document(repository(store, 'later'));
    const back = await repository(store, 'later').load('test');
    if (!back?.ok) throw new Error('it loads');
    await again.open(back.value, { keep: false });
    again.undo();
    await settle();
    const title = () => again.store.getState().show?.songs[0]!.title;
    expect(title()).toBe('Song');
    again.redo();
    expect(title()).toBe('Mine');
  });

  test.each([0, 1, 2, 3, 4, 5, 6])(
    'where the page goes after %i writes, what is there can be undone to the last edit, and no more',
    async (writes) => {
      const store = memoryStore();
      let left = writes;
      const dying = {
        ...store,
        setMany: async (all: Record<string, string>) => void (left-- > 0 && (await store.setMany(all))),
      };
      await repository(store, 'first').save(copyOf(show));
      const doc = document(repository(dying, 'tab'));
      await doc.open(copyOf(show), { keep: false });
      for (const title of ['One', 'Two', 'Three']) doc.make(rename(title));
      doc.undo();
      doc.make(rename('Four'));
      await settle();
      const kept = repository(store, 'later');
      const back = await kept.load('test');
      if (!back?.ok) throw new Error('it loads');
      const again = document(kept);
      await again.open(back.value, { keep: false });
      await settle();
      const titles = ['Song', 'One', 'Two', 'Three', 'Two', 'Four'];
      const at = () => again.store.getState().show?.songs[0]!.title;
      expect(at()).toBe(titles[Math.min(writes, 5)]);
      const undone = [[], ['Song'], ['One', 'Song'], ['Two', 'One', 'Song'], ['One', 'Song'], ['Two', 'One', 'Song']][
        Math.min(writes, 5)
      ]!;
      for (const title of undone) {
        again.undo();
        expect(at()).toBe(title);
      }
      expect(again.store.getState().steps.past).toEqual([]);
    },
  );

  test('an edit is kept at once, also while writing the whole show waits for another page, and stays when that is done', async () => {
    const store = memoryStore();
    await repository(store, 'first').save(copyOf(show));
    const kept = repository(store, 'tab');
    let goOn: () => void = () => undefined;
    const held = new Promise<void>((resolve) => void (goOn = resolve));
    // Its text is made before it waits, as for the lock of the list of shows.
    const doc = document({ ...kept, save: async (copy, options) => held.then(() => kept.save(copy, options)) });
    const sent: Change[] = [];
    doc.follow({ edit: (_, change) => void sent.push(change), preview: () => undefined });
    const opening = doc.open(copyOf(show));
    doc.make(rename('Mine'));
    await settle();
    const back = async () => {
      const found = await repository(store, 'later').load('test');
      if (!found?.ok) throw new Error('it loads');
      const { show: there, chain, pending } = found.value;
      return [there.songs[0]!.title, chain.length, pending.length];
    };
    expect(await back()).toEqual(['Mine', 1, 1]);
    doc.take('test', sent);
    await settle();
    expect(await back()).toEqual(['Mine', 2, 0]);
    goOn();
    await opening;
    expect(await back()).toEqual(['Mine', 2, 0]);
  });

  test('what was confirmed while the whole show was on its way is not taken for a part of it', async () => {
    const kept = repository(memoryStore(), 'tab');
    const made: Change = { id: 'a', command: rename('A') };
    await kept.append('test', { type: 'made', ...made });
    await kept.append('test', { type: 'confirmed', id: 'a', after: ORIGIN });
    await kept.save(copyOf(show, [ORIGIN], [made]));
    const back = await kept.load('test');
    expect(back?.ok && [back.value.chain, back.value.pending]).toEqual([[ORIGIN, 'a'], []]);
  });

  test('an edit that is refused is taken off, and its step with it', async () => {
    const { doc, sent, title } = await open();
    doc.make(rename('Mine'));
    doc.refuse(sent[0]!.id);
    expect([title(), doc.store.getState().steps.past]).toEqual(['Song', []]);
  });

  test('a show that another screen puts on is followed, and the one before stays in the store with all its edits', async () => {
    const { doc, kept } = await open();
    doc.make(rename('Mine'));
    expect(doc.rejoin({ ...show, id: 'next' as typeof show.id, name: 'Next' }, ['x'])).toBeUndefined();
    await settle();
    expect(doc.store.getState().show?.name).toBe('Next');
    const before = await kept.load('test');
    expect(before?.ok && before.value.show.songs[0]!.title).toBe('Mine');
  });
});

test('shows that are written at the same moment are all in the list', async () => {
  const kept = repository(memoryStore());
  const copies = ['a', 'b', 'c', 'd'].map((one) => copyOf({ ...show, id: one as typeof show.id }));
  await Promise.all(copies.map((copy) => kept.save(copy)));
  expect((await kept.shows()).map(({ id }) => id).sort()).toEqual(['a', 'b', 'c', 'd']);
});
