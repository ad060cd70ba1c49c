import { t } from '@mailbag/core/words';
import type { OfficeRequest, PrinterAnswer, TestedAnswer } from '@mailbag/contract';
import { detailText } from '@mailbag/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { ChangeDelete, DeletedNotice, WastebasketLink, useDeleting } from '../../features/deleting';
import { useContractForm } from '../../features/forms/use-contract-form';
import { zoneItems } from '../../features/local-time';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Columns, Fields, ListLine } from '../../ui/columns';
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
  if (!office || !printers) return <Loading what={t`the printers`} />;
  return (
    <Columns $columns="minmax(0, 480px) minmax(0, 520px)">
      <OfficeForm office={office} />
      <Printers printers={printers} />
    </Columns>
  );
}

function OfficeForm({ office }: { office: OfficeRequest }) {
  const { values: form, set, fault, submit } = useContractForm('OfficeRequest', office);
  const save = useSaving(queries.office().queryKey, (body: object) => api.put<OfficeRequest>('/api/settings/office', body));
  return (
    <FormCard onSubmit={submit(save.mutate)}>
      <h2>{t`The office`}</h2>
      <TextInput
        label={t`Return line`}
        value={form.returnLine}
        onChange={(returnLine) => set({ returnLine })}
        error={fault('returnLine')}
        placeholder={t`Office · 1 Main Street · 01234 Town`}
        help={t`Stands small above the address in the window of the envelope (DIN 5008).`}
      />
      <TextInput
        label={t`Country`}
        value={form.country}
        onChange={(country) => set({ country: country.toUpperCase().slice(0, 2) })}
        error={fault('country')}
        help={t`Two letters. Addresses in it carry no country, others have theirs in capitals.`}
      />
      <Choice
        label={t`Time zone`}
        items={zoneItems(t`that of the server`)}
        value={form.timeZone ?? ''}
        onChange={(timeZone) => set({ timeZone })}
      />
      <Small>{t`Where days begin: in the ledger, on the Desk, in hours of sending and in the date that copies carry.`}</Small>
      {save.error && <Notice tone="brick">{sentenceOf(save.error)}</Notice>}
      <Row>
        <Button type="submit" look="go" isDisabled={save.isPending}>{t`Save`}</Button>
        {save.isSuccess && <Small>{t`Saved.`}</Small>}
      </Row>
    </FormCard>
  );
}

const none = { name: '', uri: '' };

function Printers({ printers }: { printers: readonly PrinterAnswer[] }) {
  const [changing, setChanging] = useState<PrinterAnswer | null>(null);
  const { values, set, fault, submit, reset } = useContractForm('PrinterRequest', none, ({ name, uri }) => ({
    name: name.trim(),
    uri: uri.trim(),
  }));
  const begin = (printer: PrinterAnswer | null): void => {
    setChanging(printer);
    reset(printer ? { name: printer.name, uri: printer.uri } : none);
  };
  const save = useSaving(
    queries.printers().queryKey,
    (body: object) =>
      changing ? api.put<PrinterAnswer[]>(`/api/printers/${changing.id}`, body) : api.post<PrinterAnswer[]>('/api/printers', body),
    () => begin(null),
  );
  const test = useMutation({
    mutationFn: () => api.post<TestedAnswer>('/api/printers/test', { ...values, name: values.name || t`Printer` }),
  });
  const deleting = useDeleting('printer', () => begin(null));
  return (
    <FormCard onSubmit={submit(save.mutate)}>
      <Row>
        <h2 style={{ flex: 1 }}>{t`Printers`}</h2>
        <WastebasketLink kind="printer" />
      </Row>
      <DeletedNotice kind="printer" error={deleting.error} />
      {printers.length === 0 && <Small>{t`No printer yet. Print runs can be downloaded all the same and printed with any program.`}</Small>}
      <Stack $gap={0}>
        {printers.map((one) => (
          <ListLine
            key={one.id}
            actions={
              <ChangeDelete
                name={one.name}
                text={t`Print runs that went there stay in the list.`}
                isBusy={deleting.isPending}
                onChange={() => begin(one)}
                onDelete={() => deleting.mutate([one])}
              />
            }
          >
            <b>{one.name}</b>
            <div>
              <Small>{one.uri}</Small>
            </div>
          </ListLine>
        ))}
      </Stack>
      <h3>{changing ? t`Change ${changing.name}` : t`A new printer`}</h3>
      <Fields $columns="1fr 2fr">
        <TextInput
          label={t`Name`}
          value={values.name}
          onChange={(name) => set({ name })}
          error={fault('name')}
          placeholder={t`Ground floor`}
        />
        <TextInput
          label={t`Address`}
          value={values.uri}
          onChange={(uri) => set({ uri })}
          error={fault('uri')}
          placeholder={t`ipp://printer.example.org/ipp/print`}
          mono
        />
      </Fields>
      {test.data && <Notice tone="moss">{detailText(test.data.answer)}</Notice>}
      {(save.error ?? test.error) && <Notice tone="brick">{sentenceOf(save.error ?? test.error)}</Notice>}
      <Row>
        <Button onPress={() => test.mutate()} isDisabled={!/^ipps?:\/\/\S+$/.test(values.uri) || test.isPending}>
          {test.isPending ? t`Asking the printer …` : t`Ask the printer`}
        </Button>
        <Button type="submit" look="go" isDisabled={save.isPending}>
          {changing ? t`Save` : t`Add the printer`}
        </Button>
        {changing && <Button look="bare" onPress={() => begin(null)}>{t`Cancel`}</Button>}
      </Row>
    </FormCard>
  );
}
