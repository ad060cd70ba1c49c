import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { MailingPlan } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { BellRing } from 'lucide-react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PatternInput } from '../../features/mailing/pattern-input';
import { Button } from '../../ui/button';
import { Fields } from '../../ui/columns';
import { Confirm } from '../../ui/confirm';
import { Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { NumberInput } from '../../ui/special-input';

type Reminder = NonNullable<MailingPlan['message']['reminder']>;
const fresh = (plan: MailingPlan): Reminder => ({
  subject: t`Reminder: ${plan.message.subject}`,
  body: t`Dear ${plan.message.recipient},\n\nwe have not had your copy back yet. Please send it as soon as you can. If it is on its way already, do nothing.`,
  afterDays: 14,
  maximum: 2,
  bySchedule: false,
  attach: true,
});

/** What those get whose copy has not come back. */
export function ReminderSettings({ work }: { work: MailingWork }) {
  const { mailing, plan, change, columns, settle } = work;
  const client = useQueryClient();
  const { data } = useQuery(queries.reminders(mailing.id));
  const reminder = plan.message.reminder ?? null;
  const set = (part: Partial<Reminder>): void =>
    change((one) => ({ ...one, message: { ...one.message, reminder: { ...(one.message.reminder ?? fresh(one)), ...part } } }));
  const remind = useMutation({
    mutationFn: async (all: boolean) => {
      await settle();
      return api.post<{ reminded: number }>(`/api/mailings/${mailing.id}/remind`, { all });
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['copies'] }),
  });
  return (
    <Stack $gap={14}>
      <Row>
        <h2 style={{ flex: 1 }}>{t`Reminders`}</h2>
        {data && (
          <Small>{phrase`${(<Link to={`/ledger?mailing=${mailing.id}&state=sent`}>{t`${plural(data.out, 'recipient')} not back`}</Link>)} · ${data.reminded} reminded`}</Small>
        )}
      </Row>
      {!reminder ? (
        <Stack>
          <Small>{t`Those whose copy has not come back can be reminded, once or by a schedule. Who has answered is never reminded.`}</Small>
          <Row>
            <Button changes look="go" onPress={() => set({})}>{t`Write a reminder`}</Button>
          </Row>
        </Stack>
      ) : (
        <>
          <PatternInput
            label={t`Subject of the reminder`}
            value={reminder.subject}
            columns={columns}
            onChange={(subject) => set({ subject })}
          />
          <PatternInput
            label={t`Text of the reminder`}
            rows={8}
            value={reminder.body}
            columns={columns}
            onChange={(body) => set({ body })}
          />
          <Toggled label={t`Attach the copies again`} value={reminder.attach} onChange={(attach) => set({ attach })} />
          <Fields $columns="110px 110px 1fr">
            <NumberInput
              label={t`After days`}
              value={reminder.afterDays}
              onChange={(afterDays) => set({ afterDays })}
              minimum={1}
              maximum={365}
            />
            <NumberInput
              label={t`At most`}
              value={reminder.maximum}
              onChange={(limit) => set({ maximum: limit })}
              minimum={1}
              maximum={10}
            />
            <div style={{ paddingTop: 20 }}>
              <Toggled label={t`Automatic`} value={reminder.bySchedule} onChange={(bySchedule) => set({ bySchedule })} />
            </div>
          </Fields>
          <Small>
            {reminder.bySchedule
              ? t`${plural(reminder.maximum, 'reminder at most goes out by itself', 'reminders at most go out by themselves')}, ${plural(reminder.afterDays, 'day')} after sending and as far apart.`
              : t`Nothing is sent automatically. The buttons below remind once.`}
          </Small>
          <Row>
            <Button changes look="go" isDisabled={!data?.due || remind.isPending} onPress={() => remind.mutate(false)}>
              <BellRing size={15} />
              {t`Remind ${plural(data?.due ?? 0, 'recipient')} who are due`}
            </Button>
            {data && data.out > data.due && (
              <Confirm
                look="go"
                title={t`Remind all ${data.out} whose copy is out?`}
                text={t`Those who are not due yet are reminded too.`}
                yes={t`Remind ${data.out}`}
                onYes={() => remind.mutate(true)}
              >
                <Button changes isDisabled={remind.isPending}>{t`Remind all ${data.out}`}</Button>
              </Confirm>
            )}
          </Row>
        </>
      )}
      {remind.data && <Notice tone="moss">{t`${plural(remind.data.reminded, 'reminder is', 'reminders are')} on the way.`}</Notice>}
      {remind.error && <Notice tone="brick">{sentenceOf(remind.error)}</Notice>}
    </Stack>
  );
}
