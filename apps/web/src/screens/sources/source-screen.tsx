import { count, counted, plural, t } from '@mailbag/core/words';
import type { SourceFileAnswer, SourceSummary } from '@mailbag/contract';
import type { ColumnReading } from '@mailbag/core';
import { sourceNoteSentence } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Info, RefreshCw, Upload } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { useNavigate, useParams } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { DeleteThis, useDeleting } from '../../features/deleting';
import { ColumnPanel } from '../../features/records/column-panel';
import { SourcePictures } from '../../features/records/source-pictures';
import { RecordGrid } from '../../features/records/grid/record-grid';
import { SourceChangesView } from '../../features/records/source-changes';
import { UndoLine } from '../../features/records/undo-line';
import { useCorrections } from '../../features/records/use-corrections';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Bar, Empty, Head, Screen, Small } from '../../ui/layout';
import { LinkButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useUndoKeys } from '../../ui/use-undo-keys';
import { useCrumbs } from '../shell/crumbs';
import { CorrectionList } from './correction-list';
import { ImportReportView } from './import-report';
import { Rename } from '../../features/rename';
import { useAddress } from '../../ui/use-address';

type View = 'records' | 'report' | 'corrections' | 'pictures';

const formats = [
  { id: 'xlsx', text: 'XLSX', detail: t`a workbook` },
  { id: 'csv', text: 'CSV', detail: t`text, divided by commas` },
  { id: 'json', text: 'JSON', detail: t`typed values` },
  { id: 'xfdf', text: 'XFDF', detail: t`form data, one file per record` },
  { id: 'fdf', text: 'FDF', detail: t`form data, one file per record` },
];

const whereOf = ({ kind, reading, query, files }: SourceSummary): string =>
  [
    kind === 'intake' && t`what people answered to an intake`,
    query && t`query of ${query.connection}`,
    files > 1 && t`${files} files`,
    reading.sheet && reading.layout !== 'pairs' && t`sheet ${reading.sheet}`,
    reading.layout === 'pairs' && t`labels and values`,
    reading.headingRow && reading.layout !== 'pairs' && t`headings in row ${reading.headingRow}`,
    reading.onePer !== undefined && t`one record for each ${reading.onePer}`,
    reading.encoding,
  ]
    .filter(Boolean)
    .join(', ');

