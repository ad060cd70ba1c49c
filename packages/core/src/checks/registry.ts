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
export const findingSentence = (finding: Finding): string => words.get(finding.code)?.sentence(finding) ?? findingTitle(finding.code);
