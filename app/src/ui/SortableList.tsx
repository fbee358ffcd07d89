// A list whose order is the user's: dragged by its handle, with a mouse, a finger, or the keyboard.

import type { CSSProperties, ReactNode } from 'react';
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import GripVertical from 'lucide-react-native/icons/grip-vertical';
import { usePalette } from './palette';

type Props<T extends { readonly id: string }> = {
  readonly items: readonly T[];
  /** What the handle is called: “Move Spot 1”. */
  readonly nameOf: (item: T) => string;
  readonly onOrder: (items: readonly T[]) => void;
  /** Items that open keep their handle at the top. */
  readonly opens?: boolean;
  readonly children: (item: T) => ReactNode;
};

export function SortableList<T extends { readonly id: string }>({
  items,
  nameOf,
  onOrder,
  opens = false,
  children,
}: Props<T>) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        const [from, to] = [active.id, over?.id].map((id) => items.findIndex((item) => item.id === id));
        if (from !== undefined && to !== undefined && from >= 0 && to >= 0 && from !== to)
          onOrder(arrayMove([...items], from, to));
      }}
    >
      <SortableContext items={items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        {items.map((item) => (
          <Item key={item.id} id={item.id} name={nameOf(item)} opens={opens}>
            {children(item)}
          </Item>
        ))}
      </SortableContext>
    </DndContext>
  );
}

type ItemProps = {
  readonly id: string;
  readonly name: string;
  readonly opens: boolean;
  readonly children: ReactNode;
};

function Item({ id, name, opens, children }: ItemProps) {
  const palette = usePalette();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const style: CSSProperties = {
    transform: CSS.Translate.toString(transform),
    ...(transition ? { transition } : {}),
    display: 'flex',
    alignItems: opens ? 'flex-start' : 'center',
    minHeight: 48,
    borderBottom: `1px solid ${palette.line}`,
    background: isDragging ? palette.well : 'transparent',
    position: 'relative',
    zIndex: isDragging ? 2 : 0,
  };
  return (
    <div ref={setNodeRef} style={style}>
      <button
        type="button"
        aria-label={`Move ${name}`}
        {...attributes}
        {...listeners}
        style={{
          width: 44,
          height: 44,
          flexShrink: 0,
          border: 0,
          background: 'transparent',
          cursor: 'grab',
          touchAction: 'none',
          ...(opens ? { marginTop: 4 } : {}),
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <GripVertical size={18} color={palette.quiet} aria-hidden />
      </button>
      <div style={{ flex: 1, minWidth: 0 }}>{children}</div>
    </div>
  );
}
