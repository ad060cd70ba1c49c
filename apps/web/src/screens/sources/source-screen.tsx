import { sourceNoteSentence } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Info, Trash2 } from 'lucide-react';
import { useNavigate, useParams } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { RecordGrid } from '../../features/records/record-grid';
import { counted } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Empty, Head, Loading, Screen } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';

export default function SourceScreen() {
  const id = Number(useParams().id);
  const { data: source, error } = useQuery({
    ...queries.source(id),
    refetchInterval: ({ state }) => (state.data?.state === 'reading' ? 1000 : false),
  });
  useCrumbs({ text: 'Sources', to: '/sources' }, { text: source?.name ?? '…' });
  const client = useQueryClient();
  const navigate = useNavigate();
  const remove = useMutation({
    mutationFn: () => api.remove(`/api/sources/${id}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['sources'], exact: true });
      void navigate('/sources');
    },
  });
  if (error) return <Empty title="This source cannot be shown">{sentenceOf(error)}</Empty>;
  if (!source) return <Loading what="the source" />;
  const where = [
    source.reading.sheet && `sheet ${source.reading.sheet}`,
    `headings in row ${source.reading.headingRow}`,
    source.reading.encoding,
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <Screen>
      <Head title={source.name} note={`${counted(source.count, 'record')} · ${counted(source.columns.length, 'column')} · ${where}`}>
        <Confirm
          title={`Remove “${source.name}”?`}
          text="Its records go with it. Copies that were made from them stay."
          yes="Remove the source"
          onYes={() => remove.mutate()}
        >
          <Button look="danger" small>
            <Trash2 size={14} />
            Remove
          </Button>
        </Confirm>
      </Head>
      {(source.notes.length > 0 || remove.error) && (
        <div style={{ padding: '0 16px 10px', display: 'grid', gap: 6 }}>
          {remove.error && <Notice tone="brick">{sentenceOf(remove.error)}</Notice>}
          {source.notes.map((note) => (
            <Notice key={note.code} tone="ochre" icon={<Info size={16} />}>
              {sourceNoteSentence(note)}
            </Notice>
          ))}
        </div>
      )}
      {source.state === 'reading' && <Loading what="the records" />}
      {source.state === 'failed' && <Empty title="The records could not be read">{source.error?.message}</Empty>}
      {source.state === 'ready' && (
        <div style={{ flex: 1, minHeight: 0, display: 'flex', borderTop: `1px solid ${color.line}` }}>
          <RecordGrid sourceId={id} columns={source.columns} total={source.count} />
        </div>
      )}
    </Screen>
  );
}
