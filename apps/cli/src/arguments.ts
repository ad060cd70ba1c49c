import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { Refused, WrongCall } from './command.js';

type Kinds = Record<string, { type: 'string' } | { type: 'boolean' }>;
type Given<K extends Kinds> = { [Name in keyof K]?: K[Name] extends { type: 'string' } ? string : boolean };

/** The one file that a command is given, and its options. @throws WrongCall */
export function fileAndOptions<K extends Kinds>(args: string[], options: K): { file: string; options: Given<K> } {
  try {
    const { values, positionals } = parseArgs({ args, options, allowPositionals: true, strict: true });
    if (positionals.length !== 1)
      throw new WrongCall(positionals.length === 0 ? 'Name a file.' : `One file at a time, not ${positionals.length}.`);
    return { file: positionals[0]!, options: values as Given<K> };
  } catch (error) {
    throw error instanceof WrongCall ? error : new WrongCall(error instanceof Error ? error.message : String(error));
  }
}

/** Files alone, one or more. @throws WrongCall */
export function files(args: string[]): string[] {
  try {
    const { positionals } = parseArgs({ args, options: { json: { type: 'boolean' } }, allowPositionals: true, strict: true });
    if (positionals.length === 0) throw new WrongCall('Name a file.');
    return positionals;
  } catch (error) {
    throw error instanceof WrongCall ? error : new WrongCall(error instanceof Error ? error.message : String(error));
  }
}

/** Options that must be there. @throws WrongCall */
function demand(options: Record<string, unknown>, names: readonly string[]): void {
  const missing = names.find((name) => options[name] === undefined || options[name] === '');
  if (missing !== undefined) throw new WrongCall(`--${missing} is missing.`);
}

/** One file and its options, some of which must be there. @throws WrongCall */
export function oneArgument<K extends Kinds>(
  args: string[],
  options: K,
  needed: readonly (keyof K & string)[],
): { file: string; options: Given<K> } {
  const given = fileAndOptions(args, options);
  demand(given.options, needed);
  return given;
}

/** Options alone, some of which must be there. @throws WrongCall */
export function namedOptions<K extends Kinds>(args: string[], options: K, needed: readonly (keyof K & string)[]): Given<K> {
  const given = (() => {
    try {
      return parseArgs({ args, options, allowPositionals: false, strict: true }).values as Given<K>;
    } catch (error) {
      throw new WrongCall(error instanceof Error ? error.message : String(error));
    }
  })();
  demand(given, needed);
  return given;
}

/** One of the allowed words. @throws WrongCall */
export function oneOf<Word extends string>(name: string, given: string | undefined, words: readonly Word[]): Word {
  const found = words.find((word) => word === (given ?? words[0]));
  if (!found) throw new WrongCall(`--${name} is one of ${words.join(', ')}, not "${given}".`);
  return found;
}

/** The number of a row or the like, from 1. @throws WrongCall */
export function wholeNumber(name: string, given: string): number {
  const value = Number(given);
  if (!Number.isInteger(value) || value < 1) throw new WrongCall(`--${name} is the number of a row, from 1, not "${given}".`);
  return value;
}

/** @throws Refused */
export function readFile(path: string): Uint8Array {
  try {
    return new Uint8Array(readFileSync(path));
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new Refused(
      code === 'ENOENT' ? `There is no file ${path}.` : code === 'EISDIR' ? `${path} is a folder.` : `${path} cannot be read (${code}).`,
    );
  }
}

/** @throws Refused */
export function readJson(path: string): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(readFile(path)));
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(`${path} is not JSON: ${error instanceof Error ? error.message : String(error)}`);
  }
}
