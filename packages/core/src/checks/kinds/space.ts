import { readsColumns } from '../../map/registry.js';
import type { CheckKind } from '../check.js';

/** Values that are printed as they stand do not start or end with a space. */
export const space: CheckKind = ({ templates, columns }) => {
  const read = new Set(
    templates.flatMap(({ map }) => Object.values(map).flatMap((rule) => (rule.kind === 'column' ? readsColumns(rule) : []))),
  );
  const watched = columns.map((column) => column.name).filter((name) => read.has(name));
  return {
    see({ row }, say) {
      for (const column of watched) {
        const { text } = row.cell(column);
        if (text.trim() !== '' && text !== text.trim()) {
          say({
            code: 'stray-space',
            severity: 'look',
            row: row.row,
            column,
            template: null,
            field: null,
            label: null,
            value: text,
            details: {},
          });
        }
      }
    },
  };
};
