import { count, counted, t } from '@mailbag/core/words';
import type { SourceSummary } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { queries } from '../../api/queries';
import { AddSource } from '../../features/records/add-source';
import { DeletePicked, DeletedNotice, WastebasketLink, useDeleting } from '../../features/deleting';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Empty, Head, Screen, Small, Stack } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { Loading } from '../../ui/loading';
import { Mark } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';

const addressOf = ({ id }: SourceSummary): string => `/sources/${id}`;
const keyOf = ({ id }: SourceSummary): number => id;
const nameOf = ({ name }: SourceSummary): string => name;

/** Where the records of a source come from. */
function originOf({ query, files, fileName, reading }: SourceSummary): string {
  if (query) return t`query of ${query.connection}`;
  return files > 1 ? t`${files} files` : `${fileName}${reading.sheet ? t`, sheet ${reading.sheet}` : ''}`;
}

const columns: readonly ListColumn<SourceSummary>[] = [
  {
    id: 'name',
    head: t`Name`,
    minWidth: 200,
    share: 3,
    isFixed: true,
    text: nameOf,
    cell: (one) => (
      <>
        <Link data-name="" to={addressOf(one)}>
          {one.name}
        </Link>{' '}
        {one.state === 'reading' && <Mark $tone="ochre">{t`being read`}</Mark>}
        {one.state === 'failed' && <Mark $tone="brick">{t`not read`}</Mark>}{' '}
        {one.state === 'ready' && one.error && <Mark $tone="brick">{t`could not be read again`}</Mark>}
        <br />
        <Small>
          {originOf(one)}
          {one.corrections > 0 && ` · ${counted(one.corrections, 'correction')}`}
        </Small>
      </>
    ),
  },
  { id: 'from', head: t`From`, minWidth: 150, share: 2, isExtra: true, text: originOf },
  { id: 'records', head: t`Records`, minWidth: 70, isNumber: true, text: (one) => count(one.count), value: (one) => one.count },
  {
    id: 'columns',
    head: t`Columns`,
    minWidth: 70,
    isNumber: true,
    text: (one) => String(one.columns.length),
    value: (one) => one.columns.length,
  },
  { id: 'corrections', head: t`Corrections`, minWidth: 80, isNumber: true, isExtra: true, text: (one) => String(one.corrections), value: (one) => one.corrections }, // prettier-ignore
  {
    id: 'used',
    head: t`Used by`,
    minWidth: 150,
    share: 2,
    text: ({ usedBy }) => usedBy.join(', '),
    cell: ({ usedBy }) => usedBy.join(', ') || <Small>{t`no mailing yet`}</Small>,
    value: ({ usedBy }) => (usedBy.length > 0 ? usedBy.join(', ') : null),
  },
  {
    id: 'read',
    head: t`Read`,
    minWidth: 104,
    text: (one) => when(one.readAt ?? one.createdAt),
    value: (one) => one.readAt ?? one.createdAt,
  },
];

export default function SourcesScreen() {
  useCrumbs({ text: t`Sources` });
  const { data } = useQuery(queries.sources());
  const navigate = useNavigate();
  const deleting = useDeleting('source');
  if (!data) return <Loading what={t`sources`} />;
  return (
    <Screen>
      <Head title={t`Sources`} />
      <DeletedNotice kind="source" error={deleting.error} />
      <div style={{ padding: '0 16px 12px' }} data-print="no">
        <AddSource onAdded={(id) => void navigate(`/sources/${id}`)} />
      </div>
      <Stack $gap={0} style={{ background: color.sheet, borderTop: `1px solid ${color.line}`, flex: 1, minHeight: 0 }}>
        <List
          id="sources"
          label={t`sources`}
          noun={['source', 'sources']}
          columns={columns}
          rows={data}
          keyOf={keyOf}
          nameOf={nameOf}
          to={addressOf}
          searchHint={t`Name, file or mailing`}
          tools={<WastebasketLink kind="source" />}
          actions={(picked, done) => (
            <DeletePicked
              isBusy={deleting.isPending}
              onPress={() => {
                deleting.mutate(picked);
                done();
              }}
            />
          )}
          empty={(isSearch) =>
            isSearch ? (
              <Empty title={t`No matches`}>{t`Search for a part of its name, its file or its mailing.`}</Empty>
            ) : (
              <Empty
                title={t`No records yet`}
              >{t`A source is where records come from: a workbook, a CSV file, form data or a database, one record for each recipient.`}</Empty>
            )
          }
        />
      </Stack>
    </Screen>
  );
}
