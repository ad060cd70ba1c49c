import { COLUMN_LIMIT } from './gather.js';
import type { ColumnReading } from './record.js';

/** Decimals behind a comma, groups of three with points between them before it; and the other way round. */
const WITH_COMMA = /^[+-]?(?:\d{1,3}(?:\.\d{3})+|\d+),\d+$/;
const WITH_POINT = /^[+-]?(?:\d{1,3}(?:,\d{3})+|\d+)\.\d+$/;
/** What may as well be groups of three and no decimals. */
const GROUPS = /^[+-]?[1-9]\d{0,2}(?:(?:,\d{3})+|(?:\.\d{3})+)$/;
/** Longer texts are no numbers. */
const LONGEST = 24;

/** What stands before the decimals of the numbers in each column: told by those that can be read in one way only, as “182,50” can, and “1.500” cannot. */
export class DecimalMarks {
  private readonly commas = new Set<number>();
  private readonly points = new Set<number>();

  see(cells: readonly string[]): void {
    for (let index = 0; index < Math.min(COLUMN_LIMIT, cells.length); index++) {
      const text = cells[index]!;
      if (text.length > LONGEST || !(text.includes(',') || text.includes('.'))) continue;
      const bare = text.trim();
      if (GROUPS.test(bare)) continue;
      if (WITH_COMMA.test(bare)) this.commas.add(index);
      else if (WITH_POINT.test(bare)) this.points.add(index);
    }
  }

  /**
   * Comma where its numbers have one; also where they tell nothing, in a file in which others have one and none has a point, since one program wrote
   * them all. Undefined: a point, or nothing tells it.
   */
  of(index: number): ColumnReading['decimals'] {
    const isTold = this.commas.has(index) || (this.commas.size > 0 && this.points.size === 0);
    return isTold && !this.points.has(index) ? 'comma' : undefined;
  }
}
