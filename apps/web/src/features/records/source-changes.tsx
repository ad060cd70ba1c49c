import { counted, plural, t } from '@mailbag/core/words';
import type { SourceSummary } from '@mailbag/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { ArrowRight, Link2 } from 'lucide-react';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { Button } from '../../ui/button';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { Table } from '../../ui/table';

/** What the last reading changed: numbers that open their lists, columns to link again, corrections that fit no more. */
export function SourceChangesView({ source }: { source: SourceSummary }) {
  const client = useQueryClient();
  const [open, setOpen] = useState<'added' | 'gone' | 'changed' | null>(null);
  const relink = useMutation({
    mutationFn: (link: { from: string; to: string }) => api.post<{ mailings: number }>(`/api/sources/${source.id}/links`, link),
    onSuccess: () => client.invalidateQueries(),
  });
  const { changes } = source;
  if (!changes) return null;
  const { corrections } = changes;
  const isQuiet = changes.added + changes.gone + changes.changed + changes.newColumns.length + changes.goneColumns.length === 0;
  const toggle = (which: typeof open) => () => setOpen(open === which ? null : which);
  return (
    <Stack $gap={6}>
      <Notice tone={isQuiet ? 'plain' : 'lagoon'}>
        <Row style={{ flexWrap: 'wrap' }}>
          {isQuiet ? t`Nothing had changed when it was last read.` : t`Since it was read before:`}
          {changes.added > 0 && (
            <Button small pressed={open === 'added'} onPress={toggle('added')}>
              {counted(changes.added, 'new record')}
            </Button>
          )}
          {changes.gone > 0 && (
            <Button small pressed={open === 'gone'} onPress={toggle('gone')}>{t`${plural(changes.gone, 'record')} gone`}</Button>
          )}
          {changes.changed > 0 && (
            <Button
              small
              pressed={open === 'changed'}
              onPress={toggle('changed')}
            >{t`${plural(changes.changed, 'record')} changed`}</Button>
          )}
          {changes.newColumns.length > 0 && <span>{t`New columns: ${changes.newColumns.join(', ')}.`}</span>}
          {changes.goneColumns.length > 0 && <span>{t`Columns gone: ${changes.goneColumns.join(', ')}.`}</span>}
          {corrections.applied > 0 && <span>{t`${plural(corrections.applied, 'correction')} applied again.`}</span>}
          {corrections.fulfilled > 0 && <span>{t`${plural(corrections.fulfilled, 'correction')} are in the source now.`}</span>}
        </Row>
        {open !== null && open !== 'changed' && (
          <p style={{ margin: '6px 0 0' }}>
            <Small>{(open === 'added' ? changes.addedKeys : changes.goneKeys).join(', ')}</Small>
          </p>
        )}
        {open === 'changed' && (
          <Table style={{ marginTop: 6 }}>
            <tbody>
              {changes.changedValues.map(({ key, column, was, now }) => (
                <tr key={`${key} ${column}`}>
                  <td>{key}</td>
                  <td>{column}</td>
                  <td>{was || <Small>{t`empty`}</Small>}</td>
                  <td>
                    <ArrowRight size={13} />
                  </td>
                  <td>{now || <Small>{t`empty`}</Small>}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </Notice>
      {changes.renamed
        .filter(({ from }) => source.usedBy.length > 0 && changes.goneColumns.includes(from))
        .map(({ from, to }) => (
          <Notice key={from} tone="ochre" icon={<Link2 size={16} />}>
            <Row style={{ flexWrap: 'wrap' }}>
              {t`“${from}” is gone; “${to}” probably took its place.`}
              <Button changes small isDisabled={relink.isPending || relink.isSuccess} onPress={() => relink.mutate({ from, to })}>
                {relink.isSuccess ? t`Linked` : t`Use “${to}” instead`}
              </Button>
            </Row>
          </Notice>
        ))}
      {corrections.unfit.length > 0 && (
        <Notice tone="ochre">{t`${plural(corrections.unfit.length, 'correction')} no longer fit: ${corrections.unfit
          .slice(0, 10)
          .map(({ key, column, value, why }) => `${key}, ${column}: “${value}” (${why})`)
          .join('; ')}.`}</Notice>
      )}
      {relink.error && <Notice tone="brick">{sentenceOf(relink.error)}</Notice>}
    </Stack>
  );
}
