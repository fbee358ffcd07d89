// A list whose order is the user's: dragged by its handle, with a mouse, a finger, or the keyboard.

import type { ReactNode } from 'react';
import type { DraggedProps } from './dragged-items';
import { fetched } from './fetched';
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

function StillItems({ rows, opens, height }: Omit<DraggedProps, 'onMove'>) {
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

/** Dragging is fetched when the first list is seen; until then, its items stand still. */
const DraggedItems = fetched(async () => (await import('./dragged-items')).DraggedItems, {
  until: (props) => <StillItems {...props} />,
  quiet: true,
});

export function SortableList<T extends { readonly id: string }>(props: Props<T>) {
  const { items, nameOf, onOrder, opens = false, height = 60, children } = props;
  const rows = items.map((item) => ({ id: item.id, name: nameOf(item), content: () => children(item) }));
  const move = (from: number, to: number) => {
    const moved = items.filter((_, i) => i !== from);
    moved.splice(to, 0, items[from]!);
    onOrder(moved);
  };
  return <DraggedItems rows={rows} opens={opens} height={height} onMove={move} />;
}
