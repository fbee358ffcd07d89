// The program of a show that changes: kept beside it by whoever renders it, page and server alike.

import { readEnvelopes, type Envelopes } from '../music';
import { laid, type Ops, type Show } from '../show';
import { compiler, type Compiling } from './compile';
import type { Program } from './program';

export type ProgramKeeper = {
  /** The newest; undefined until there is a show. */
  readonly show: () => Show | undefined;
  /** The last that could be made: the light goes on by it while the next one is in the making. */
  readonly program: () => Program | undefined;
  /** Why the newest show has no program; null where it has, or will have. */
  readonly trouble: () => string | null;
  readonly take: (show: Show) => void;
  /** Lays on what changed of it; without a show, nothing. */
  readonly edit: (ops: Ops) => void;
  /** What followers hear in songs, as `readEnvelopes` takes it. What cannot be read is as good as none. */
  readonly hear: (sounds: readonly { readonly hash: string; readonly bytes: Uint8Array }[]) => void;
  /**
   * Goes on making the next program until it is there, or `enough` says so: it is asked every millisecond or so.
   * @returns whether there is a new one.
   */
  readonly work: (enough?: () => boolean) => boolean;
};

const never = () => false;

export function programKeeper(): ProgramKeeper {
  const sounds = new Map<string, Envelopes>();
  /** What was heard of and not read yet: with the songs of a long evening that is a third of a second of work. */
  const unread: { readonly hash: string; readonly bytes: Uint8Array }[] = [];
  let compile = compiler();
  let show: Show | undefined;
  let program: Program | undefined;
  let trouble: string | null = null;
  /** What is in the making; what came meanwhile is next, so that a stream of edits cannot keep it from being finished. */
  let making: Compiling | undefined;
  let behind = false;

  const fail = (error: unknown) => {
    making = undefined;
    // Half of it may have been made.
    compile = compiler();
    trouble = error instanceof Error ? error.message : String(error);
  };
  const work = (enough: () => boolean = never): boolean => {
    try {
      while (making || behind || unread.length > 0) {
        const heard = making ? undefined : unread.shift();
        if (heard) {
          const read = readEnvelopes(heard.bytes, heard.hash);
          if (read.ok) sounds.set(heard.hash, read.value);
          behind = show !== undefined;
          if (enough()) return false;
          continue;
        }
        if (!making) {
          making = compile(show!, undefined, sounds);
          behind = false;
        }
        const { done, value } = making.next();
        if (done) {
          making = undefined;
          program = value;
          trouble = null;
          return true;
        }
        if (enough()) return false;
      }
    } catch (error) {
      fail(error);
    }
    return false;
  };
  const take = (next: Show): void => {
    show = next;
    behind = true;
  };
  return {
    show: () => show,
    program: () => program,
    trouble: () => trouble,
    take,
    edit: (ops) => show && take(laid(show, ops, { force: true }).after),
    hear(heard) {
      unread.push(...heard);
    },
    work,
  };
}
