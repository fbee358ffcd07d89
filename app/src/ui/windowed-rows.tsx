// The rows of a long list that are in sight: fetched apart, for it brings a library along.

import { useState, type ReactNode } from 'react';
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/react-virtual';

export type WindowedRowsProps = {
  readonly count: number;
  readonly height: number;
  /** The place of a row that stays there; -1 for none. */
  readonly keep: number;
  readonly keyOf: (at: number) => string;
  readonly children: (at: number) => ReactNode;
};

/** Rows above and below what is in sight, so that a finger never scrolls into nothing. */
const AROUND = 12;

export function WindowedRows({ count, height, keep, keyOf, children }: WindowedRowsProps) {
  const [list, setList] = useState<HTMLDivElement | null>(null);
  // oxlint-disable-next-line react/incompatible-library -- no compiler memoizes what it gives: it is used here alone.
  const rows = useVirtualizer({
    count,
    estimateSize: () => height,
    getItemKey: keyOf,
    getScrollElement: () => scrolling(list),
    // What stands above the list in the same place.
    scrollMargin: list ? topWithin(list) : 0,
    overscan: AROUND,
    rangeExtractor: (range: Range) => {
      const seen = defaultRangeExtractor(range);
      return keep < 0 || seen.includes(keep) ? seen : [...seen, keep].sort((a, b) => a - b);
    },
  });
  const { scrollMargin } = rows.options;
  return (
    <div ref={setList} style={{ position: 'relative', height: rows.getTotalSize() }}>
      {rows.getVirtualItems().map(({ key, index, start }) => (
        <div
          key={key}
          ref={rows.measureElement}
          data-index={index}
          style={{ position: 'absolute', left: 0, right: 0, top: start - scrollMargin }}
        >
          {children(index)}
        </div>
      ))}
    </div>
  );
}

/** The element around it that scrolls. */
function scrolling(element: HTMLElement | null): HTMLElement | null {
  for (let at = element?.parentElement; at; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return null;
}

/** How far below the beginning of what scrolls it begins, in pixels. */
function topWithin(element: HTMLElement): number {
  const around = scrolling(element);
  if (!around) return 0;
  return element.getBoundingClientRect().top - around.getBoundingClientRect().top + around.scrollTop;
}
