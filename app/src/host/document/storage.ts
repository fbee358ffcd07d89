// Where bytes and texts are kept. The real one is IndexedDB through AsyncStorage; tests bring one in memory.

import { createAsyncStorage } from '@react-native-async-storage/async-storage';

export type Store = {
  readonly getItem: (key: string) => Promise<string | null>;
  /** All of them or, where there is no room or the page goes, none. */
  readonly setMany: (entries: Record<string, string>) => Promise<void>;
  readonly removeMany: (keys: string[]) => Promise<void>;
  readonly getMany: (keys: string[]) => Promise<Record<string, string | null>>;
  readonly getAllKeys: () => Promise<string[]>;
};

let device: Store | undefined;

/**
 * The store of this device, the same for all who ask. AsyncStorage's default store is localStorage and ends at 5 MB; a
 * named one is IndexedDB, and holds whole albums.
 */
export function deviceStore(): Store {
  if (!device) {
    if (typeof IDBDatabase !== 'undefined') commitAtOnce(IDBDatabase.prototype);
    device = readingAhead(createAsyncStorage('hovlix'));
  }
  return device;
}

/**
 * Ends each transaction as soon as all of it was asked for. By itself one is committed when the page has heard that its last request was
 * done: a page that is killed, or closed while it is busy drawing what was edited, would lose what it wrote; and so it would behind
 * one that only reads, since writing waits for that (Indexed Database API 3.0, `commit()` of IDBTransaction). AsyncStorage makes all
 * requests of a transaction in one go.
 */
export function commitAtOnce(database: Pick<IDBDatabase, 'transaction'>): void {
  const begin = database.transaction;
  database.transaction = function begun(this: IDBDatabase, ...asked: Parameters<typeof begin>) {
    const transaction = begin.apply(this, asked);
    // Some browsers have no such method yet.
    queueMicrotask(() => transaction.commit?.());
    return transaction;
  };
}

/** The same store, which begins at once to read what a page asks for first: which show was open last, and that show. */
export function readingAhead(store: Store): Store {
  const begun = new Map<string, Promise<string | null>>();
  const begin = (key: string) => {
    const text = store.getItem(key);
    begun.set(key, text);
    return text;
  };
  // Whoever asks hears of a failure.
  void begin('current').then(
    (id) => (id === null ? null : begin(`show:${id}`).catch(() => null)),
    () => null,
  );
  /** Given once, and never when it was written since. */
  const taken = (key: string) => {
    const text = begun.get(key);
    begun.delete(key);
    return text;
  };
  return {
    ...store,
    getItem: (key) => taken(key) ?? store.getItem(key),
    setMany(entries) {
      for (const key of Object.keys(entries)) begun.delete(key);
      return store.setMany(entries);
    },
    removeMany(keys) {
      for (const key of keys) begun.delete(key);
      return store.removeMany(keys);
    },
  };
}

/** `room`: so many characters of values fit in it. */
export function memoryStore(): Store & { readonly items: Map<string, string>; full: boolean; room: number } {
  const items = new Map<string, string>();
  const store = {
    items,
    full: false,
    room: Infinity,
    getItem: async (key: string) => items.get(key) ?? null,
    async setMany(entries: Record<string, string>) {
      const after = new Map([...items, ...Object.entries(entries)]);
      const taken = [...after.values()].reduce((sum, { length }) => sum + length, 0);
      if (store.full || taken > store.room)
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      for (const [key, value] of Object.entries(entries)) items.set(key, value);
    },
    async removeMany(keys: string[]) {
      for (const key of keys) items.delete(key);
    },
    getMany: async (keys: string[]) => Object.fromEntries(keys.map((key) => [key, items.get(key) ?? null])),
    getAllKeys: async () => [...items.keys()],
  };
  return store;
}
