import { plural, t } from '@mailbag/core/words';
import type { RegisterAnswer, RegisterKind } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { ChangeDelete, DeletedNotice, WastebasketLink, useDeleting } from '../../features/deleting';
import { differs } from '../../features/differs';
import { queries } from '../../api/queries';
import { when } from '../../features/when';
import { color } from '../../theme';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Columns, Fields, ListLine, Padded } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Empty, Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { NumberInput, SecretInput } from '../../ui/special-input';
import { useSaving } from './use-saving';

const kindWords: Record<RegisterKind, { text: string; detail: string }> = {
  postgres: { text: 'PostgreSQL', detail: t`one row per copy in a table` },
  mysql: { text: t`MySQL or MariaDB`, detail: t`one row per copy in a table` },
  sqlite: { text: t`SQLite file`, detail: t`in the data folder, below registers` },
  folder: { text: t`Folder`, detail: t`one JSON file per copy, in the data folder, below registers` },
  webdav: { text: t`WebDAV folder`, detail: t`one JSON file per copy` },
};
const isServer = (kind: RegisterKind): boolean => kind === 'postgres' || kind === 'mysql';

function RegisterForm({ register, onClose }: { register: RegisterAnswer | null; onClose: () => void }) {
  const begin = {
    name: register?.name ?? '',
    kind: register?.kind ?? ('postgres' as RegisterKind),
    host: register?.host ?? '',
    port: register?.port ?? 5432,
    databaseName: register?.databaseName ?? '',
    table: register?.table ?? 'mailbag_copies',
    user: register?.user ?? '',
    password: '',
    tls: register?.tls ?? true,
    mailings: register?.mailings ?? [],
    paused: register?.paused ?? false,
  };
  const {
    values: form,
    set,
    fault,
    submit,
  } = useContractForm('RegisterRequest', begin, ({ password, ...rest }) => ({
    ...rest,
    name: rest.name.trim(),
    ...(password === '' && register ? {} : { password }),
  }));
  const save = useSaving(
    queries.registers().queryKey,
    (body: object) =>
      register ? api.put<RegisterAnswer[]>(`/api/registers/${register.id}`, body) : api.post<RegisterAnswer[]>('/api/registers', body),
    onClose,
  );
  return (
    <FormCard onSubmit={submit(save.mutate)}>
      <h2>{register ? t`Change ${register.name}` : t`A new register`}</h2>
      <Fields>
        <TextInput
          label={t`Name`}
          value={form.name}
          onChange={(name) => set({ name })}
          error={fault('name')}
          placeholder={t`Town records`}
          autoFocus
        />
        <Choice
          label={t`Kind`}
          items={Object.entries(kindWords).map(([id, words]) => ({ id, ...words }))}
          value={form.kind}
          onChange={(kind) => set({ kind: kind as RegisterKind, port: kind === 'mysql' ? 3306 : 5432 })}
        />
      </Fields>
      {isServer(form.kind) && (
        <Fields $columns="2fr 84px 1.4fr">
          <TextInput label={t`Host`} value={form.host} onChange={(host) => set({ host })} error={fault('host')} mono />
          <NumberInput label={t`Port`} value={form.port} onChange={(port) => set({ port })} error={fault('port')} maximum={65_535} />
          <TextInput label={t`Database`} value={form.databaseName} onChange={(databaseName) => set({ databaseName })} />
        </Fields>
      )}
      {form.kind === 'webdav' && (
        <TextInput
          label={t`Address`}
          value={form.host}
          onChange={(host) => set({ host })}
          placeholder={t`https://files.example.org/dav`}
          mono
        />
      )}
      <TextInput
        label={isServer(form.kind) ? t`Table` : form.kind === 'sqlite' ? t`Name of the file` : t`Folder`}
        value={form.table}
        onChange={(table) => set({ table })}
        error={fault('table')}
        mono
        help={isServer(form.kind) ? t`It is created if it does not exist.` : undefined}
      />
      {(isServer(form.kind) || form.kind === 'webdav') && (
        <Fields>
          <TextInput label={t`User`} value={form.user} onChange={(user) => set({ user })} />
          <SecretInput
            value={form.password}
            onChange={(next) => set({ password: next })}
            isStored={register?.hasPassword ?? false}
            moved={
              register !== null && differs(form, register, form.kind === 'webdav' ? ['kind', 'host'] : ['kind', 'host', 'port', 'tls'])
            }
          />
        </Fields>
      )}
      <Row $gap={16}>
        {isServer(form.kind) && <Toggled label="TLS" value={form.tls} onChange={(tls) => set({ tls })} />}
        <Toggled label={t`Paused`} value={form.paused} onChange={(paused) => set({ paused })} />
      </Row>
      {save.error && <Notice tone="brick">{sentenceOf(save.error)}</Notice>}
      <Row>
        <Button type="submit" look="go" isDisabled={save.isPending}>
          {save.isPending ? t`Opening …` : t`Test it and save`}
        </Button>
        <Button look="bare" onPress={onClose}>{t`Cancel`}</Button>
      </Row>
    </FormCard>
  );
}

