import { plural, t } from '@mailbag/core/words';
import type { RetentionAnswer, RetentionRequest } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { useContractForm } from '../../features/forms/use-contract-form';
import { when } from '../../features/when';
import { Button } from '../../ui/button';
import { Columns, Fields } from '../../ui/columns';
import { Confirm } from '../../ui/confirm';
import { FormCard } from '../../ui/form-card';
import { Row, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { NumberInput } from '../../ui/special-input';
import { useSaving } from './use-saving';

/** How long records and copies are kept. */
export function RetentionPart() {
  const { data } = useQuery(queries.retention());
  return data ? <RetentionForm data={data} /> : <Loading what={t`how long things are kept`} />;
}

function RetentionForm({ data }: { data: RetentionAnswer }) {
  const { recordDays, copyDays, sourceDays } = data;
  const { values: form, set, fault, submit } = useContractForm('RetentionRequest', { recordDays, copyDays, sourceDays });
  const key = queries.retention().queryKey;
  const save = useSaving(key, (body: object) => api.put<RetentionAnswer>('/api/retention', body));
  const run = useSaving(key, () => api.post<RetentionAnswer>('/api/retention/run'));
  const days = (label: string, part: keyof RetentionRequest, help: string) => (
    <NumberInput
      label={label}
      value={form[part]}
      onChange={(value) => set({ [part]: value })}
      error={fault(part)}
      maximum={36_500}
      help={help}
    />
  );
  const isSaved = form.recordDays === data.recordDays && form.copyDays === data.copyDays && form.sourceDays === data.sourceDays;
  return (
    <Columns>
      <FormCard onSubmit={submit(save.mutate)}>
        <h2>{t`How long things are kept`}</h2>
        <Fields>
          {days(
            t`Days for values of records`,
            'recordDays',
            t`0: for ever. The copies stay; the values behind them and the words of the search are deleted.`,
          )}
          {days(t`Days for copies`, 'copyDays', t`0: for ever. Files, rows, stories and deliveries are deleted.`)}
          {days(
            t`Days for sources`,
            'sourceDays',
            t`0: for ever. Counted from when a source was read and its last batch ended. File, records and corrections are deleted; maps stay.`,
          )}
        </Fields>
        <Small>{t`The first two are counted from the day on which a batch ended. Deleted means deleted: rows are overwritten in the database, files are removed from the archive. Copies that others already received are not called back, and what a register was told stays there.`}</Small>
        {(save.error ?? run.error) && <Notice tone="brick">{sentenceOf(save.error ?? run.error)}</Notice>}
        {data.lastRun && (
          <Small>{t`Last done ${when(data.lastRun.at)}: ${plural(data.lastRun.records, 'record')}, ${plural(data.lastRun.copies, 'copy', 'copies')} and ${plural(data.lastRun.sources ?? 0, 'source')} deleted.`}</Small>
        )}
        <Row>
          <Button type="submit" look="go" isDisabled={isSaved || save.isPending}>{t`Save`}</Button>
          {(data.recordDays > 0 || data.copyDays > 0 || data.sourceDays > 0) && isSaved && (
            <Confirm
              title={t`Delete data past its retention now?`}
              text={t`It is done by itself several times a day. What is deleted cannot be brought back.`}
              yes={t`Delete it`}
              onYes={() => run.mutate(undefined)}
            >
              <Button look="danger" isDisabled={run.isPending}>
                {run.isPending ? t`Deleting …` : t`Do it now`}
              </Button>
            </Confirm>
          )}
        </Row>
      </FormCard>
    </Columns>
  );
}
