import type { MailingPlan } from '@mailbag/contract';
import type { Column, SourceRecord } from '@mailbag/core';

/** Who asks for paper, by the column and the values that say so. */
export function paperWish(
  { paper }: Pick<MailingPlan, 'paper'>,
  columns: readonly Pick<Column, 'name'>[],
): (record: SourceRecord) => boolean {
  const place = paper?.wantsColumn ? columns.findIndex(({ name }) => name === paper.wantsColumn) : -1;
  const values = new Set((paper?.wantsValues ?? []).map((value) => value.trim().toLowerCase()));
  return ({ cells }) => {
    const wish = cells[place]?.text.trim().toLowerCase() ?? '';
    return wish !== '' && values.has(wish);
  };
}
