import { ChangeWatch, renamedColumns } from './changes.js';
import type { Column, SourceRecord } from './record.js';

const column = (name: string, examples: string[] = []): Column => ({
  name,
  slug: name,
  kind: 'text',
  empty: 0,
  distinct: 1,
  longest: '',
  examples,
});
const records = (...rows: string[][]): SourceRecord[] =>
  rows.map((cells, index) => ({ row: index + 2, cells: cells.map((text) => ({ text, value: text })) }));

function compare(before: SourceRecord[], now: SourceRecord[], columns = [column('Plot'), column('Name')], columnsNow = columns) {
  const watch = new ChangeWatch(columns, columnsNow, 'Plot');
  watch.was(before);
  watch.now(now);
  return watch.done((ordinal) => before[ordinal]);
}

test('records are known again by key, wherever they stand', () => {
  const changes = compare(records(['A-1', 'Ann'], ['A-2', 'Bo'], ['A-3', 'Cy']), records(['A-4', 'New'], ['a-3 ', 'Cy'], ['A-1', 'Anna']));
  expect(changes).toMatchObject({ added: 1, gone: 1, changed: 2, addedKeys: ['a-4'], goneKeys: ['a-2'] });
  expect(changes.changedValues).toEqual([
    { key: 'a-3', column: 'Plot', was: 'A-3', now: 'a-3 ' },
    { key: 'a-1', column: 'Name', was: 'Ann', now: 'Anna' },
  ]);
});
test('two records of one key are told apart by their order, so that nothing seems changed when nothing is', () => {
  const rows = records(['A-1', 'Ann'], ['A-1', 'Bo'], ['A-2', 'Cy']);
  expect(compare(rows, rows)).toMatchObject({ added: 0, gone: 0, changed: 0 });
  expect(compare(rows, records(['A-1', 'Ann'], ['A-1', 'Bob'], ['A-2', 'Cy'])).changedValues).toEqual([
    { key: 'a-1 #2', column: 'Name', was: 'Bo', now: 'Bob' },
  ]);
});
test('a column that was moved changes nothing; a new one and a gone one are named', () => {
  const changes = compare(records(['A-1', 'Ann']), records(['Ann', 'x', 'A-1']), undefined, [
    column('Name'),
    column('Town'),
    column('Plot'),
  ]);
  expect(changes).toMatchObject({ changed: 0, newColumns: ['Town'], goneColumns: [] });
});
test('a column that is gone is found again by its name or by what stands in it', () => {
  const before = [column('Postal code', ['04471', '05512']), column('E-mail', ['a@example.org']), column('Site', ['Mill Lane'])];
  const now = [column('PLZ', ['04471', '05512']), column('E-mail address', ['b@example.org']), column('Remarks', ['none'])];
  expect(renamedColumns(before, now)).toEqual([
    { from: 'Postal code', to: 'PLZ' },
    { from: 'E-mail', to: 'E-mail address' },
  ]);
});
