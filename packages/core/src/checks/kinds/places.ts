import { t } from '../../words/words.js';
import { normalised } from '../../map/choose.js';
import { pathKey } from '../../copies/file-name.js';
import type { CheckKind } from '../check.js';

/** Rows that are named. */
const MOST_ROWS = 5;

/** No two copies of a batch want the same file; where they do, the later ones get a number behind their name. */
export const places: CheckKind = {
  order: 270,
  findings: {
    'same-file': {
      title: t`File name in use by another copy`,
      sentence: ({ value, details }) =>
        details.rows?.length
          ? t`The copy of row ${details.rows.join(', ')} has the file name “${value}” too, so one of them gets a number behind it. Add a column that tells them apart under Output.`
          : t`Several copies of this record have the file name “${value}”, so all but one get a number behind it. Add the template under Output.`,
    },
  },
  begin: ({ places: wanted, keyColumn }) => {
    if (!wanted) return null;
    const files = new Map<string, { row: number; path: string; key: string }[]>();
    return {
      compares: [...wanted.columns, ...(keyColumn === null ? [] : [keyColumn])],
      see({ record, row }) {
        const key = keyColumn === null ? String(record.row) : normalised(row.cell(keyColumn).text);
        for (const path of wanted.of(record)) {
          const known = files.get(pathKey(path));
          const one = { row: record.row, path, key };
          if (known) known.push(one);
          else files.set(pathKey(path), [one]);
        }
      },
      end(say) {
        for (const same of files.values()) {
          if (same.length < 2) continue;
          const rows = [...new Set(same.map(({ row }) => row))];
          // Of records that share their key, that is what is to be said.
          if (rows.length > 1 && new Set(same.map(({ key }) => key)).size === 1) continue;
          for (const row of rows) {
            const about = { row, column: null, template: null, field: null, label: null };
            const others = rows.filter((one) => one !== row).slice(0, MOST_ROWS);
            say({
              ...about,
              code: 'same-file',
              severity: 'look',
              value: same.find((one) => one.row === row)!.path,
              details: { rows: others },
            });
          }
        }
      },
    };
  },
};
