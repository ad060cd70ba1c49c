import { count, plural, t, translated } from '@mailbag/core/words';
import type { JobAnswer, JobState, JobsAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { atSecond, when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Columns, ListLine, Padded } from '../../ui/columns';
import { Empty, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

const groups: { state: JobState; title: string; nothing: string }[] = [
  { state: 'failed', title: t`Failed`, nothing: '' },
  { state: 'running', title: t`Running now`, nothing: t`Nothing is running.` },
  { state: 'waiting', title: t`Waiting for their time`, nothing: t`Nothing is waiting.` },
];

/** Where a job is, in a few words. */
function whereItIs({ state, startedAt, finishedAt, dueAt, done, total, attempts, repeats }: JobAnswer): string {
  const last = finishedAt ? t`last run ${atSecond(finishedAt)}` : '';
  if (state === 'running')
    return [t`since ${atSecond(startedAt!)}`, total > 0 && t`${count(done)} of ${count(total)}`].filter(Boolean).join(' · ');
  if (state === 'failed') return [t`${plural(attempts, 'run')} without success`, last].filter(Boolean).join(' · ');
  return [`${attempts > 0 ? t`tried again` : repeats || finishedAt ? t`next run` : t`begins`} ${when(dueAt)}`, last]
    .filter(Boolean)
    .join(' · ');
}

function Job({ job, onAgain, isDisabled }: { job: JobAnswer; onAgain: () => void; isDisabled: boolean }) {
  const name = [translated(job.title), translated(job.subject)].filter(Boolean).join(': ');
  return (
    <ListLine
      actions={
        job.state === 'running' ? null : (
          <Button
            small
            onPress={onAgain}
            isDisabled={isDisabled}
            aria-label={`${job.state === 'failed' ? t`Try again` : t`Run now`}: ${name}`}
          >
            {job.state === 'failed' ? t`Try again` : t`Run now`}
          </Button>
        )
      }
    >
      <b>{name}</b> {job.state === 'failed' && <Mark $tone="brick">{t`failed`}</Mark>}
      <div>
        <Small>
          {whereItIs(job)}
          {job.who !== 'Mailbag' && t` · asked for by ${job.who}`}
        </Small>
      </div>
      {job.error && <div style={{ color: color.brick, fontSize: 13 }}>{job.error.message}</div>}
    </ListLine>
  );
}

/** What Mailbag does by itself: what has failed, what runs, what waits for its time. */
export function JobsPart() {
  const { data } = useQuery({ ...queries.jobs(), refetchInterval: 2000 });
  const again = useSaving(queries.jobs().queryKey, (id: number) => api.post<JobsAnswer>(`/api/jobs/${id}/again`, {}));
  if (!data) return <Loading what={t`the jobs`} />;
  const shown = groups.filter(({ state, nothing }) => data.counts[state] > 0 || nothing);
  return (
    <Columns>
      <Stack $gap={16}>
        {again.error && <Notice tone="brick">{sentenceOf(again.error)}</Notice>}
        {shown.map(({ state, title, nothing }) => {
          const jobs = data.jobs.filter((one) => one.state === state);
          return (
            <Padded key={state} role="region" aria-label={title}>
              <h2>
                {title}
                {jobs.length > 0 && <Small> {count(data.counts[state])}</Small>}
              </h2>
              {jobs.length === 0 ? (
                <Empty title={nothing}>
                  {state === 'running' ? t`A batch, a sheet that is read or a check shows up here while it runs.` : ''}
                </Empty>
              ) : (
                <div>
                  {jobs.map((job) => (
                    <Job key={job.id} job={job} isDisabled={again.isPending} onAgain={() => again.mutate(job.id)} />
                  ))}
                </div>
              )}
              {data.counts[state] > jobs.length && <Small>{t`and ${count(data.counts[state] - jobs.length)} more`}</Small>}
            </Padded>
          );
        })}
      </Stack>
      <Padded style={{ background: color.paper, gap: 8 }}>
        <h2>{t`What stands here`}</h2>
        <Small>{t`Whatever takes long is written down before it begins: a batch, a sheet that is read, checks, print runs, backups, reminders. When the server stops, it goes on with it at its next start.`}</Small>
        <Small>{t`What fails is tried again by itself a few times. After that it waits for you, and says why.`}</Small>
      </Padded>
    </Columns>
  );
}
