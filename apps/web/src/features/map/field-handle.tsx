import { useDraggable } from '@dnd-kit/core';

/** The words of a field in the fill sheet, by which it is dragged onto a column. */
export function FieldHandle({ template, field, label }: { template: number; field: string; label: string }) {
  const { setNodeRef, listeners } = useDraggable({ id: `field ${template} ${field}`, data: { field: { template, field }, label } });
  return (
    <span ref={setNodeRef} {...listeners} style={{ touchAction: 'none' }}>
      {label}
    </span>
  );
}
