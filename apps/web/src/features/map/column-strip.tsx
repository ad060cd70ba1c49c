import { plural, t } from '@mailbag/core/words';
import { useDraggable } from '@dnd-kit/core';
import type { Column } from '@mailbag/core';
import { useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Bar, Small } from '../../ui/layout';

const ColumnButton = styled.button`
  border: 0;
  border-radius: 4px;
  background: ${color.kraft};
  color: inherit;
  padding: 0 6px;
  font-size: 13px;
  line-height: 22px;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: grab;
  touch-action: none;
  &[data-used] {
    background: ${color.slateWash};
  }
  &[data-dragged] {
    opacity: 0.4;
  }
  &:focus-visible {
    outline: 2px solid ${color.plum};
  }
`;

function ColumnHandle({ column, isUsed, onFill }: { column: Column; isUsed: boolean; onFill: (() => void) | null }) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `column ${column.name}`, data: { column: column.name } });
  return (
    <ColumnButton
      ref={setNodeRef}
      {...listeners}
      data-column={column.name}
      data-used={isUsed || undefined}
      data-dragged={isDragging || undefined}
      aria-label={`${column.name}${isUsed ? '' : t`, not used`}`}
      title={`${onFill ? t`Fill the chosen field with ${column.name}` : t`Drag ${column.name} onto a field`}${column.examples.length > 0 ? `: ${column.examples.slice(0, 3).join(' · ')}` : ''}`}
      onClick={() => onFill?.()}
    >
      {column.name}
    </ColumnButton>
  );
}

/** The columns of the source, to be dragged onto a field; those that nothing uses in front. @param fills fills the chosen field with one; null: none is chosen */
export function ColumnStrip({
  columns,
  unused,
  fills,
}: {
  columns: readonly Column[];
  unused: readonly string[];
  fills: ((column: Column) => void) | null;
}) {
  const [showsAll, setShowsAll] = useState(false);
  const [text, setText] = useState('');
  const wanted = text.trim().toLowerCase();
  const shown = columns.filter(({ name }) => (showsAll ? name.toLowerCase().includes(wanted) : unused.includes(name)));
  return (
    <Bar
      role="group"
      aria-label={t`Columns`}
      style={{ borderTop: `1px solid ${color.line}`, borderBottom: 0, flexWrap: 'wrap', maxHeight: 118, overflow: 'auto' }}
    >
      <Small>{unused.length === 0 ? t`Every column is used.` : t`${plural(unused.length, 'column')} that nothing uses`}</Small>
      {showsAll && (
        <div style={{ width: 130 }}>
          <TextInput label={t`Search the columns`} hideLabel placeholder={t`Search`} value={text} onChange={setText} />
        </div>
      )}
      {shown.map((column) => (
        <ColumnHandle key={column.name} column={column} isUsed={!unused.includes(column.name)} onFill={fills && (() => fills(column))} />
      ))}
      {unused.length < columns.length && (
        <Button small look="bare" aria-expanded={showsAll} onPress={() => setShowsAll(!showsAll)}>
          {showsAll ? t`Only the unused` : t`All ${columns.length}`}
        </Button>
      )}
    </Bar>
  );
}
