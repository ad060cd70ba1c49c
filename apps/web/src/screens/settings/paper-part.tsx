import { t } from '@mailbag/core/words';
import type { OfficeRequest, PrinterAnswer } from '@mailbag/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { zoneItems } from '../../features/local-time';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Columns, Fields, ListLine, Padded } from '../../ui/columns';
import { TextInput } from '../../ui/field';
import { FormCard } from '../../ui/form-card';
import { Row, Small, Stack } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useSaving } from './use-saving';

/** What stands above addresses, and where print runs can go. */
export function PaperPart() {
  const { data: office } = useQuery(queries.office());
  const { data: printers } = useQuery(queries.printers());
  const [form, setForm] = useState<OfficeRequest | null>(null);
  const [printer, setPrinter] = useState({ name: '', uri: '' });
  useEffect(() => {
    if (office && !form) setForm(office);
  }, [office, form]);
  const saveOffice = useSaving(queries.office().queryKey, () => api.put<OfficeRequest>('/api/settings/office', form));
  const add = useSaving(
    queries.printers().queryKey,
    () => api.post<PrinterAnswer[]>('/api/printers', printer),
    () => setPrinter({ name: '', uri: '' }),
  );
  const test = useMutation({
    mutationFn: () => api.post<{ answer: string }>('/api/printers/test', { ...printer, name: printer.name || t`Printer` }),
  });
  const remove = useSaving(queries.printers().queryKey, (id: number) =>
    api.remove(`/api/printers/${id}`).then(() => api.get<PrinterAnswer[]>('/api/printers')),
  );
  if (!form || !printers) return <Loading what={t`the printers`} />;
  return (
    <Columns $columns="minmax(0, 480px) minmax(0, 520px)">
      <FormCard onSubmit={() => saveOffice.mutate(undefined)}>
        <h2>{t`The office`}</h2>
        <TextInput
          label={t`Return line`}
          value={form.returnLine}
          onChange={(returnLine) => setForm({ ...form, returnLine })}
          placeholder={t`Office · 1 Main Street · 01234 Town`}
          help={t`Stands small above the address in the window of the envelope (DIN 5008).`}
        />
        <TextInput
          label={t`Country`}
          value={form.country}
          onChange={(country) => setForm({ ...form, country: country.toUpperCase().slice(0, 2) })}
          help={t`Two letters. Addresses in it carry no country, others have theirs in capitals.`}
        />
        <Choice
          label={t`Time zone`}
          items={zoneItems(t`that of the server`)}
          value={form.timeZone ?? ''}
          onChange={(timeZone) => setForm({ ...form, timeZone })}
        />
        <Small>{t`Where days begin: in the ledger, on the Desk, in hours of sending and in the date that copies carry.`}</Small>
        {saveOffice.error && <Notice tone="brick">{sentenceOf(saveOffice.error)}</Notice>}
        <Row>
          <Button type="submit" look="go" isDisabled={!/^[A-Z]{2}$/.test(form.country) || saveOffice.isPending}>{t`Save`}</Button>
          {saveOffice.isSuccess && <Small>{t`Saved.`}</Small>}
        </Row>
      </FormCard>
      <Padded>
        <h2>{t`Printers`}</h2>
        {printers.length === 0 && (
          <Small>{t`No printer yet. Print runs can be downloaded all the same and printed with any program.`}</Small>
        )}
        <Stack $gap={0}>
          {printers.map((one) => (
            <ListLine key={one.id} actions={<Button small look="danger" onPress={() => remove.mutate(one.id)}>{t`Remove`}</Button>}>
              <b>{one.name}</b>
              <div>
                <Small>{one.uri}</Small>
              </div>
            </ListLine>
          ))}
        </Stack>
        <Fields $columns="1fr 2fr">
          <TextInput
            label={t`Name`}
            value={printer.name}
            onChange={(name) => setPrinter({ ...printer, name })}
            placeholder={t`Ground floor`}
          />
          <TextInput
            label={t`Address`}
            value={printer.uri}
            onChange={(uri) => setPrinter({ ...printer, uri })}
            placeholder={t`ipp://printer.example.org/ipp/print`}
            mono
          />
        </Fields>
        {test.data && <Notice tone="moss">{test.data.answer}</Notice>}
        {(add.error ?? test.error) && <Notice tone="brick">{sentenceOf(add.error ?? test.error)}</Notice>}
        <Row>
          <Button onPress={() => test.mutate()} isDisabled={!/^ipps?:\/\/\S+$/.test(printer.uri) || test.isPending}>
            {test.isPending ? t`Asking the printer …` : t`Ask the printer`}
          </Button>
          <Button
            look="go"
            onPress={() => add.mutate(undefined)}
            isDisabled={!/^ipps?:\/\/\S+$/.test(printer.uri) || printer.name.trim() === '' || add.isPending}
          >{t`Add the printer`}</Button>
        </Row>
      </Padded>
    </Columns>
  );
}
