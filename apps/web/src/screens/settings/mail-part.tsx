import { plural, t } from '@mailbag/core/words';
import { detailText } from '@mailbag/core';
import type { MailServerAnswer, SenderAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { BadgeCheck, Clock, Plus, ServerOff } from 'lucide-react';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { ChangeDelete, DeletedNotice, WastebasketLink, useDeleting } from '../../features/deleting';
import { when } from '../../features/when';
import { color } from '../../theme';
import { useContractForm } from '../../features/forms/use-contract-form';
import { Button } from '../../ui/button';
import { Columns, ListLine, Padded } from '../../ui/columns';
import { TextInput } from '../../ui/field';
import { Empty, Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { MailServerForm } from './mail-server-form';
import { SenderForm } from './sender-form';
import { useSaving } from './use-saving';

/** “Mo–Fr 8:00–17:00”. */
export function hoursWords({ from, until, days }: NonNullable<MailServerAnswer['hours']>): string {
  const names = [t`Mo`, t`Tu`, t`We`, t`Th`, t`Fr`, t`Sa`, t`Su`];
  const clock = (minutes: number): string => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
  const sorted = [...days].sort((a, b) => a - b);
  const isRow = sorted.length > 2 && sorted.every((day, index) => index === 0 || day === sorted[index - 1]! + 1);
  const dayWords =
    sorted.length === 7
      ? t`every day`
      : isRow
        ? `${names[sorted[0]! - 1]}–${names[sorted.at(-1)! - 1]}`
        : sorted.map((day) => names[day - 1]).join(' ');
  return `${dayWords} ${clock(from)}–${clock(until)}`;
}
const securityWords = { tls: 'TLS', starttls: 'STARTTLS', none: t`TLS where offered` };
const minutes = (value: number): string =>
  value < 1 ? `${Math.round(value * 60)} s` : value < 60 ? t`${Math.round(value)} min` : `${Math.round(value / 60)} h`;

function CodeEntry({ sender }: { sender: SenderAnswer }) {
  const { values, set, fault, submit } = useContractForm('SenderCodeRequest', { code: '' });
  const key = queries.senders().queryKey;
  const mail = useSaving(key, () => api.post<SenderAnswer[]>(`/api/senders/${sender.id}/code`));
  const confirm = useSaving(key, (body: object) => api.post<SenderAnswer[]>(`/api/senders/${sender.id}/confirm`, body));
  const error = confirm.error ?? mail.error;
  return (
    <Notice tone="ochre">
      <Stack $gap={8}>
        <div>
          {sender.code
            ? t`A code of six digits was mailed to ${sender.address}. It is valid until ${when(sender.code.until)}; ${plural(sender.code.triesLeft, 'try', 'tries')} left.`
            : t`Nothing is sent from this address until a code that is mailed to it has been entered here.`}
        </div>
        <Row as="form" onSubmit={submit(confirm.mutate)}>
          {sender.code && (
            <div style={{ width: 120 }}>
              <TextInput
                label={t`Code for ${sender.address}`}
                hideLabel
                value={values.code}
                onChange={(code) => set({ code })}
                error={fault('code')}
                placeholder="123 456"
                mono
              />
            </div>
          )}
          {sender.code && <Button type="submit" look="go" isDisabled={values.code.trim() === '' || confirm.isPending}>{t`Confirm`}</Button>}
          <Button look={sender.code ? 'bare' : 'go'} onPress={() => mail.mutate(undefined)} isDisabled={mail.isPending}>
            {mail.isPending ? t`Mailing …` : sender.code ? t`Mail a new code` : t`Mail the code`}
          </Button>
        </Row>
        {error && <div style={{ color: color.brick }}>{sentenceOf(error)}</div>}
      </Stack>
    </Notice>
  );
}

/** Mail servers, and who mail comes from. */
export function MailPart() {
  const { data: servers } = useQuery(queries.mailServers());
  const { data: senders } = useQuery(queries.senders());
  const { data: rules } = useQuery(queries.mailRules());
  const { data: account } = useQuery(queries.account());
  const [editing, setEditing] = useState<{ server: MailServerAnswer | null } | { sender: SenderAnswer | null } | null>(null);
  const deletingSender = useDeleting('sender');
  const deletingServer = useDeleting('mail-server');
  if (!servers || !senders || !rules) return <Loading what={t`the senders`} />;
  const mayChange = account?.account?.role === 'administrator';
  return (
    <Columns>
      <Stack $gap={16}>
        <DeletedNotice kind="sender" error={deletingSender.error} />
        <Padded aria-label={t`Senders`}>
          <Row>
            <h2 style={{ flex: 1 }}>{t`Senders`}</h2>
            <WastebasketLink kind="sender" />
            {mayChange && servers.length > 0 && (
              <Button small onPress={() => setEditing({ sender: null })}>
                <Plus size={14} />
                {t`Add a sender`}
              </Button>
            )}
          </Row>
          {senders.length === 0 && (
            <Small>
              {servers.length === 0 ? t`First add a mail server below.` : t`No sender yet. Add the address that recipients see.`}
            </Small>
          )}
          {senders.map((sender) => (
            <div key={sender.id}>
              <ListLine
                actions={
                  mayChange && (
                    <ChangeDelete
                      name={sender.address}
                      text={t`Meanwhile, mailings that use it send from the first confirmed sender.`}
                      isBusy={deletingSender.isPending}
                      onChange={() => setEditing({ sender })}
                      onDelete={() => deletingSender.mutate([{ id: sender.id, name: sender.address }])}
                    />
                  )
                }
              >
                <b>{sender.name}</b> &lt;{sender.address}&gt;{' '}
                <Mark $tone={sender.confirmed ? 'moss' : 'ochre'}>
                  {sender.confirmed ? <BadgeCheck /> : <Clock />}
                  {sender.confirmed ? t`confirmed` : t`not confirmed`}
                </Mark>
                <div>
                  <Small>
                    {t`through ${sender.serverName}`}
                    {sender.replyTo && t` · answers to ${sender.replyTo}`}
                    {sender.hasDkimKey && t` · signed for ${sender.dkimDomain}`}
                  </Small>
                </div>
              </ListLine>
              {!sender.confirmed && mayChange && <CodeEntry sender={sender} />}
            </div>
          ))}
        </Padded>
        {editing && 'sender' in editing && (
          <SenderForm key={editing.sender?.id ?? 'new'} sender={editing.sender} servers={servers} onClose={() => setEditing(null)} />
        )}
        <DeletedNotice kind="mail-server" error={deletingServer.error} />
        <Padded aria-label={t`Mail servers`}>
          <Row>
            <h2 style={{ flex: 1 }}>{t`Mail servers`}</h2>
            <WastebasketLink kind="mail-server" />
            {mayChange && (
              <Button small onPress={() => setEditing({ server: null })}>
                <Plus size={14} />
                {t`Add a mail server`}
              </Button>
            )}
          </Row>
          {servers.length === 0 && (
            <Empty
              title={t`No mail server yet`}
              action={mayChange && <Button look="go" onPress={() => setEditing({ server: null })}>{t`Add a mail server`}</Button>}
            >{t`Your provider or your IT tells its name, port, user and password. Until then copies can be made, but not mailed.`}</Empty>
          )}
          {servers.map((server) => (
            <ListLine
              key={server.id}
              actions={
                mayChange && (
                  <ChangeDelete
                    name={server.name}
                    text={t`Its settings and its password go with it.`}
                    isBusy={deletingServer.isPending}
                    onChange={() => setEditing({ server })}
                    onDelete={server.senders > 0 ? null : () => deletingServer.mutate([server])}
                  />
                )
              }
            >
              <b>{server.name}</b>{' '}
              {server.rest && (
                <Mark $tone="brick">
                  <ServerOff />
                  {t`fails, tried again ${when(server.rest.until)}`}
                </Mark>
              )}
              <div>
                <Small>
                  {t`${server.host}:${server.port} · ${securityWords[server.security]} · ${server.user ? t`signs in as ${server.user}` : t`no sign-in`} · at most ${server.limitMb} MB`}
                  {server.perMinute > 0 && t` · ${server.perMinute} a minute`}
                  {server.perHour > 0 && t` · ${server.perHour} an hour`}
                  {server.perDomainMinute > 0 && t` · ${server.perDomainMinute} a minute to one domain`}
                  {server.hours && ` · ${hoursWords(server.hours)}`}
                </Small>
              </div>
              {server.rest && <div style={{ color: color.brick, fontSize: 13 }}>{detailText(server.rest.detail)}</div>}
            </ListLine>
          ))}
        </Padded>
        {editing && 'server' in editing && (
          <MailServerForm
            key={editing.server?.id ?? 'new'}
            server={editing.server}
            zone={rules.timeZone}
            onClose={() => setEditing(null)}
          />
        )}
      </Stack>
      <Padded style={{ background: color.paper, gap: 8 }}>
        <h2>{t`When a message is refused`}</h2>
        <Small>{t`A refusal for now, or a connection that breaks before the message is handed over, is tried again after`}</Small>
        <div>{rules.retryMinutes.map(minutes).join(' · ')}</div>
        <Small>{t`and is then given up as bounced. A refusal for good bounces at once, with the server’s own words.`}</Small>
        <Small>{t`When your own mail server fails, it rests by the same schedule; its messages wait and count no try.`}</Small>
        <Small>{t`When nobody knows whether a message arrived, it is never sent again by itself: it waits as unconfirmed for your word.`}</Small>
      </Padded>
    </Columns>
  );
}
