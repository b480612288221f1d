import { DndContext, KeyboardSensor, PointerSensor, TouchSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import type { DragEndEvent } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { ReactNode } from 'react';
import { BOLD, usePalette } from '../../../theme/theme';

interface Item {
  readonly id: string;
  readonly name: string;
  readonly content: ReactNode;
}

function Row({ item }: { readonly item: Item }) {
  const palette = usePalette();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: item.id });
  return (
    <div
      ref={setNodeRef}
      style={{
        transform: CSS.Translate.toString(transform),
        transition: transition ?? '',
        opacity: isDragging ? 0.7 : 1,
        display: 'flex',
        alignItems: 'flex-start',
        gap: 6,
        position: 'relative',
        zIndex: isDragging ? 2 : 0,
      }}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move: ${item.name}`}
        style={{
          width: 44,
          minHeight: 48,
          flexShrink: 0,
          touchAction: 'none',
          border: `2px solid ${palette.hairline}`,
          borderRadius: 6,
          background: palette.sheet,
          color: palette.ink,
          fontFamily: BOLD,
          fontSize: 20,
          cursor: 'grab',
        }}
      >
        ⋮⋮
      </button>
      <div style={{ flex: 1, minWidth: 0 }}>{item.content}</div>
    </div>
  );
}

/** A list that is put in order by dragging its handles, with a finger, a pointer, or from the keyboard: space, arrows, space. */
export function StepOrder({ items, onMove }: { readonly items: readonly Item[]; readonly onMove: (from: number, to: number) => void }) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent): void => {
    const from = items.findIndex((item) => item.id === active.id);
    const to = items.findIndex((item) => item.id === over?.id);
    if (from !== -1 && to !== -1 && from !== to) onMove(from, to);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={items.map((item) => item.id)} strategy={verticalListSortingStrategy}>
        <div style={{ display: 'flex', flexDirection: 'column', gap: 8 }}>
          {items.map((item) => (
            <Row key={item.id} item={item} />
          ))}
        </div>
      </SortableContext>
    </DndContext>
  );
}
