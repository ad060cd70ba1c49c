import { t } from '@mailbag/core/words';
import type { AskedBackAnswer, IntakeDetail, NoticeState, SubmissionLine } from '@mailbag/contract';
import { orderedQuestions } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { PdfPreview } from '../../features/copies/pdf-preview';
import { when } from '../../features/when';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Confirm } from '../../ui/confirm';
import { TextInput } from '../../ui/field';
import { Bar, Facts, Pane, Row, Scroll, Small, Stack } from '../../ui/layout';
import { FileButton, LinkButton } from '../../ui/link-button';
import { Notice } from '../../ui/mark';
import { AnswerChanges } from './answer-changes';

/** What became of the office's notice of an answer. */
const noticeWords: Record<Exclude<NoticeState, 'none'>, string> = {
  waiting: t`The office is told of it by mail soon.`,
  sending: t`The office is being told of it by mail.`,
  sent: t`The office was told of it by mail.`,
  failed: t`The office could not be told of it by mail.`,
  unknown: t`Whether the office’s notice of it arrived is not known: Mailbag stopped while it was being sent.`,
};

interface Props {
  intake: IntakeDetail;
  line: SubmissionLine;
  onRemoved: () => void;
}

/** One answer: what was answered, what it corrects, its copies, and what can be done with it. */
export function AnswerPane({ intake, line, onRemoved }: Props) {
  const [isCopy, setCopy] = useState(false);
  const client = useQueryClient();
  const path = `/api/intakes/${intake.id}/submissions/${line.id}`;
  const ask = useMutation({ mutationFn: () => api.post<AskedBackAnswer>(`${path}/ask-back`) });
  const remove = useMutation({
    mutationFn: () => api.remove(path),
    onSuccess: async () => {
      onRemoved();
      await client.invalidateQueries({ queryKey: ['intakes'] });
    },
  });
  const questions = orderedQuestions(intake.plan).filter(({ kind }) => kind !== 'signature' && kind !== 'image');
  const mail = questions.find(({ kind, isAway }) => kind === 'e-mail' && !isAway);
  return (
    <Pane aria-label={t`Answer ${line.number}`}>
      <Bar>
        <b className="mono">{line.number}</b>
        <Small>
          {when(line.receivedAt)} · {line.language}
        </Small>
        <div className="fill" />
        {line.copies > 0 ? (
          <Button small onPress={() => setCopy(!isCopy)}>
            {isCopy ? t`Answers` : t`Its copies`}
          </Button>
        ) : (
          <LinkButton $small to={`/mailings/${intake.mailingId}/checks`}>{t`Why no copies?`}</LinkButton>
        )}
        <Button changes small isDisabled={ask.isPending} onPress={() => ask.mutate()}>{t`Ask back`}</Button>
        <Confirm
          title={t`Delete the answer ${line.number}?`}
          text={t`It is gone for good, with its record and its pictures. Copies that were made of it stay in the ledger.`}
          yes={t`Delete it`}
          onYes={() => remove.mutate()}
        >
          <Button changes small look="danger">{t`Delete`}</Button>
        </Confirm>
      </Bar>
      {isCopy ? (
        <Copies intake={intake} line={line} />
      ) : (
        <Scroll style={{ padding: '10px 14px' }}>
          {[ask.error, remove.error].map(
            (error, at) =>
              error && (
                <Notice key={at} tone="brick">
                  {sentenceOf(error)}
                </Notice>
              ),
          )}
          {ask.data && <AskedBack answer={ask.data} address={mail ? (line.values[mail.column] ?? '') : ''} />}
          {line.mendedBy !== null && <Notice tone="slate">{t`The visitor corrected it: ${line.mendedBy} has replaced it.`}</Notice>}
          {line.notice !== 'none' && <Small>{noticeWords[line.notice]}</Small>}
          <AnswerChanges intakeId={intake.id} line={line} />
          <Facts $names="40%">
            {questions.map(({ id, words, column }) =>
              Object.hasOwn(line.values, column) ? (
                <div key={id} style={{ display: 'contents' }}>
                  <dt>{words}</dt>
                  <dd>{line.values[column] || <Small>{t`not answered`}</Small>}</dd>
                </div>
              ) : null,
            )}
          </Facts>
        </Scroll>
      )}
    </Pane>
  );
}

/** The link at which the visitor mends the answer, to be handed on. */
function AskedBack({ answer: { number, link, days }, address }: { answer: AskedBackAnswer; address: string }) {
  const mail = `mailto:${encodeURIComponent(address)}?subject=${encodeURIComponent(t`Your answer ${number}`)}&body=${encodeURIComponent(t`Please look at your answer again: ${link}`)}`;
  return (
    <Stack $gap={6} style={{ marginBottom: 14 }}>
      <TextInput
        label={t`Whoever has this link can correct the answer for ${days} days. Signatures and pictures are asked for again.`}
        mono
        value={link}
        onChange={() => undefined}
      />
      <Row>
        <Button small onPress={() => void navigator.clipboard.writeText(link)}>{t`Copy the link`}</Button>
        <FileButton $small href={mail}>{t`Write to ${address || t`the visitor`}`}</FileButton>
      </Row>
    </Stack>
  );
}

function Copies({ intake, line }: Pick<Props, 'intake' | 'line'>) {
  const { data = [], error } = useQuery(queries.submissionCopies(intake.id, line.id));
  const [chosen, setChosen] = useState('');
  const copy = data.find(({ id }) => String(id) === chosen) ?? data[0];
  if (error) return <Notice tone="brick">{sentenceOf(error)}</Notice>;
  return (
    <>
      {data.length > 1 && (
        <Bar>
          <Choice
            label={t`Copy`}
            items={data.map(({ id, template }) => ({ id: String(id), text: template }))}
            value={String(copy?.id ?? '')}
            onChange={setChosen}
          />
        </Bar>
      )}
      {copy && <PdfPreview path={`/api/copies/${copy.id}/pdf`} pages={copy.pages} name={copy.template} />}
    </>
  );
}
