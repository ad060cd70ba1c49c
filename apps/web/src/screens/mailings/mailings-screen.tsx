import type { MailingDetail } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { count, counted, when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Head, Row, Screen, Scroll, Small } from '../../ui/layout';
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
  const navigate = useNavigate();
  const client = useQueryClient();
  const create = useMutation({
    mutationFn: () => api.post<MailingDetail>('/api/mailings', { name, ...(from === '' ? {} : { from: Number(from) }) }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['mailings'], exact: true });
      void navigate(`/mailings/${id}/${from === '' ? 'packet' : 'map'}`);
    },
  });
  if (!data) return <Loading what="mailings" />;
  const shown = data.filter((one) => one.name.toLowerCase().includes(wanted.trim().toLowerCase()));
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
            <Button changes type="submit" look="go" isDisabled={!name.trim() || create.isPending}>
              <Plus size={16} />
              Begin a mailing
            </Button>
          </Row>
        </form>
      </Head>
      {data.length > 7 && (
        <Bar>
          <div style={{ width: 260 }}>
            <TextInput label="Search the mailings" hideLabel placeholder="Search by name" value={wanted} onChange={setWanted} />
          </div>
        </Bar>
      )}
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
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </Scroll>
    </Screen>
  );
}
