import type { JobAnswer, JobState, JobsAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { atSecond, count, counted, when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Columns, ListLine, Padded } from '../../ui/columns';
import { Empty, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

const groups: { state: JobState; title: string; nothing: string }[] = [
  { state: 'failed', title: 'Failed', nothing: '' },
  { state: 'running', title: 'Running now', nothing: 'Nothing runs just now.' },
  { state: 'waiting', title: 'Waiting for their time', nothing: 'Nothing waits.' },
];

/** Where a job is, in a few words. */
function whereItIs({ state, startedAt, finishedAt, dueAt, done, total, attempts, repeats }: JobAnswer): string {
  const last = finishedAt ? `last run ${atSecond(finishedAt)}` : '';
  if (state === 'running')
    return [`since ${atSecond(startedAt!)}`, total > 0 && `${count(done)} of ${count(total)}`].filter(Boolean).join(' · ');
  if (state === 'failed') return [`${counted(attempts, 'run')} without success`, last].filter(Boolean).join(' · ');
  return [`${attempts > 0 ? 'tried again' : repeats || finishedAt ? 'next run' : 'begins'} ${when(dueAt)}`, last]
    .filter(Boolean)
    .join(' · ');
}

function Job({ job, onAgain, isDisabled }: { job: JobAnswer; onAgain: () => void; isDisabled: boolean }) {
  const name = [job.title, job.subject].filter(Boolean).join(': ');
  return (
    <ListLine
      actions={
        job.state === 'running' ? null : (
          <Button
            small
            onPress={onAgain}
            isDisabled={isDisabled}
            aria-label={`${job.state === 'failed' ? 'Try again' : 'Run now'}: ${name}`}
          >
            {job.state === 'failed' ? 'Try again' : 'Run now'}
          </Button>
        )
      }
    >
      <b>{name}</b> {job.state === 'failed' && <Mark $tone="brick">failed</Mark>}
      <div>
        <Small>
          {whereItIs(job)}
          {job.who !== 'Mailbag' && ` · asked for by ${job.who}`}
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
  if (!data) return <Loading what="the jobs" />;
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
                  {state === 'running' ? 'A batch, a sheet that is read or a check shows up here while it runs.' : ''}
                </Empty>
              ) : (
                <div>
                  {jobs.map((job) => (
                    <Job key={job.id} job={job} isDisabled={again.isPending} onAgain={() => again.mutate(job.id)} />
                  ))}
                </div>
              )}
              {data.counts[state] > jobs.length && <Small>and {count(data.counts[state] - jobs.length)} more</Small>}
            </Padded>
          );
        })}
      </Stack>
      <Padded style={{ background: color.paper, gap: 8 }}>
        <h2>What stands here</h2>
        <Small>
          Whatever takes long is written down before it begins: a batch, a sheet that is read, checks, print runs, backups, reminders. When
          the server stops, it goes on with it at its next start.
        </Small>
        <Small>What fails is tried again by itself a few times. After that it waits for you, and says why.</Small>
      </Padded>
    </Columns>
  );
}
