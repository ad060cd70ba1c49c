import { plural, t } from '@mailbag/core/words';
import type { FillRule, LookupLine, LookupRule } from '@mailbag/core';
import { LOOKUP_LIMIT } from '@mailbag/core';
import { Plus, Wand2, X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../../ui/button';
import { TextInput, Toggled } from '../../../ui/field';
import { Small, Stack } from '../../../ui/layout';
import { LookupSource } from './lookup-source';
import { Lead, Line, Pair } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

/** Lines of a table that are shown at once: each is two boxes to type into. */
const MOST_SHOWN = 40;

/** Two columns that were copied in a spreadsheet, as lines of the table; null: it is something else. */
export function pastedLines(text: string): LookupLine[] | null {
  if (!text.includes('\t')) return null;
  const lines = text
    .split(/\r\n|[\r\n]/)
    .filter((line) => line.trim() !== '')
    .map((line) => line.split('\t'));
  return lines.every((cells) => cells.length >= 2)
    ? lines.map(([key = '', value = '']) => ({ key: key.trim(), value: value.trim() }))
    : null;
}

export function LookupBody({ rule, place, onChange }: BodyProps<LookupRule>) {
  const { columns } = useRuleSetting();
  const { table } = rule;
  const put = (next: LookupLine[]): void => onChange({ ...rule, table: next.slice(0, LOOKUP_LIMIT) });
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? table : table.slice(0, MOST_SHOWN);
  const replace = (at: number, change: Partial<LookupLine>): void =>
    put(table.map((one, index) => (index === at ? { ...one, ...change } : one)));
  /** Samples of what is looked up. */
  const keysOf = (of: FillRule): string[] => (of.kind === 'column' && columns.find(({ name }) => name === of.column)?.examples) || [];
  const isUntouched = table.every(({ value }) => value === '');
  const missing = keysOf(rule.of).filter((example) => !table.some(({ key }) => key.trim().toLowerCase() === example.trim().toLowerCase()));
  return (
    <>
      <Line>
        <Lead>{t`Look up`}</Lead>
        <RulePart
          place={t`${place}Key`}
          rule={rule.of}
          onChange={(of) => onChange({ ...rule, of, table: isUntouched ? keysOf(of).map((key) => ({ key, value: '' })) : table })}
        />
      </Line>
      <Stack
        $gap={6}
        onPaste={(event) => {
          const lines = pastedLines(event.clipboardData.getData('text/plain'));
          if (!lines) return;
          event.preventDefault();
          put([...table.filter(({ key, value }) => key !== '' || value !== ''), ...lines]);
        }}
      >
        <Pair>
          <Small>{t`When it is`}</Small>
          <span />
          <Small>{t`take`}</Small>
          <span />
        </Pair>
        {shown.map((one, at) => (
          <Pair key={at}>
            <TextInput label={t`${place}Key ${at + 1}`} hideLabel value={one.key} onChange={(key) => replace(at, { key })} />
            <span aria-hidden>→</span>
            <TextInput
              label={t`${place}Value for key ${at + 1}`}
              hideLabel
              value={one.value}
              onChange={(value) => replace(at, { value })}
            />
            <IconButton label={t`${place}Remove line ${at + 1}`} onPress={() => put(table.filter((_, index) => index !== at))}>
              <X size={14} />
            </IconButton>
          </Pair>
        ))}
        {shown.length < table.length && (
          <Line>
            <Small>{t`and ${plural(table.length - shown.length, 'more line')}`}</Small>
            <Button small look="bare" onPress={() => setWhole(true)}>{t`Show all`}</Button>
          </Line>
        )}
        <Line>
          <Button small onPress={() => put([...table, { key: '', value: '' }])}>
            <Plus size={13} />
            {t`Add a line`}
          </Button>
          {missing.length > 0 && (
            <Button small onPress={() => put([...table, ...missing.map((key) => ({ key, value: '' }))])}>
              <Wand2 size={13} />
              {t`Add ${missing.slice(0, 3).join(', ')} from the column`}
            </Button>
          )}
          <Small>{t`Two columns copied in a spreadsheet can be pasted here.`}</Small>
        </Line>
      </Stack>
      <LookupSource rule={rule} place={place} onChange={onChange} />
      <Line>
        <Toggled
          label={rule.otherwise ? t`Otherwise` : t`A key that is not in the table is a stop`}
          value={rule.otherwise !== null}
          onChange={(on) => onChange({ ...rule, otherwise: on ? { kind: 'blank' } : null })}
        />
        {rule.otherwise && (
          <RulePart place={t`${place}Otherwise`} rule={rule.otherwise} onChange={(otherwise) => onChange({ ...rule, otherwise })} />
        )}
      </Line>
    </>
  );
}
