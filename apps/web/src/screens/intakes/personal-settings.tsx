import { t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { IntakePlan, PersonalPlan } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { queries } from '../../api/queries';
import { fromLocalTime, localTime } from '../../features/local-time';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { PickOne } from '../../ui/pick-one';
import type { IntakeWork } from './intake-work';

/** What recipients of a mailing reach by links of their own: until when, what they must know, and who takes over what they correct. */
export function PersonalSettings({ work, personal }: { work: IntakeWork; personal: PersonalPlan }) {
  const { change } = work;
  const { data: mailing } = useQuery(queries.mailing(personal.mailingId));
  const set = (next: Partial<PersonalPlan>): void =>
    change((before: IntakePlan) => ({ ...before, personal: before.personal ? { ...before.personal, ...next } : null }));
  const columns = mailing?.source?.columns ?? [];
  return (
    <Stack $gap={10}>
      <h2>{t`Personal links`}</h2>
      <Small>{phrase`Each recipient of ${(<Link to={`/mailings/${personal.mailingId}/output`}>{mailing?.plan.name ?? t`the mailing`}</Link>)} has a link of their own, to this page with what the records say filled in. Put {{ link }} into its message, or let the symbol on its paper hold the link.`}</Small>
      <TextInput
        label={t`Where recipients reach Mailbag`}
        mono
        value={personal.site}
        onChange={(site) => set({ site: site.trim() })}
        help={t`Links begin with it, so it must be an address that recipients can open.`}
      />
      <Row $gap={12} style={{ alignItems: 'start' }}>
        <TextInput
          label={t`Links end`}
          type="datetime-local"
          value={localTime(personal.until)}
          onChange={(text) => set({ until: fromLocalTime(text) })}
        />
        <Choice
          label={t`Asked before anything is shown`}
          items={[
            { id: '', text: t`nothing`, detail: t`whoever has the link sees what the office knows` },
            ...columns.map(({ name }) => ({ id: name, text: name })),
          ]}
          value={personal.ask}
          onChange={(ask) => set({ ask })}
        />
      </Row>
      <PickOne
        label={t`What recipients correct`}
        items={[
          { id: 'person', text: t`waits until you have looked at it`, detail: t`Old and new value stand beside each other under Answers.` },
          { id: 'mailbag', text: t`is taken over at once`, detail: t`As corrections of the source, which can be taken back.` },
        ]}
        value={personal.accept}
        onChange={(accept) => set({ accept })}
      />
      <Row>
        <Button changes onPress={() => set({ round: personal.round + 1 })}>{t`Make all earlier links invalid`}</Button>
        <Small>{t`Takes effect when the page is published again.`}</Small>
      </Row>
    </Stack>
  );
}
