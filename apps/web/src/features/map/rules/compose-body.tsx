import { t } from '@mailbag/core/words';
import type { ComposePart, ComposeRule } from '@mailbag/core';
import { Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { ColumnChoice } from './column-choice';
import { Framed, Line } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';

export function ComposeBody({ rule, place, onChange }: BodyProps<ComposeRule>) {
  const { parts } = rule;
  const put = (next: ComposePart[]): void => onChange({ ...rule, parts: next });
  const replace = (at: number, part: ComposePart): void => put(parts.map((one, index) => (index === at ? part : one)));
  const remove = (at: number): void => put(parts.filter((_, index) => index !== at));
  const between: ComposePart[] = parts.length > 0 && !('text' in parts.at(-1)!) ? [{ text: ' ' }] : [];
  return (
    <Line>
      {parts.map((part, at) => (
        <Framed key={at} style={'rule' in part ? { padding: 6, flexBasis: '100%', alignItems: 'flex-start' } : undefined}>
          {'column' in part ? (
            <ColumnChoice
              label={t`${place}Column, part ${at + 1}`}
              value={part.column}
              onChange={({ name }) => replace(at, { column: name })}
            />
          ) : 'rule' in part ? (
            <RulePart place={t`${place}Part ${at + 1}`} rule={part.rule} onChange={(next) => replace(at, { rule: next })} />
          ) : (
            <input
              aria-label={t`${place}Text, part ${at + 1}`}
              value={part.text}
              onChange={(event) => replace(at, { text: event.target.value })}
            />
          )}
          <IconButton label={t`${place}Remove part ${at + 1}`} small onPress={() => remove(at)}>
            <X size={13} />
          </IconButton>
        </Framed>
      ))}
      <ColumnChoice
        label={t`${place}Add a column`}
        value={null}
        placeholder={t`Add a column`}
        onChange={({ name }) => put([...parts, ...between, { column: name }])}
      />
      <Button small onPress={() => put([...parts, { text: ', ' }])}>
        <Plus size={13} />
        {t`Add text`}
      </Button>
      <Button small onPress={() => put([...parts, ...between, { rule: { kind: 'copy-fact', fact: 'today' } }])}>
        <Plus size={13} />
        {t`Add a rule`}
      </Button>
    </Line>
  );
}
