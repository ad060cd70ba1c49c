import { t } from '@mailbag/core/words';
import type { PaperPlan } from '@mailbag/contract';
import { guessPaper } from '@mailbag/core';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { PatternInput } from '../../features/mailing/pattern-input';
import { Choice } from '../../ui/choice';
import { Fields } from '../../ui/columns';
import { TextInput } from '../../ui/field';
import { Small, Stack } from '../../ui/layout';

/** How copies on paper are addressed, and who asks for paper. */
export function PaperSettings({ work }: { work: MailingWork }) {
  const { plan, change, columns } = work;
  const paper = plan.paper ?? guessPaper(plan.message.recipient, columns);
  const set = (part: Partial<PaperPlan>): void =>
    change((one) => ({ ...one, paper: { ...(one.paper ?? guessPaper(one.message.recipient, columns)), ...part } }));
  const wants = columns.find(({ name }) => name === paper.wantsColumn);
  return (
    <Stack $gap={14}>
      <h2>{t`Paper`}</h2>
      <Small>{t`Recipients who have no e-mail address, whose mail bounced, or who ask for paper are gathered into a print run, with a sheet for the window of an envelope.`}</Small>
      <PatternInput label={t`Name`} value={paper.name} columns={columns} onChange={(name) => set({ name })} />
      <PatternInput label={t`Street`} value={paper.street} columns={columns} onChange={(street) => set({ street })} />
      <Fields $columns="1fr 2fr">
        <PatternInput label={t`Postal code`} value={paper.postalCode} columns={columns} onChange={(postalCode) => set({ postalCode })} />
        <PatternInput label={t`Town`} value={paper.town} columns={columns} onChange={(town) => set({ town })} />
      </Fields>
      <Fields>
        <PatternInput
          label={t`Region`}
          value={paper.region}
          columns={columns}
          onChange={(region) => set({ region })}
          help={t`Only where the country’s addresses have one.`}
        />
        <PatternInput
          label={t`Country`}
          value={paper.country}
          columns={columns}
          onChange={(country) => set({ country })}
          help={t`Empty: the office’s own.`}
        />
      </Fields>
      <h2>{t`Who asks for paper`}</h2>
      <Fields>
        <Choice
          label={t`It stands in`}
          items={[
            { id: '', text: t`no column` },
            ...columns.map(({ name, examples }) => ({ id: name, text: name, detail: examples.slice(0, 2).join(' · ') })),
          ]}
          value={paper.wantsColumn ?? ''}
          onChange={(name) => set({ wantsColumn: name || null })}
        />
        {paper.wantsColumn && (
          <TextInput
            label={t`Values that say so`}
            value={paper.wantsValues.join(', ')}
            onChange={(text) => set({ wantsValues: text.split(',').map((one) => one.trimStart()) })}
            placeholder={t`paper, post`}
            help={wants ? t`The column holds ${wants.examples.slice(0, 3).join(', ')} …` : undefined}
          />
        )}
      </Fields>
    </Stack>
  );
}
