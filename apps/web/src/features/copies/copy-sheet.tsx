import type { CopyDetail } from '@mailbag/contract';
import { addressFault } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Eye, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
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
  const client = useQueryClient();
  const [address, setAddress] = useState(copy.address);
  useEffect(() => setAddress(copy.address), [copy.id, copy.address]);
  const refresh = () => Promise.all([client.invalidateQueries({ queryKey: ['copies'] }), client.invalidateQueries({ queryKey: ['desk'] })]);
  const sendAgain = useMutation({ mutationFn: () => api.post(`/api/copies/${copy.id}/send-again`, { address }), onSuccess: refresh });
  const confirm = useMutation({ mutationFn: () => api.post(`/api/copies/${copy.id}/confirm-sent`), onSuccess: refresh });
  const said = copy.delivery?.said ?? copy.events.find((event) => event.state === copy.state)?.said;
  const error = sendAgain.error ?? confirm.error;
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
        <Button type="submit" look="go" isDisabled={sendAgain.isPending || addressFault(address) !== null}>
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
            <Button onPress={() => confirm.mutate()}>It was sent</Button>
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
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
    </>
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
          <details>
            <summary style={{ cursor: 'pointer', fontFamily: font.head, fontWeight: 600, fontSize: 16 }}>
              The record as it was (row {copy.row})
            </summary>
            <RecordList $names="minmax(90px, 34%)" style={{ marginTop: 8 }}>
              {copy.record.map(({ column, text }) => (
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
              <Button look="danger" small style={{ alignSelf: 'flex-start' }}>
                Withdraw
              </Button>
            </Confirm>
          )}
        </Body>
      )}
    </Side>
  );
}
