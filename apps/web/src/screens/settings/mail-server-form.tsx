import { t } from '@mailbag/core/words';
import type { MailServerAnswer, MailTestAnswer, MailTestStep } from '@mailbag/contract';
import { detailText } from '@mailbag/core';
import { useMutation } from '@tanstack/react-query';
import { Check, X } from 'lucide-react';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { differs } from '../../features/differs';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fields } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { NumberInput, SecretInput } from '../../ui/special-input';
import { useSaving } from './use-saving';

/** The steps of a test. */
const stepWords: Record<MailTestStep['step'], string> = {
  connect: t`connect`,
  greet: t`greet`,
  secure: t`secure`,
  'sign in': t`sign in`,
};

const fresh = {
  name: '',
  host: '',
  port: 587,
  security: 'starttls' as const,
  checkCertificate: true,
  user: '',
  perMinute: 0,
  perHour: 0,
  perDomainMinute: 0,
  connections: 5,
  limitMb: 25,
  hours: null,
};
const DAYS = [t`Mo`, t`Tu`, t`We`, t`Th`, t`Fr`, t`Sa`, t`Su`];
const toClock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
const fromClock = (text: string): number | null => {
  const found = /^(\d{1,2}):(\d{2})$/.exec(text.trim());
  const value = found ? Number(found[1]) * 60 + Number(found[2]) : NaN;
  return Number.isNaN(value) || value > 1440 ? null : value;
};

