import type { HoldAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { count, counted, fullWhen } from '../../features/when';
import { Button } from '../../ui/button';
import { ListLine, Padded } from '../../ui/columns';
import { Confirm } from '../../ui/confirm';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

const reasons: Record<NonNullable<HoldAnswer['held']>['why'], (held: NonNullable<HoldAnswer['held']>) => string> = {
  restored: ({ takenAt, from }) => `It was restored from ${from}, taken ${takenAt ? fullWhen(takenAt) : 'earlier'}.`,
  copied: () => 'It was copied, or put back as a whole.',
  'older database': () => 'Its database is older than the folder around it, or belongs to another one.',
};

/** After a folder was put back: what may have gone out since, and the word that lets the rest go. */
export function HoldCard() {
  const { data } = useQuery(queries.hold());
  const key = queries.hold().queryKey;
  const [doubted, setDoubted] = useState<number | null>(null);
  const doubt = useSaving(key, (batchIds: number[]) => api.post<HoldAnswer>('/api/safety/hold/doubt', { batchIds }));
  const release = useSaving(key, () => api.post<HoldAnswer>('/api/safety/hold/release'));
  if (!data?.held) return null;
  const { held, batches, printRuns, lastAt } = data;
  const waiting = batches.reduce((sum, { messages }) => sum + messages, 0);
  const error = doubt.error ?? release.error;
  return (
    <Padded>
      <h2>Nothing is sent until you have looked</h2>
      <Notice tone="ochre">
        <b>This data folder may not be the one that mailed last.</b> {reasons[held.why](held)} Messages that wait here may have gone out
        from where it comes from{lastAt ? ` after ${fullWhen(lastAt)}, the last thing that is known here` : ''}. Batches that were started
        since are not in here at all.
      </Notice>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      {doubted !== null && doubt.isSuccess && (
        <Notice tone="slate">
          The copies of batch {doubted} are unconfirmed now. Settle each in the ledger: it was sent, or send it again.
        </Notice>
      )}
      {batches.length === 0 ? (
        <Small>No message waits.</Small>
      ) : (
        <Stack $gap={0}>
          {batches.map(({ id, number, mailingName, messages, copies }) => (
            <ListLine
              key={id}
              actions={
                <Button
                  small
                  isDisabled={doubt.isPending}
                  onPress={() => {
                    setDoubted(number);
                    doubt.mutate([id]);
                  }}
                >
                  They may have gone out
                </Button>
              }
            >
              <Link to={`/batches/${id}`}>
                Batch {number} of {mailingName}
              </Link>
              <div>
                <Small>
                  {counted(messages, 'message waits', 'messages wait')}, with {counted(copies, 'copy', 'copies')}
                </Small>
              </div>
            </ListLine>
          ))}
        </Stack>
      )}
      {printRuns > 0 && (
        <Small>
          {counted(printRuns, 'print run is', 'print runs are')} not marked as printed. <Link to="/paper">Look whether they were.</Link>
        </Small>
      )}
      <Row>
        <Confirm
          title={waiting > 0 ? `Send ${count(waiting)} messages?` : 'Send from now on?'}
          look="go"
          yes={waiting > 0 ? `Send ${counted(waiting, 'message')}` : 'Send from now on'}
          onYes={() => release.mutate(undefined)}
          text={
            waiting > 0
              ? 'They go out as if they never had. Whoever had one already gets it a second time.'
              : 'Deliveries, reminders, registers and the bounce mailbox go on.'
          }
        >
          <Button look="go" isDisabled={release.isPending}>
            {waiting > 0 ? 'The rest did not go out: send it' : 'Go on sending'}
          </Button>
        </Confirm>
      </Row>
    </Padded>
  );
}
