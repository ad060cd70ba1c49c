import { t } from '../words/words.js';
import { addressFault } from './address.js';

/** Addresses that one cell may hold. RFC 5321, 4.5.3.1.8 lets a server refuse more than 100 recipients; half of it leaves room for copies to others. */
export const MOST_ADDRESSES = 50;

/** A person and where they are mailed to. */
export interface MailAddress {
  name: string;
  address: string;
}

/** Pieces of a list, parted by comma, semicolon or line break outside quotes and angle brackets. */
function piecesOf(text: string): string[] {
  const pieces: string[] = [];
  let piece = '';
  let quoted = false;
  let angled = false;
  for (const char of text) {
    if (char === '"') quoted = !quoted;
    else if (!quoted && char === '<') angled = true;
    else if (!quoted && char === '>') angled = false;
    if (!quoted && !angled && /[,;\r\n]/.test(char)) {
      pieces.push(piece);
      piece = '';
      // A list that is too long is not read to its end.
      if (pieces.length > MOST_ADDRESSES * 4) break;
    } else piece += char;
  }
  pieces.push(piece);
  return pieces.map((one) => one.trim()).filter(Boolean);
}

/**
 * The addresses in a cell: `a@example.org; Ann Roe <b@example.org>`. Each address once.
 * @param several false: one address only, as it stands
 * @returns `fault`: why the cell cannot be mailed to; null when it can
 */
export function addressesIn(text: string, several: boolean): { addresses: MailAddress[]; fault: string | null } {
  if (!several) {
    const fault = addressFault(text);
    return { addresses: fault === null ? [{ name: '', address: text.trim() }] : [], fault };
  }
  const pieces = piecesOf(text);
  if (pieces.length === 0) return { addresses: [], fault: t`it is empty` };
  if (pieces.length > MOST_ADDRESSES) return { addresses: [], fault: t`it holds more than ${MOST_ADDRESSES} addresses` };
  const addresses = new Map<string, MailAddress>();
  for (const piece of pieces) {
    const angle = piece.endsWith('>') ? piece.lastIndexOf('<') : -1;
    const name = piece.slice(0, Math.max(0, angle)).trim().replace(/^"|"$/g, '');
    const isNamed = angle >= 0 && !/["<>]/.test(name);
    const address = (isNamed ? piece.slice(angle + 1, -1) : piece).trim();
    const fault = addressFault(address);
    if (fault !== null)
      return { addresses: [], fault: pieces.length === 1 ? fault : t`“${address.slice(0, 80)}” in it is not an address: ${fault}` };
    if (!addresses.has(address.toLowerCase())) addresses.set(address.toLowerCase(), { name: isNamed ? name.trim() : '', address });
  }
  return { addresses: [...addresses.values()], fault: null };
}
