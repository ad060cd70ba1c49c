import type { CopyDetail } from '@mailbag/contract';
import { addressFault, troubleWords } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Eye, KeyRound, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { openForDrawing } from '../../platform/pdf-reader';
import { color, font } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { TextInput } from '../../ui/field';
import { Empty, Facts, Loading, Row, Small, Stack } from '../../ui/layout';
import { FileButton } from '../../ui/link-button';
import { Notice } from '../../ui/mark';
import { atSecond, counted, fullWhen, kilobytes, when } from '../when';
import { StateMark } from './state-mark';

const Side = styled.aside`
  background: ${color.sheet};
  border-left: 1px solid ${color.line};
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
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
const Thumb = styled.canvas`
  width: 104px;
  height: 147px;
  border: 1px solid ${color.line};
  background: #fff;
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
  make: 'Made',
  queue: 'Queued',
  claim: 'Handed to the mail server',
  accept: 'Accepted by the mail server',
  defer: 'Refused for now',
  refuse: 'Bounced',
  lose: 'Outcome unknown',
  'confirm-sent': 'Confirmed as sent',
  'send-again': 'Queued again',
  print: 'Printed',
  return: 'Came back',
  complete: 'Complete',
  withdraw: 'Withdrawn',
  remind: 'Reminded',
  'to-paper': 'Put to paper',
  'off-paper': 'Taken off paper',
  reprint: 'Printed again',
  delay: 'Delayed',
  report: 'Reported',
};

function Thumbnail({ id }: { id: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let stale = false;
    setFailed(false);
    void (async () => {
      const pdf = await openForDrawing(await api.bytes(`/api/copies/${id}/pdf`));
      const page = await pdf.getPage(1);
      const viewport = page.getViewport({ scale: 208 / page.getViewport({ scale: 1 }).width });
      const aside = document.createElement('canvas');
      aside.width = viewport.width;
      aside.height = viewport.height;
      await page.render({ canvas: aside, viewport }).promise;
      await pdf.destroy();
      if (stale || !canvas.current) return;
      canvas.current.width = aside.width;
      canvas.current.height = aside.height;
      canvas.current.getContext('2d')?.drawImage(aside, 0, 0);
    })().catch(() => !stale && setFailed(true));
    return () => {
      stale = true;
    };
  }, [id]);
  return failed ? <Small>The file cannot be shown.</Small> : <Thumb ref={canvas} role="img" aria-label="First page of the copy" />;
}

function Actions({ copy }: { copy: CopyDetail }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [address, setAddress] = useState(copy.address);
  useEffect(() => setAddress(copy.address), [copy.id, copy.address]);
  const refresh = () => Promise.all([client.invalidateQueries({ queryKey: ['copies'] }), client.invalidateQueries({ queryKey: ['desk'] })]);
  const sendAgain = useMutation({ mutationFn: () => api.post(`/api/copies/${copy.id}/send-again`, { address }), onSuccess: refresh });
  const confirm = useMutation({ mutationFn: () => api.post(`/api/copies/${copy.id}/confirm-sent`), onSuccess: refresh });
  const said = copy.delivery?.said ?? copy.events.find((event) => event.state === copy.state)?.said;
  const paper = useMutation({
    mutationFn: (action: 'to-paper' | 'off-paper') => api.post('/api/copies/many', { action, ids: [copy.id] }),
    onSuccess: refresh,
  });
  const again = useMutation({
    mutationFn: () =>
      api.post<{ id: number }>('/api/print-runs', {
        ids: [copy.id],
        reasons: [],
        duplex: false,
        addressSheets: true,
        name: `Again: ${copy.recipient || copy.code}`,
      }),
    onSuccess: (run) => void navigate(`/paper/${run.id}`),
  });
  const error = sendAgain.error ?? confirm.error ?? paper.error ?? again.error;
  const isTogether = (copy.delivery?.copies ?? 1) > 1;
  const form = (verb: string): React.ReactNode => (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        sendAgain.mutate();
      }}
    >
      <Row style={{ marginTop: 8 }}>
        <div style={{ flex: 1 }}>
          <TextInput label="Address" hideLabel value={address} onChange={setAddress} />
        </div>
        <Button changes type="submit" look="go" isDisabled={sendAgain.isPending || addressFault(address) !== null}>
          {verb}
        </Button>
      </Row>
      {addressFault(address) !== null && (
        <Small>{address.trim() ? `Not an address yet: ${addressFault(address)}.` : 'Write an address to send to.'}</Small>
      )}
      {isTogether && <Small>The {copy.delivery!.copies} copies of this recipient go together.</Small>}
    </form>
  );
  return (
    <>
      {copy.state === 'bounced' && (
        <Notice tone="brick">
          <b>The message was refused.</b>
          <div>{said}</div>
          {form(address.trim() === copy.address ? 'Send again' : 'Correct and send')}
        </Notice>
      )}
      {copy.state === 'unconfirmed' && (
        <Notice tone="ochre">
          <b>Nobody knows whether this arrived.</b>
          <div>{said}</div>
          <Row style={{ marginTop: 8 }}>
            <Button changes onPress={() => confirm.mutate()}>
              It was sent
            </Button>
          </Row>
          {form('Send again')}
        </Notice>
      )}
      {copy.state === 'retrying' && (
        <Notice tone="ochre">
          <b>Refused for now; the next try is {copy.nextTryAt ? when(copy.nextTryAt) : 'soon'}.</b>
          <div>{said}</div>
          <Small>{counted(copy.delivery?.attempts ?? 0, 'try', 'tries')} so far.</Small>
        </Notice>
      )}
      {copy.state === 'made' && (
        <Notice tone="slate">
          <b>Made and kept.</b> {copy.address ? 'It was not mailed.' : 'Its record has no address.'}
          {form('Mail it')}
        </Notice>
      )}
      {copy.state === 'printed' && (
        <Notice tone="slate">
          <b>Printed.</b> If the sheet was lost or spoiled, it can be printed once more.
          <Row style={{ marginTop: 8 }}>
            <Button changes onPress={() => again.mutate()} isDisabled={again.isPending}>
              Print it again
            </Button>
          </Row>
        </Notice>
      )}
      {(copy.state === 'made' || copy.state === 'bounced') && (
        <Row>
          <Button changes small onPress={() => paper.mutate(copy.wantsPaper ? 'off-paper' : 'to-paper')} isDisabled={paper.isPending}>
            {copy.wantsPaper ? 'Take off paper' : 'To paper'}
          </Button>
          {copy.wantsPaper && <Small>It waits for a print run.</Small>}
        </Row>
      )}
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
    </>
  );
}

