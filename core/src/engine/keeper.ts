// The program of a show that changes: kept beside it by whoever renders it, page and server alike.

import { readEnvelopes, type Envelopes } from '../music';
import { laid, type Ops, type Show } from '../show';
import { compile } from './compile';
import type { Program } from './program';

export type ProgramKeeper = {
  /** Undefined until there is a show. */
  readonly show: () => Show | undefined;
  readonly program: () => Program | undefined;
  readonly take: (show: Show) => void;
  /** Lays on what changed of it; without a show, nothing. */
  readonly edit: (ops: Ops) => void;
  /** What followers hear in songs, as `readEnvelopes` takes it. What cannot be read is as good as none. */
  readonly hear: (sounds: readonly { readonly hash: string; readonly bytes: Uint8Array }[]) => void;
};

export function programKeeper(): ProgramKeeper {
  const sounds = new Map<string, Envelopes>();
  let show: Show | undefined;
  let program: Program | undefined;
  const take = (next: Show): void => {
    show = next;
    program = compile(next, undefined, sounds);
  };
  return {
    show: () => show,
    program: () => program,
    take,
    edit: (ops) => show && take(laid(show, ops, { force: true }).after),
    hear(heard) {
      for (const { hash, bytes } of heard) {
        const read = readEnvelopes(bytes, hash);
        if (read.ok) sounds.set(hash, read.value);
      }
      if (show) take(show);
    },
  };
}