/** How a mail server is reached, and how much it may be sent. */
export function MailServerForm({ server, zone, onClose }: { server: MailServerAnswer | null; zone: string; onClose: () => void }) {
  const [begin] = useState(() => {
    const {
      hasPassword: _,
      senders: __,
      rest: ___,
      id: ____,
      ...known
    } = server ?? { ...fresh, hasPassword: false, senders: 0, rest: null, id: 0 };
    return { ...known, password: '', from: toClock(known.hours?.from ?? 480), until: toClock(known.hours?.until ?? 1020) };
  });
  const {
    values: form,
    set,
    fault,
    submit,
  } = useContractForm('MailServerRequest', begin, ({ from, until, password, ...rest }) => ({
    ...rest,
    name: rest.name.trim(),
    host: rest.host.trim(),
    ...(password === '' && server ? {} : { password }),
    hours: rest.hours ? { ...rest.hours, from: fromClock(from) ?? 0, until: fromClock(until) ?? 0 } : null,
  }));
  const [first, last] = [fromClock(form.from), fromClock(form.until)];
  const test = useMutation({
    mutationFn: (body: object) => api.post<MailTestAnswer>(`/api/mail-servers/test${server ? `?id=${server.id}` : ''}`, body),
  });
  const save = useSaving(
    queries.mailServers().queryKey,
    (body: object) =>
      server
        ? api.put<MailServerAnswer[]>(`/api/mail-servers/${server.id}`, body)
        : api.post<MailServerAnswer[]>('/api/mail-servers', body),
    onClose,
  );
  const number = (label: string, key: 'port' | 'perMinute' | 'perHour' | 'perDomainMinute' | 'connections' | 'limitMb', help?: string) => (
    <NumberInput
      label={label}
      value={form[key]}
      onChange={(value) => set({ [key]: value })}
      error={fault(key)}
      {...(help ? { help } : {})}
    />
  );
  const hasHours = !form.hours || (first !== null && last !== null && form.hours.days.length > 0);
  return (
    <FormCard onSubmit={submit(save.mutate)}>
      <h2>{server ? t`Change ${server.name}` : t`A new mail server`}</h2>
      <Fields $columns="1.2fr 1.6fr 84px">
        <TextInput
          label={t`Name`}
          value={form.name}
          onChange={(name) => set({ name })}
          error={fault('name')}
          placeholder={t`Our mail server`}
          autoFocus
        />
        <TextInput
          label={t`Host`}
          value={form.host}
          onChange={(host) => set({ host })}
          error={fault('host')}
          placeholder={t`mail.example.org`}
          mono
        />
        {number(t`Port`, 'port')}
      </Fields>
      <Fields>
        <Choice
          label={t`Security`}
          items={[
            { id: 'starttls', text: 'STARTTLS', detail: t`secured after the greeting; usual on port 587` },
            { id: 'tls', text: 'TLS', detail: t`secured from the first byte; usual on port 465` },
            { id: 'none', text: t`Where offered`, detail: t`only for a server on this machine or in your own network` },
          ]}
          value={form.security}
          onChange={(security) => set({ security: security as typeof form.security })}
        />
        <div style={{ paddingTop: 20 }}>
          {form.security !== 'none' && (
            <Toggled
              label={t`Accept certificates that cannot be verified`}
              value={!form.checkCertificate}
              onChange={(lax) => set({ checkCertificate: !lax })}
            />
          )}
        </div>
        <TextInput label={t`User`} value={form.user} onChange={(user) => set({ user })} help={t`Empty: no sign-in.`} />
        <SecretInput
          value={form.password}
          onChange={(next) => set({ password: next })}
          isStored={server?.hasPassword ?? false}
          moved={server !== null && differs(form, server, ['host', 'port', 'security', 'checkCertificate'])}
        />
      </Fields>
      <Fields $columns="repeat(5, 1fr)">
        {number(t`Per minute`, 'perMinute', t`0: no limit`)}
        {number(t`Per hour`, 'perHour', t`0: no limit`)}
        {number(t`To one domain`, 'perDomainMinute', t`a minute; 0: no limit`)}
        {number(t`Connections`, 'connections')}
        {number(t`Largest, MB`, 'limitMb')}
      </Fields>
      <Stack $gap={8}>
        <Toggled
          label={t`Send only in certain hours`}
          value={form.hours !== null}
          onChange={(isOn) => set({ hours: isOn ? { from: 480, until: 1020, days: [1, 2, 3, 4, 5] } : null })}
        />
        {form.hours && (
          <Row $gap={12}>
            <div style={{ width: 84 }}>
              <TextInput
                label={t`From`}
                value={form.from}
                onChange={(text) => set({ from: text })}
                error={first === null ? t`like 08:00` : null}
              />
            </div>
            <div style={{ width: 84 }}>
              <TextInput
                label={t`Until`}
                value={form.until}
                onChange={(text) => set({ until: text })}
                error={last === null ? t`like 17:00` : null}
              />
            </div>
            <Row $gap={4} role="group" aria-label={t`Days`} style={{ paddingTop: 18 }}>
              {DAYS.map((name, index) => {
                const isOn = form.hours!.days.includes(index + 1);
                return (
                  <Button
                    key={name}
                    small
                    pressed={isOn}
                    onPress={() =>
                      set({
                        hours: {
                          ...form.hours!,
                          days: isOn ? form.hours!.days.filter((day) => day !== index + 1) : [...form.hours!.days, index + 1],
                        },
                      })
                    }
                  >
                    {name}
                  </Button>
                );
              })}
            </Row>
            <Small style={{ paddingTop: 18 }}>{zone}</Small>
          </Row>
        )}
      </Stack>
      {test.data && (
        <Notice tone={test.data.ok ? 'moss' : 'brick'}>
          <Row $gap={14} style={{ flexWrap: 'wrap' }}>
            {test.data.steps.map(({ step, ok }) => (
              <Row key={step} $gap={4} style={{ color: ok ? color.moss : color.brick }}>
                {ok ? <Check size={14} /> : <X size={14} />}
                {stepWords[step]}
              </Row>
            ))}
          </Row>
          <div>{detailText(test.data.answer)}</div>
        </Notice>
      )}
      {(test.error ?? save.error) && <Notice tone="brick">{sentenceOf(test.error ?? save.error)}</Notice>}
      <Row>
        <Button onPress={submit(test.mutate)} isDisabled={!hasHours || test.isPending}>
          {test.isPending ? t`Trying …` : t`Test the server`}
        </Button>
        <Button type="submit" look="go" isDisabled={!hasHours || save.isPending}>{t`Save`}</Button>
        <Button look="bare" onPress={onClose}>{t`Cancel`}</Button>
      </Row>
    </FormCard>
  );
}
