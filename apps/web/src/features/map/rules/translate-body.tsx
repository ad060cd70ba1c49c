import { t } from '@mailbag/core/words';
import type { Field, TranslateRule, Translation } from '@mailbag/core';
import { Plus, Wand2, X } from 'lucide-react';
import type { ChoiceItem } from '../../../ui/choice';
import { Choice } from '../../../ui/choice';
import { Button, IconButton } from '../../../ui/button';
import { TextInput } from '../../../ui/field';
import { Small, Stack } from '../../../ui/layout';
import { Line, Pair } from './parts';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

/** What a value can become, in the words of the form; what is kept in the file stands below where it is another word. */
function targetsOf(field: Field): ChoiceItem[] {
  const inWords = (label: string, value: string, what: string): ChoiceItem => ({
    id: value,
    text: label,
    ...(label !== value && { detail: `${what} ${value}` }),
  });
  if (field.kind === 'checkbox') {
    const on = field.onValues[0] ?? t`Yes`;
    const printed = field.options[0]?.label;
    return [inWords(printed && printed !== on ? t`ticked: ${printed}` : t`ticked`, on, 'on-value'), { id: 'Off', text: t`not ticked` }];
  }
  if (field.kind === 'radio')
    return [
      ...field.onValues.map((on, index) => inWords(field.options[index]?.label ?? on, on, 'on-value')),
      { id: '', text: t`none chosen` },
    ];
  return [...field.options.map(({ label, value }) => inWords(label, value, t`export value`)), { id: '', text: t`left blank` }];
}

export function TranslateBody({ rule, field, place, onChange }: BodyProps<TranslateRule>) {
  const { columns } = useRuleSetting();
  const { table } = rule;
  const column = columns.find(({ name }) => name === rule.column);
  const targets = targetsOf(field);
  const put = (next: Translation[]): void => onChange({ ...rule, table: next });
  const replace = (at: number, change: Partial<Translation>): void =>
    put(table.map((one, index) => (index === at ? { ...one, ...change } : one)));
  const missing = (column?.examples ?? []).filter(
    (example) => !table.some((one) => one.from.trim().toLowerCase() === example.trim().toLowerCase()),
  );
  return (
    <Stack $gap={6}>
      <Pair>
        <Small>{column ? t`When “${column.name}” says` : t`When the column says`}</Small>
        <span />
        <Small>{t`the field is`}</Small>
        <span />
      </Pair>
      {table.map((one, at) => (
        <Pair key={at}>
          <TextInput label={t`${place}Value ${at + 1}`} hideLabel value={one.from} onChange={(from) => replace(at, { from })} />
          <span aria-hidden>→</span>
          <Choice
            label={t`${place}Becomes, value ${at + 1}`}
            hideLabel
            items={targets}
            value={targets.some(({ id }) => id === one.to) ? one.to : null}
            onChange={(to) => replace(at, { to })}
          />
          <IconButton label={t`${place}Remove value ${at + 1}`} onPress={() => put(table.filter((_, index) => index !== at))}>
            <X size={14} />
          </IconButton>
        </Pair>
      ))}
      <Line>
        <Button small onPress={() => put([...table, { from: '', to: targets[0]?.id ?? '' }])}>
          <Plus size={13} />
          {t`Add a value`}
        </Button>
        {missing.length > 0 && (
          <Button small onPress={() => put([...table, ...missing.map((from) => ({ from, to: targets[0]?.id ?? '' }))])}>
            <Wand2 size={13} />
            {t`Add ${missing.slice(0, 3).join(', ')} from the column`}
          </Button>
        )}
        <Small>{t`A value that is not in this list is a stop, never a silent tick.`}</Small>
      </Line>
    </Stack>
  );
}
