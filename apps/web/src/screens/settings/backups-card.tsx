import { t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { BackupsAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { useContractForm } from '../../features/forms/use-contract-form';
import { fullWhen, kilobytes, when } from '../../features/when';
import { Button, IconButton } from '../../ui/button';
import { Fields, ListLine } from '../../ui/columns';
import { Confirm } from '../../ui/confirm';
import { Toggled } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { NumberInput } from '../../ui/special-input';
import { useSaving } from './use-saving';

/** Backups by schedule and on demand. */
export function BackupsCard() {
  const { data, error } = useQuery(queries.backups());
  if (error && !data) return <Notice tone="brick">{sentenceOf(error)}</Notice>;
  return data ? <BackupsForm data={data} /> : <Loading what={t`the backups`} />;
}

function BackupsForm({ data }: { data: BackupsAnswer }) {
  const {
    values: form,
    set,
    fault,
    submit,
  } = useContractForm('BackupRequest', {
    isOn: data.isOn,
    everyHours: data.everyHours,
    keep: data.keep,
  });
  const key = queries.backups().queryKey;
  const save = useSaving(key, (body: object) => api.put<BackupsAnswer>('/api/safety/backups', body));
  const take = useSaving(key, () => api.post<BackupsAnswer>('/api/safety/backups'));
  const remove = useSaving(key, async (name: string) => {
    await api.remove(`/api/safety/backups/${encodeURIComponent(name)}`);
    return api.get<BackupsAnswer>('/api/safety/backups');
  });
  const isSaved = form.isOn === data.isOn && form.everyHours === data.everyHours && form.keep === data.keep;
  const problem = save.error ?? take.error ?? remove.error;
  return (
    <FormCard onSubmit={submit(save.mutate)}>
      <h2>{t`Backups`}</h2>
      <Toggled label={t`Back up automatically`} value={form.isOn} onChange={(isOn) => set({ isOn })} />
      <Fields>
        <NumberInput
          label={t`Hours between backups`}
          value={form.everyHours}
          onChange={(everyHours) => set({ everyHours })}
          error={fault('everyHours')}
          minimum={1}
          maximum={744}
        />
        <NumberInput
          label={t`Backups to keep`}
          value={form.keep}
          onChange={(keep) => set({ keep })}
          error={fault('keep')}
          minimum={1}
          maximum={1000}
          help={t`The oldest is removed when there is one more.`}
        />
      </Fields>
      <Small>{t`They lie in ${data.folder} on the machine of the server. Each is one zip file with the database, the key and every file, and is as confidential as they are. What is deleted here stays in the backups that were taken before.`}</Small>
      {data.failed && (
        <Notice tone="brick">
          {when(data.failed.at)}: {data.failed.message}
        </Notice>
      )}
      {problem && <Notice tone="brick">{sentenceOf(problem)}</Notice>}
      <Row>
        <Button type="submit" look="go" isDisabled={isSaved || save.isPending}>{t`Save`}</Button>
        <Button onPress={() => take.mutate(undefined)} isDisabled={data.running || take.isPending}>
          {data.running ? t`Backing up …` : t`Back up now`}
        </Button>
      </Row>
      {data.backups.length === 0 && !data.running && (
        <Small>{phrase`There is none yet. ${(<code>mailbag restore</code>)} restores one into an empty folder.`}</Small>
      )}
      <Stack $gap={0}>
        {data.backups.map(({ name, size, takenAt }) => (
          <ListLine
            key={name}
            actions={
              <Confirm
                title={t`Remove the backup of ${fullWhen(takenAt)}?`}
                text={t`This cannot be undone.`}
                yes={t`Remove it`}
                onYes={() => remove.mutate(name)}
              >
                <IconButton label={t`Remove the backup of ${fullWhen(takenAt)}`}>
                  <Trash2 size={15} />
                </IconButton>
              </Confirm>
            }
          >
            {fullWhen(takenAt)}
            <div>
              <Small>
                {name} · {kilobytes(size)}
              </Small>
            </div>
          </ListLine>
        ))}
      </Stack>
    </FormCard>
  );
}
