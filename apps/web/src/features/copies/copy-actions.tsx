import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { CopyDetail } from '@mailbag/contract';
import { addressFault, detailText } from '@mailbag/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Row, Small } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { when } from '../when';

/** What can be done with a copy now, by its state. */
export function CopyActions({ copy }: { copy: CopyDetail }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [address, setAddress] = useState(copy.address);
  useEffect(() => setAddress(copy.address), [copy.id, copy.address]);
  const refresh = () => Promise.all([client.invalidateQueries({ queryKey: ['copies'] }), client.invalidateQueries({ queryKey: ['desk'] })]);
  const sendAgain = useMutation({ mutationFn: () => api.post(`/api/copies/${copy.id}/send-again`, { address }), onSuccess: refresh });
  const confirm = useMutation({ mutationFn: () => api.post(`/api/copies/${copy.id}/confirm-sent`), onSuccess: refresh });
  const last = copy.delivery?.detail ?? copy.events.find((event) => event.state === copy.state)?.detail ?? null;
  const detail = last === null ? null : detailText(last);
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
        name: t`Again: ${copy.recipient || copy.code}`,
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
          <TextInput label={t`Address`} hideLabel value={address} onChange={setAddress} />
        </div>
        <Button changes type="submit" look="go" isDisabled={sendAgain.isPending || addressFault(address) !== null}>
          {verb}
        </Button>
      </Row>
      {addressFault(address) !== null && (
        <Small>{address.trim() ? t`Not an address yet: ${addressFault(address)}.` : t`Write an address to send to.`}</Small>
      )}
      {isTogether && <Small>{t`The ${copy.delivery!.copies} copies of this recipient go together.`}</Small>}
    </form>
  );
  return (
    <>
      {copy.state === 'bounced' && (
        <Notice tone="brick">
          <b>{t`The message was refused.`}</b>
          <div>{detail}</div>
          {form(address.trim() === copy.address ? t`Send again` : t`Correct and send`)}
        </Notice>
      )}
      {copy.state === 'unconfirmed' && (
        <Notice tone="ochre">
          <b>{t`Nobody knows whether this arrived.`}</b>
          <div>{detail}</div>
          <Row style={{ marginTop: 8 }}>
            <Button changes onPress={() => confirm.mutate()}>{t`It was sent`}</Button>
          </Row>
          {form(t`Send again`)}
        </Notice>
      )}
      {copy.state === 'retrying' && (
        <Notice tone="ochre">
          <b>{t`Refused for now; the next attempt is ${copy.nextTryAt ? when(copy.nextTryAt) : t`soon`}.`}</b>
          <div>{detail}</div>
          <Small>{t`${plural(copy.delivery?.attempts ?? 0, 'try', 'tries')} so far.`}</Small>
        </Notice>
      )}
      {copy.state === 'made' && copy.trouble === 'our side' && (
        <Notice tone="brick">
          <b>{t`It was not sent, for a reason on our side.`}</b>
          <div>{detail}</div>
          {form(t`Send again`)}
        </Notice>
      )}
      {copy.state === 'made' && copy.trouble !== 'our side' && (
        <Notice tone="slate">
          <b>{t`Made and kept.`}</b> {copy.address ? t`It was not mailed.` : t`Its record has no address.`}
          {form(t`Mail it`)}
        </Notice>
      )}
      {copy.state === 'printed' && (
        <Notice tone="slate">
          {phrase`${(<b>{t`Printed.`}</b>)} If the sheet was lost or spoiled, it can be printed once more.`}
          <Row style={{ marginTop: 8 }}>
            <Button changes onPress={() => again.mutate()} isDisabled={again.isPending}>{t`Print it again`}</Button>
          </Row>
        </Notice>
      )}
      {(copy.state === 'made' || copy.state === 'bounced') && (
        <Row>
          <Button changes small onPress={() => paper.mutate(copy.wantsPaper ? 'off-paper' : 'to-paper')} isDisabled={paper.isPending}>
            {copy.wantsPaper ? t`Do not print` : t`Send on paper`}
          </Button>
          {copy.wantsPaper && <Small>{t`It waits for a print run.`}</Small>}
        </Row>
      )}
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
    </>
  );
}
