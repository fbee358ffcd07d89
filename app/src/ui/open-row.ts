// Which row of a list is open, where rows are known by their place: as one before it is taken out, the same stays open.

import { useState } from 'react';

export type OpenRow = {
  readonly isOpen: (at: number) => boolean;
  /** Opens a row, or closes the one that is. */
  readonly toggle: (at: number) => void;
  readonly show: (at: number) => void;
  /** Is told which row was taken out. */
  readonly removed: (at: number) => void;
};

export function useOpenRow(first: number | null = null): OpenRow {
  const [open, setOpen] = useState(first);
  return {
    isOpen: (at) => open === at,
    toggle: (at) => setOpen(open === at ? null : at),
    show: setOpen,
    removed: (at) => setOpen((now) => (now === null || now === at ? null : now > at ? now - 1 : now)),
  };
}
