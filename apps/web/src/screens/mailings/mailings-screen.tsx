import { VisuallyHidden } from 'react-aria-components';
import type { MailingDetail } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Archive, Download, FolderInput, Plus } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { count, counted, when } from '../../features/when';
import { color } from '../../theme';
import { ArchiveButton } from '../../ui/archive-button';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Head, Row, Screen, Scroll, Small } from '../../ui/layout';
import { FileButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { Table } from '../../ui/table';
import { useCrumbs } from '../shell/crumbs';

export default function MailingsScreen() {
  useCrumbs({ text: 'Mailings' });
  const { data } = useQuery(queries.mailings());
  const [name, setName] = useState('');
  const [from, setFrom] = useState('');
  const [wanted, setWanted] = useState('');
  const [showsArchived, showArchived] = useState(false);
  const navigate = useNavigate();
  const client = useQueryClient();
  const create = useMutation({
    mutationFn: () => api.post<MailingDetail>('/api/mailings', { name, ...(from === '' ? {} : { from: Number(from) }) }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['mailings'], exact: true });
      void navigate(`/mailings/${id}/${from === '' ? 'packet' : 'map'}`);
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
  const archive = useMutation({
    mutationFn: ({ id, isArchived }: { id: number; isArchived: boolean }) => api.post(`/api/mailings/${id}/archive`, { isArchived }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['mailings'], exact: true }),
  });
  if (!data) return <Loading what="mailings" />;
  const archived = data.filter(({ isArchived }) => isArchived).length;
  const shown = data
    .filter((one) => one.isArchived === (showsArchived && archived > 0))
    .filter((one) => one.name.toLowerCase().includes(wanted.trim().toLowerCase()));
  return (
    <Screen>
      <Head title="Mailings" note={counted(data.length, 'mailing')}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) create.mutate();
          }}
        >
          <Row>
            <div style={{ width: 260 }}>
              <TextInput label="Name of the new mailing" hideLabel placeholder="Name of a new mailing" value={name} onChange={setName} />
            </div>
            {data.length > 0 && (
              <Choice
                label="Begin as"
                hideLabel
                items={[
                  { id: '', text: 'empty', detail: 'Packet, records and map are chosen anew' },
                  ...data.map((one) => ({
                    id: String(one.id),
                    text: `as ${one.name}`,
                    detail: 'Packet, map, checks, output, message and accepted looks come along',
                  })),
                ]}
                value={from}
                onChange={setFrom}
              />
            )}
            <FileTrigger acceptedFileTypes={['application/zip', '.zip']} onSelect={(files) => files?.[0] && bringIn.mutate(files[0])}>
              <Button changes isDisabled={bringIn.isPending} tip="A mailing that was exported here or in another Mailbag">
                <FolderInput size={16} />
                {bringIn.isPending ? 'Bringing it in …' : 'Bring one in'}
              </Button>
            </FileTrigger>
            <Button changes type="submit" look="go" isDisabled={!name.trim() || create.isPending}>
              <Plus size={16} />
              Begin a mailing
            </Button>
          </Row>
        </form>
      </Head>
      {(data.length > 7 || archived > 0) && (
        <Bar>
          <div style={{ width: 260 }}>
            <TextInput label="Search the mailings" hideLabel placeholder="Search by name" value={wanted} onChange={setWanted} />
          </div>
          <div className="fill" />
          {archived > 0 && (
            <Button small pressed={showsArchived} onPress={() => showArchived(!showsArchived)}>
              <Archive size={14} />
              Archived {archived}
            </Button>
          )}
        </Bar>
      )}
      {bringIn.error && <Notice tone="brick">{sentenceOf(bringIn.error)}</Notice>}
      {archive.error && <Notice tone="brick">{sentenceOf(archive.error)}</Notice>}
      {create.error && <Notice tone="brick">{sentenceOf(create.error)}</Notice>}
      <Scroll style={{ background: color.sheet, borderTop: `1px solid ${color.line}` }}>
        {data.length === 0 ? (
          <Empty title="No mailing yet">
            A mailing brings templates and records together: what is filled, from where, and who gets it. Give it a name above to begin.
          </Empty>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>Name</th>
                <th>Packet</th>
                <th>Records</th>
                <th className="number">Batches</th>
                <th>Changed</th>
                <th>
                  <VisuallyHidden>Export and archive</VisuallyHidden>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map((one) => (
                <tr key={one.id} data-link onClick={() => void navigate(`/mailings/${one.id}/map`)}>
                  <td>
                    <a
                      href={`/mailings/${one.id}/map`}
                      style={{ fontWeight: 600, color: color.ink, textDecoration: 'none' }}
                      onClick={(event) => {
                        event.preventDefault();
                        event.stopPropagation();
                        void navigate(`/mailings/${one.id}/map`);
                      }}
                    >
                      {one.name}
                    </a>
                  </td>
                  <td>{one.templates > 0 ? counted(one.templates, 'template') : <Small>none yet</Small>}</td>
                  <td>{one.sourceName ? `${count(one.records)} from ${one.sourceName}` : <Small>none yet</Small>}</td>
                  <td className="number">{one.batches}</td>
                  <td>{when(one.updatedAt)}</td>
                  <td className="number" style={{ whiteSpace: 'nowrap' }} onClick={(event) => event.stopPropagation()}>
                    <FileButton
                      $small
                      $look="bare"
                      href={`/api/mailings/${one.id}/file.zip`}
                      download
                      aria-label={`Export “${one.name}”`}
                      title="Export: the mailing with its templates as one zip, without records and passwords"
                    >
                      <Download size={16} />
                    </FileButton>
                    <ArchiveButton
                      name={one.name}
                      isArchived={one.isArchived}
                      onArchive={(isArchived) => archive.mutate({ id: one.id, isArchived })}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
        {data.length > 0 && shown.length === 0 && (
          <Empty title="No mailing here">{wanted.trim() ? 'Search for a part of its name.' : 'All of them are archived.'}</Empty>
        )}
      </Scroll>
    </Screen>
  );
}
