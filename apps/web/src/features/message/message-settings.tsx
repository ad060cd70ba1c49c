import { t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { ExtraFile, MailingPlan } from '@mailbag/contract';
import { letterExtras, textToHtml } from '@mailbag/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { MailWarning, Paperclip, X } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import type { MailingWork } from '../mailing/mailing-context';
import { PatternInput, extraWords } from '../mailing/pattern-input';
import type { Sample } from '../mailing/sample';
import { kilobytes } from '../when';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fields } from '../../ui/columns';
import { TextInput, Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { fromLocalTime, localTime } from '../local-time';
import { Mark, Notice } from '../../ui/mark';
import { attachWays } from './attach-ways';
import { RichEditor } from './loaded-editor';

/** Who gets what, from whom and when. */
export function MessageSettings({ work, sample }: { work: MailingWork; sample: Sample }) {
  const { plan, change, columns } = work;
  const { message } = plan;
  const { data: servers } = useQuery(queries.mailServers());
  const { data: senders } = useQuery(queries.senders());
  const set = (part: Partial<MailingPlan['message']>): void => change((one) => ({ ...one, message: { ...one.message, ...part } }));
  const confirmed = senders?.filter((one) => one.confirmed) ?? [];
  const insertables = [
    ...columns.map(({ slug, name }) => ({ slug, text: name })),
    ...letterExtras
      .filter((slug) => slug !== 'link' || work.mailing.next.link !== undefined)
      .map((slug) => ({ slug: slug as string, text: extraWords[slug] })),
  ];
  const extra = message.extraFiles ?? [];
  const attach = useMutation({
    mutationFn: (file: File) => api.upload<ExtraFile>('/api/mailings/extra-files', file, () => undefined),
    onSuccess: (file) => set({ extraFiles: [...extra.filter(({ fileId }) => fileId !== file.fileId), file] }),
  });
  return (
    <Stack $gap={14}>
      <Row>
        <h2 style={{ flex: 1 }}>{t`Message`}</h2>
        <Toggled label={t`Mail the copies`} value={message.mailed} onChange={(mailed) => set({ mailed })} />
      </Row>
      {message.mailed && servers?.length === 0 && (
        <Notice
          tone="ochre"
          icon={<MailWarning size={16} />}
        >{phrase`No mail server is set up yet. ${(<Link to="/settings/mail">{t`Enter it in Settings.`}</Link>)}`}</Notice>
      )}
      {message.mailed && servers && servers.length > 0 && senders && confirmed.length === 0 && (
        <Notice
          tone="ochre"
          icon={<MailWarning size={16} />}
        >{phrase`No sender is confirmed yet. ${(<Link to="/settings/mail">{t`Confirm one in Settings.`}</Link>)}`}</Notice>
      )}
      <Fields>
        {message.mailed && (
          <Choice
            label={t`Addresses are in`}
            items={columns.map((column) => ({ id: column.name, text: column.name, detail: column.examples.slice(0, 2).join(' · ') }))}
            value={message.addressColumn ?? null}
            placeholder={t`Choose a column`}
            onChange={(addressColumn) => set({ addressColumn })}
          />
        )}
        <PatternInput
          label={t`Name of the recipient`}
          value={message.recipient}
          columns={columns}
          onChange={(recipient) => set({ recipient })}
          error={sample.recipientError}
        />
      </Fields>
      {message.mailed && (
        <>
          <Fields>
            <Choice
              label={t`From`}
              items={confirmed.map(({ id, name, address }) => ({ id: String(id), text: name, detail: address }))}
              value={String(confirmed.find(({ id }) => id === message.senderId)?.id ?? confirmed[0]?.id ?? '')}
              placeholder={t`No sender is confirmed`}
              onChange={(id) => set({ senderId: Number(id) })}
            />
            <div style={{ paddingTop: 20 }}>
              <Toggled
                label={t`A cell may hold several addresses`}
                value={message.several ?? false}
                onChange={(several) => set({ several })}
              />
            </div>
          </Fields>
          <PatternInput
            label={t`Subject`}
            value={message.subject}
            columns={columns}
            extras={letterExtras}
            onChange={(subject) => set({ subject })}
          />
          <RichEditor
            label={t`Text`}
            value={message.bodyFormat === 'html' ? message.body : textToHtml(message.body)}
            onChange={(body) => set({ body, bodyFormat: 'html' })}
            insertables={insertables}
            error={sample.messageError}
            help={t`Type {{ and the columns are offered. A plain text part is made from it.`}
          />
          <Choice
            label={t`Attach the copies as`}
            items={attachWays}
            value={message.attach ?? 'files'}
            onChange={(next) => set({ attach: next as 'files' | 'combined' | 'zip' })}
          />
          <Stack $gap={6}>
            <Row style={{ flexWrap: 'wrap' }}>
              <FileTrigger onSelect={(files) => files?.[0] && attach.mutate(files[0])}>
                <Button changes small isDisabled={attach.isPending || extra.length >= 10}>
                  <Paperclip size={14} />
                  {attach.isPending ? t`Attaching …` : t`Attach a file to every message`}
                </Button>
              </FileTrigger>
              {extra.map((file) => (
                <Mark key={file.fileId} $tone="slate">
                  {file.name} · {kilobytes(file.size)}
                  <IconButton
                    small
                    label={t`Remove ${file.name}`}
                    onPress={() => set({ extraFiles: extra.filter(({ fileId }) => fileId !== file.fileId) })}
                  >
                    <X size={12} />
                  </IconButton>
                </Mark>
              ))}
            </Row>
            {attach.error && <Notice tone="brick">{sentenceOf(attach.error)}</Notice>}
          </Stack>
          <details open={Boolean(message.copyTo || message.blindCopyTo || message.startAt)}>
            <summary style={{ cursor: 'pointer' }}>{t`Copies to others, and when`}</summary>
            <Stack style={{ marginTop: 10 }}>
              <Fields>
                <PatternInput
                  label={t`Copy to`}
                  value={message.copyTo ?? ''}
                  columns={columns}
                  onChange={(copyTo) => set({ copyTo })}
                  help={t`An address, or a column that holds some.`}
                />
                <PatternInput
                  label={t`Blind copy to`}
                  value={message.blindCopyTo ?? ''}
                  columns={columns}
                  onChange={(blindCopyTo) => set({ blindCopyTo })}
                  help={t`Nobody else sees it.`}
                />
              </Fields>
              <Row $gap={12} style={{ alignItems: 'flex-end' }}>
                <div style={{ width: 220 }}>
                  <TextInput
                    label={t`Do not send before`}
                    type="datetime-local"
                    value={localTime(message.startAt ?? null)}
                    onChange={(text) => set({ startAt: fromLocalTime(text) })}
                  />
                </div>
                {message.startAt && (
                  <Button small look="bare" onPress={() => set({ startAt: null })}>{t`As soon as the copies are made`}</Button>
                )}
              </Row>
              {!message.startAt && <Small>{t`Left empty: as soon as the copies are made, within the hours of the mail server.`}</Small>}
            </Stack>
          </details>
        </>
      )}
    </Stack>
  );
}
