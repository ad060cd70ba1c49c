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
import { TextInput } from '../../ui/field';
import { Empty, Head, Row, Screen, Scroll, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { Table } from '../../ui/table';
import { useCrumbs } from '../shell/crumbs';

export default function MailingsScreen() {
  useCrumbs({ text: 'Mailings' });
  const { data } = useQuery(queries.mailings());
  const [name, setName] = useState('');
  const navigate = useNavigate();
  const client = useQueryClient();
  const create = useMutation({
    mutationFn: () => api.post<MailingDetail>('/api/mailings', { name }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['mailings'], exact: true });
      void navigate(`/mailings/${id}/packet`);
    },
  });
  if (!data) return <Loading what="mailings" />;
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
            <Button changes type="submit" look="go" isDisabled={!name.trim() || create.isPending}>
              <Plus size={16} />
              Begin a mailing
            </Button>
          </Row>
        </form>
      </Head>
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
              {data.map((one) => (
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