/** Outside stores that are told of every copy. */
export function RegistersPart() {
  const { data } = useQuery({ ...queries.registers(), refetchInterval: 5000 });
  const [editing, setEditing] = useState<{ register: RegisterAnswer | null } | null>(null);
  const deleting = useDeleting('register');
  if (!data) return <Loading what={t`the registers`} />;
  return (
    <Columns>
      <Stack $gap={16}>
        <DeletedNotice kind="register" error={deleting.error} />
        <Padded>
          <Row>
            <h2 style={{ flex: 1 }}>{t`Registers`}</h2>
            <WastebasketLink kind="register" />
            <Button small onPress={() => setEditing({ register: null })}>
              <Plus size={14} />
              {t`Add a register`}
            </Button>
          </Row>
          {data.length === 0 && (
            <Empty
              title={t`No register yet`}
            >{t`A register is a table in your database, or a folder, to which every copy and every change of it is reported.`}</Empty>
          )}
          {data.map((one) => (
            <ListLine
              key={one.id}
              actions={
                <ChangeDelete
                  name={one.name}
                  text={t`What was reported stays there. Put back, it is told what happened meanwhile.`}
                  isBusy={deleting.isPending}
                  onChange={() => setEditing({ register: one })}
                  onDelete={() => deleting.mutate([one])}
                />
              }
            >
              <b>{one.name}</b>{' '}
              <Mark $tone={one.failure ? 'brick' : one.paused ? 'slate' : one.waiting > 0 ? 'ochre' : 'moss'}>
                {one.failure
                  ? t`fails`
                  : one.paused
                    ? t`paused`
                    : one.waiting > 0
                      ? t`${plural(one.waiting, 'change')} to report`
                      : t`up to date`}
              </Mark>
              <div>
                <Small>
                  {kindWords[one.kind].text} · {[one.host, one.databaseName, one.table].filter(Boolean).join(' / ')}
                  {one.reportedAt && t` · last reported ${when(one.reportedAt)}`}
                </Small>
              </div>
              {one.failure && (
                <div style={{ color: color.brick, fontSize: 13 }}>{t`${one.failure} It is tried again; nothing is lost.`}</div>
              )}
            </ListLine>
          ))}
        </Padded>
        {editing && <RegisterForm key={editing.register?.id ?? 'new'} register={editing.register} onClose={() => setEditing(null)} />}
      </Stack>
      <Padded style={{ background: color.paper, gap: 8 }}>
        <h2>{t`What is reported`}</h2>
        <Small>{t`Code, state, since when, recipient, address, mailing, batch, template, file, SHA-256, the chosen metadata, what happened last, who did it and why.`}</Small>
        <Small>{t`Each change is reported at least once, after a failure again. A copy is recognised by its code, so a line that comes twice replaces itself.`}</Small>
      </Padded>
    </Columns>
  );
}
