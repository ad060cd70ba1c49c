import { t } from '../../words/words.js';
import type { Condition } from '../condition.js';
import { conditionSentence, holds, readCondition, rulesIn, withRulesIn } from '../condition.js';
import type { FillRule } from '../registry.js';
import type { Cannot, RuleKind, Work } from '../rule.js';
import { blankFor, isCannot } from '../rule.js';

/** A condition, and the rule that fills the field where it holds. */
export interface Case {
  when: Condition;
  then: FillRule;
}

/** The first case that holds; what is otherwise is always said. */
export interface CasesRule {
  kind: 'cases';
  cases: Case[];
  otherwise: FillRule;
}

/** The rule that is for a record. */
function chosen({ cases, otherwise }: CasesRule, work: Work): FillRule | Cannot {
  for (const { when, then } of cases) {
    const answer = holds(when, work);
    if (answer === true) return then;
    if (answer !== false) return answer;
  }
  return otherwise;
}

export const cases: RuleKind<CasesRule> = {
  kind: 'cases',
  order: 26,
  asItStands: true,
  title: 'cases',
  help: t`Asks what a record says, in order, and fills the field as the first case that holds; what is otherwise is always said.`,
  parts: {
    cases:
      'list of { "when", "then" }: a condition, and the rule for where it holds. A condition is { "of": rule, "test": "is" or "is-not", "values": […] }, { …, "test": "empty" or "not-empty" }, { …, "test": "contains", "starts-with" or "ends-with", "text" }, { …, "test": "before" or "after", "day": "2027-02-01" or "today" }, { …, "test": "over", "under", "at-least" or "at-most", "number": "65" }, { …, "test": "between", "from", "to" }, { "all": [conditions] } or { "any": [conditions] }',
    otherwise: 'the rule for where none holds',
  },
  examples: [
    {
      rule: {
        kind: 'cases',
        cases: [
          {
            when: { of: { kind: 'column', column: 'Concession' }, test: 'is', values: ['pensioner', 'student'] },
            then: { kind: 'text', text: 'reduced' },
          },
        ],
        otherwise: { kind: 'text', text: 'full' },
      },
      from: { Concession: 'Student' },
      gives: 'reduced',
    },
    {
      rule: {
        kind: 'cases',
        cases: [
          {
            when: {
              all: [
                { of: { kind: 'column', column: 'Area' }, test: 'over', number: '200' },
                { of: { kind: 'column', column: 'Shed' }, test: 'not-empty' },
              ],
            },
            then: { kind: 'column', column: 'Area' },
          },
        ],
        otherwise: { kind: 'text', text: 'small' },
      },
      from: { Area: '180', Shed: 'yes' },
      gives: 'small',
    },
  ],
  suits: () => true,
  begin: (_, column, before) => ({
    kind: 'cases',
    cases: [
      {
        when: { of: { kind: 'column', column: column?.name ?? '' }, test: 'not-empty' },
        then: before ?? { kind: 'column', column: column?.name ?? '' },
      },
    ],
    otherwise: { kind: 'blank' },
  }),
  parse({ cases, otherwise }, read) {
    if (!Array.isArray(cases)) return null;
    const own = cases.map((one): Case | null => {
      const { when, then } = (one ?? {}) as { when?: unknown; then?: unknown };
      const [condition, outcome] = [readCondition(when, read), read(then, 'for-field')];
      return condition && outcome && { when: condition, then: outcome };
    });
    const rest = read(otherwise, 'for-field');
    return own.every((one) => one !== null) && rest ? { kind: 'cases', cases: own, otherwise: rest } : null;
  },
  inner: (rule) => [...rule.cases.flatMap(({ when, then }) => [...rulesIn(when), then]), rule.otherwise],
  with: (rule, change) => ({
    ...rule,
    cases: rule.cases.map(({ when, then }) => ({ when: withRulesIn(when, change.rule), then: change.rule(then) })),
    otherwise: change.rule(rule.otherwise),
  }),
  make(rule, work) {
    const outcome = chosen(rule, work);
    return isCannot(outcome) ? outcome : work.make(outcome);
  },
  evaluate(rule, field, work) {
    const outcome = chosen(rule, work);
    return isCannot(outcome) ? { value: blankFor(field), cannot: outcome } : work.evaluate(outcome, field);
  },
  sentence: (rule, inner) => [
    ...rule.cases.flatMap(({ when, then }) => [{ say: 'when' }, ...conditionSentence(when, inner), { say: 'then' }, ...inner(then)]),
    { say: 'otherwise' },
    ...inner(rule.otherwise),
  ],
};
