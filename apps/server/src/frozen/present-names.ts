type Json = Record<string, unknown>;

const objectAt = (value: unknown, name: string): Json => {
  const part: unknown = typeof value === 'object' && value !== null ? (value as Json)[name] : undefined;
  return typeof part === 'object' && part !== null && !Array.isArray(part) ? (part as Json) : {};
};
const listAt = (value: Json, name: string): unknown[] => (Array.isArray(value[name]) ? (value[name] as unknown[]) : []);

/** Names before, and today's. A migration that has run goes by those below: what is renamed later gets lists of its own. */
type Names = readonly (readonly [before: string, now: string])[];

function rename(part: unknown, names: Names, isBack: boolean): void {
  if (typeof part !== 'object' || part === null) return;
  const own = part as Json;
  for (const pair of names) {
    const [from, to] = isBack ? [pair[1], pair[0]] : pair;
    if (from in own) {
      own[to] ??= own[from];
      delete own[from];
    }
  }
}

const LIMITS: Names = [
  ['least', 'minimum'],
  ['most', 'maximum'],
];
const OPENING: Names = [
  ['most', 'maximum'],
  ['keptDays', 'retentionDays'],
];
const PERSONAL: Names = [['said', 'recordWords']];

/** Gives parts of a document today's names, in place. @param isBack those of before, for an earlier version */
export type Renaming = (document: unknown, isBack?: boolean) => void;

export const renameReminder: Renaming = (reminder, isBack = false) => rename(reminder, LIMITS, isBack);

/** Of a mailing's plan. */
export const renamePlan: Renaming = (plan, isBack = false) => {
  renameReminder(objectAt(objectAt(plan, 'message'), 'reminder'), isBack);
  const columns = objectAt(objectAt(plan, 'checks'), 'columns');
  for (const name of Object.keys(columns)) rename(objectAt(columns[name], 'range'), LIMITS, isBack);
};

/** Of a mailing as it was frozen for a batch or an edition. */
export const renameFrozen: Renaming = (frozen, isBack = false) => renamePlan(objectAt(frozen, 'plan'), isBack);

/** Of an intake's plan. */
export const renameIntake: Renaming = (plan, isBack = false) => {
  rename(objectAt(plan, 'opening'), OPENING, isBack);
  rename(objectAt(plan, 'personal'), PERSONAL, isBack);
  const questions = objectAt(plan, 'questions');
  for (const id of Object.keys(questions)) {
    rename(questions[id], LIMITS, isBack);
    for (const part of listAt(objectAt(questions[id], 'shape'), 'parts')) rename(part, LIMITS, isBack);
  }
};
