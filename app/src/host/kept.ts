// What a person likes, kept in this browser: all its windows share it, and it is no part of a show. And what a window
// knows of itself when its page is loaded anew.

import type { z } from 'zod';

export type Kept<Value> = {
  readonly read: () => Value;
  /** Keeps a change of what is kept now, which another window may have changed since it was read here. */
  readonly keep: (change: (now: Value) => Value) => void;
  /** Calls with what is kept whenever another window kept something. */
  readonly heard: (take: (value: Value) => void) => void;
};

/** A word of this window alone, as long as it is there. Nothing is kept where the browser keeps nothing. */
export function keptInWindow(key: string) {
  return {
    read(): string | undefined {
      try {
        return window.sessionStorage.getItem(key) ?? undefined;
      } catch {
        return undefined;
      }
    },
    keep(word: string | undefined): void {
      try {
        if (word === undefined) window.sessionStorage.removeItem(key);
        else window.sessionStorage.setItem(key, word);
      } catch {
        // It holds until the page is loaded anew.
      }
    },
  };
}

/**
 * A value of this browser under a name.
 * @param none what holds where nothing is kept yet, or nothing that can be read: a habit, and no more, is lost.
 */
export function kept<Value>(key: string, schema: z.ZodType<Value>, none: Value): Kept<Value> {
  const read = () => {
    try {
      return schema.parse(JSON.parse(window.localStorage.getItem(key) ?? ''));
    } catch {
      return none;
    }
  };
  return {
    read,
    keep(change) {
      try {
        window.localStorage.setItem(key, JSON.stringify(change(read())));
      } catch {
        // No room, or a browser that keeps nothing: it holds until the window is closed.
      }
    },
    heard: (take) =>
      window.addEventListener('storage', (event) => {
        if (event.key === key) take(read());
      }),
  };
}
