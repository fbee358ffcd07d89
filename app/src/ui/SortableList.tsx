// A list whose order is the user's: dragged by its handle, with a mouse, a finger, or the keyboard.

import { lazy, Suspense, type ReactNode } from 'react';
import { LongList } from './LongList';
import { StillItem } from './still-item';

type Props<T extends { readonly id: string }> = {
  readonly items: readonly T[];
  /** What the handle is called: “Move Spot 1”. */
  readonly nameOf: (item: T) => string;
  readonly onOrder: (items: readonly T[]) => void;
  /** Items that open keep their handle at the top. */
  readonly opens?: boolean;
  /** How high a row is, about, in pixels. */
  readonly height?: number;
  readonly children: (item: T) => ReactNode;
};

type Rows = {
  readonly rows: readonly { readonly id: string; readonly name: string; readonly content: () => ReactNode }[];
  readonly opens: boolean;
  readonly height: number;
};

function StillItems({ rows, opens, height }: Rows) {
  return (
    <LongList items={rows} height={height}>
      {({ name, content }) => (
        <StillItem name={name} opens={opens}>
          {content()}
        </StillItem>
      )}
    </LongList>
  );
}

/** Dragging is fetched when the first list is seen; until then, and where it cannot be had, its items stand still. */
const DraggedItems = lazy(() => import('./dragged-items').catch(() => ({ default: StillItems })));

export function SortableList<T extends { readonly id: string }>(props: Props<T>) {
  const { items, nameOf, onOrder, opens = false, height = 60, children } = props;
  const rows = items.map((item) => ({ id: item.id, name: nameOf(item), content: () => children(item) }));
  const move = (from: number, to: number) => {
    const moved = items.filter((_, i) => i !== from);
    moved.splice(to, 0, items[from]!);
    onOrder(moved);
  };
  return (
    <Suspense fallback={<StillItems rows={rows} opens={opens} height={height} />}>
      <DraggedItems rows={rows} opens={opens} height={height} onMove={move} />
    </Suspense>
  );
}
