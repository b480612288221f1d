import { DndContext, PointerSensor, TouchSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import type { DragEndEvent } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { KeyboardEvent, ReactNode } from 'react';
import { BOLD, usePalette } from '../../../theme/theme';

interface Item {
  readonly id: string;
  readonly name: string;
  readonly content: ReactNode;
}

function Row({ item, onKey }: { readonly item: Item; readonly onKey: (event: KeyboardEvent<HTMLButtonElement>) => void }) {
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
        onKeyDown={onKey}
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
        ↕
      </button>
      <div style={{ flex: 1, minWidth: 0 }}>{item.content}</div>
    </div>
  );
}

/** A list that is put in order by dragging its handles with a finger or a pointer; from the keyboard, the arrows move the one that has the focus. */
export function StepOrder({ items, onMove }: { readonly items: readonly Item[]; readonly onMove: (from: number, to: number) => void }) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }), useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }));
  const end = ({ active, over }: DragEndEvent): void => {
    const from = items.findIndex((item) => item.id === active.id);
    const to = items.findIndex((item) => item.id === over?.id);
    if (from !== -1 && to !== -1 && from !== to) onMove(from, to);
  };
  const byKey =
    (from: number) =>
    (event: KeyboardEvent<HTMLButtonElement>): void => {
      const to = event.key === 'ArrowUp' ? from - 1 : event.key === 'ArrowDown' ? from + 1 : -1;
      if (to < 0 || to >= items.length) return;
      event.preventDefault();
      const handle = event.currentTarget;
      onMove(from, to);
      // The row was moved in the page, which drops the focus.
      requestAnimationFrame(() => {
        handle.focus();
      });
    };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      accessibility={{ screenReaderInstructions: { draggable: 'Arrow up and arrow down move this step.' } }}
    >
      <SortableContext items={items.map((item) => item.id)} strategy={verticalListSortingStrategy}>
        <div style={{ display: 'flex', flexDirection: 'column', gap: 8 }}>
          {items.map((item, index) => (
            <Row key={item.id} item={item} onKey={byKey(index)} />
          ))}
        </div>
      </SortableContext>
    </DndContext>
  );
}
