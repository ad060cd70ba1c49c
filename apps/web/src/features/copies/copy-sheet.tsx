import { counted, t, translated } from '@mailbag/core/words';
import { finishWords } from '../mailing/finish-words';
import { phrase } from '../../ui/phrase';
import type { BesideCopyAnswer } from '@mailbag/contract';
import { troubleWords, detailText } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Eye, KeyRound, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color, font, narrow } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Empty, Facts, Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { FileButton } from '../../ui/link-button';
import { Notice } from '../../ui/mark';
import { atSecond, fullWhen, kilobytes } from '../when';
import { CopyActions } from './copy-actions';
import { Thumbnail } from './copy-thumbnail';
import { StateMark } from './state-mark';

const Side = styled.aside`
  background: ${color.sheet};
  border-left: 1px solid ${color.line};
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  ${narrow} {
    position: fixed;
    inset: 0;
    z-index: 30;
  }
`;
const Top = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 10px 8px 10px 14px;
  border-bottom: 1px solid ${color.hair};
  & > h2 {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > .fill {
    flex: 1;
  }
`;
const Body = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
`;
const About = styled.div`
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  gap: 12px;
  & > div > * {
    overflow-wrap: anywhere;
  }
`;
const Story = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  & > li {
    display: grid;
    grid-template-columns: 100px minmax(0, 1fr);
    gap: 10px;
    padding: 6px 0;
    border-bottom: 1px solid ${color.hair};
  }
  & > li > span {
    color: ${color.faded};
    font-size: 13px;
  }
  & small {
    display: block;
    color: ${color.faded};
    overflow-wrap: anywhere;
  }
`;
const Summary = styled.summary`
  cursor: pointer;
  font: 600 16px ${font.head};
`;
const Letter = styled.div`
  border: 1px solid ${color.hair};
  border-radius: 6px;
  padding: 10px 12px;
  overflow-wrap: anywhere;
  & p {
    margin: 0 0 8px;
  }
`;
const RecordList = styled(Facts)`
  & dd {
    white-space: pre-wrap;
  }
`;

const eventWords: Record<string, string> = {
  make: t`Made`,
  queue: t`Queued`,
  claim: t`Handed to the mail server`,
  accept: t`Accepted by the mail server`,
  defer: t`Refused for now`,
  refuse: t`Bounced`,
  lose: t`Outcome unknown`,
  'set-aside': t`Not sent, set aside`,
  doubt: t`May have gone out before`,
  'confirm-sent': t`Confirmed as sent`,
  'send-again': t`Queued again`,
  print: t`Printed`,
  return: t`Came back`,
  complete: t`Complete`,
  withdraw: t`Withdrawn`,
  remind: t`Reminded`,
  'to-paper': t`Put to paper`,
  'off-paper': t`Taken off paper`,
  reprint: t`Printed again`,
  answer: t`Answered by personal link`,
  'pass-on': t`Mailed on by the visitor`,
  delay: t`Delayed`,
  report: t`Reported`,
};

/** The message as it went out, asked for when it is opened. */
function SentMessage({ id }: { id: number }) {
  const [open, setOpen] = useState(false);
  const { data, error } = useQuery({ ...queries.sentMessage(id), enabled: open });
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <Summary>{t`The message`}</Summary>
      {error && <Small>{sentenceOf(error)}</Small>}
      {data && (
        <Stack $gap={6} style={{ marginTop: 8 }}>
          <Small>{t`${data.from} to ${data.to.join(', ')}`}</Small>
          <b>{data.subject}</b>
          {/* The server lets only harmless elements through. */}
          <Letter dangerouslySetInnerHTML={{ __html: data.html }} />
          <Small>{data.attachments.join(' · ')}</Small>
          {data.isAsSent !== null && (
            <Small>
              {data.isAsSent
                ? t`Text and attachments are the same as those that went out: they match the digest recorded then.`
                : t`This is not exactly what went out: its digest differs from the one recorded then, so something has changed since.`}
            </Small>
          )}
          <Row>
            <FileButton $small href={`/api/copies/${id}/message.eml`} download>
              <Download size={14} />
              {t`The raw message`}
            </FileButton>
          </Row>
        </Stack>
      )}
    </details>
  );
}

/** The password that opens a copy, for those who may see it; looking is written down. */
function Password({ id }: { id: number }) {
  const look = useMutation({ mutationFn: () => api.post<{ password: string }>(`/api/copies/${id}/password`) });
  if (look.data) return <code>{look.data.password}</code>;
  return (
    <Row>
      <Button small onPress={() => look.mutate()} isDisabled={look.isPending}>
        <KeyRound size={13} />
        {t`Show its password`}
      </Button>
      {look.error && <Small>{sentenceOf(look.error)}</Small>}
    </Row>
  );
}

/** Another copy, opened in the place of this one. */
function BesideLink({ beside: { id, code } }: { beside: BesideCopyAnswer }) {
  return <Link to={`/ledger?copy=${id}`}>{code}</Link>;
}

/** The copy before, and what has changed since. */
function Replaces({ beside, isRunAgain }: { beside: BesideCopyAnswer; isRunAgain: boolean }) {
  return (
    <Notice tone="slate">
      {phrase`Replaces ${(<BesideLink beside={beside} />)}, of ${fullWhen(beside.at)}`}
      {isRunAgain ? t`. No value of the record had changed.` : beside.changed ? ':' : '.'}
      {beside.changed && beside.changed.length > 0 && (
        <ul style={{ margin: '4px 0 0', paddingLeft: 18 }}>
          {beside.changed.map(({ column, was, is }) => (
            <li key={column}>{t`${column}: ${was === '' ? t`empty` : `“${was}”`} became ${is === '' ? t`empty` : `“${is}”`}`}</li>
          ))}
        </ul>
      )}
    </Notice>
  );
}

/** Everything about one copy: the file, what can be done now, its story, the record as it was. */
export function CopySheet({ id, onClose }: { id: number; onClose: () => void }) {
  const { data: copy, error } = useQuery(queries.copy(id));
  const client = useQueryClient();
  const withdraw = useMutation({
    mutationFn: () => api.post(`/api/copies/${id}/withdraw`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['copies'] }),
  });
  const isFile = copy ? copy.sha256 !== null : false;
  return (
    <Side aria-label={t`Copy`} onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <Top>
        <h2>{copy?.recipient || copy?.code || '…'}</h2>
        {copy && <StateMark state={copy.state} />}
        <div className="fill" />
        <IconButton label={t`Close (Esc)`} onPress={onClose}>
          <X size={16} />
        </IconButton>
      </Top>
      {error && <Empty title={t`This copy cannot be shown`}>{sentenceOf(error)}</Empty>}
      {!copy && !error && <Loading what={t`the copy`} />}
      {copy && (
        <Body>
          <About>
            {isFile ? <Thumbnail id={id} /> : <Small>{t`Not made yet.`}</Small>}
            <Stack $gap={2}>
              <b>{copy.file.split('/').at(-1)}</b>
              <code>{copy.code}</code>
              <Small>
                {counted(copy.pages, 'page')} {isFile && `· ${kilobytes(copy.size)} `}· {finishWords(copy.finish).title}
              </Small>
              <Small style={{ fontFamily: font.mono }}>{copy.folder}</Small>
              <Small>{copy.address || t`no address`}</Small>
              {copy.trouble && (
                <Small style={{ color: color.brick }}>{phrase`trouble: ${translated(copy.trouble)} ${
                  copy.troubleCode && `(${copy.troubleCode}${troubleWords(copy.troubleCode) ? `, ${troubleWords(copy.troubleCode)}` : ''})`
                }`}</Small>
              )}
              {copy.metadata && Object.entries(copy.metadata).some(([, value]) => value) && (
                <Small>
                  {Object.entries(copy.metadata)
                    .filter(([, value]) => value)
                    .map(([name, value]) => `${name}: ${value}`)
                    .join(' · ')}
                </Small>
              )}
              {copy.printRuns.map((run) => (
                <Small
                  key={run.id}
                >{phrase`${(<Link to={`/paper/${run.id}`}>{t`Print run ${run.number}`}</Link>)} (${translated(run.state)}), sheet ${run.sheet}`}</Small>
              ))}
              {copy.isProtected && <Password id={id} />}
              {isFile && (
                <Row style={{ marginTop: 6 }}>
                  <FileButton $small href={`/api/copies/${id}/pdf`} target="_blank" rel="noreferrer">
                    <Eye size={14} />
                    {t`Open`}
                  </FileButton>
                  <FileButton $small href={`/api/copies/${id}/pdf?save=1`}>
                    <Download size={14} />
                    {t`Save`}
                  </FileButton>
                </Row>
              )}
            </Stack>
          </About>
          {copy.replaces && <Replaces beside={copy.replaces} isRunAgain={copy.replaces.changed?.length === 0} />}
          {copy.replacedBy && (
            <Notice tone="ochre">{phrase`Replaced by ${(<BesideLink beside={copy.replacedBy} />)}, of ${fullWhen(copy.replacedBy.at)}.`}</Notice>
          )}
          <CopyActions copy={copy} />
          <div>
            <h2 style={{ marginBottom: 4 }}>{t`Its story`}</h2>
            <Story>
              {copy.events.map((event, at) => (
                <li key={at}>
                  <span title={fullWhen(event.at)}>
                    {new Date(event.at).toDateString() === new Date().toDateString() ? atSecond(event.at) : fullWhen(event.at)}
                  </span>
                  <div>
                    {eventWords[event.event] ?? event.event} {event.who !== 'Mailbag' && t`by ${translated(event.who)}`}
                    {event.detail !== null && event.detail !== '' && <small>{detailText(event.detail)}</small>}
                  </div>
                </li>
              ))}
            </Story>
          </div>
          {copy.delivery && <SentMessage id={id} />}
          <details>
            <Summary>{t`The record as it was (row ${copy.row})`}</Summary>
            {copy.record === null && <Small>{t`Your account does not show values of records.`}</Small>}
            <RecordList $names="minmax(90px, 34%)" style={{ marginTop: 8 }}>
              {copy.record?.map(({ column, text }) => (
                <div key={column} style={{ display: 'contents' }}>
                  <dt>{column}</dt>
                  <dd>{text || '—'}</dd>
                </div>
              ))}
            </RecordList>
          </details>
          {!['complete', 'withdrawn', 'sending'].includes(copy.state) && (
            <Confirm
              title={t`Withdraw this copy?`}
              text={t`It stays in the ledger as withdrawn and is not sent any more. A message that has gone out cannot be called back.`}
              yes={t`Withdraw it`}
              onYes={() => withdraw.mutate()}
            >
              <Button changes look="danger" small style={{ alignSelf: 'flex-start' }}>{t`Withdraw`}</Button>
            </Confirm>
          )}
        </Body>
      )}
    </Side>
  );
}
