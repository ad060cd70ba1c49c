import { translated } from '../words/words.js';
import type { CheckKind, FindingWords } from './check.js';
import type { Finding } from './finding.js';
import * as kinds from './kinds.js';

/** Every check by its name, in the order in which they are offered. */
export const checkKinds: Readonly<Record<string, CheckKind>> = Object.fromEntries(
  Object.entries<CheckKind>(kinds).sort(([, one], [, other]) => one.order - other.order),
);

const words = new Map<string, FindingWords>(Object.values(checkKinds).flatMap(({ findings }) => Object.entries(findings)));

/** The kind of finding, as a heading. One of a check that is there no more is named by its code. */
export const findingTitle = (code: string): string => words.get(code)?.title ?? code;

/** What a finding says of its record: what is wrong and what to do. */
export function findingSentence(finding: Finding): string {
  const { code, details } = finding;
  // Why something is wrong was said where it was checked, in English.
  const told = details.why === undefined ? finding : { ...finding, details: { ...details, why: translated(details.why) } };
  return words.get(code)?.sentence(told) ?? findingTitle(code);
}
