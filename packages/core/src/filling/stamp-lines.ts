import type { FillContext } from '../map/fill-context.js';
import { compilePattern } from '../patterns/pattern.js';
import type { Pattern } from '../patterns/pattern.js';
import { stampLineNames } from '../pdf/fill/stamp/line-stamp.js';

const patterns = new Map<string, Pattern>();

/** What the pattern of a line on copies says of one. @throws MailbagError pattern-* */
export function stampLine(pattern: string, { number, count, code, batch, today }: FillContext): string {
  let compiled = patterns.get(pattern);
  if (!compiled) patterns.set(pattern, (compiled = compilePattern(pattern, stampLineNames)));
  // A batch from before it was counted tells no more than this copy.
  return compiled.render({ number: String(number), count: String(count ?? number), code, batch: String(batch), today });
}
