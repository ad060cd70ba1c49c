import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import { compilePattern } from '../patterns/pattern.js';
import { symbologies } from '../pdf/fill/stamp/copy-stamp.js';
import { lineFault, stampLineNames } from '../pdf/fill/stamp/line-stamp.js';
import type { Stamp } from './layout.js';

/** Reads a stamp that came from outside. @throws MailbagError layout-stamp, pattern-* */
export function readStamp(given: unknown): Stamp {
  const stamp = (given ?? {}) as Record<string, unknown>;
  const number = (name: string): number => {
    const value = stamp[name];
    if (typeof value !== 'number' || !Number.isFinite(value))
      throw new MailbagError('layout-stamp', { why: t`its ${name} is not a number` });
    return value;
  };
  const place = { page: number('page'), x: number('x'), y: number('y'), width: number('width') };
  if (place.width <= 0) throw new MailbagError('layout-stamp', { why: t`it has no width` });
  if (stamp['kind'] === 'code') {
    const symbology = symbologies.find((one) => one === stamp['symbology']);
    if (!symbology) throw new MailbagError('layout-stamp', { why: t`“${String(stamp['symbology'])}” is not a kind of code` });
    return { kind: 'code', ...place, symbology, height: number('height'), inPrint: stamp['inPrint'] === true };
  }
  if (stamp['kind'] !== 'line') throw new MailbagError('layout-stamp', { why: t`it is neither a code nor a line of text` });
  const text = typeof stamp['text'] === 'string' ? stamp['text'] : '';
  const fault = lineFault(text);
  if (fault) throw new MailbagError('layout-stamp', { why: fault });
  compilePattern(text, [...stampLineNames]);
  const align = (['left', 'centre', 'right'] as const).find((one) => one === stamp['align']) ?? 'left';
  return { kind: 'line', ...place, text, size: Math.max(1, number('size')), align };
}
