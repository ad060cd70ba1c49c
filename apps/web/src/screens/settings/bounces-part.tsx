import { t } from '@mailbag/core/words';
import { detailText } from '@mailbag/core';
import type { BouncesAnswer } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { differs } from '../../features/differs';
import { queries } from '../../api/queries';
import { useContractForm } from '../../features/forms/use-contract-form';
import { when } from '../../features/when';
import { Button } from '../../ui/button';
import { Columns, Fields } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Row, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { NumberInput, SecretInput } from '../../ui/special-input';
import { ReportList } from './report-list';
import { useSaving } from './use-saving';

/** Where bounces are led to, how they come in, and what came. */
export function BouncesPart() {
  const { data } = useQuery(queries.bounces());
  return data ? <BouncesForm data={data} /> : <Loading what={t`the bounces`} />;
}

function BouncesForm({ data }: { data: BouncesAnswer }) {
  const client = useQueryClient();
  const { hasPassword: _, lastLook: __, listening: ___, ...known } = data;
  const {
    values: form,
    set,
    fault,
    submit,
  } = useContractForm('BouncesRequest', { ...known, password: '' }, ({ password, ...rest }) => ({
    ...rest,
    ...(password === '' ? {} : { password }),
  }));
  const save = useSaving(queries.bounces().queryKey, (body: object) => api.put<BouncesAnswer>('/api/bounces', body));
  const look = useMutation({
    mutationFn: () => api.post<BouncesAnswer>('/api/bounces/look'),
    onSuccess: (answer) => {
      client.setQueryData(queries.bounces().queryKey, answer);
      void client.invalidateQueries({ queryKey: queries.reports().queryKey });
    },
  });
  return (
    <Columns $columns="minmax(0, 560px) minmax(0, 1fr)">
      <FormCard onSubmit={submit(save.mutate)}>
        <h2>{t`Where bounces go`}</h2>
        <TextInput
          label={t`Bounce address`}
          value={form.address}
          onChange={(address) => set({ address })}
          error={fault('address')}
          placeholder={t`bounces@example.org`}
          help={t`Each message gets this address with a token behind a plus, so that a bounce finds its copy. Left empty, bounces go to the sender, and what reaches the mailbox all the same is listed here for you to decide.`}
        />
        <h2>{t`Mailbox`}</h2>
        <Fields $columns="1.6fr 84px 1fr">
          <TextInput
            label={t`Host (IMAP)`}
            value={form.host}
            onChange={(host) => set({ host })}
            error={fault('host')}
            placeholder={t`imap.example.org`}
            mono
            help={t`Empty: no mailbox is read.`}
          />
          <NumberInput label={t`Port`} value={form.port} onChange={(port) => set({ port })} error={fault('port')} maximum={65_535} />
          <TextInput
            label={t`Folder`}
            value={form.folder}
            onChange={(folder) => set({ folder })}
            error={fault('folder')}
            placeholder="INBOX"
          />
        </Fields>
        <Fields>
          <TextInput label={t`User`} value={form.user} onChange={(user) => set({ user })} error={fault('user')} />
          <SecretInput
            value={form.password}
            onChange={(password) => set({ password })}
            isStored={data.hasPassword}
            moved={form.host !== '' && differs(form, data, ['host', 'port', 'tls', 'checkCertificate'])}
          />
        </Fields>
        <Row $gap={16}>
          <Toggled label="TLS" value={form.tls} onChange={(tls) => set({ tls })} />
          {form.tls && (
            <Toggled
              label={t`Accept certificates that cannot be verified`}
              value={!form.checkCertificate}
              onChange={(lax) => set({ checkCertificate: !lax })}
            />
          )}
        </Row>
        <h2>{t`Own port`}</h2>
        <Fields $columns="120px 1fr">
          <NumberInput
            label={t`SMTP port`}
            value={form.smtpPort}
            onChange={(smtpPort) => set({ smtpPort })}
            error={fault('smtpPort')}
            maximum={65_535}
            help={t`0: none`}
          />
          <Small style={{ paddingTop: 22 }}>
            {data.listening
              ? t`Bounces are taken on port ${data.listening}.`
              : t`Where the mail system can send bounces straight here, they come without a mailbox.`}
          </Small>
        </Fields>
        {data.lastLook && (
          <Notice
            tone={data.lastLook.ok ? 'moss' : 'brick'}
          >{t`Read ${when(data.lastLook.at)}: ${detailText(data.lastLook.detail)}`}</Notice>
        )}
        {(save.error ?? look.error) && <Notice tone="brick">{sentenceOf(save.error ?? look.error)}</Notice>}
        <Row>
          <Button type="submit" look="go" isDisabled={save.isPending}>{t`Save and read it`}</Button>
          {data.host && (
            <Button onPress={() => look.mutate()} isDisabled={look.isPending}>
              {look.isPending ? t`Looking …` : t`Read it now`}
            </Button>
          )}
        </Row>
      </FormCard>
      <ReportList />
    </Columns>
  );
}
