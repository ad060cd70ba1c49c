import { MailbagError } from '../errors/catalogue.js';
import type { Cell } from './record.js';

/** Filled cells of one source, all cells that are passed over on the way, and UTF-16 units of their texts. */
const MOST_CELLS = 20_000_000;
const MOST_PASSED = 100_000_000;
const MOST_UNITS = 200_000_000;
/** UTF-16 units of one cell, and of one record. */
const LONGEST_CELL = 1_000_000;
const LONGEST_RECORD = 4_000_000;
/** What a small file may come to, and what each byte of a larger one adds: sheets repeat rows and texts by a number, so a few bytes could stand for millions of cells. */
const FREE_CELLS = 1_000_000;
const CELLS_PER_BYTE = 0.25;
const FREE_UNITS = 20_000_000;
const UNITS_PER_BYTE = 20;

/** @throws MailbagError sheet-cell-too-long */
export function refuseLongCell(text: string, where: string, row: number): void {
  if (text.length > LONGEST_CELL) throw new MailbagError('sheet-cell-too-long', { where, row, limit: LONGEST_CELL });
}

/** What a file may come to when it is read. Each row that is read takes its part. */
export class Allowance {
  private readonly cellLimit: number;
  private readonly unitLimit: number;
  private cells = 0;
  private passed = 0;
  private units = 0;

  /** @param where for sentences @param size bytes, unpacked; Infinity for what is no file */
  constructor(
    private readonly where: string,
    size: number,
  ) {
    this.cellLimit = Math.min(MOST_CELLS, Math.round(FREE_CELLS + size * CELLS_PER_BYTE));
    this.unitLimit = Math.min(MOST_UNITS, FREE_UNITS + size * UNITS_PER_BYTE);
  }

  /** @returns UTF-16 units of the row @throws MailbagError sheet-too-many-cells, sheet-too-much-text, sheet-cell-too-long */
  take(row: number, cells: readonly (Cell | undefined)[]): number {
    const { where } = this;
    let units = 0;
    for (const cell of cells) {
      if (!cell || cell.text === '') continue;
      this.cells++;
      units += cell.text.length;
      refuseLongCell(cell.text, where, row);
    }
    this.passed += cells.length;
    this.units += units;
    if (this.cells > this.cellLimit) throw new MailbagError('sheet-too-many-cells', { where, row, limit: this.cellLimit });
    if (this.passed > MOST_PASSED) throw new MailbagError('sheet-too-many-cells', { where, row, limit: MOST_PASSED });
    if (units > LONGEST_RECORD || this.units > this.unitLimit)
      throw new MailbagError('sheet-too-much-text', { where, row, limit: units > LONGEST_RECORD ? LONGEST_RECORD : this.unitLimit });
    return units;
  }
}
