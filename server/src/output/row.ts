// What every kind of output row can do, whether its light leaves through a network or a cable.

import type { OutputRow, RowTrouble } from '@hovlix/core/connect';

export type RowSender = {
  readonly row: OutputRow;
  /** @param levels 512 levels, lent for the call. @param tick counts frames, the same for all rows of one instant. */
  readonly send: (levels: Uint8Array, tick: number) => void;
  /** Says goodbye where the protocol has a word for it. A later `send` begins anew. */
  readonly fallSilent: () => void;
  readonly trouble: () => RowTrouble | null;
  /** Since it was made. */
  readonly packets: () => number;
  readonly close: () => Promise<void>;
};
