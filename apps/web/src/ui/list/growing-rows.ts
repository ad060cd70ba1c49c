import type { Row, RowData, RowModel, Table } from '@tanstack/react-table';
import { createRow } from '@tanstack/react-table';

/** How many of some things are the same, from the first on. */
function sameFromStart<T>(before: readonly T[], after: readonly T[]): number {
  const shorter = Math.min(before.length, after.length);
  let same = 0;
  while (same < shorter && before[same] === after[same]) same++;
  return same;
}

/** Rows of a table whose data grows at its end as one scrolls: those that are there stay, so that the last page of many costs as little as the first. */
export function growingRowModel<T extends RowData>(): (table: Table<T>) => () => RowModel<T> {
  return (table) => {
    let [data, rows]: [readonly T[], Row<T>[]] = [[], []];
    let model: RowModel<T> = { rows, flatRows: rows, rowsById: {} };
    return () => {
      const next = table.options.data;
      if (next === data) return model;
      const same = sameFromStart(data, next);
      rows = [
        ...rows.slice(0, same),
        ...next.slice(same).map((row, at) => createRow(table, table._getRowId(row, same + at), row, same + at, 0)),
      ];
      data = next;
      const own = rows;
      model = {
        rows,
        flatRows: rows,
        get rowsById() {
          return Object.fromEntries(own.map((row) => [row.id, row]));
        },
      };
      return model;
    };
  };
}
