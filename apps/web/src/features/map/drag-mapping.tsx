import type { DragEndEvent, DragMoveEvent, DragStartEvent } from '@dnd-kit/core';
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import { useState } from 'react';
import styled from 'styled-components';
import { color, shadow } from '../../theme';
import type { ChosenField } from './fill-sheet';
import { silentDrag } from '../../ui/silent-drag';

const Carried = styled.span`
  display: inline-block;
  padding: 1px 8px;
  border-radius: 4px;
  background: ${color.kraft};
  box-shadow: ${shadow};
  pointer-events: none;
  white-space: nowrap;
`;

type Dragged = { column: string } | { field: ChosenField; label: string };

/** Where the pointer is while something is dragged. */
function pointerOf({ activatorEvent, delta }: DragMoveEvent | DragEndEvent): { x: number; y: number } | null {
  return activatorEvent instanceof PointerEvent ? { x: activatorEvent.clientX + delta.x, y: activatorEvent.clientY + delta.y } : null;
}

/** What lies under the pointer: a field, of the page or of the fill sheet, or a column. */
function targetAt(point: { x: number; y: number } | null, shownTemplate: number | undefined): { field?: ChosenField; column?: string } {
  const element = point && document.elementFromPoint(point.x, point.y);
  const row = element?.closest<HTMLElement>('[data-row-field]');
  if (row) return { field: { template: Number(row.dataset.rowTemplate), field: row.dataset.rowField! } };
  const box = element?.closest<HTMLElement>('[data-field]');
  if (box && shownTemplate !== undefined) return { field: { template: shownTemplate, field: box.dataset.field! } };
  const column = element?.closest<HTMLElement>('[data-column]')?.dataset.column;
  return column === undefined ? {} : { column };
}

/**
 * Lets columns be dragged onto fields, and fields onto columns. With keys the same is done by choosing a field and then a column.
 * @param shownTemplate id of the template on the page
 */
export function DragMapping({
  shownTemplate,
  onOver,
  onMap,
  children,
}: {
  shownTemplate: number | undefined;
  /** The field over which a column is held. */
  onOver: (field: ChosenField | null) => void;
  onMap: (field: ChosenField, column: string) => void;
  children: ReactNode;
}) {
  const [dragged, setDragged] = useState<Dragged | null>(null);
  // A click stays a click.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const end = (event: DragEndEvent): void => {
    const own = dragged;
    setDragged(null);
    onOver(null);
    const target = targetAt(pointerOf(event), shownTemplate);
    if (own && 'column' in own && target.field) onMap(target.field, own.column);
    if (own && 'field' in own && target.column !== undefined) onMap(own.field, target.column);
  };
  return (
    <DndContext
      sensors={sensors}
      accessibility={silentDrag}
      autoScroll
      onDragStart={({ active }: DragStartEvent) => setDragged(active.data.current as Dragged)}
      onDragMove={(event) => dragged && 'column' in dragged && onOver(targetAt(pointerOf(event), shownTemplate).field ?? null)}
      onDragCancel={() => {
        setDragged(null);
        onOver(null);
      }}
      onDragEnd={end}
    >
      {children}
      <DragOverlay dropAnimation={null} style={{ pointerEvents: 'none' }}>
        {dragged && <Carried>{'column' in dragged ? dragged.column : dragged.label}</Carried>}
      </DragOverlay>
    </DndContext>
  );
}
