// Where bytes and texts are kept. The real one is IndexedDB through AsyncStorage; tests bring one in memory.

import { createAsyncStorage } from '@react-native-async-storage/async-storage';

export type Store = {
  readonly getItem: (key: string) => Promise<string | null>;
  readonly setItem: (key: string, value: string) => Promise<void>;
  readonly removeMany: (keys: string[]) => Promise<void>;
  readonly getMany: (keys: string[]) => Promise<Record<string, string | null>>;
  readonly getAllKeys: () => Promise<string[]>;
};

/** AsyncStorage's default store is localStorage and ends at 5 MB; a named one is IndexedDB, and holds whole albums. */
export function deviceStore(): Store {
  return createAsyncStorage('hovlix');
}

export function memoryStore(): Store & { readonly items: Map<string, string>; full: boolean } {
  const items = new Map<string, string>();
  const store = {
    items,
    full: false,
    getItem: async (key: string) => items.get(key) ?? null,
    async setItem(key: string, value: string) {
      if (store.full) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      items.set(key, value);
    },
    async removeMany(keys: string[]) {
      for (const key of keys) items.delete(key);
    },
    getMany: async (keys: string[]) => Object.fromEntries(keys.map((key) => [key, items.get(key) ?? null])),
    getAllKeys: async () => [...items.keys()],
  };
  return store;
}
