import { counted, t } from '@mailbag/core/words';
import type { ConnectionAnswer, DatabaseTable, QueryExcerpt, SourceSummary } from '@mailbag/contract';
import { parameterNames, sourceNoteSentence } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Play, Table2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { ChangeDelete, DeletedNotice, WastebasketLink, useDeleting } from '../deleting';
import { ConnectionForm } from './connection-form';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Card, Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { Table } from '../../ui/table';

const Tree = styled.div`
  border: 1px solid ${color.line};
  border-radius: 6px;
  overflow: auto;
  max-height: 300px;
  padding: 6px;
  & button {
    display: flex;
    gap: 6px;
    align-items: center;
    width: 100%;
    border: 0;
    background: none;
    padding: 4px 6px;
    border-radius: 4px;
    text-align: left;
    cursor: pointer;
  }
  & button:hover {
    background: ${color.plumWash};
  }
  & small {
    display: block;
    padding: 0 6px 4px 26px;
    color: ${color.faded};
    font-family: ${font.mono};
  }
`;

/** A table or a query of a database as a source. */
export function AddDatabase({ onAdded }: { onAdded: (id: number) => void }) {
  const { data: connections } = useQuery(queries.connections());
  const [chosen, setChosen] = useState<number | 'new' | null>(null);
  const [isChanging, setChanging] = useState(false);
  const deleting = useDeleting('connection', () => setChosen(null));
  if (!connections) return <Loading what={t`the connections`} />;
  const connection = connections.find(({ id }) => id === chosen) ?? (chosen === null ? connections[0] : undefined);
  return (
    <Card style={{ padding: 16, gap: 12 }}>
      <DeletedNotice kind="connection" error={deleting.error} />
      {connections.length > 0 && (
        <Row $gap={12} style={{ alignItems: 'flex-end' }}>
          <Choice
            label={t`Connection`}
            items={[
              ...connections.map(({ id, name, kind, host, databaseName }) => ({
                id: String(id),
                text: name,
                detail: kind === 'sqlite' ? databaseName : t`${databaseName} at ${host}`,
              })),
              { id: 'new', text: t`Another connection …` },
            ]}
            value={connection ? String(connection.id) : 'new'}
            onChange={(id) => {
              setChosen(id === 'new' ? 'new' : Number(id));
              setChanging(false);
            }}
          />
          <WastebasketLink kind="connection" />
          {connection && !isChanging && (
            <ChangeDelete
              name={connection.name}
              text={t`Its settings and its password go with it.`}
              isBusy={deleting.isPending}
              onChange={() => setChanging(true)}
              onDelete={connection.usedBy.length > 0 ? null : () => deleting.mutate([connection])}
            />
          )}
        </Row>
      )}
      {connection && isChanging ? (
        <ConnectionForm key={connection.id} before={connection} onDone={() => setChanging(false)} onCancel={() => setChanging(false)} />
      ) : connection ? (
        <AskDatabase key={connection.id} connection={connection} onAdded={onAdded} />
      ) : (
        <ConnectionForm before={null} onDone={({ id }) => setChosen(id)} />
      )}
    </Card>
  );
}

function AskDatabase({ connection, onAdded }: { connection: ConnectionAnswer; onAdded: (id: number) => void }) {
  const client = useQueryClient();
  const tables = useQuery(queries.tables(connection.id));
  const [sql, setSql] = useState('');
  const [parameters, setParameters] = useState<Record<string, string>>({});
  const [name, setName] = useState('');
  const wanted = parameterNames(sql);
  const given = Object.fromEntries(wanted.map((one) => [one, parameters[one] ?? '']));
  const look = useMutation({
    mutationFn: (query: string) => api.post<QueryExcerpt>(`/api/connections/${connection.id}/excerpt`, { sql: query, parameters: given }),
  });
  const add = useMutation({
    mutationFn: () =>
      api.post<SourceSummary>('/api/sources', {
        name: name.trim() || connection.name,
        query: { connectionId: connection.id, sql, parameters: given },
        reading: {},
      }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['sources'] });
      onAdded(id);
    },
  });
  const pick = (table: DatabaseTable): void => {
    const mark = connection.kind === 'mysql' ? '`' : '"';
    const quote = (text: string): string => mark + text.replaceAll(mark, mark + mark) + mark;
    const query = `SELECT * FROM ${[table.schema, table.name]
      .filter((part) => part !== null)
      .map(quote)
      .join('.')}`;
    setSql(query);
    setName(table.name);
    look.mutate(query);
  };
  const error = tables.error ?? look.error ?? add.error;
  return (
    <>
      <div style={{ display: 'grid', gridTemplateColumns: '240px minmax(0, 1fr)', gap: 16 }}>
        <Stack $gap={4}>
          <Small>{t`Pick a table, or write a query`}</Small>
          {tables.isPending ? (
            <Loading what={t`the tables`} />
          ) : (
            <Tree role="tree" aria-label={t`Tables`}>
              {(tables.data ?? []).map((table) => (
                <div key={`${table.schema}.${table.name}`} role="treeitem" aria-selected={false}>
                  <button onClick={() => pick(table)}>
                    <Table2 size={14} />
                    {table.schema && table.schema !== 'public' ? `${table.schema}.` : ''}
                    {table.name}
                  </button>
                  <small>{table.columns.map((column) => column.name).join(', ')}</small>
                </div>
              ))}
            </Tree>
          )}
        </Stack>
        <Stack>
          <TextInput
            label={t`Query`}
            mono
            rows={5}
            value={sql}
            onChange={setSql}
            placeholder={t`SELECT number, name, email FROM applicant WHERE asked_on < :before`}
            help={t`One statement that reads. A name after a colon is asked for below.`}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && sql.trim()) look.mutate(sql);
            }}
          />
          {wanted.length > 0 && (
            <Row style={{ flexWrap: 'wrap' }}>
              {wanted.map((one) => (
                <div key={one} style={{ width: 160 }}>
                  <TextInput
                    label={`:${one}`}
                    value={parameters[one] ?? ''}
                    onChange={(value) => setParameters({ ...parameters, [one]: value })}
                  />
                </div>
              ))}
            </Row>
          )}
          <Row style={{ alignItems: 'flex-end' }}>
            <Button isDisabled={!sql.trim() || look.isPending} tip={t`Ctrl+Enter`} onPress={() => look.mutate(sql)}>
              <Play size={14} />
              {look.isPending ? t`Querying …` : t`Show the first rows`}
            </Button>
            <div style={{ flex: 1 }} />
            <div style={{ width: 200 }}>
              <TextInput label={t`Name of the source`} value={name} onChange={setName} placeholder={connection.name} />
            </div>
            <Button
              changes
              look="go"
              isDisabled={!look.data || look.data.columns.length === 0 || add.isPending}
              onPress={() => add.mutate()}
            >{t`Read the records`}</Button>
          </Row>
        </Stack>
      </div>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      {look.data && !look.error && (
        <>
          <Small>
            {look.data.count === null ? t`The first rows` : counted(look.data.count, 'record')}
            {look.data.notes.map((note) => ` · ${sourceNoteSentence(note)}`)}
          </Small>
          <div style={{ overflow: 'auto', maxHeight: 240 }}>
            <Table aria-label={t`First rows`}>
              <thead>
                <tr>
                  {look.data.columns.map((column) => (
                    <th key={column.name}>{column.name}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {look.data.rows.map((cells, index) => (
                  <tr key={index}>
                    {cells.map((cell, at) => (
                      <td key={at} style={{ whiteSpace: 'nowrap' }}>
                        {cell}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </Table>
          </div>
        </>
      )}
    </>
  );
}
