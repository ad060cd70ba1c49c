import { t } from '@mailbag/core/words';
import type { Condition, IntakePlan, IntakeQuestion, Test } from '@mailbag/core';
import { NO, YES, beginTest, orderedQuestions, testWords } from '@mailbag/core';
import { GitBranch, Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';

interface Props {
  plan: IntakePlan;
  /** Ids of questions that it cannot hang on: itself. */
  own: ReadonlySet<string>;
  when: Condition | null;
  /** What is asked, or made, for some only. */
  name: string;
  /** It is a form that is filled in. */
  isForm?: true;
  onChange: (when: Condition | null) => void;
}

const isTest = (one: Condition): one is Test => 'test' in one;
const partsOf = (when: Condition): Condition[] => (isTest(when) ? [when] : 'all' in when ? when.all : when.any);
const joined = (parts: Condition[], isAny: boolean): Condition | null =>
  parts.length === 0 ? null : parts.length === 1 ? parts[0]! : isAny ? { any: parts } : { all: parts };

const columnOf = ({ of }: Test): string => (of.kind === 'column' ? of.column : '');
/** A test to begin with, as the answer of a question suggests. */
function firstTest({ column, kind, options }: IntakeQuestion): Test {
  const of = { kind: 'column', column } as const;
  if (kind === 'yes or no') return { of, test: 'is', values: [YES] };
  return options.length > 0 ? { of, test: 'is', values: [options[0]!.value] } : { of, test: 'not-empty' };
}

/** “Ask when *Kind of pass* is *season*”: conditions over the answers of other questions. */
export function WhenEditor({ plan, own, when, name, isForm, onChange }: Props) {
  const others = orderedQuestions(plan).filter(
    ({ id, isAway, kind }) => !own.has(id) && !isAway && kind !== 'signature' && kind !== 'image',
  );
  const [first] = others;
  if (when === null)
    return (
      <div>
        <Button
          small
          look="bare"
          changes
          isDisabled={!first}
          aria-label={t`${isForm ? t`Fill in` : t`Ask`} ${name} only when …`}
          onPress={() => first && onChange(firstTest(first))}
        >
          <GitBranch size={14} />
          {t`Only for some …`}
        </Button>
      </div>
    );
  const parts = partsOf(when);
  const isAny = !isTest(when) && 'any' in when;
  const put = (next: Condition[]): void => onChange(joined(next, isAny));
  return (
    <Stack $gap={4} role="group" aria-label={t`When ${name} is ${isForm ? t`filled in` : t`asked`}`}>
      <Small>{t`${isForm ? t`Filled in` : t`Asked`} when`}</Small>
      {parts.map((part, at) => (
        <Row key={at} $gap={6} style={{ flexWrap: 'wrap' }}>
          {at > 0 &&
            (at === 1 ? (
              <Choice
                label={t`Joined by`}
                hideLabel
                small
                items={[
                  { id: 'all', text: t`and` },
                  { id: 'any', text: t`or` },
                ]}
                value={isAny ? 'any' : 'all'}
                onChange={(id) => onChange(joined(parts, id === 'any'))}
              />
            ) : (
              <Small>{isAny ? t`or` : t`and`}</Small>
            ))}
          {isTest(part) ? (
            <TestLine test={part} others={others} onChange={(next) => put(parts.map((one, index) => (index === at ? next : one)))} />
          ) : (
            <Small>{t`a group of conditions`}</Small>
          )}
          <IconButton label={t`Remove this condition`} small changes onPress={() => put(parts.filter((_, index) => index !== at))}>
            <X size={14} />
          </IconButton>
        </Row>
      ))}
      <div>
        <Button small look="bare" changes isDisabled={!first} onPress={() => first && put([...parts, firstTest(first)])}>
          <Plus size={14} />
          {t`Condition`}
        </Button>
      </div>
    </Stack>
  );
}

function TestLine({ test, others, onChange }: { test: Test; others: readonly IntakeQuestion[]; onChange: (test: Test) => void }) {
  const question = others.find(({ column }) => column === columnOf(test));
  const choices =
    question?.kind === 'yes or no'
      ? [
          { id: YES, text: t`yes` },
          { id: NO, text: t`no` },
        ]
      : (question?.options ?? []).map(({ value, say }) => ({ id: value, text: say }));
  const operand =
    'values' in test
      ? (test.values[0] ?? '')
      : 'text' in test
        ? test.text
        : 'day' in test
          ? test.day
          : 'number' in test
            ? test.number
            : null;
  const put = (text: string): void => {
    if ('values' in test) onChange({ ...test, values: text === '' ? [] : [text] });
    else if ('text' in test) onChange({ ...test, text });
    else if ('day' in test) onChange({ ...test, day: text });
    else if ('number' in test) onChange({ ...test, number: text });
  };
  return (
    <>
      <Choice
        label={t`Question`}
        hideLabel
        small
        items={others.map(({ column, words }) => ({ id: column, text: words }))}
        value={columnOf(test)}
        placeholder={t`a question that is gone`}
        onChange={(column) => {
          const next = others.find((one) => one.column === column);
          if (next) onChange(firstTest(next));
        }}
      />
      <Choice
        label={t`Test`}
        hideLabel
        small
        items={Object.entries(testWords)
          .filter(([id]) => id !== 'between')
          .map(([id, text]) => ({ id, text }))}
        value={test.test}
        onChange={(next) => onChange(beginTest(test.of, next as Test['test'], test))}
      />
      {operand !== null &&
        ('values' in test && choices.length > 0 ? (
          <Choice label={t`Value`} hideLabel small items={choices} value={operand} onChange={put} />
        ) : (
          <div style={{ width: 130 }}>
            <TextInput label={t`Value`} hideLabel value={operand} onChange={put} />
          </div>
        ))}
    </>
  );
}
