import { t } from '@mailbag/core/words';
import type { IntakePlan } from '@mailbag/core';
import { dropQuestion } from '@mailbag/core';
import { DndContext, DragOverlay, PointerSensor, pointerWithin, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { useMayChange } from '../../ui/rights';
import { silentDrag } from '../../ui/silent-drag';

const Grip = styled.span`
  display: flex;
  align-items: center;
  padding-inline-start: 4px;
  color: ${color.faded};
  cursor: grab;
  touch-action: none;
`;
const Flying = styled.div`
  padding: 7px 16px;
  font-weight: 600;
  background: ${color.sheet};
  border: 1px solid ${color.plum};
  border-radius: 4px;
  box-shadow: 0 4px 14px rgb(0 0 0 / 18%);
`;

/** Where a question can be dropped. */
export type DropPlace = { question: string } | { section: string };

/** Lets the questions of a list be dragged to another place. With the keyboard, Alt and the arrows move them. */
export function QuestionDragging({
  plan,
  change,
  children,
}: {
  plan: IntakePlan;
  change: (update: (plan: IntakePlan) => IntakePlan) => void;
  children: ReactNode;
}) {
  const [dragged, setDragged] = useState<string | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  return (
    <DndContext
      sensors={sensors}
      accessibility={silentDrag}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={({ active, over }) => {
        setDragged(null);
        const on = over?.data.current as DropPlace | undefined;
        if (on) change((before) => dropQuestion(before, String(active.id), on));
      }}
    >
      {children}
      <DragOverlay dropAnimation={null}>{dragged !== null && <Flying>{plan.questions[dragged]?.words}</Flying>}</DragOverlay>
    </DndContext>
  );
}

/** What a question is taken by. */
export function QuestionGrip({ id }: { id: string }) {
  const mayChange = useMayChange();
  const { setNodeRef, listeners } = useDraggable({ id, disabled: !mayChange });
  return (
    <Grip ref={setNodeRef} {...listeners} aria-hidden data-grip={id}>
      <GripVertical size={14} />
    </Grip>
  );
}

/** Makes something a place where a question can be dropped. */
export function useQuestionDrop(on: DropPlace): { ref: (element: HTMLElement | null) => void; isOver: boolean } {
  const { setNodeRef, isOver } = useDroppable({ id: 'question' in on ? t`on ${on.question}` : t`under ${on.section}`, data: on });
  return { ref: setNodeRef, isOver };
}
