// What can be dragged in a sortable list: fetched apart, for it brings a library along.

import { useState, type ReactNode } from 'react';
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { LongList } from './LongList';
import { StillItem } from './still-item';

type RowOf = { readonly id: string; readonly name: string; readonly content: () => ReactNode };

export type DraggedProps = {
  readonly rows: readonly RowOf[];
  readonly opens: boolean;
  readonly height: number;
  readonly onMove: (from: number, to: number) => void;
};

export function DraggedItems({ rows, opens, height, onMove }: DraggedProps) {
  const [lifted, setLifted] = useState<string>();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const at = (id: string | number | undefined) => rows.findIndex((row) => row.id === id);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragStart={({ active }) => setLifted(String(active.id))}
      onDragCancel={() => setLifted(undefined)}
      onDragEnd={({ active, over }) => {
        setLifted(undefined);
        const [from, to] = [at(active.id), at(over?.id)];
        if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
      }}
    >
      <SortableContext items={rows.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <LongList items={rows} height={height} keep={lifted}>
          {(row) => <Item row={row} opens={opens} />}
        </LongList>
      </SortableContext>
    </DndContext>
  );
}

function Item({ row, opens }: { readonly row: RowOf; readonly opens: boolean }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: row.id });
  const drag = {
    ref: setNodeRef,
    handle: { ...attributes, ...listeners },
    style: { transform: CSS.Translate.toString(transform), ...(transition ? { transition } : {}) },
    lifted: isDragging,
  };
  return (
    <StillItem name={row.name} opens={opens} drag={drag}>
      {row.content()}
    </StillItem>
  );
}
