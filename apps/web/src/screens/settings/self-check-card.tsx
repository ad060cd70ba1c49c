import { count, plural, t } from '@mailbag/core/words';
import type { SelfCheckAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { when } from '../../features/when';
import { Button } from '../../ui/button';
import { ListLine, Padded } from '../../ui/columns';
import { Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

type Fault = NonNullable<SelfCheckAnswer['last']>['faults'][number];

const says: Record<Fault['kind'], (count: number) => string> = {
  database: () => t`The database is damaged. Restore the last backup, or ask somebody who knows SQLite.`,
  'copies-missing': (n) => t`${plural(n, 'copy is', 'copies are')} in the ledger, but not in the archive folder.`,
  'copies-changed': (n) => t`${plural(n, 'copy was', 'copies were')} changed in the archive folder.`,
  'templates-missing': (n) => t`The file of ${plural(n, 'template')} is missing or was changed.`,
  'sources-missing': (n) => t`The file of ${plural(n, 'source')} is missing. Its records are still there.`,
  'attachments-missing': (n) => t`${plural(n, 'extra file is', 'extra files are')} missing. Attach ${n === 1 ? t`it` : t`them`} again.`,
  'key-missing': () => t`The key is missing, so passwords cannot be opened. Put it back from a backup.`,
};

/** Whether the data folder is whole. */
export function SelfCheckCard() {
  const { data, error } = useQuery({ ...queries.selfCheck(), refetchInterval: (query) => (query.state.data?.running ? 2000 : false) });
  const run = useSaving(queries.selfCheck().queryKey, () => api.post<SelfCheckAnswer>('/api/safety/self-check'));
  if (error && !data) return <Notice tone="brick">{sentenceOf(error)}</Notice>;
  if (!data) return <Loading what={t`the self-check`} />;
  const { running, last } = data;
  return (
    <Padded>
      <h2>{t`Self-check`}</h2>
      {last && last.faults.length === 0 && (
        <Notice tone="moss">{t`${when(last.at)}: the database is whole, and so ${last.copies === 1 ? t`is` : t`are`}  ${plural(last.copies, 'copy', 'copies')} and every other file${last.thorough ? t`, compared byte for byte` : ''}.`}</Notice>
      )}
      {last && last.faults.length > 0 && (
        <Stack $gap={0}>
          {last.faults.map(({ kind, count: n, names }) => (
            <ListLine key={kind}>
              <b>{says[kind](n)}</b>
              <div>
                <Small>
                  {names.join(' · ')}
                  {n > names.length && t` · and ${count(n - names.length)} more`}
                </Small>
              </div>
            </ListLine>
          ))}
        </Stack>
      )}
      {!last && !running && <Small>{t`It has not run yet.`}</Small>}
      {run.error && <Notice tone="brick">{sentenceOf(run.error)}</Notice>}
      <Small>{t`A quick check runs at each start. The thorough one reads every file and compares it with its digest.`}</Small>
      <Row>
        <Button onPress={() => run.mutate(undefined)} isDisabled={running || run.isPending}>
          {running ? t`Checking …` : t`Check thoroughly now`}
        </Button>
      </Row>
    </Padded>
  );
}
