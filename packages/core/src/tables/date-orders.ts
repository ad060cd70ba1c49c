import { COLUMN_LIMIT } from './gather.js';
import type { ColumnReading } from './record.js';
import { isDateLike } from './typed-text.js';

/** The order of the dates with slashes or hyphens in each column: told by a day over 12. */
export class DateOrders {
  /** Null: no such dates. */
  private readonly orders: (ColumnReading['dates'] | 'unknown' | null)[] = [];

  see(cells: readonly string[]): void {
    const { orders } = this;
    for (let index = 0; index < Math.min(COLUMN_LIMIT, cells.length); index++) {
      const text = cells[index]!;
      if (text.length < 6 || text.length > 12 || orders[index] === 'day-first' || orders[index] === 'month-first') continue;
      const code = text.charCodeAt(0);
      if (code < 48 || code > 57 || !isDateLike(text) || !/^\d{1,2}[/-]/.test(text)) continue;
      const [first = 0, second = 0] = text.split(/[/-]/).map(Number);
      orders[index] = first > 12 && second <= 12 ? 'day-first' : second > 12 && first <= 12 ? 'month-first' : (orders[index] ?? 'unknown');
    }
  }

  /** Undefined: nothing tells it. */
  of(index: number): ColumnReading['dates'] {
    const order = this.orders[index];
    return order && order !== 'unknown' ? order : undefined;
  }

  isAmbiguous(index: number): boolean {
    return this.orders[index] === 'unknown';
  }
}
