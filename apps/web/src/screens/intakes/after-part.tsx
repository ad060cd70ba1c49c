import { t } from '@mailbag/core/words';
import type { IntakePlan } from '@mailbag/core';
import styled from 'styled-components';
import { useRecord } from '../../api/queries';
import { SavedState } from '../../features/editing/saved-state';
import { UndoButtons } from '../../features/editing/undo-buttons';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PasswordSettings } from '../../features/mailing/password-settings';
import { sampleOf } from '../../features/mailing/sample';
import { MessageSettings } from '../../features/message/message-settings';
import { TextInput } from '../../ui/field';
import { Bar, Pane, Row, Scroll, Small, Stack } from '../../ui/layout';
import { Split } from '../../ui/split';
import { LinkButton } from '../../ui/link-button';
import { PickOne } from '../../ui/pick-one';
import type { IntakeWork } from './intake-work';
import { NoticeSettings } from './notice-settings';
import { WithMailing } from './with-mailing';

const Settings = styled(Stack)`
  padding: 14px 16px 20px;
  max-width: 620px;
`;

/** What happens once somebody has answered: on the left what the visitor and the office are told, on the right the message with the copies. */
export function AfterPart({ work }: { work: IntakeWork }) {
  const { document: plan, change, intake } = work;
  const set = (next: Partial<IntakePlan['after']>): void => change((before) => ({ ...before, after: { ...before.after, ...next } }));
  return (
    <Split $columns="minmax(0, 1fr) minmax(0, 1fr)">
      <Pane aria-label={t`After submitting`}>
        <Scroll>
          <Settings $gap={16}>
            <PickOne
              label={t`Copies`}
              items={[
                {
                  id: 'once',
                  text: t`are made at once`,
                  detail: t`The visitor downloads them a moment after submitting. What the checks stop waits for you.`,
                },
                {
                  id: 'gathered',
                  text: t`are made when you start a batch`,
                  detail: t`Answers gather as records; the visitor is told that they were received.`,
                },
              ]}
              value={plan.after.atOnce ? 'once' : 'gathered'}
              onChange={(id) => set({ atOnce: id === 'once' })}
            />
            <TextInput
              label={t`What the visitor reads at the end, below “Thank you” and their number`}
              rows={3}
              value={plan.after.thanks}
              placeholder={t`We answer within two weeks.`}
              onChange={(thanks) => set({ thanks })}
            />
            <WithMailing id={intake.mailingId} part="answers">
              {({ columns }) => <NoticeSettings plan={plan} columns={columns} onChange={(notice) => set({ notice })} />}
            </WithMailing>
            <Stack $gap={6}>
              <Small>{t`Copies of answers are made by a mailing of their own. What else can be set there:`}</Small>
              <Row style={{ flexWrap: 'wrap' }}>
                <LinkButton to={`/mailings/${intake.mailingId}/output`}>{t`Names, finish and paper`}</LinkButton>
                <LinkButton to={`/mailings/${intake.mailingId}/checks`}>{t`Checks`}</LinkButton>
                <LinkButton to={`/mailings/${intake.mailingId}/map`}>{t`Map`}</LinkButton>
              </Row>
            </Stack>
          </Settings>
        </Scroll>
      </Pane>
      <Pane aria-label={t`Message to the visitor`}>
        <WithMailing id={intake.mailingId} part="answers">
          {(mailing) => <VisitorMessage work={mailing} />}
        </WithMailing>
      </Pane>
    </Split>
  );
}

/** The message that brings each visitor their copies, and how these are opened. */
function VisitorMessage({ work }: { work: MailingWork }) {
  const { mailing, plan, columns, index, undo, redo, saving } = work;
  const { record } = useRecord(plan.sourceId ?? null, index);
  const templates = plan.packet.flatMap((id) => mailing.templates.find((one) => one.id === id)?.name ?? []);
  return (
    <>
      <Bar>
        <Small>{t`To each visitor, as soon as the copies are made. Changes here take effect at once.`}</Small>
        <div className="fill" />
        <Small>
          <SavedState saving={saving} label={t`Message`} />
        </Small>
        <UndoButtons undo={undo} redo={redo} />
      </Bar>
      <Scroll style={{ padding: '14px 16px 20px' }}>
        <Stack $gap={16}>
          <MessageSettings work={work} sample={sampleOf(plan, columns, record, index, templates, mailing.next)} />
          <PasswordSettings work={work} />
        </Stack>
      </Scroll>
    </>
  );
}