/** One source: its records to change in place, what is to be known of them, and the ways to read it again or to take it along. */
export default function SourceScreen() {
  const id = Number(useParams().id);
  const { data: source, error } = useQuery({
    ...queries.source(id),
    refetchInterval: ({ state }) => (state.data?.state === 'reading' ? 700 : false),
  });
  useCrumbs({ text: t`Sources`, to: '/sources' }, { text: source?.name ?? '…' });
  const client = useQueryClient();
  const navigate = useNavigate();
  const corrections = useCorrections(id);
  useUndoKeys(corrections.last && corrections.undoLast, null);
  const { query, put } = useAddress();
  const view = (query.get('view') ?? 'records') as View;
  const setView = (next: View): void => put({ view: next === 'records' ? null : next });
  const column = query.get('column');
  const setColumn = (next: string | null): void => put({ column: next });
  const deleting = useDeleting('source', () => void navigate('/sources'));
  const rename = useMutation({
    mutationFn: (name: string) => api.patch(`/api/sources/${id}`, { name }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['sources'] }),
  });
  const reread = useMutation({
    mutationFn: (how: object) => api.put<SourceSummary>(`/api/sources/${id}/reading`, how),
    onSuccess: () => client.invalidateQueries({ queryKey: ['sources'] }),
  });
  const replace = useMutation({
    mutationFn: async (files: readonly File[]) => {
      const fileIds: string[] = [];
      for (const file of files) fileIds.push((await api.upload<SourceFileAnswer>('/api/sources/files', file, () => undefined)).fileId);
      await reread.mutateAsync({ fileIds });
    },
  });
  if (error && !source) return <Empty title={t`This source cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!source) return <Loading what={t`the source`} />;
  const isReading = source.state === 'reading' || replace.isPending;
  const chosen = source.columns.find(({ name }) => name === column);
  const failure = deleting.error ?? rename.error ?? reread.error ?? replace.error;
  // Titles and empty rows are told in the report only.
  const notes = source.notes.filter(({ code }) => code !== 'rows-above' && code !== 'empty-rows');
  const hasRecords = source.columns.length > 0;
  return (
    <Screen>
      <Head
        title={source.name}
        note={`${counted(source.count, 'record')} · ${counted(source.columns.length, 'column')} · ${whereOf(source)}`}
      >
        {source.kind === 'intake' ? (
          <LinkButton to="/intakes">{t`Intakes`}</LinkButton>
        ) : source.query ? (
          <Button changes isDisabled={isReading} onPress={() => reread.mutate({})}>
            <RefreshCw size={14} />
            {t`Read again`}
          </Button>
        ) : (
          <FileTrigger allowsMultiple={source.files > 1} onSelect={(files) => files && files.length > 0 && replace.mutate([...files])}>
            <Button changes isDisabled={isReading} tip={t`Mapping and corrections stay; what is new, gone or changed is shown.`}>
              <Upload size={14} />
              {t`Upload again`}
            </Button>
          </FileTrigger>
        )}
        <Choice
          label={t`Save as`}
          hideLabel
          placeholder={t`Save as`}
          items={formats}
          value={null}
          onChange={(format) => window.location.assign(`/api/sources/${id}/records.${format}`)}
        />
        <Rename name={source.name} onRename={rename.mutate} />
        <DeleteThis
          name={source.name}
          text={t`Its records and corrections go with it. Copies that were made from them stay.`}
          isBusy={deleting.isPending}
          onDelete={() => deleting.mutate([{ id, name: source.name }])}
        />
      </Head>
      <Bar style={{ borderTop: `1px solid ${color.line}`, background: color.sheet }}>
        <Button small pressed={view === 'records'} onPress={() => setView('records')}>{t`Records`}</Button>
        <Button
          small
          pressed={view === 'report'}
          onPress={() => setView('report')}
        >{t`Import report${source.notes.length > 0 ? t`, ${source.notes.length} to note` : ''}`}</Button>
        <Button
          small
          pressed={view === 'corrections'}
          onPress={() => setView('corrections')}
        >{t`Corrections, ${count(source.corrections)}`}</Button>
        <Button small pressed={view === 'pictures'} onPress={() => setView('pictures')}>{t`Pictures, ${count(source.pictures)}`}</Button>
        <div className="fill" />
        {isReading && <Small role="status">{t`Being read: ${plural(source.progress, 'record')} so far …`}</Small>}
        {!isReading && source.readAt && <Small>{t`Read ${when(source.readAt)}`}</Small>}
        {hasRecords && (
          <>
            <Small>{t`Identified by`}</Small>
            <Choice
              label={t`Record key`}
              hideLabel
              small
              items={[
                { id: '', text: t`their row` },
                ...source.columns.map(({ name, distinct, empty }) => ({
                  id: name,
                  text: name,
                  detail: t`${distinct >= 1000 ? t`over 1,000` : distinct} different, ${empty} empty`,
                })),
              ]}
              value={source.keyColumn ?? ''}
              onChange={(keyColumn) => reread.mutate({ keyColumn: keyColumn || null })}
            />
          </>
        )}
      </Bar>
      {(failure || source.error || source.changes || corrections.last || corrections.error) && hasRecords && view === 'records' && (
        <div style={{ padding: '8px 16px', display: 'grid', gap: 6, background: color.sheet }}>
          {failure && <Notice tone="brick">{sentenceOf(failure)}</Notice>}
          {source.error && <Notice tone="brick">{t`${source.error.message} The records below are those of the reading before.`}</Notice>}
          <UndoLine corrections={corrections} />
          <SourceChangesView source={source} />
        </div>
      )}
      {!hasRecords && source.state === 'reading' && <Loading what={t`the records`} />}
      {!hasRecords && source.state === 'failed' && <Empty title={t`The records could not be read`}>{source.error?.message}</Empty>}
      {view === 'pictures' && (
        <div style={{ padding: 16, overflow: 'auto' }}>
          <SourcePictures sourceId={source.id} count={source.pictures} />
        </div>
      )}
      {hasRecords && view === 'records' && (
        <>
          {notes.length > 0 && (
            <div style={{ padding: '8px 16px', background: color.sheet }}>
              <Notice tone="ochre" icon={<Info size={16} />}>
                {sourceNoteSentence(notes[0]!)}{' '}
                {notes.length > 1 && (
                  <Button
                    small
                    look="bare"
                    onPress={() => setView('report')}
                  >{t`${plural(notes.length - 1, 'more thing')} to know`}</Button>
                )}
              </Notice>
            </div>
          )}
          <div style={{ flex: 1, minHeight: 0, display: 'flex', borderTop: `1px solid ${color.line}` }}>
            <RecordGrid
              key={`${source.id} ${source.readAt}`}
              sourceId={source.id}
              columns={source.columns}
              total={source.count}
              corrections={corrections}
              keyColumn={source.keyColumn}
              onColumn={setColumn}
            />
            {chosen && (
              <ColumnPanel
                key={chosen.name}
                source={source}
                column={chosen}
                isBusy={isReading || reread.isPending}
                onRead={(reading: ColumnReading) =>
                  reread.mutate({ reading: { ...source.reading, columns: { ...source.reading.columns, [chosen.name]: reading } } })
                }
                onClose={() => setColumn(null)}
              />
            )}
          </div>
        </>
      )}
      {hasRecords && view === 'report' && <ImportReportView sourceId={id} />}
      {hasRecords && view === 'corrections' && <CorrectionList sourceId={id} corrections={corrections} />}
    </Screen>
  );
}
