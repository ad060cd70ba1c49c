import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { TrialAnswer } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, FileText, KeyRound, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Bar, Pane, Scroll, Small } from '../../ui/layout';
import { FileButton } from '../../ui/link-button';
import { Mark, Notice } from '../../ui/mark';
import { kilobytes, when } from '../when';

const Copy = styled.a`
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 5px 12px;
  color: inherit;
  text-decoration: none;
  overflow-wrap: anywhere;
  &:hover {
    background: ${color.paper};
  }
  & > span:nth-child(2) {
    flex: 1;
    text-decoration: underline;
    text-decoration-color: ${color.line};
  }
`;

/** The trial of a mailing that this account has, and what can be done with it. */
export function useTrial(mailingId: number) {
  const client = useQueryClient();
  const query = queries.trial(mailingId);
  const { data } = useQuery(query);
  const put = (trial: TrialAnswer | null): void => void client.setQueryData(query.queryKey, { trial });
  const address = `/api/mailings/${mailingId}/trial`;
  return {
    trial: data?.trial ?? null,
    put,
    make: useMutation({
      mutationFn: (wish: { indexes: readonly number[]; mailed: boolean }) => api.post<TrialAnswer>(address, wish),
      onSuccess: put,
    }),
    throwAway: useMutation({ mutationFn: () => api.remove(address), onSuccess: () => put(null) }),
  };
}
export type Trial = ReturnType<typeof useTrial>;

/** What a trial made: each copy opens beside, and all goes with one click. */
export function TrialPane({
  mailingId,
  trial: { trial, throwAway },
  nameOf,
}: {
  mailingId: number;
  trial: Trial;
  /** What a record is called. */
  nameOf: (index: number) => string;
}) {
  if (!trial) return null;
  const address = `/api/mailings/${mailingId}/trial`;
  return (
    <Pane aria-label={t`Trial run`}>
      <Bar>
        <b>{t`Trial run`}</b>
        <Small>{when(trial.at)}</Small>
        <div className="fill" />
        <Button changes small isDisabled={throwAway.isPending} onPress={() => throwAway.mutate()}>
          <Trash2 size={13} />
          {t`Discard`}
        </Button>
      </Bar>
      <Scroll>
        {throwAway.error && <Notice tone="brick">{sentenceOf(throwAway.error)}</Notice>}
        <div style={{ padding: '8px 12px', display: 'grid', gap: 6 }}>
          <Small role="status">
            {t`${plural(trial.copies.length, 'copy', 'copies')} of ${plural(trial.indexes.length, 'record')}, not in the ledger.`}
            {trial.mail && t` ${plural(trial.mail.sent, 'message')} went to ${trial.mail.address}.`}
          </Small>
          {trial.faults.map(({ index, why }) => (
            <Notice key={`${index} ${why}`} tone="brick">
              {nameOf(index)}: {why}
            </Notice>
          ))}
          {trial.copies.length > 0 && (
            <FileButton $small href={`${address}/copies.zip`} download>{phrase`${(<Download size={13} />)} All as one zip`}</FileButton>
          )}
        </div>
        {trial.indexes.map((index) => (
          <section key={index} aria-label={nameOf(index)} style={{ paddingBottom: 6 }}>
            <div style={{ padding: '4px 12px' }}>
              <Small>{nameOf(index)}</Small>
            </div>
            {trial.copies
              .filter((copy) => copy.index === index)
              .map(({ number, file, template, size, openPassword }) => (
                <Copy key={number} href={`${address}/copies/${number}`} target="_blank" rel="noreferrer" title={template}>
                  <FileText size={13} />
                  <span>{file}</span>
                  {openPassword && (
                    <Mark $tone="plum">
                      <KeyRound />
                      {openPassword}
                    </Mark>
                  )}
                  <Small>{kilobytes(size)}</Small>
                </Copy>
              ))}
          </section>
        ))}
      </Scroll>
    </Pane>
  );
}
