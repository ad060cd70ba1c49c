import { count, counted, t } from '@mailbag/core/words';
import type { MailingDetail, MailingSummary } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, FolderInput, Plus } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { AwayPicked } from '../../features/away-picked';
import { DeletedNotice, WastebasketLink, useDeleting } from '../../features/deleting';
import { useArchive } from '../../features/use-archive';
import { useContractForm } from '../../features/forms/use-contract-form';
import { when } from '../../features/when';
import { color } from '../../theme';
import { ArchiveButton, ArchivedSwitch } from '../../ui/archive-button';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Empty, Head, Row, Screen, Small, Stack } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { FileButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';

const addressOf = ({ id }: MailingSummary): string => `/mailings/${id}/map`;
const keyOf = ({ id }: MailingSummary): number => id;
const nameOf = ({ name }: MailingSummary): string => name;

const columns: readonly ListColumn<MailingSummary>[] = [
  {
    id: 'name',
    head: t`Name`,
    minWidth: 200,
    share: 3,
    isFixed: true,
    text: nameOf,
    cell: (one) => (
      <Link data-name="" to={addressOf(one)}>
        {one.name}
      </Link>
    ),
  },
  {
    id: 'packet',
    head: t`Packet`,
    minWidth: 96,
    share: 1,
    text: ({ templates }) => (templates > 0 ? counted(templates, 'template') : ''),
    cell: ({ templates }) => (templates > 0 ? counted(templates, 'template') : <Small>{t`none yet`}</Small>),
    value: ({ templates }) => templates,
  },
  {
    id: 'records',
    head: t`Records`,
    minWidth: 170,
    share: 2,
    text: (one) => (one.sourceName ? t`${count(one.records)} from ${one.sourceName}` : ''),
    cell: (one) => (one.sourceName ? t`${count(one.records)} from ${one.sourceName}` : <Small>{t`none yet`}</Small>),
    value: (one) => (one.sourceName ? one.records : null),
  },
  {
    id: 'batches',
    head: t`Batches`,
    minWidth: 60,
    isNumber: true,
    text: ({ batches }) => String(batches),
    value: ({ batches }) => batches,
  },
  { id: 'changed', head: t`Changed`, minWidth: 104, text: ({ updatedAt }) => when(updatedAt), value: ({ updatedAt }) => updatedAt },
];

export default function MailingsScreen() {
  useCrumbs({ text: t`Mailings` });
  const { data } = useQuery(queries.mailings());
  const { values, set, fault, submit } = useContractForm('MailingCreateRequest', { name: '', from: '' }, (form) => ({
    name: form.name.trim(),
    ...(form.from === '' ? {} : { from: Number(form.from) }),
  }));
  const [showsArchived, showArchived] = useState(false);
  const navigate = useNavigate();
  const client = useQueryClient();
  const create = useMutation({
    mutationFn: (body: object) => api.post<MailingDetail>('/api/mailings', body),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['mailings'], exact: true });
      void navigate(`/mailings/${id}/${values.from === '' ? 'packet' : 'map'}`);
    },
  });
  const bringIn = useMutation({
    mutationFn: (file: File) => api.upload<MailingDetail>('/api/mailings/file', file, () => undefined),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['mailings'], exact: true });
      await client.invalidateQueries({ queryKey: ['templates'] });
      void navigate(`/mailings/${id}/map`);
    },
  });
  const archive = useArchive('mailings');
  const deleting = useDeleting('mailing');
  if (!data) return <Loading what={t`mailings`} />;
  const archived = data.filter(({ isArchived }) => isArchived).length;
  const isInArchive = showsArchived && archived > 0;
  const shown = data.filter((one) => one.isArchived === isInArchive);
  const tools: ListColumn<MailingSummary> = {
    id: 'tools',
    head: t`Export and archive`,
    minWidth: 72,
    isTools: true,
    text: () => '',
    cell: (one) => (
      <Row $gap={0} style={{ justifyContent: 'flex-end', flexWrap: 'nowrap' }}>
        <FileButton
          $small
          $look="bare"
          href={`/api/mailings/${one.id}/file.zip`}
          download
          aria-label={t`Export “${one.name}”`}
          title={t`Export: the mailing with its templates as one zip, without records and passwords`}
        >
          <Download size={16} />
        </FileButton>
        <ArchiveButton
          name={one.name}
          isArchived={one.isArchived}
          onArchive={(isArchived) => archive.mutate({ ids: [one.id], isArchived })}
        />
      </Row>
    ),
  };
  return (
    <Screen>
      <Head title={t`Mailings`}>
        <form onSubmit={submit(create.mutate)}>
          <Row>
            <div style={{ width: 260 }}>
              <TextInput
                label={t`Name of the new mailing`}
                hideLabel
                placeholder={t`Name of a new mailing`}
                value={values.name}
                onChange={(name) => set({ name })}
                error={fault('name')}
              />
            </div>
            {data.length > 0 && (
              <Choice
                label={t`Start as`}
                hideLabel
                items={[
                  { id: '', text: t`empty`, detail: t`Choose packet, records and map yourself` },
                  ...data.map((one) => ({
                    id: String(one.id),
                    text: t`as ${one.name}`,
                    detail: t`Packet, map, checks, output, message and accepted looks are copied`,
                  })),
                ]}
                value={values.from}
                onChange={(from) => set({ from })}
              />
            )}
            <FileTrigger acceptedFileTypes={['application/zip', '.zip']} onSelect={(files) => files?.[0] && bringIn.mutate(files[0])}>
              <Button changes isDisabled={bringIn.isPending} tip={t`A mailing that was exported here or in another Mailbag`}>
                <FolderInput size={16} />
                {bringIn.isPending ? t`Importing …` : t`Import`}
              </Button>
            </FileTrigger>
            <Button changes type="submit" look="go" isDisabled={create.isPending}>
              <Plus size={16} />
              {t`Begin a mailing`}
            </Button>
          </Row>
        </form>
      </Head>
      {bringIn.error && <Notice tone="brick">{sentenceOf(bringIn.error)}</Notice>}
      {archive.error && <Notice tone="brick">{sentenceOf(archive.error)}</Notice>}
      <DeletedNotice kind="mailing" error={deleting.error} />
      {create.error && <Notice tone="brick">{sentenceOf(create.error)}</Notice>}
      <Stack $gap={0} style={{ background: color.sheet, borderTop: `1px solid ${color.line}`, flex: 1, minHeight: 0 }}>
        <List
          id="mailings"
          label={t`mailings`}
          noun={['mailing', 'mailings']}
          columns={[...columns, tools]}
          rows={shown}
          keyOf={keyOf}
          nameOf={nameOf}
          to={addressOf}
          searchHint={t`Name, template or source`}
          tools={
            <>
              <ArchivedSwitch count={archived} isOn={showsArchived} onSwitch={showArchived} />
              <WastebasketLink kind="mailing" />
            </>
          }
          actions={(picked, done) => (
            <AwayPicked picked={picked} onDone={done} isInArchive={isInArchive} archive={archive} deleting={deleting} />
          )}
          empty={(isSearch) =>
            data.length === 0 ? (
              <Empty
                title={t`No mailing yet`}
              >{t`A mailing brings templates and records together: what is filled, from where, and who gets it. Give it a name above to begin.`}</Empty>
            ) : (
              <Empty title={t`No mailing here`}>{isSearch ? t`Search for a part of its name.` : t`All of them are archived.`}</Empty>
            )
          }
        />
      </Stack>
    </Screen>
  );
}
