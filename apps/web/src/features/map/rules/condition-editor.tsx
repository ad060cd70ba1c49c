import { t } from '@mailbag/core/words';
import type { Condition, Test } from '@mailbag/core';
import { beginTest, holds, isPlainNumber, testWords } from '@mailbag/core';
import { Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Mark } from '../../../ui/mark';
import { DraftText } from './draft-text';
import { Inset, Line, ShortText } from './parts';
import { RulePart } from './rule-part';
import { useRuleSetting } from './rule-setting';

const isTest = (one: Condition): one is Test => 'test' in one;

/** Whether the record that is looked at answers yes. */
function Answer({ condition }: { condition: Condition }) {
  const { work } = useRuleSetting();
  if (!work) return null;
  const answer = holds(condition, work);
  if (typeof answer !== 'boolean') return <Mark $tone="brick">{answer.cannot}</Mark>;
  return <Mark $tone={answer ? 'moss' : 'plain'}>{answer ? t`yes, here` : t`not here`}</Mark>;
}

const isDay = (text: string): boolean => text === 'today' || (/^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)));

/** What a test compares with. */
function Operands({ test, place, onChange }: { test: Test; place: string; onChange: (test: Test) => void }) {
  const { columns } = useRuleSetting();
  if ('values' in test) {
    const column = test.of.kind === 'column' ? test.of.column : null;
    const left = (columns.find(({ name }) => name === column)?.examples ?? []).filter((one) => !test.values.includes(one));
    return (
      <>
        <DraftText
          label={t`${place}Values`}
          width={200}
          placeholder={t`values, with commas between`}
          value={test.values}
          write={(values) => values.join(', ')}
          read={(text) =>
            text
              .split(',')
              .map((one) => one.trim())
              .filter(Boolean)
          }
          onChange={(values) => onChange({ ...test, values })}
        />
        {left.length > 0 && (
          <Choice
            label={t`${place}Add a value of the column`}
            hideLabel
            small
            items={left.map((one) => ({ id: one, text: one }))}
            value={null}
            placeholder={t`or`}
            onChange={(value) => onChange({ ...test, values: [...test.values, value] })}
          />
        )}
      </>
    );
  }
  if ('text' in test)
    return <ShortText label={t`${place}Text`} value={test.text} width={150} onChange={(text) => onChange({ ...test, text })} />;
  if ('day' in test)
    return (
      <DraftText
        label={t`${place}Day, as 2027-02-01, or today`}
        value={test.day}
        write={(day) => day}
        read={(text) => (isDay(text.trim()) ? text.trim() : null)}
        onChange={(day) => onChange({ ...test, day })}
      />
    );
  if ('number' in test)
    return (
      <DraftText
        label={t`${place}Number`}
        value={test.number}
        write={(number) => number}
        read={(text) => {
          const plain = text.trim().replace(',', '.');
          return isPlainNumber(plain) ? plain : null;
        }}
        onChange={(number) => onChange({ ...test, number })}
      />
    );
  if ('from' in test) {
    const bound = (text: string): string | null => {
      const plain = text.trim();
      return isDay(plain) || isPlainNumber(plain) ? plain : null;
    };
    return (
      <>
        <DraftText
          label={t`${place}From`}
          value={test.from}
          write={(text) => text}
          read={bound}
          onChange={(from) => onChange({ ...test, from })}
        />
        {t`and`}
        <DraftText label={t`${place}To`} value={test.to} write={(text) => text} read={bound} onChange={(to) => onChange({ ...test, to })} />
      </>
    );
  }
  return null;
}

/** A question over the values of a record, put together from parts. */
export function ConditionEditor({
  condition,
  place,
  onChange,
}: {
  condition: Condition;
  /** Such as “Case 1: ”. */
  place: string;
  onChange: (condition: Condition) => void;
}) {
  const { columns } = useRuleSetting();
  const another: Condition = { of: { kind: 'column', column: columns[0]?.name ?? '' }, test: 'not-empty' };
  if (isTest(condition))
    return (
      <div role="group" aria-label={t`${place}condition`}>
        <Line>
          <RulePart place={t`${place}What is compared`} rule={condition.of} onChange={(of) => onChange({ ...condition, of })} />
          <Choice
            label={t`${place}Test`}
            hideLabel
            small
            items={Object.entries(testWords).map(([id, text]) => ({ id, text }))}
            value={condition.test}
            onChange={(test) => onChange(beginTest(condition.of, test as Test['test'], condition))}
          />
          <Operands test={condition} place={place} onChange={onChange} />
          <Answer condition={condition} />
          <Button small look="bare" onPress={() => onChange({ all: [condition, another] })}>{t`and …`}</Button>
          <Button small look="bare" onPress={() => onChange({ any: [condition, another] })}>{t`or …`}</Button>
        </Line>
      </div>
    );
  const parts = 'all' in condition ? condition.all : condition.any;
  const isAll = 'all' in condition;
  const put = (next: Condition[]): void => onChange(next.length === 1 ? next[0]! : isAll ? { all: next } : { any: next });
  return (
    <div role="group" aria-label={t`${place}group of conditions`}>
      <Line>
        <Choice
          label={t`${place}All or any`}
          hideLabel
          small
          items={[
            { id: 'all', text: t`all of these are true` },
            { id: 'any', text: t`any of these is true` },
          ]}
          value={isAll ? 'all' : 'any'}
          onChange={(id) => onChange(id === 'all' ? { all: parts } : { any: parts })}
        />
        <Answer condition={condition} />
      </Line>
      <Inset style={{ marginTop: 6 }}>
        {parts.map((part, at) => (
          <Line key={at} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
            <ConditionEditor
              condition={part}
              place={`${place}${at + 1}, `}
              onChange={(next) => put(parts.map((one, index) => (index === at ? next : one)))}
            />
            <IconButton label={t`${place}Remove condition ${at + 1}`} small onPress={() => put(parts.filter((_, index) => index !== at))}>
              <X size={13} />
            </IconButton>
          </Line>
        ))}
        <Line>
          <Button small onPress={() => put([...parts, another])}>
            <Plus size={13} />
            {t`Add a condition`}
          </Button>
        </Line>
      </Inset>
    </div>
  );
}
