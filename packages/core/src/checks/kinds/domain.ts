import { t } from '../../words/words.js';
import { distance } from 'fastest-levenshtein';
import { addressFault, domainOf } from '../../mail/address.js';
import { meantProvider } from '../../mail/providers.js';
import type { CheckKind } from '../check.js';
import { aboutValue, columnsWith } from '../check.js';

/** Endings that are slips of the hand for common ones; common practice, no source. */
const slips: Record<string, string> = {
  con: 'com',
  cmo: 'com',
  ocm: 'com',
  comm: 'com',
  ogr: 'org',
  rog: 'org',
  nte: 'net',
  ent: 'net',
  dee: 'de',
};

/** How much more often a domain must stand in the column than one that is taken for its misspelling. */
const TIMES = 10;

/** Domains that nearly are another one which most addresses of the column have, or at which many people have their mail. */
export const domain: CheckKind = {
  order: 60,
  column: { switch: 'domain', says: t`has no mistyped domain`, proposed: ({ kind }) => kind === 'email' },
  findings: {
    'domain-typo': {
      title: t`Domain looks mistyped`,
      sentence: ({ details }) => t`${details.why} is far more usual. Is it meant here too?`,
    },
  },
  begin: (setup) => {
    const watched = columnsWith(setup, 'domain').map(({ column }) => ({
      column: column.name,
      counts: new Map<string, number>(),
      rows: new Map<string, { row: number; value: string }[]>(),
    }));
    if (watched.length === 0) return null;
    return {
      compares: watched.map(({ column }) => column),
      see({ row }, say) {
        for (const { column, counts, rows } of watched) {
          const { text } = row.cell(column);
          if (text.trim() === '' || addressFault(text)) continue;
          const found = domainOf(text.trim());
          const ending = found.slice(found.lastIndexOf('.') + 1);
          if (Object.hasOwn(slips, ending)) {
            const meant = found.slice(0, -ending.length) + slips[ending]!;
            say({
              ...aboutValue(row.row, column, text),
              code: 'domain-typo',
              severity: 'look',
              details: { why: meant },
              mend: text.trim().slice(0, -ending.length) + slips[ending]!,
            });
            continue;
          }
          const count = (counts.get(found) ?? 0) + 1;
          counts.set(found, count);
          // Only rare domains are ever told, so the rows of others need not be kept.
          if (count > 3) rows.delete(found);
          else rows.set(found, [...(rows.get(found) ?? []), { row: row.row, value: text }]);
        }
      },
      end(say) {
        for (const { column, counts, rows } of watched) {
          const common = [...counts].filter(([, count]) => count >= TIMES);
          for (const [rare, places] of rows) {
            const meant =
              common.find(
                ([known, count]) => count >= TIMES * places.length && known !== rare && distance(known, rare) <= (known.length > 7 ? 2 : 1),
              )?.[0] ?? meantProvider(rare);
            if (!meant) continue;
            for (const { row, value } of places) {
              const mend = value.trim().slice(0, value.trim().lastIndexOf('@') + 1) + meant;
              say({ ...aboutValue(row, column, value), code: 'domain-typo', severity: 'look', details: { why: meant }, mend });
            }
          }
        }
      },
    };
  },
};
