import { Context, Liquid, toValueSync } from 'liquidjs';
import type { Emitter, Template } from 'liquidjs';
import { DateTime } from 'luxon';
import { MailbagError } from '../errors/catalogue.js';

/** Names that every pattern knows beside the columns. */
export const patternExtras = ['code', 'template', 'batch', 'number', 'today'] as const;

/**
 * Names that messages know beside them: the code of the copy that the one in the message replaces and the day of its batch, both empty where it is the first; and
 * the recipient's personal link, where the mailing has such.
 */
export const letterExtras = [...patternExtras, 'replaces', 'replaced_on', 'link'] as const;

/** Stands in a plan for a password's pattern that the account may not see. Saved again, it means the one that is kept. */
export const PASSWORD_KEPT = '••••••••';

const settings = {
  strictVariables: true,
  strictFilters: true,
  ownPropertyOnly: true,
  lenientIf: true,
  parseLimit: 100_000,
  renderLimit: 500,
  memoryLimit: 1_000_000,
  relativeReference: false,
  templates: {},
};

/** Characters that a pattern may come to for one record. */
export const PATTERN_LIMIT = 1_000_000;

/** Takes what a pattern writes, up to its limit: also what stands in it as it is, over and over in a loop. */
class BoundedText implements Emitter {
  buffer = '';
  write(part: unknown): void {
    this.buffer += typeof part === 'string' ? part : part === null || part === undefined ? '' : String(part);
    if (this.buffer.length > PATTERN_LIMIT) throw new Error(`it comes to more than ${PATTERN_LIMIT.toLocaleString('en')} characters`);
  }
}

function engineOf(escapes: boolean): Liquid {
  const engine = new Liquid({ ...settings, ...(escapes ? { outputEscape: 'escape' as const } : {}) });
  // What is captured is in no account of memory: doubled thirty times, a letter fills it all.
  for (const name of ['raw', 'include', 'render', 'layout', 'block', 'capture']) delete engine.tags[name];
  // The same record gives the same text.
  delete engine.filters.sample;
  // Data must not be able to come out of its escaping.
  delete engine.filters.raw;
  engine.registerFilter('day', (value: unknown, format: unknown) => {
    const date = DateTime.fromISO(String(value));
    return date.isValid ? date.toFormat(typeof format === 'string' ? format : 'd MMMM yyyy') : String(value);
  });
  return engine;
}
const engines = { text: engineOf(false), html: engineOf(true) };

/** A text with data in it, ready to be rendered for many records. */
export interface Pattern {
  /** The names it uses, without the properties behind a dot. */
  names: string[];
  render(data: Record<string, unknown>): string;
}

const reason = (error: unknown): string =>
  error instanceof Error ? (error.message.split('\n')[0] ?? '').replace(/, line:.*$/, '') : String(error);

/**
 * Reads a pattern.
 * @param names what may stand in it: slugs of columns and `patternExtras`
 * @param kind `html`: the pattern is HTML, and data in it is escaped
 * @throws MailbagError pattern-broken, pattern-unknown-column
 */
export function compilePattern(pattern: string, names: readonly string[], kind: 'text' | 'html' = 'text'): Pattern {
  const engine = engines[kind];
  let templates: Template[];
  let used: string[];
  try {
    templates = engine.parse(pattern);
    used = [...new Set(engine.globalVariablesSync(templates))].map((name) => String(name).split('.')[0]!);
  } catch (error) {
    throw new MailbagError('pattern-broken', { pattern, why: reason(error) }, { cause: error });
  }
  const unknown = used.find((name) => !names.includes(name));
  if (unknown !== undefined) throw new MailbagError('pattern-unknown-column', { pattern, name: unknown, columns: names.slice(0, 40) });
  return {
    names: used,
    render(data) {
      try {
        const text = new BoundedText();
        toValueSync(engine.renderer.renderTemplates(templates, new Context(data, engine.options, { sync: true }), text));
        return text.buffer;
      } catch (error) {
        throw new MailbagError('pattern-broken', { pattern, why: reason(error) }, { cause: error });
      }
    },
  };
}
