import { createTable } from '@tanstack/react-table';
import { growingRowModel } from './growing-rows';

interface Copy {
  code: string;
}
const copies = (...codes: string[]): Copy[] => codes.map((code) => ({ code }));

/** A table over some copies, and how its rows are after it was given others. */
function tableOver(data: Copy[]) {
  const table = createTable<Copy>({
    data,
    columns: [{ id: 'code', accessorFn: ({ code }) => code }],
    getRowId: ({ code }) => code,
    getCoreRowModel: growingRowModel(),
    state: {},
    onStateChange: () => undefined,
    renderFallbackValue: null,
  });
  return {
    rows: () => table.getCoreRowModel().rows,
    byId: (id: string) => table.getCoreRowModel().rowsById[id],
    give: (next: Copy[]) => table.setOptions((before) => ({ ...before, data: next })),
  };
}

test('rows that are there stay the same rows when others come in behind them', () => {
  const first = copies('A', 'B');
  const table = tableOver(first);
  const before = table.rows();
  table.give([...first, ...copies('C', 'D')]);
  const after = table.rows();
  expect(after.map(({ id }) => id)).toEqual(['A', 'B', 'C', 'D']);
  expect(after.map(({ index }) => index)).toEqual([0, 1, 2, 3]);
  expect([after[0] === before[0], after[1] === before[1]]).toEqual([true, true]);
  expect(after[2]!.getValue('code')).toBe('C');
});

test('from the first that is another one on, rows are made anew with what they are now', () => {
  const [a, b, c] = copies('A', 'B', 'C') as [Copy, Copy, Copy];
  const table = tableOver([a, b, c]);
  const before = table.rows();
  table.give([a, { code: 'B2' }, c]);
  const after = table.rows();
  expect(after.map((row) => row.getValue('code'))).toEqual(['A', 'B2', 'C']);
  expect(after[0]).toBe(before[0]);
  expect(after[2]).not.toBe(before[2]);
});

test('fewer rows, none, and the same again', () => {
  const three = copies('A', 'B', 'C');
  const table = tableOver(three);
  const before = table.rows();
  expect(table.rows()).toBe(before);
  table.give(three.slice(0, 1));
  expect(table.rows().map(({ id }) => id)).toEqual(['A']);
  expect([table.byId('A')?.id, table.byId('B')]).toEqual(['A', undefined]);
  table.give([]);
  expect(table.rows()).toEqual([]);
});
