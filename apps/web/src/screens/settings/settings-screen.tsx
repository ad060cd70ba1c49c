import type { MailSettingsAnswer, MailTestAnswer } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { TextInput, Toggled } from '../../ui/field';
import { Card, Head, Loading, Row, Screen, Scroll, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 620px) 300px;
  gap: 16px;
  padding: 0 16px 16px;
  align-items: start;
`;

export default function SettingsScreen() {
  useCrumbs({ text: 'Settings' });
  const { data } = useQuery(queries.mailSettings());
  return (
    <Screen>
      <Head title="Settings" note="mail server and sender" />
      <Scroll>{data ? <MailForm settings={data} /> : <Loading what="the settings" />}</Scroll>
    </Screen>
  );
}

const minutes = (value: number): string =>
  value < 1 ? `${Math.round(value * 60)} s` : value < 60 ? `${Math.round(value)} min` : `${Math.round(value / 60)} h`;

function MailForm({ settings }: { settings: MailSettingsAnswer }) {
  const client = useQueryClient();
  const [form, setForm] = useState({
    host: settings.host,
    port: String(settings.port),
    tls: settings.tls,
    user: settings.user,
    password: '',
    senderName: settings.senderName,
    senderAddress: settings.senderAddress,
  });
  const set = (part: Partial<typeof form>): void => setForm((before) => ({ ...before, ...part }));
  const body = { ...form, port: Number(form.port), password: form.password || undefined };
  const test = useMutation({ mutationFn: () => api.post<MailTestAnswer>('/api/settings/mail/test', body) });
  const save = useMutation({
    mutationFn: () => api.put<MailSettingsAnswer>('/api/settings/mail', body),
    onSuccess: (fresh) => {
      client.setQueryData(queries.mailSettings().queryKey, fresh);
      set({ password: '' });
      void client.invalidateQueries({ queryKey: ['desk'] });
    },
  });
  const isWhole = form.host.trim() !== '' && /^\d+$/.test(form.port) && form.senderAddress.trim() !== '';
  return (
    <Grid>
      <Card
        as="form"
        style={{ padding: 16, gap: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Stack>
          <h2>Mail server</h2>
          <Row $gap={12} style={{ alignItems: 'flex-end' }}>
            <div style={{ flex: 1 }}>
              <TextInput label="Host" value={form.host} onChange={(host) => set({ host })} placeholder="mail.example.org" />
            </div>
            <div style={{ width: 96 }}>
              <TextInput
                label="Port"
                value={form.port}
                onChange={(port) => set({ port })}
                error={/^\d+$/.test(form.port) ? null : 'A number'}
              />
            </div>
          </Row>
          <Toggled label="TLS from the first byte (usual on port 465)" value={form.tls} onChange={(tls) => set({ tls })} />
          <Row $gap={12} style={{ alignItems: 'flex-start' }}>
            <div style={{ flex: 1 }}>
              <TextInput label="User" value={form.user} onChange={(user) => set({ user })} help="Empty: no sign-in." />
            </div>
            <div style={{ flex: 1 }}>
              <TextInput
                label="Password"
                type="password"
                autoComplete="new-password"
                value={form.password}
                onChange={(password) => set({ password })}
                placeholder={settings.hasPassword ? 'stays as it is' : ''}
                help={settings.hasPassword ? 'Kept encrypted. Write a new one to replace it.' : 'Is kept encrypted and never shown again.'}
              />
            </div>
          </Row>
        </Stack>
        <Stack>
          <h2>Sender</h2>
          <Row $gap={12} style={{ alignItems: 'flex-start' }}>
            <div style={{ flex: 1 }}>
              <TextInput
                label="Display name"
                value={form.senderName}
                onChange={(senderName) => set({ senderName: senderName.slice(0, 50) })}
                help={`${form.senderName.length} of 50 characters`}
              />
            </div>
            <div style={{ flex: 1 }}>
              <TextInput
                label="Address"
                value={form.senderAddress}
                onChange={(senderAddress) => set({ senderAddress })}
                placeholder="office@example.org"
              />
            </div>
          </Row>
        </Stack>
        {test.data && <Notice tone={test.data.ok ? 'moss' : 'brick'}>{test.data.said}</Notice>}
        {(test.error ?? save.error) && <Notice tone="brick">{sentenceOf(test.error ?? save.error)}</Notice>}
        {save.isSuccess && <Notice tone="moss">Saved. What waits to be sent goes out through this server.</Notice>}
        <Row>
          <Button onPress={() => test.mutate()} isDisabled={!isWhole || test.isPending}>
            {test.isPending ? 'Trying …' : 'Test the server'}
          </Button>
          <Button type="submit" look="go" isDisabled={!isWhole || save.isPending}>
            Save
          </Button>
        </Row>
      </Card>
      <Card style={{ padding: 16, gap: 8, background: color.paper }}>
        <h2 style={{ padding: 0 }}>When a server refuses for now</h2>
        <Small>A message that is refused for now, or whose connection breaks before it is handed over, is tried again after</Small>
        <div>{settings.retryMinutes.map(minutes).join(' · ')}</div>
        <Small>and then given up as bounced. A refusal for good bounces at once, with the server’s own words.</Small>
      </Card>
    </Grid>
  );
}
