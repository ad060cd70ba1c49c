import { t } from '@mailbag/core/words';
import type { ArithmeticRule, Operand, Operation } from '@mailbag/core';
import { isNumberOperand, isPlainNumber } from '@mailbag/core';
import { Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { DraftText } from './draft-text';
import { Lead, Line } from './parts';
import { RoundingChoice } from './rounding-choice';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

const operations: Record<Operation, { text: string; sign: string }> = {
  sum: { text: t`sum`, sign: '+' },
  difference: { text: t`difference`, sign: '−' },
  product: { text: t`product`, sign: '×' },
  quotient: { text: t`quotient`, sign: '÷' },
  minimum: { text: t`smallest`, sign: 'or' },
  maximum: { text: t`largest`, sign: 'or' },
};

export function ArithmeticBody({ rule, place, onChange }: BodyProps<ArithmeticRule>) {
  const { columns } = useRuleSetting();
  const put = (of: Operand[]): void => onChange({ ...rule, of });
  const replace = (at: number, next: Operand): void => put(rule.of.map((one, index) => (index === at ? next : one)));
  return (
    <>
      <Line>
        <Lead>{t`Take the`}</Lead>
        <Choice
          label={t`${place}Calculation`}
          hideLabel
          small
          items={Object.entries(operations).map(([id, { text }]) => ({ id, text }))}
          value={rule.do}
          onChange={(id) => onChange({ ...rule, do: id as Operation })}
        />
        {t`of`}
      </Line>
      {rule.of.map((one, at) => (
        <Line key={at} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
          <Lead style={{ textAlign: 'right' }}>{at === 0 ? '' : operations[rule.do].sign}</Lead>
          {isNumberOperand(one) ? (
            <DraftText
              label={t`${place}Number ${at + 1}`}
              value={one.number}
              write={(number) => number}
              read={(text) => {
                const plain = text.trim().replace(',', '.');
                return isPlainNumber(plain) ? plain : null;
              }}
              onChange={(number) => replace(at, { number })}
            />
          ) : (
            <RulePart place={t`${place}Operand ${at + 1}`} rule={one} onChange={(next) => replace(at, next)} />
          )}
          {rule.of.length > 1 && (
            <IconButton label={t`${place}Remove operand ${at + 1}`} small onPress={() => put(rule.of.filter((_, index) => index !== at))}>
              <X size={13} />
            </IconButton>
          )}
        </Line>
      ))}
      <Line>
        <Lead />
        <Button small onPress={() => put([...rule.of, { kind: 'column', column: columns[0]?.name ?? '' }])}>
          <Plus size={13} />
          {t`Add a column`}
        </Button>
        <Button small onPress={() => put([...rule.of, { number: '1' }])}>
          <Plus size={13} />
          {t`Add a number`}
        </Button>
      </Line>
      <RoundingChoice place={place} round={rule.round} onChange={(round) => onChange({ ...rule, round })} />
      <Line>
        <Lead>{t`Empty`}</Lead>
        <Choice
          label={t`${place}An empty value`}
          hideLabel
          small
          items={[
            { id: 'stop', text: t`is a stop`, detail: t`The record waits until it is filled in` },
            { id: 'left-out', text: t`is left out` },
          ]}
          value={rule.empty}
          onChange={(empty) => onChange({ ...rule, empty: empty as ArithmeticRule['empty'] })}
        />
      </Line>
    </>
  );
}
