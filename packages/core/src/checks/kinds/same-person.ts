import { t } from '../../words/words.js';
import type { Column } from '../../tables/record.js';
import type { Row } from '../../map/row.js';
import { isNameColumn } from '../name-column.js';
import type { CheckKind } from '../check.js';
import { aboutValue } from '../check.js';

const BORN = /born|birth|geburt|naissance|nacimiento|nascita/i;

/** A name for comparing: without marks, case and order of its words. */
export const nameKey = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .sort()
    .join(' ');
const bare = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}@]+/gu, '');

/** What makes two people of one name the same: one of these lists of columns agrees in all of its values. */
function proofs(columns: readonly Column[]): Column[][] {
  const of = (kind: Column['kind']): Column[] => columns.filter((column) => column.kind === kind);
  const born = columns.filter(({ kind, name }) => kind === 'date' && BORN.test(name));
  return [
    ...[...born, ...of('email'), ...of('iban')].map((column) => [column]),
    ...of('phone').flatMap((phone) => of('address').map((address) => [phone, address])),
  ];
}

/** Records that probably are the same person: one name, and one day of birth, address of mail or account, or telephone and street. */
export const samePerson: CheckKind = {
  order: 200,
  findings: {
    'same-person': {
      title: t`Probably the same person`,
      sentence: ({ details }) => t`Row ${details.rows?.join(', ')} has the same name and the same ${details.why}.`,
    },
  },
  begin: ({ columns, plan = {}, keyColumn }) => {
    if (plan.samePerson === false) return null;
    const names = columns.filter((column) => isNameColumn(column) && column.name !== keyColumn);
    const lists = proofs(columns);
    if (names.length === 0 || lists.length === 0) return null;
    const seen = lists.map(() => new Map<string, { row: number; value: string }[]>());
    const nameOf = (row: Row): string => names.map(({ name }) => row.cell(name).text).join(' ');
    return {
      compares: [...names, ...lists.flat()].map(({ name }) => name),
      see({ row }) {
        const shown = nameOf(row);
        const name = nameKey(shown);
        if (name === '') return;
        lists.forEach((list, index) => {
          const values = list.map((column) => bare(row.cell(column.name).text));
          if (values.some((value) => value === '')) return;
          const key = `${name}\n${values.join('\n')}`;
          const known = seen[index]!.get(key);
          if (known) known.push({ row: row.row, value: shown });
          else seen[index]!.set(key, [{ row: row.row, value: shown }]);
        });
      },
      end(say) {
        const told = new Set<string>();
        seen.forEach((groups, index) => {
          for (const group of groups.values()) {
            if (group.length < 2) continue;
            for (const { row, value } of group) {
              const rows = group.filter((one) => one.row !== row).map((one) => one.row);
              const key = `${row} ${rows.join(' ')}`;
              if (told.has(key)) continue;
              told.add(key);
              const why = lists[index]!.map(({ name }) => name).join(t` and `);
              say({
                ...aboutValue(row, names[0]!.name, value.trim()),
                code: 'same-person',
                severity: 'look',
                details: { rows: rows.slice(0, 5), why },
              });
            }
          }
        });
      },
    };
  },
};
