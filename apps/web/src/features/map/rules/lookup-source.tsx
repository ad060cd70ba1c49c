import { counted, plural, t } from '@mailbag/core/words';
import type { LookupAnswer } from '@mailbag/contract';
import type { LookupOrigin, LookupRule } from '@mailbag/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { RefreshCw, Table2 } from 'lucide-react';
import { useState } from 'react';
import { api, sentenceOf } from '../../../api/client';
import { queries } from '../../../api/queries';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Small, Stack } from '../../../ui/layout';
import { Notice } from '../../../ui/mark';
import { Inset, Line } from './parts';

/** Takes the table of a rule from two columns of another source, and takes it anew. */
export function LookupSource({ rule, place, onChange }: { rule: LookupRule; place: string; onChange: (rule: LookupRule) => void }) {
  const [wanted, setWanted] = useState<Partial<LookupOrigin> | null>(null);
  const { data: sources } = useQuery(queries.sources());
  const ready = (sources ?? []).filter(({ columns }) => columns.length > 1);
  const take = useMutation({
    mutationFn: (from: LookupOrigin) =>
      api.get<LookupAnswer>(`/api/sources/${from.sourceId}/lookup?${new URLSearchParams({ key: from.key, value: from.value })}`),
    onSuccess: ({ table }, from) => {
      setWanted(null);
      onChange({ ...rule, table, from });
    },
  });
  const { from } = rule;
  const source = ready.find(({ id }) => id === wanted?.sourceId);
  const columnItems = (source?.columns ?? []).map(({ name, examples }) => ({
    id: name,
    text: name,
    detail: examples.slice(0, 3).join(' · ') || t`empty`,
  }));
  const whole =
    source && wanted?.key && wanted.value ? { sourceId: source.id, source: source.name, key: wanted.key, value: wanted.value } : null;
  return (
    <Stack $gap={6}>
      {from && (
        <Line>
          <Small>{t`${plural(rule.table.length, 'line')} from “${from.source}”: ${from.key} → ${from.value}. They stay as they are until they are taken again.`}</Small>
          <Button changes small look="bare" isDisabled={take.isPending} onPress={() => take.mutate(from)}>
            <RefreshCw size={13} />
            {t`Take them again`}
          </Button>
        </Line>
      )}
      {!wanted && ready.length > 0 && (
        <Line>
          <Button changes small look="bare" onPress={() => setWanted({})}>
            <Table2 size={13} />
            {from ? t`From other columns …` : t`Take the table from a source …`}
          </Button>
        </Line>
      )}
      {wanted && (
        <Inset>
          <Line>
            <Choice
              label={t`${place}Source of the table`}
              hideLabel
              small
              placeholder={t`Source`}
              items={ready.map(({ id, name, count }) => ({ id: String(id), text: name, detail: counted(count, 'record') }))}
              value={wanted.sourceId === undefined ? null : String(wanted.sourceId)}
              onChange={(id) => setWanted({ sourceId: Number(id) })}
            />
            {source && (
              <>
                <Choice
                  label={t`${place}Column of the keys`}
                  hideLabel
                  small
                  placeholder={t`Key`}
                  items={columnItems}
                  value={wanted.key ?? null}
                  onChange={(key) => setWanted({ ...wanted, key: String(key) })}
                />
                <span aria-hidden>→</span>
                <Choice
                  label={t`${place}Column of what is found`}
                  hideLabel
                  small
                  placeholder={t`What is found`}
                  items={columnItems}
                  value={wanted.value ?? null}
                  onChange={(value) => setWanted({ ...wanted, value: String(value) })}
                />
              </>
            )}
          </Line>
          <Line>
            <Button changes small isDisabled={!whole || take.isPending} onPress={() => whole && take.mutate(whole)}>
              {take.isPending ? t`Taking the table …` : t`Take the table`}
            </Button>
            <Button small look="bare" onPress={() => setWanted(null)}>{t`Cancel`}</Button>
          </Line>
        </Inset>
      )}
      {take.error && <Notice tone="brick">{sentenceOf(take.error)}</Notice>}
      {take.data && take.data.unclear.length > 0 && (
        <Notice tone="ochre">
          {t`Several rows have the same key and different values; the first is taken for ${take.data.unclear
            .slice(0, 5)
            .map((key) => `“${key}”`)
            .join(', ')}`}
          {take.data.unclear.length > 5 && t` and others`}.
        </Notice>
      )}
    </Stack>
  );
}
