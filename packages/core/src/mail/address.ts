import { t } from '../words/words.js';
import isEmail from 'validator/lib/isEmail.js';

/** Why a text is no e-mail address (RFC 5321, 4.1.2); null when it is one. */
export function addressFault(text: string): string | null {
  const address = text.trim();
  if (address === '') return t`it is empty`;
  if (/[\r\n]/.test(address)) return t`it goes over several lines`;
  if (/[,;]/.test(address)) return t`it holds more than one address`;
  const at = address.lastIndexOf('@');
  if (at < 0) return t`it has no @`;
  const [local, domain] = [address.slice(0, at), address.slice(at + 1)];
  if (local === '') return t`nothing stands before the @`;
  if (domain === '') return t`nothing stands after the @`;
  if (/\s/.test(address)) return t`it holds a space`;
  if (local.includes('@')) return t`it has two @`;
  // RFC 5321, 4.5.3.1.1 and 4.5.3.1.3: octets of the local part and of the path.
  if (local.length > 64) return t`the part before the @ is longer than 64 characters`;
  if (address.length > 254) return t`it is longer than 254 characters`;
  if (!domain.includes('.')) return t`“${domain}” is not a complete domain`;
  if (domain.includes('..') || domain.startsWith('.') || domain.endsWith('.')) return t`the dots in “${domain}” are wrong`;
  return isEmail.default(address, { allow_utf8_local_part: true, ignore_max_length: true }) ? null : t`it is not written as an address`;
}

/** The domain of an address, lower case. */
export const domainOf = (address: string): string => address.slice(address.lastIndexOf('@') + 1).toLowerCase();