/** The message as it went out, asked for when it is opened. */
function SentMessage({ id }: { id: number }) {
  const [open, setOpen] = useState(false);
  const { data, error } = useQuery({ ...queries.sentMessage(id), enabled: open });
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <Summary>The message</Summary>
      {error && <Small>{sentenceOf(error)}</Small>}
      {data && (
        <Stack $gap={6} style={{ marginTop: 8 }}>
          <Small>
            {data.from} to {data.to.join(', ')}
          </Small>
          <b>{data.subject}</b>
          {/* The server lets only harmless elements through. */}
          <Letter dangerouslySetInnerHTML={{ __html: data.html }} />
          <Small>{data.attachments.join(' · ')}</Small>
          <Row>
            <FileButton $small href={`/api/copies/${id}/message.eml`} download>
              <Download size={14} />
              The raw message
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
        Show its password
      </Button>
      {look.error && <Small>{sentenceOf(look.error)}</Small>}
    </Row>
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
    <Side aria-label="Copy" onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <Top>
        <h2>{copy?.recipient || copy?.code || '…'}</h2>
        {copy && <StateMark state={copy.state} />}
        <div className="fill" />
        <IconButton label="Close (Esc)" onPress={onClose}>
          <X size={16} />
        </IconButton>
      </Top>
      {error && <Empty title="This copy cannot be shown">{sentenceOf(error)}</Empty>}
      {!copy && !error && <Loading what="the copy" />}
      {copy && (
        <Body>
          <About>
            {isFile ? <Thumbnail id={id} /> : <Small>Not made yet.</Small>}
            <Stack $gap={2}>
              <b>{copy.file.split('/').at(-1)}</b>
              <code>{copy.code}</code>
              <Small>
                {counted(copy.pages, 'page')} {isFile && `· ${kilobytes(copy.size)} `}· {copy.finish}
              </Small>
              <Small style={{ fontFamily: font.mono }}>{copy.folder}</Small>
              <Small>{copy.address || 'no address'}</Small>
              {copy.trouble && (
                <Small style={{ color: color.brick }}>
                  trouble: {copy.trouble}{' '}
                  {copy.troubleCode &&
                    `(${copy.troubleCode}${troubleWords(copy.troubleCode) ? `, ${troubleWords(copy.troubleCode)}` : ''})`}
                </Small>
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
                <Small key={run.id}>
                  <Link to={`/paper/${run.id}`}>Print run {run.number}</Link> ({run.state}), sheet {run.sheet}
                </Small>
              ))}
              {copy.isProtected && <Password id={id} />}
              {isFile && (
                <Row style={{ marginTop: 6 }}>
                  <FileButton $small href={`/api/copies/${id}/pdf`} target="_blank" rel="noreferrer">
                    <Eye size={14} />
                    Open
                  </FileButton>
                  <FileButton $small href={`/api/copies/${id}/pdf?save=1`}>
                    <Download size={14} />
                    Save
                  </FileButton>
                </Row>
              )}
            </Stack>
          </About>
          <Actions copy={copy} />
          <div>
            <h2 style={{ marginBottom: 4 }}>Its story</h2>
            <Story>
              {copy.events.map((event, at) => (
                <li key={at}>
                  <span title={fullWhen(event.at)}>
                    {new Date(event.at).toDateString() === new Date().toDateString() ? atSecond(event.at) : fullWhen(event.at)}
                  </span>
                  <div>
                    {eventWords[event.event] ?? event.event} {event.who !== 'Mailbag' && `by ${event.who}`}
                    {event.said && <small>{event.said}</small>}
                  </div>
                </li>
              ))}
            </Story>
          </div>
          {copy.delivery && <SentMessage id={id} />}
          <details>
            <Summary>The record as it was (row {copy.row})</Summary>
            {copy.record === null && <Small>Your account does not show values of records.</Small>}
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
              title="Withdraw this copy?"
              text="It stays in the ledger as withdrawn and is not sent any more. A message that has gone out cannot be called back."
              yes="Withdraw it"
              onYes={() => withdraw.mutate()}
            >
              <Button changes look="danger" small style={{ alignSelf: 'flex-start' }}>
                Withdraw
              </Button>
            </Confirm>
          )}
        </Body>
      )}
    </Side>
  );
}
