import { count, plural, t, translated } from '@mailbag/core/words';
import { detailText } from '@mailbag/core';
import type { BatchSummary } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { BookOpenText, CircleAlert, Download, Pause, Play, Square } from 'lucide-react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { CopySheet } from '../../features/copies/copy-sheet';
import { readFilter } from '../../features/copies/ledger-filter';
import { CopyTable } from '../../features/copies/copy-table';
import { barOrder, stateColor, stateParts } from '../../features/copies/state-parts';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Card, Empty, Head, PartsBar, Row, Screen, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { FileButton, LinkButton } from '../../ui/link-button';
import { Mark, Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';
import { useAddress } from '../../ui/use-address';

const StateLink = styled(Link)`
  display: inline-flex;
  gap: 6px;
  align-items: center;
  color: ${color.ink};
  text-decoration: none;
  padding: 2px 6px;
  border-radius: 4px;
  &:hover {
    background: ${color.plumWash};
  }
  & i {
    width: 10px;
    height: 10px;
    border-radius: 2px;
  }
  & b {
    font-variant-numeric: tabular-nums;
  }
`;

const looks = { planning: 'ochre', making: 'ochre', sending: 'plum', done: 'moss', paused: 'ochre', cancelled: 'slate' } as const;

function stepWords(batch: BatchSummary): string {
  const made = batch.copies - (batch.counts.planned ?? 0);
  const open = (batch.counts.queued ?? 0) + (batch.counts.sending ?? 0) + (batch.counts.retrying ?? 0);
  switch (batch.state) {
    case 'planning':
      return t`${count(batch.planned)} of ${plural(batch.records, 'record')} looked through`;
    case 'making':
      return t`${count(made)} of ${plural(batch.copies, 'copy', 'copies')} made${batch.pace > 0 ? t`, ${count(batch.pace)} a second` : ''}`;
    case 'sending':
      return t`All copies are made. ${count(open)} still to be sent.`;
    case 'done':
      return t`Finished ${when(batch.finishedAt ?? batch.startedAt)}.`;
    case 'paused':
      return t`${count(made)} of ${plural(batch.copies, 'copy', 'copies')} made. Nothing moves until you resume.`;
    case 'cancelled':
      return t`Cancelled. What was made and sent stays; the rest was withdrawn.`;
  }
}

export default function BatchScreen() {
  const id = Number(useParams().id);
  const { data: batch, error } = useQuery(queries.batch(id));
  const client = useQueryClient();
  const { query, put } = useAddress();
  const chosen = Number(query.get('copy')) || null;
  const setChosen = (copy: number | null): void => put({ copy });
  useCrumbs(
    { text: t`Mailings`, to: '/mailings' },
    { text: batch?.mailingName ?? '…', ...(batch ? { to: `/mailings/${batch.mailingId}/map` } : {}) },
    { text: batch ? t`Batch ${batch.number}` : '…' },
  );
  const act = useMutation({
    mutationFn: (what: 'pause' | 'resume' | 'cancel') => api.post<BatchSummary>(`/api/batches/${id}/${what}`),
    onSuccess: (fresh) => {
      client.setQueryData(queries.batch(id).queryKey, fresh);
      void client.invalidateQueries({ queryKey: ['batches', 'running'] });
    },
  });
  if (error && !batch) return <Empty title={t`This batch cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!batch) return <Loading what={t`the batch`} />;
  const isRunning = ['planning', 'making', 'sending'].includes(batch.state);
  const madeFiles = batch.copies - (batch.counts.planned ?? 0) - (batch.counts.withdrawn ?? 0);
  return (
    <Screen>
      <Head
        title={
          <Row $gap={10}>
            {t`Batch ${batch.number} · ${batch.mailingName}`}
            <Mark $tone={looks[batch.state]}>{translated(batch.state)}</Mark>
          </Row>
        }
        note={t`started ${when(batch.startedAt)}`}
      >
        {isRunning && (
          <Button changes onPress={() => act.mutate('pause')} isDisabled={act.isPending}>
            <Pause size={15} />
            {t`Pause`}
          </Button>
        )}
        {batch.state === 'paused' && (
          <Button changes look="go" onPress={() => act.mutate('resume')} isDisabled={act.isPending}>
            <Play size={15} />
            {t`Resume`}
          </Button>
        )}
        {(isRunning || batch.state === 'paused') && (
          <Confirm
            title={t`Cancel batch ${batch.number}?`}
            text={t`Copies that are not made or not sent yet are withdrawn. What went out stays out.`}
            yes={t`Cancel the batch`}
            no={t`Keep the batch`}
            onYes={() => act.mutate('cancel')}
          >
            <Button changes look="danger" isDisabled={act.isPending}>
              <Square size={14} />
              {t`Cancel`}
            </Button>
          </Confirm>
        )}
        <LinkButton to={`/ledger?batch=${id}`}>
          <BookOpenText size={15} />
          {t`In the ledger`}
        </LinkButton>
        {batch.combined.map((name) => (
          <FileButton key={name} href={`/api/batches/${id}/combined/${encodeURIComponent(name)}`} download>
            <Download size={15} />
            {batch.combined.length > 1 ? name.replace(/\.pdf$/, '').slice(-24) : t`Combined`}
          </FileButton>
        ))}
        {madeFiles > 0 && (
          <FileButton href={`/api/batches/${id}/zip`} download>
            <Download size={15} />
            {t`Zip`}
          </FileButton>
        )}
      </Head>
      {(act.error || batch.error) && (
        <div style={{ padding: '0 16px 10px' }}>
          <Notice tone="brick" icon={<CircleAlert size={16} />}>
            {act.error ? sentenceOf(act.error) : batch.error?.message}{' '}
            {batch.error?.code === 'copy-differs' && (
              <Link to={`/ledger?batch=${id}&text=${String(batch.error.fields?.copy)}`}>{t`Show the copy`}</Link>
            )}
          </Notice>
        </div>
      )}
      <Card style={{ margin: '0 16px 12px', padding: '12px 14px', gap: 8, flex: 'none' }}>
        <Row>
          <span role="status" style={{ flex: 1 }}>
            {stepWords(batch)} {batch.waiting && detailText(batch.waiting)}
          </span>
          <Small>{t`${plural(batch.copies, 'copy', 'copies')} of ${plural(batch.records, 'record')} · ${batch.mailed ? t`mailed` : t`made and kept`}`}</Small>
        </Row>
        <PartsBar
          tall
          label={t`Batch ${batch.number}: ${barOrder
            .filter((state) => batch.counts[state])
            .map((state) => `${batch.counts[state]} ${translated(state)}`)
            .join(', ')}`}
          total={batch.copies}
          parts={stateParts(batch.counts)}
        />
        <Row $gap={4} style={{ flexWrap: 'wrap' }}>
          {barOrder
            .filter((state) => batch.counts[state])
            .map((state) => (
              <StateLink key={state} to={`/ledger?batch=${id}&state=${state}`}>
                <i style={{ background: stateColor(state) }} />
                {translated(state)} <b>{count(batch.counts[state] ?? 0)}</b>
              </StateLink>
            ))}
          {(batch.counts.planned ?? 0) > 0 && <Small>{t`planned ${count(batch.counts.planned ?? 0)}`}</Small>}
        </Row>
      </Card>
      <div
        style={{
          flex: 1,
          minHeight: 0,
          display: 'grid',
          gridTemplateColumns: chosen ? 'minmax(0, 1fr) 400px' : 'minmax(0, 1fr)',
          gridTemplateRows: 'minmax(0, 1fr)',
          borderTop: `1px solid ${color.line}`,
        }}
      >
        <div style={{ minHeight: 0, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
          <CopyTable
            filter={`batch=${id}`}
            chosen={chosen}
            onChoose={setChosen}
            sort={readFilter(query).sort}
            ofOneBatch
            empty={<Empty title={t`No copy yet`}>{t`The records are being looked through. The copies will stand here.`}</Empty>}
          />
        </div>
        {chosen && <CopySheet id={chosen} onClose={() => setChosen(null)} />}
      </div>
    </Screen>
  );
}
