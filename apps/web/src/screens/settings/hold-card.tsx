import { count, plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { HoldAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { fullWhen } from '../../features/when';
import { Button } from '../../ui/button';
import { ListLine, Padded } from '../../ui/columns';
import { Confirm } from '../../ui/confirm';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

const reasons: Record<NonNullable<HoldAnswer['held']>['why'], (held: NonNullable<HoldAnswer['held']>) => string> = {
  restored: ({ takenAt, from }) => t`It was restored from ${from}, taken ${takenAt ? fullWhen(takenAt) : t`earlier`}.`,
  copied: () => t`It was copied, or restored as a whole.`,
  'older database': () => t`Its database is older than the folder around it, or belongs to another one.`,
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
      <h2>{t`Nothing is sent until you have looked`}</h2>
      <Notice tone="ochre">{phrase`${(<b>{t`This data folder may not be the one that mailed last.`}</b>)}  ${reasons[held.why](held)} Messages that wait here may have gone out from where it comes from${lastAt ? t` after ${fullWhen(lastAt)}, the last thing that is known here` : ''}. Batches that were started since are not in here at all.`}</Notice>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      {doubted !== null && doubt.isSuccess && (
        <Notice tone="slate">{t`The copies of batch ${doubted} are unconfirmed now. Settle each in the ledger: it was sent, or send it again.`}</Notice>
      )}
      {batches.length === 0 ? (
        <Small>{t`No message waits.`}</Small>
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
                >{t`They may have gone out`}</Button>
              }
            >
              <Link to={`/batches/${id}`}>{t`Batch ${number} of ${mailingName}`}</Link>
              <div>
                <Small>{t`${plural(messages, 'message waits', 'messages wait')}, with ${plural(copies, 'copy', 'copies')}`}</Small>
              </div>
            </ListLine>
          ))}
        </Stack>
      )}
      {printRuns > 0 && (
        <Small>{phrase`${plural(printRuns, 'print run is', 'print runs are')} not marked as printed. ${(<Link to="/paper">{t`Check whether they were.`}</Link>)}`}</Small>
      )}
      <Row>
        <Confirm
          title={waiting > 0 ? t`Send ${count(waiting)} messages?` : t`Send from now on?`}
          look="go"
          yes={waiting > 0 ? t`Send ${plural(waiting, 'message')}` : t`Send from now on`}
          onYes={() => release.mutate(undefined)}
          text={
            waiting > 0
              ? t`They go out as if they never had. Whoever had one already gets it a second time.`
              : t`Deliveries, reminders, registers and the bounce mailbox go on.`
          }
        >
          <Button look="go" isDisabled={release.isPending}>
            {waiting > 0 ? t`The rest did not go out: send it` : t`Resume sending`}
          </Button>
        </Confirm>
      </Row>
    </Padded>
  );
}
