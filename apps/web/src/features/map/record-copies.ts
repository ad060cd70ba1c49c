import type { Column, FillContext, PacketTemplate, SourceRecord } from '@mailbag/core';
import { copiesFor, recordOf, rowReader } from '@mailbag/core';

/** A record as each of its copies of a template sees it; none: it does not get it. */
export const recordCopies = (
  template: Pick<PacketTemplate, 'when' | 'count'>,
  record: SourceRecord,
  columns: readonly Column[],
  context: FillContext,
): SourceRecord[] => copiesFor(template, rowReader(columns)(record), context).map((row) => recordOf(row, columns));

/** The first copy of a record; the record itself where it gets none, so that there is something to look at. */
export const firstCopy = (...given: Parameters<typeof recordCopies>): SourceRecord => recordCopies(...given)[0] ?? given[1];
