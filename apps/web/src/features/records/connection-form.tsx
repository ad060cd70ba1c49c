import { plural, t } from '@mailbag/core/words';
import type { ConnectionAnswer, ConnectionRequest, DatabaseKind, DatabaseTable } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { DropFiles } from '../../ui/drop';
import { TextInput, Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { SecretInput } from '../../ui/special-input';
import { differs } from '../differs';
import { useContractForm } from '../forms/use-contract-form';

const kinds: { id: DatabaseKind; text: string; port: number }[] = [
  { id: 'sqlite', text: t`SQLite file`, port: 0 },
  { id: 'postgres', text: 'PostgreSQL', port: 5432 },
  { id: 'mysql', text: t`MySQL or MariaDB`, port: 3306 },
];
const empty: ConnectionRequest = { name: '', kind: 'postgres', host: '', port: 5432, databaseName: '', user: '', password: '', tls: true };

/** @param before what is kept of it: its password is not told */
const changed = ({ name, kind, host, port, databaseName, user, tls }: ConnectionAnswer): ConnectionRequest => ({
  ...{ name, kind, host, port, databaseName, user, tls },
  password: '',
});

/**
 * A database that sources are read from.
 * @param before the connection that is changed; null: a new one
 */
export function ConnectionForm({
  before,
  onDone,
  onCancel,
}: {
  before: ConnectionAnswer | null;
  onDone: (saved: ConnectionAnswer) => void;
  onCancel?: () => void;
}) {
  const client = useQueryClient();
  const { data: account } = useQuery(queries.account());
  const isAdministrator = account?.account?.role === 'administrator';
  const {
    values: draft,
    set,
    fault,
    submit,
  } = useContractForm(
    'ConnectionRequest',
    before ? changed(before) : isAdministrator ? empty : { ...empty, kind: 'sqlite' as const, port: 0, tls: false },
    ({ password, ...form }) => ({
      ...form,
      name: form.name.trim() || form.databaseName,
      ...(password === '' && before ? {} : { password }),
    }),
  );
  const [fileName, setFileName] = useState(before?.kind === 'sqlite' ? before.databaseName : '');
  const isFile = draft.kind === 'sqlite';
  const test = useMutation({ mutationFn: (body: object) => api.post<DatabaseTable[]>('/api/connections/test', body) });
  const upload = useMutation({
    mutationFn: (file: File) => api.upload<{ fileId: string; fileName: string }>('/api/connections/files', file, () => undefined),
    onSuccess: ({ fileId, fileName: name }) => {
      setFileName(name);
      set({ fileId, databaseName: name, name: draft.name || name.replace(/\.\w+$/, '') });
    },
  });
  const save = useMutation({
    mutationFn: (body: object) =>
      before ? api.put<ConnectionAnswer>(`/api/connections/${before.id}`, body) : api.post<ConnectionAnswer>('/api/connections', body),
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ['connections'] });
      onDone(made);
    },
  });
  const isReady = isFile ? fileName !== '' : draft.host.trim() !== '' && draft.databaseName.trim() !== '';
  const error = upload.error ?? save.error ?? test.error;
  return (
    <Stack as="form" onSubmit={submit(save.mutate)}>
      <Row $gap={12} style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
        {/* Sources ask in its own language, so a connection stays of its kind. */}
        <Choice
          label={t`Kind of database`}
          items={kinds.filter(({ id }) => (before ? id === before.kind : isAdministrator || id === 'sqlite'))}
          value={draft.kind}
          onChange={(id) => {
            const kind = kinds.find((one) => one.id === id)!;
            set({ kind: kind.id, port: kind.port, tls: kind.id !== 'sqlite' && draft.tls });
          }}
        />
        <div style={{ width: 220 }}>
          <TextInput
            label={t`Name of the connection`}
            value={draft.name}
            onChange={(name) => set({ name })}
            error={fault('name')}
            placeholder={t`Waiting list`}
          />
        </div>
      </Row>
      {!isAdministrator && <Small>{t`An administrator adds a database server once; then everybody with the right to can query it.`}</Small>}
      {isFile ? (
        <>
          {fileName && (
            <Notice tone="plain">
              {before && !draft.fileId ? t`${fileName} is read. A newer one can take its place.` : t`${fileName} has arrived.`}
            </Notice>
          )}
          {(!fileName || before) && (
            <DropFiles
              accept={['.sqlite', '.sqlite3', '.db', '.db3']}
              label={t`Choose a SQLite file`}
              onFiles={([file]) => file && upload.mutate(file)}
            >{t`Drop the database file here. Mailbag reads it and never writes to it.`}</DropFiles>
          )}
        </>
      ) : (
        <Row $gap={12} style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
          <div style={{ width: 240 }}>
            <TextInput
              label={t`Server`}
              value={draft.host}
              onChange={(host) => set({ host })}
              error={fault('host')}
              placeholder={t`db.larkmere.example`}
            />
          </div>
          <div style={{ width: 80 }}>
            <TextInput
              label={t`Port`}
              value={String(draft.port)}
              onChange={(port) => set({ port: Number(port.replace(/\D/g, '')) || 0 })}
              error={fault('port')}
            />
          </div>
          <div style={{ width: 180 }}>
            <TextInput
              label={t`Database`}
              value={draft.databaseName}
              onChange={(databaseName) => set({ databaseName })}
              error={fault('databaseName')}
            />
          </div>
          <div style={{ width: 160 }}>
            <TextInput label={t`User`} value={draft.user} onChange={(user) => set({ user })} error={fault('user')} />
          </div>
          <div style={{ width: 160 }}>
            <SecretInput
              value={draft.password ?? ''}
              onChange={(password) => set({ password })}
              isStored={before?.hasPassword ?? false}
              moved={before !== null && differs(draft, before, ['host', 'port', 'tls'])}
            />
          </div>
          <Toggled label={t`Secured by TLS`} value={draft.tls} onChange={(tls) => set({ tls })} />
        </Row>
      )}
      {!isFile && (
        <Small>{t`A user with read-only rights is best. Mailbag reads in a read-only transaction and keeps the password encrypted; it is never shown again.`}</Small>
      )}
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      {test.data && !error && <Notice tone="moss">{t`It works: ${plural(test.data.length, 'table')} can be read.`}</Notice>}
      <Row>
        {!before && (
          <Button changes isDisabled={!isReady || test.isPending} onPress={submit(test.mutate)}>
            {test.isPending ? t`Trying …` : t`Test it`}
          </Button>
        )}
        <Button changes type="submit" look="go" isDisabled={!isReady || save.isPending}>
          {save.isPending ? t`Connecting …` : t`Save the connection`}
        </Button>
        {onCancel && <Button look="bare" onPress={onCancel}>{t`Cancel`}</Button>}
      </Row>
    </Stack>
  );
}
