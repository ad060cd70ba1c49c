import type { IntakePlan } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { TextInput } from '../../ui/field';
import { Row, Scroll, Small, Stack } from '../../ui/layout';
import { LinkButton } from '../../ui/link-button';
import { Notice } from '../../ui/mark';
import { PickOne } from '../../ui/pick-one';
import type { IntakeWork } from './intake-work';

const Settings = styled(Stack)`
  padding: 4px 16px 20px;
  max-width: 620px;
`;

/** What happens once somebody has answered. */
export function AfterPart({ work }: { work: IntakeWork }) {
  const { document: plan, change, intake } = work;
  const { data: mailing } = useQuery(queries.mailing(intake.mailingId));
  const set = (next: Partial<IntakePlan['after']>): void => change((before) => ({ ...before, after: { ...before.after, ...next } }));
  return (
    <Scroll>
      <Settings $gap={16}>
        <PickOne
          label="Copies"
          items={[
            {
              id: 'once',
              text: 'are made at once',
              detail: 'The visitor downloads them a moment after submitting. What the checks stop waits for you.',
            },
            {
              id: 'gathered',
              text: 'are made when you start a batch',
              detail: 'Answers gather as records; the visitor is told that they were received.',
            },
          ]}
          value={plan.after.atOnce ? 'once' : 'gathered'}
          onChange={(id) => set({ atOnce: id === 'once' })}
        />
        <TextInput
          label="What the visitor reads at the end, below “Thank you” and their number"
          rows={3}
          value={plan.after.thanks}
          placeholder="We answer within two weeks."
          onChange={(thanks) => set({ thanks })}
        />
        {mailing &&
          (mailing.plan.message.mailed ? (
            <Notice tone="moss">
              Each visitor is mailed their copies: “{mailing.plan.message.subject}”, to the answer to{' '}
              {mailing.plan.message.addressColumn ?? 'no question yet'}.
            </Notice>
          ) : (
            <Notice tone="slate">
              Copies are not mailed. Switch it on under “Output and message”, once a sender is confirmed in the settings.
            </Notice>
          ))}
        <Stack $gap={6}>
          <Small>Copies of answers are made by a mailing of their own, with its map, checks, output and message.</Small>
          <Row>
            <LinkButton to={`/mailings/${intake.mailingId}/output`}>Output and message</LinkButton>
            <LinkButton to={`/mailings/${intake.mailingId}/checks`}>Checks</LinkButton>
            <LinkButton to={`/mailings/${intake.mailingId}/map`}>Map</LinkButton>
          </Row>
        </Stack>
      </Settings>
    </Scroll>
  );
}
