import type { Cell, Column, ColumnKind, ColumnReading } from './record.js';
import { noWords, yesWords } from './yes-no.js';

const DISTINCT_LIMIT = 1000;
const YES_NO = new Set([...yesWords, ...noWords]);
const LONGEST_YES_NO = Math.max(...[...YES_NO].map(({ length }) => length));

/** What headings are called; only together with what stands below them. Common practice, no source. */
const headings: Partial<Record<ColumnKind, RegExp>> = {
  phone: /phone|tel\b|telefon|téléphone|mobile|mobil|handy|cell|fax/i,
  'postal-code': /post(al)?[ _-]?code|\bzip\b|\bplz\b|postleitzahl|code postal|código postal|\bcap\b/i,
  address: /street|address|stra(ss|ß)e|\brue\b|adresse|calle|indirizzo/i,
  key: /(^|\W)(no|nr|num|number|nummer|id|key|code|plot|ref)\.?($|\W)/i,
};

const EMAIL = /^[^\s@]+@[^\s@]+$/;
const IBAN = /^[A-Z]{2}\d\d ?[A-Z0-9][A-Z0-9 ]{9,37}$/i;
const PHONE = /^[+(]?\d[\d\s()./-]{5,18}$/;
const POSTAL = /^(?=.*\d)[A-Z0-9][A-Z0-9 -]{2,9}$/i;
const STREET = /^\p{L}[\p{L}.'’ -]{2,}\s\d+\s?\p{L}?$/u;
const KEY = /^(?=.*\d)[\p{L}\d][\p{L}\d./_-]{0,23}$/u;
const ISO_DATE = /^\d{4}-\d\d-\d\d(T|$)/;

/** Whether a name is that of a column of e-mail addresses; such a column is no postal address. */
const isMailHeading = (name: string): boolean => /mail/i.test(name);

const hashOf = (text: string): number => {
  let hash = 0;
  for (let index = 0; index < text.length; index++) hash = (Math.imul(hash, 31) + text.charCodeAt(index)) | 0;
  return hash;
};

/** Watches the cells of one column go by and says in the end what kind it is. */
export class ColumnProfile {
  private filled = 0;
  private empty = 0;
  private readonly values = new Set<string>();
  private longest = '';
  /** Hashes of the values as long as nearly all differ, as those of a key do; null once they do not. */
  private hashes: Set<number> | null = new Set();
  private repeated = 0;
  private readonly votes: Record<ColumnKind, number> = {
    text: 0,
    number: 0,
    date: 0,
    'yes-no': 0,
    email: 0,
    phone: 0,
    'postal-code': 0,
    iban: 0,
    address: 0,
    key: 0,
  };
  /** Phone numbers that look like one by themselves, without the heading. */
  private dialled = 0;

  see(cell: Cell): void {
    const text = cell.text.trim();
    if (!text) {
      this.empty++;
      return;
    }
    this.filled++;
    if (this.values.size < DISTINCT_LIMIT) this.values.add(text);
    if (text.length > this.longest.length) this.longest = text;
    this.watchKey(text);
    const { votes } = this;
    if (typeof cell.value === 'boolean') votes['yes-no']++;
    else if (text.length <= LONGEST_YES_NO && YES_NO.has(text.toLowerCase())) votes['yes-no']++;
    if (typeof cell.value === 'number') {
      votes.number++;
      if (text.length <= 10) votes['postal-code']++;
      return;
    }
    if (typeof cell.value !== 'string') return;
    if (ISO_DATE.test(cell.value)) {
      votes.date++;
      return;
    }
    if (EMAIL.test(text)) votes.email++;
    else if (PHONE.test(text)) {
      const digits = text.replace(/\D/g, '').length;
      if (digits >= 6 && digits <= 15) votes.phone++;
      if (text.startsWith('+') || (text.startsWith('0') && digits >= 8 && /[\s/()-]/.test(text))) this.dialled++;
    }
    if (text.length <= 10 && POSTAL.test(text)) votes['postal-code']++;
    else if (text.length > 14 && IBAN.test(text)) votes.iban++;
    else if (STREET.test(text)) votes.address++;
  }

  private watchKey(text: string): void {
    if (!this.hashes) return;
    if (KEY.test(text)) this.votes.key++;
    else if (this.filled > 50 && this.votes.key < this.filled * 0.9) {
      this.hashes = null;
      return;
    }
    const hash = hashOf(text);
    if (this.hashes.has(hash)) this.repeated++;
    else this.hashes.add(hash);
    if (this.repeated > 3 + this.filled * 0.02) this.hashes = null;
  }

  /** @param canBeKey no column before it is the key */
  done(name: string, slug: string, reading: ColumnReading | undefined, canBeKey: boolean): Column {
    return {
      name,
      slug,
      kind: reading?.kind ?? this.kind(name, canBeKey),
      empty: this.empty,
      distinct: this.values.size,
      longest: this.longest.slice(0, 500),
      examples: [...this.values].slice(0, 5).map((value) => value.slice(0, 80)),
      ...(reading ? { reading } : {}),
    };
  }

  private kind(name: string, canBeKey: boolean): ColumnKind {
    const { votes, filled } = this;
    if (filled === 0) return 'text';
    const limit = filled * 0.8;
    const isCalled = (kind: ColumnKind): boolean => headings[kind]!.test(name) && !isMailHeading(name);
    if (votes.email >= limit || (isMailHeading(name) && votes.email >= filled * 0.5)) return 'email';
    if (votes.iban >= limit) return 'iban';
    if (votes.date >= limit) return 'date';
    if (isCalled('postal-code') && votes['postal-code'] >= limit) return 'postal-code';
    if (votes.phone >= limit && (this.dialled >= filled * 0.5 || isCalled('phone'))) return 'phone';
    if (votes['yes-no'] >= filled * 0.98 && this.values.size <= 6) return 'yes-no';
    const isUnlike = this.hashes !== null && filled >= 3 && this.empty <= filled * 0.02;
    if (canBeKey && isUnlike && votes.key >= filled * 0.95 && (votes.number < limit || isCalled('key'))) return 'key';
    if (votes.number >= limit) return 'number';
    if (isCalled('address') || votes.address >= limit) return 'address';
    return 'text';
  }
}
