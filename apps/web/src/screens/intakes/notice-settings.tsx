import { t } from '@mailbag/core/words';
import type { Column, IntakePlan, OfficeNotice } from '@mailbag/core';
import { addressesIn } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { queries } from '../../api/queries';
import { PatternInput } from '../../features/mailing/pattern-input';
import { attachWays } from '../../features/message/attach-ways';
import { RichEditor } from '../../features/message/loaded-editor';
import { Choice } from '../../ui/choice';
import { TextInput, Toggled } from '../../ui/field';
import { Stack } from '../../ui/layout';

interface Props {
  plan: IntakePlan;
  columns: readonly Column[];
  onChange: (notice: OfficeNotice | null) => void;
}

/** What the office is mailed of each answer. */
export function NoticeSettings({ plan, columns, onChange }: Props) {
  const { data: account } = useQuery(queries.account());
  const notice = plan.after.notice ?? null;
  const fault = notice === null ? null : notice.to.trim() === '' ? t`Say who gets it.` : addressesIn(notice.to, true).fault;
  const set = (next: Partial<OfficeNotice>): void => onChange({ ...notice!, ...next });
  return (
    <Stack $gap={12} role="group" aria-label={t`Notice to the office`}>
      <Toggled
        label={t`Tell the office of each answer by mail`}
        value={notice !== null}
        onChange={(isWanted) =>
          onChange(
            isWanted
              ? {
                  to: account?.account?.email ?? '',
                  subject: t`New answer: ${plan.name}`,
                  body: t`<p>Somebody has answered.</p>`,
                  attach: 'files',
                }
              : null,
          )
        }
      />
      {notice && (
        <>
          <TextInput
            label={t`To`}
            value={notice.to}
            error={fault}
            help={t`One address or several, with commas between them.`}
            onChange={(to) => set({ to })}
          />
          <PatternInput
            label={t`Subject of the notice`}
            value={notice.subject}
            columns={columns}
            onChange={(subject) => set({ subject })}
          />
          <RichEditor
            label={t`Text of the notice`}
            value={notice.body}
            onChange={(body) => set({ body })}
            insertables={columns.map(({ slug, name }) => ({ slug, text: name }))}
            help={t`Below it the answers stand as a table.`}
          />
          <Choice
            label={t`Copies in the notice`}
            items={[{ id: 'none', text: t`none`, detail: t`they are in Mailbag` }, ...attachWays]}
            value={notice.attach}
            onChange={(attach) => set({ attach: attach as OfficeNotice['attach'] })}
          />
        </>
      )}
    </Stack>
  );
}
