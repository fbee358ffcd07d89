import { commitAtOnce, memoryStore, readingAhead } from './storage';

async function kept(entries: Readonly<Record<string, string>>) {
  const under = memoryStore();
  for (const [key, value] of Object.entries(entries)) under.items.set(key, value);
  const asked = jest.spyOn(under, 'getItem');
  const store = readingAhead(under);
  await new Promise((resolve) => setTimeout(resolve));
  return { under, store, asked };
}

test('what was open last is read before anybody asks, and once', async () => {
  const { store, asked } = await kept({ current: 'a', 'show:a': 'the show', 'show:b': 'another' });
  expect(asked.mock.calls).toEqual([['current'], ['show:a']]);
  expect(await store.getItem('current')).toBe('a');
  expect(await store.getItem('show:a')).toBe('the show');
  expect(asked).toHaveBeenCalledTimes(2);
  expect(await store.getItem('show:b')).toBe('another');
});

test('what is asked for again is read anew', async () => {
  const { store, under } = await kept({ current: 'a', 'show:a': 'old' });
  await store.getItem('show:a');
  under.items.set('show:a', 'new');
  expect(await store.getItem('show:a')).toBe('new');
});

test('what was written or taken away meanwhile is never given as it was', async () => {
  const { store } = await kept({ current: 'a', 'show:a': 'old' });
  await store.setMany({ 'show:a': 'new' });
  await store.removeMany(['current']);
  expect(await store.getItem('show:a')).toBe('new');
  expect(await store.getItem('current')).toBeNull();
});

test('a device on which nothing was open, and one that cannot be read', async () => {
  expect(await (await kept({})).store.getItem('current')).toBeNull();
  const broken = { ...memoryStore(), getItem: () => Promise.reject(new Error('no database')) };
  await expect(readingAhead(broken).getItem('current')).rejects.toThrow('no database');
});

test('a transaction ends as soon as all of it was asked for, also one that reads, which others would wait for', async () => {
  const done: string[] = [];
  const database = {
    transaction: (_store: string, _mode: IDBTransactionMode) => ({ commit: () => done.push('commit') }),
  };
  commitAtOnce(database as never);
  const write = async () => {
    database.transaction('entries', 'readwrite');
    for (const key of ['a', 'b']) done.push(`put ${key}`);
  };
  await write();
  database.transaction('entries', 'readonly');
  await Promise.resolve();
  expect(done).toEqual(['put a', 'put b', 'commit', 'commit']);
});
