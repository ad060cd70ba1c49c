import { count, t } from '@mailbag/core/words';
import type { SourceSummary } from '@mailbag/contract';
import type { Column, ColumnKind, ColumnReading } from '@mailbag/core';
import { columnKindName, columnKinds } from '@mailbag/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Bar, Facts, Small, Stack } from '../../ui/layout';
import { Chip } from '../../ui/mark';

const Panel = styled.aside`
  width: 300px;
  flex: none;
  border-left: 1px solid ${color.line};
  background: ${color.sheet};
  display: flex;
  flex-direction: column;
  min-height: 0;
`;

/** What a column is, and how a person wants it read. */
export function ColumnPanel({
  source,
  column,
  isBusy,
  onRead,
  onClose,
}: {
  source: SourceSummary;
  column: Column;
  isBusy: boolean;
  onRead: (reading: ColumnReading) => void;
  onClose: () => void;
}) {
  const [draft, setDraft] = useState<ColumnReading>(column.reading ?? {});
  const kind = draft.kind ?? column.kind;
  const isChanged = JSON.stringify(draft) !== JSON.stringify(column.reading ?? {});
  const without = <Name extends keyof ColumnReading>(name: Name): ColumnReading => {
    const { [name]: _left, ...rest } = draft;
    return rest;
  };
  return (
    <Panel aria-label={t`Column ${column.name}`}>
      <Bar>
        <b>{column.name}</b>
        <div className="fill" />
        <IconButton label={t`Close`} onPress={onClose}>
          <X size={16} />
        </IconButton>
      </Bar>
      <Stack style={{ padding: 14, overflow: 'auto' }}>
        <Facts>
          <dt>{t`Filled`}</dt>
          <dd>{t`${count(source.count - column.empty)} of ${count(source.count)}`}</dd>
          <dt>{t`Different`}</dt>
          <dd>{column.distinct >= 1000 ? t`over 1,000` : count(column.distinct)}</dd>
          <dt>{t`Longest`}</dt>
          <dd>{column.longest || t`nothing`}</dd>
          <dt>{t`In patterns`}</dt>
          <dd>{`{{ ${column.slug} }}`}</dd>
          <dt>{t`Such as`}</dt>
          <dd>
            {column.examples.map((example) => (
              <Chip key={example}>{example}</Chip>
            ))}
          </dd>
        </Facts>
        <Choice
          label={t`Kind`}
          items={[
            { id: '', text: t`Detected: ${columnKindName(column.kind)}` },
            ...columnKinds.map((one) => ({ id: one, text: columnKindName(one) })),
          ]}
          value={draft.kind ?? ''}
          onChange={(id) => setDraft(id === '' ? without('kind') : { ...draft, kind: id as ColumnKind })}
        />
        {(kind === 'date' || kind === 'text') && (
          <Choice
            label={t`Dates such as 3/4/2027`}
            items={[
              { id: '', text: t`Only where it is unambiguous` },
              { id: 'day-first', text: t`Day first: 3 April` },
              { id: 'month-first', text: t`Month first: March 4` },
            ]}
            value={draft.dates ?? ''}
            onChange={(id) => setDraft(id === '' ? without('dates') : { ...draft, dates: id as 'day-first' | 'month-first' })}
          />
        )}
        {(kind === 'number' || kind === 'text') && (
          <Choice
            label={t`Decimals in text`}
            items={[
              { id: '', text: t`As the file shows` },
              { id: 'point', text: t`After a point: 1,234.50` },
              { id: 'comma', text: t`After a comma: 1.234,50` },
            ]}
            value={draft.decimals ?? ''}
            onChange={(id) => setDraft(id === '' ? without('decimals') : { ...draft, decimals: id as 'comma' | 'point' })}
          />
        )}
        <Small>{t`The source is read again with this. What people see stays as it is; only its kind and value change.`}</Small>
        <Button changes look="go" isDisabled={!isChanged || isBusy} onPress={() => onRead(draft)}>{t`Read it this way`}</Button>
      </Stack>
    </Panel>
  );
}
