import type { ChangedValue } from '@mailbag/contract';
import type { Cell, Column } from '@mailbag/core';

interface Values {
  columns: readonly Pick<Column, 'name'>[];
  cells: readonly Cell[];
}

/** The values of a record that are others than they were, by the columns that both have. */
export const changedValues = (before: Values, now: Values): ChangedValue[] =>
  now.columns.flatMap(({ name }, at) => {
    const place = before.columns.findIndex((one) => one.name === name);
    const [was, is] = [before.cells[place]?.text ?? '', now.cells[at]?.text ?? ''];
    return place >= 0 && was !== is ? [{ column: name, was, is }] : [];
  });
