import { count, plural, t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { sentenceOf } from '../../../api/client';
import { queries } from '../../../api/queries';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { TextInput } from '../../../ui/field';
import { Row, Small, Stack } from '../../../ui/layout';
import { Notice } from '../../../ui/mark';
import { RecordList } from './record-list';

const filters = [
  { id: 'all', text: t`All records` },
  { id: 'corrected', text: t`Corrected here` },
  { id: 'looked', text: t`With something to look at` },
] as const;

/** Records chosen by hand or by what they hold. */
export function Selection({
  mailing,
  rows,
  onChange,
}: {
  mailing: number;
  rows: ReadonlySet<number>;
  onChange: (rows: ReadonlySet<number>) => void;
}) {
  const [text, setText] = useState('');
  const [only, setOnly] = useState<(typeof filters)[number]['id']>('all');
  const looked = useDeferredValue(text.trim());
  const { data, error, isFetching } = useQuery(queries.matchingRecords(mailing, looked, only === 'all' ? null : only));
  const found = data?.rows ?? [];
  const chosenOfFound = found.reduce((sum, row) => sum + (rows.has(row) ? 1 : 0), 0);
  const set = (some: readonly number[], isIn: boolean): void => {
    const next = new Set(rows);
    for (const row of some)
      if (isIn) next.add(row);
      else next.delete(row);
    onChange(next);
  };
  return (
    <Stack $gap={8}>
      <Row $gap={8} style={{ alignItems: 'end' }}>
        <div style={{ flex: 1 }}>
          <TextInput label={t`Find records`} value={text} onChange={setText} placeholder={t`A name, a plot, an address`} />
        </div>
        <Choice label={t`Among`} items={filters} value={only} onChange={(id) => setOnly(id as typeof only)} />
      </Row>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      <Row $gap={8} aria-busy={isFetching}>
        <Small role="status">{t`${plural(found.length, 'record')} found, ${count(chosenOfFound)} of them chosen. ${plural(rows.size, 'record')} chosen altogether.`}</Small>
      </Row>
      <Row $gap={8}>
        <Button
          small
          isDisabled={chosenOfFound === found.length}
          onPress={() => set(found, true)}
        >{t`Choose all ${count(found.length)}`}</Button>
        <Button small isDisabled={rows.size === 0} onPress={() => onChange(new Set())}>{t`Choose none`}</Button>
      </Row>
      <div style={{ maxHeight: 240, overflow: 'auto' }}>
        <RecordList
          mailing={mailing}
          label={t`Records found`}
          records={data?.shown ?? []}
          lead={({ row, key }) => (
            <input
              type="checkbox"
              aria-label={t`Choose ${key || t`row ${row}`}`}
              checked={rows.has(row)}
              onChange={(event) => set([row], event.target.checked)}
            />
          )}
        />
        {data && found.length > data.shown.length && (
          <Small>{t`The first ${count(data.shown.length)} are listed. Type more to find others.`}</Small>
        )}
      </div>
    </Stack>
  );
}
