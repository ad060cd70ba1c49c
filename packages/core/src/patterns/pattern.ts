import { Liquid } from 'liquidjs';
import type { Template } from 'liquidjs';
import { DateTime } from 'luxon';
import { MailbagError } from '../errors/catalogue.js';

/** Names that every pattern knows beside the columns. */
export const patternExtras = ['code', 'template', 'batch', 'number', 'today'] as const;

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

function engineOf(escapes: boolean): Liquid {
  const engine = new Liquid({ ...settings, ...(escapes ? { outputEscape: 'escape' as const } : {}) });
  for (const name of ['raw', 'include', 'render', 'layout', 'block']) delete engine.tags[name];
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
        return String(engine.renderSync(templates, data));
      } catch (error) {
        throw new MailbagError('pattern-broken', { pattern, why: reason(error) }, { cause: error });
      }
    },
  };
}
