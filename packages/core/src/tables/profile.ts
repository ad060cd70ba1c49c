import type { Cell, Column, ColumnKind } from './record.js';

const DISTINCT_LIMIT = 1000;
const YES_NO = new Set(['yes', 'no', 'y', 'n', 'true', 'false', 'x', '1', '0', 'ja', 'nein', 'oui', 'non', 'si', 'sí', 'да', 'нет']);

/** Watches the cells of one column go by and says in the end what kind it is. */
export class ColumnProfile {
  private filled = 0;
  private empty = 0;
  private readonly values = new Set<string>();
  private longest = '';
  private readonly votes: Record<ColumnKind, number> = { text: 0, number: 0, date: 0, 'yes-no': 0, address: 0 };

  constructor(
    private readonly name: string,
    private readonly slug: string,
  ) {}

  see(cell: Cell): void {
    const text = cell.text.trim();
    if (!text) {
      this.empty++;
      return;
    }
    this.filled++;
    if (this.values.size < DISTINCT_LIMIT) this.values.add(text);
    if (text.length > this.longest.length) this.longest = text;
    if (typeof cell.value === 'boolean' || YES_NO.has(text.toLowerCase())) this.votes['yes-no']++;
    if (typeof cell.value === 'number') this.votes.number++;
    if (typeof cell.value === 'string' && /^\d{4}-\d\d-\d\d(T|$)/.test(cell.value)) this.votes.date++;
    if (/^[^\s@]+@[^\s@]+$/.test(text)) this.votes.address++;
  }

  done(): Column {
    const most = this.filled * 0.8;
    const kind: ColumnKind =
      this.filled === 0
        ? 'text'
        : this.votes.address >= most
          ? 'address'
          : this.votes.date >= most
            ? 'date'
            : this.votes['yes-no'] >= this.filled * 0.98 && this.values.size <= 6
              ? 'yes-no'
              : this.votes.number >= most
                ? 'number'
                : 'text';
    return {
      name: this.name,
      slug: this.slug,
      kind,
      empty: this.empty,
      distinct: this.values.size,
      longest: this.longest.slice(0, 500),
      examples: [...this.values].slice(0, 5).map((value) => value.slice(0, 80)),
    };
  }
}
