// A list of any length. A short one is there as a whole; of a long one, what is in sight and a little around it.

import { Fragment, type ReactNode } from 'react';
import { fetched } from './fetched';
import type { WindowedRowsProps } from './windowed-rows';

type Props<T extends { readonly id: string }> = {
  readonly items: readonly T[];
  /** How high a row is, about, in pixels; what is seen is measured. */
  readonly height: number;
  /** A row that stays there wherever one scrolls to: one that is being dragged. */
  readonly keep?: string | undefined;
  readonly children: (item: T) => ReactNode;
};

/** From so many rows on, those out of sight are left out. */
const LONG = 60;
/** So many are there before the library is. */
const FIRST = 24;

/** Fetched when the first long list is seen. */
const WindowedRows = fetched(async () => (await import('./windowed-rows')).WindowedRows, {
  until: ({ count, children }: WindowedRowsProps) =>
    Array.from({ length: Math.min(FIRST, count) }, (_, at) => <Fragment key={at}>{children(at)}</Fragment>),
});

export function LongList<T extends { readonly id: string }>({ items, height, keep, children }: Props<T>) {
  if (items.length <= LONG) return items.map((item) => <Fragment key={item.id}>{children(item)}</Fragment>);
  return (
    <WindowedRows
      count={items.length}
      height={height}
      keep={keep === undefined ? -1 : items.findIndex(({ id }) => id === keep)}
      keyOf={(at) => items[at]!.id}
    >
      {(at) => children(items[at]!)}
    </WindowedRows>
  );
}
