import { counted, t } from '@mailbag/core/words';
import type { TemplateUploadAnswer } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import { Fragment, useState } from 'react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PacketCondition } from '../../features/map/packet-condition';
import { PacketCount } from '../../features/map/packet-count';
import { PdfPages } from '../../features/page/pdf-pages';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { DropFiles } from '../../ui/drop';
import { Bar, Empty, Pane, Scroll, Small, Stack } from '../../ui/layout';
import { Split } from '../../ui/split';
import { Notice } from '../../ui/mark';

const Item = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 8px 12px;
  border-bottom: 1px solid ${color.hair};
  cursor: pointer;
  &[data-chosen] {
    background: ${color.plumWash};
  }
  & > div {
    flex: 1;
    min-width: 0;
  }
  & b {
    display: block;
    font-weight: 600;
  }
`;

/** What is said of templates, with or without that of one of them. */
function withEntry<Entry>(entries: Record<string, Entry> | undefined, id: number, one: Entry | null): Record<string, Entry> {
  const { [id]: _before, ...rest } = entries ?? {};
  return one ? { ...rest, [id]: one } : rest;
}

/** Which templates are filled from one record, and in which order. */
export default function PacketPart({ work }: { work: MailingWork }) {
  const { mailing, plan, change, settle, columns } = work;
  const { data: all } = useQuery(queries.templates());
  const client = useQueryClient();
  const [chosen, setChosen] = useState<number | null>(plan.packet[0] ?? null);
  const others = (all ?? []).filter(({ id, isArchived }) => !isArchived && !plan.packet.includes(id));
  const shown = mailing.templates.find(({ id }) => id === chosen) ?? mailing.templates[0];
  const { data: pdf } = useQuery({ ...queries.templatePdf(shown?.id ?? 0, shown?.revisionId ?? 0), enabled: shown !== undefined });

  const add = async (id: number): Promise<void> => {
    change((one) => (one.packet.includes(id) ? one : { ...one, packet: [...one.packet, id] }));
    setChosen(id);
    await settle();
  };
  const upload = useMutation({
    mutationFn: (file: File) => api.upload<TemplateUploadAnswer>('/api/templates', file, () => undefined),
    onSuccess: async ({ template }) => {
      await client.invalidateQueries({ queryKey: ['templates'], exact: true });
      await add(template.id);
    },
  });
  const move = (at: number, by: number): void =>
    change((one) => {
      const packet = [...one.packet];
      [packet[at], packet[at + by]] = [packet[at + by]!, packet[at]!];
      return { ...one, packet };
    });
  const nameOf = (id: number): string =>
    all?.find((one) => one.id === id)?.name ?? mailing.templates.find((one) => one.id === id)?.name ?? '…';

  return (
    <Split $columns="420px minmax(0, 1fr)">
      <Pane aria-label={t`In the packet`}>
        <Bar>
          <b>{t`In the packet`}</b>
          <Small>{t`filled in this order from each record`}</Small>
        </Bar>
        <Scroll>
          {plan.packet.length === 0 && <Empty title={t`An empty packet`}>{t`Add the templates that each recipient gets, below.`}</Empty>}
          {plan.packet.map((id, at) => (
            <Fragment key={id}>
              <Item data-chosen={id === shown?.id || undefined} onClick={() => setChosen(id)}>
                <div>
                  <b>{nameOf(id)}</b>
                  <Small>
                    {counted(all?.find((one) => one.id === id)?.pages ?? 0, 'page')} ·{' '}
                    {counted(all?.find((one) => one.id === id)?.fields ?? 0, 'field')}
                  </Small>
                </div>
                <IconButton label={t`Move ${nameOf(id)} up`} isDisabled={at === 0} onPress={() => move(at, -1)}>
                  <ArrowUp size={15} />
                </IconButton>
                <IconButton label={t`Move ${nameOf(id)} down`} isDisabled={at === plan.packet.length - 1} onPress={() => move(at, 1)}>
                  <ArrowDown size={15} />
                </IconButton>
                <IconButton
                  label={t`Remove ${nameOf(id)} from the packet`}
                  onPress={() => change((one) => ({ ...one, packet: one.packet.filter((other) => other !== id) }))}
                >
                  <X size={15} />
                </IconButton>
              </Item>
              {columns.length > 0 && (
                <PacketCount
                  name={nameOf(id)}
                  count={plan.counts?.[id] ?? null}
                  work={work}
                  onChange={(count) => change((one) => ({ ...one, counts: withEntry(one.counts, id, count) }))}
                />
              )}
              {columns.length > 0 && (
                <PacketCondition
                  name={nameOf(id)}
                  condition={plan.conditions?.[id] ?? null}
                  work={work}
                  onChange={(condition) => change((one) => ({ ...one, conditions: withEntry(one.conditions, id, condition) }))}
                />
              )}
            </Fragment>
          ))}
          {others.length > 0 && (
            <>
              <Bar style={{ borderTop: `1px solid ${color.line}` }}>
                <b>{t`Other templates`}</b>
              </Bar>
              {others.map((one) => (
                <Item key={one.id}>
                  <div>
                    <b>{one.name}</b>
                    <Small>
                      {counted(one.pages, 'page')} · {counted(one.fields, 'field')}
                    </Small>
                  </div>
                  <Button changes small onPress={() => void add(one.id)} aria-label={t`Add ${one.name}`}>
                    <Plus size={14} />
                    {t`Add`}
                  </Button>
                </Item>
              ))}
            </>
          )}
          <Stack style={{ padding: 12 }}>
            <DropFiles
              accept={['application/pdf', '.pdf']}
              label={t`Upload a template`}
              onFiles={([file]) => file && upload.mutate(file)}
            >{t`Or drop a fillable PDF here`}</DropFiles>
            {upload.isPending && <Notice tone="plain">{t`The template is being read …`}</Notice>}
            {upload.error && <Notice tone="brick">{sentenceOf(upload.error)}</Notice>}
          </Stack>
        </Scroll>
      </Pane>
      <Pane aria-label={t`The template`}>
        {shown ? (
          <PdfPages
            bytes={pdf ?? null}
            pages={shown.pageSizes}
            fields={shown.fieldList}
            chosen={null}
            onChoose={() => undefined}
            named
            zoom={0.8}
          />
        ) : (
          <Empty title={t`The page is the truth`}>{t`The pages of the chosen template stand here.`}</Empty>
        )}
      </Pane>
    </Split>
  );
}
