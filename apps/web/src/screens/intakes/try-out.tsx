import { t } from '@mailbag/core/words';
import type { IntakeDetail, TrialAnswer } from '@mailbag/contract';
import type { IntakeAnswers } from '@mailbag/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { ArrowLeft, Mail } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { PdfPreview } from '../../features/copies/pdf-preview';
import { TrialPane, useTrial } from '../../features/trial/trial-pane';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Bar, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';

const Beside = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

/** A line as a hand draws it, as a picture. */
export function scribble(): string {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width: 480, height: 160 });
  const ink = canvas.getContext('2d');
  if (!ink) return '';
  Object.assign(ink, { lineWidth: 5, strokeStyle: color.ink, lineCap: 'round', lineJoin: 'round' });
  ink.beginPath();
  for (let at = 0; at <= 200; at++) ink.lineTo(40 + at * 2, 80 + Math.sin(at / 9) * 45 * Math.cos(at / 37));
  ink.stroke();
  return canvas.toDataURL('image/png');
}

interface Props {
  intake: IntakeDetail;
  answers: IntakeAnswers;
  /** Ends when all that was changed is saved. */
  settle: () => Promise<void>;
  onBack: () => void;
}

/** The copies of what stands on the page now, made as those of an answer would be, and mailed to nobody but oneself. */
export function TryOut({ intake, answers, settle, onBack }: Props) {
  const trial = useTrial(intake.mailingId);
  const { data: account } = useQuery(queries.account());
  const { data: mailing } = useQuery(queries.mailing(intake.mailingId));
  const [shown, setShown] = useState(0);
  const make = useMutation({
    mutationFn: async (mailed: boolean) => {
      await settle();
      return api.post<TrialAnswer>(`/api/intakes/${intake.id}/trial`, { answers, mailed });
    },
    onSuccess: (made) => {
      trial.put(made);
      setShown(0);
    },
  });
  const own = account?.account?.email ?? '';
  const copies = trial.trial?.copies ?? [];
  const copy = copies[shown];
  return (
    <>
      <Bar>
        <Button small onPress={onBack}>
          <ArrowLeft size={14} />
          {t`Back to the page`}
        </Button>
        <Button small changes look="go" isDisabled={make.isPending} onPress={() => make.mutate(false)}>
          {trial.trial ? t`Make them again` : t`Make the copies`}
        </Button>
        {mailing?.plan.message.mailed && (
          <Button small changes isDisabled={make.isPending} onPress={() => make.mutate(true)}>
            <Mail size={14} />
            {t`Make and mail to me`}
          </Button>
        )}
      </Bar>
      {make.error && <Notice tone="brick">{sentenceOf(make.error)}</Notice>}
      {make.isPending ? (
        <Loading what={t`the copies`} />
      ) : trial.trial ? (
        <Beside>
          <div>
            <TrialPane mailingId={intake.mailingId} trial={trial} nameOf={() => t`What stands on the page`} />
            {copies.length > 1 && (
              <Bar>
                <div style={{ width: 240 }}>
                  <Choice
                    label={t`Copy`}
                    hideLabel
                    small
                    items={copies.map(({ template }, at) => ({ id: String(at), text: template }))}
                    value={String(shown)}
                    onChange={(id) => setShown(Number(id))}
                  />
                </div>
              </Bar>
            )}
          </div>
          {copy ? (
            <PdfPreview
              key={`${trial.trial.at} ${copy.number}`}
              path={`/api/mailings/${intake.mailingId}/trial/copies/${copy.number}`}
              pages={null}
              name={copy.template}
            />
          ) : (
            <div />
          )}
        </Beside>
      ) : (
        <Small
          style={{ padding: 16 }}
        >{t`The copies are made of what stands on the page now, as they would be made of an answer. The ledger knows nothing of them, and nobody is mailed${mailing?.plan.message.mailed ? t` but you, at ${own}, if you wish` : ''}.`}</Small>
      )}
    </>
  );
}
