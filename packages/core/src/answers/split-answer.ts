import type { Piece } from './answer.js';
import { isoDate, writtenNumber } from '../tables/typed-text.js';

/** How a box takes its piece: what else is to be known of it and of the boxes beside it. */
export interface PieceBox {
  piece: Piece;
  /** Nothing comes behind it: it takes what is left, so that what is too long shows. */
  isLast: boolean;
  /** Of lines: characters that each of them takes, in their order. */
  rooms?: readonly number[];
  /** Digits of a year; 4 unless the box takes two. */
  digits?: number;
}

/** What people write between the parts of a number. */
const BETWEEN = /[\s\u00a0\u202f\-–—/.()]/g;

/** Where a text is broken so that each line takes what it has room for; words stay whole where they can. */
function linesOf(text: string, rooms: readonly number[]): string[] {
  const lines: string[] = [];
  let rest = text.replace(/\s+/g, ' ').trim();
  for (const [index, room] of rooms.entries()) {
    if (index === rooms.length - 1 || rest.length <= room) {
      lines.push(rest);
      rest = '';
      continue;
    }
    const at = rest.lastIndexOf(' ', room);
    const end = at > 0 ? at : room;
    lines.push(rest.slice(0, end).trim());
    rest = rest.slice(end).trim();
  }
  return lines;
}

/** A telephone's area code and the rest: what stands in brackets, or before the first gap (ITU-T E.123 writes both ways). */
function telephoneOf(text: string): [area: string, number: string] {
  const trimmed = text.trim();
  const inBrackets = /^\(([^()]{1,10})\)(.*)$/.exec(trimmed);
  if (inBrackets) return [inBrackets[1]!.trim(), inBrackets[2]!.trim()];
  const at = trimmed.search(/[\s/\-]/);
  return at > 0 && at <= 7 ? [trimmed.slice(0, at), trimmed.slice(at + 1).trim()] : ['', trimmed];
}

/**
 * The piece of an answer that a box takes.
 * @param value the answer as it is typed, where that is known: a date in ISO 8601, a number
 * @returns null: the answer cannot be taken apart so, as “soon” has no day
 */
export function pieceOf(
  text: string,
  value: string | number | boolean | null,
  { piece, isLast, rooms, digits = 4 }: PieceBox,
): string | null {
  if (text.trim() === '') return '';
  switch (piece.what) {
    case 'characters': {
      const bare = text.replace(BETWEEN, '');
      return bare.slice(piece.from - 1, isLast ? undefined : piece.to);
    }
    case 'line':
      return linesOf(text, rooms ?? [])[piece.number - 1] ?? '';
    case 'day':
    case 'month':
    case 'year': {
      const iso = typeof value === 'string' && /^\d{4}-\d\d-\d\d/.test(value) ? value.slice(0, 10) : isoDate(text);
      if (!iso) return null;
      const [year = '', month = '', day = ''] = iso.split('-');
      return { day, month, year: year.slice(-digits) }[piece.what];
    }
    case 'whole units':
    case 'cents': {
      const amount = typeof value === 'number' ? value : (writtenNumber(text.trim()) ?? writtenNumber(text.trim(), 'comma'));
      if (amount === null) return null;
      // Whole cents, so that no half is lost to binary fractions.
      const cents = Math.round(Math.abs(amount) * 100);
      const sign = amount < 0 ? '-' : '';
      return piece.what === 'cents' ? String(cents % 100).padStart(2, '0') : `${sign}${Math.floor(cents / 100)}`;
    }
    case 'area code':
      return telephoneOf(text)[0];
    case 'number':
      return telephoneOf(text)[1];
  }
}

/** The other way round: the answer that pieces make together, as a person would write it. `null`: nothing is filled in. */
export function joinedPieces(pieces: readonly { piece: Piece | null; value: string }[]): string | null {
  const filled = pieces.filter(({ value }) => value.trim() !== '');
  if (filled.length === 0) return null;
  const of = (what: Piece['what']): string => pieces.find(({ piece }) => piece?.what === what)?.value.trim() ?? '';
  switch (pieces[0]!.piece?.what) {
    case 'day':
    case 'month':
    case 'year': {
      const [year, month, day] = [of('year'), of('month'), of('day')];
      const parts = [year, month.padStart(2, '0'), day.padStart(2, '0')];
      return year && month && day && year.length === 4 ? parts.join('-') : [day, month, year].filter(Boolean).join('.');
    }
    case 'whole units':
    case 'cents':
      return `${of('whole units') || '0'}.${of('cents').padStart(2, '0')}`;
    case 'area code':
    case 'number':
      return of('area code') ? `(${of('area code')}) ${of('number')}` : of('number');
    case 'line':
      return filled.map(({ value }) => value.trim()).join(' ');
    case 'characters':
      return pieces.map(({ value }) => value.trim()).join('');
    default:
      return filled[0]!.value;
  }
}
