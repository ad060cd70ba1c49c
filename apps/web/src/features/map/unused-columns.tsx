import type { Column } from '@mailbag/core';
import { color } from '../../theme';
import { Bar, Small } from '../../ui/layout';
import { Chip } from '../../ui/mark';
import { counted } from '../when';

/** The columns that nothing uses. @param fills fills the chosen field with one; null: none is chosen */
export function UnusedColumns({
  columns,
  unused,
  fills,
}: {
  columns: readonly Column[];
  unused: readonly string[];
  fills: ((column: Column) => void) | null;
}) {
  return (
    <Bar style={{ borderTop: `1px solid ${color.line}`, borderBottom: 0, flexWrap: 'wrap', maxHeight: 84, overflow: 'auto' }}>
      <Small>{unused.length === 0 ? 'Every column is used.' : `${counted(unused.length, 'column')} that nothing uses:`}</Small>
      {unused.map((name) => (
        <Chip
          key={name}
          $column
          title={fills ? `Fill the chosen field with ${name}` : columns.find((column) => column.name === name)?.examples.join(' · ')}
          style={{ cursor: fills ? 'pointer' : 'default', margin: 0 }}
          onClick={() => {
            const column = columns.find((one) => one.name === name);
            if (column) fills?.(column);
          }}
        >
          {name}
        </Chip>
      ))}
    </Bar>
  );
}
