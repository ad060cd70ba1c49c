import { t } from '@mailbag/core/words';
import { useRecord } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { sampleOf } from '../../features/mailing/sample';
import { RecordBar } from '../../features/map/record-bar';
import { MessageSettings } from '../../features/message/message-settings';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Bar, Pane, Scroll, Stack } from '../../ui/layout';
import { Split } from '../../ui/split';
import { FilledSample } from './filled-sample';
import { MessageSampleView } from './message-sample-view';
import { OutputSettings, PathSample } from './output-settings';
import { PaperSettings } from './paper-settings';
import { ReminderSettings } from './reminder-settings';
import { useAddress } from '../../ui/use-address';

const parts = { message: t`Message`, output: t`Output`, paper: t`Paper`, reminders: t`Reminders` } as const;

/** Where copies are kept, what recipients get, on paper too; beside it what it gives for the chosen record. */
export default function OutputPart({ work }: { work: MailingWork }) {
  const { mailing, plan, columns, index } = work;
  const { query, put } = useAddress();
  const part = (query.get('part') ?? 'message') as keyof typeof parts;
  const { record } = useRecord(plan.sourceId ?? null, index);
  const templates = plan.packet.flatMap((id) => mailing.templates.find((one) => one.id === id)?.name ?? []);
  const sample = sampleOf(plan, columns, record, index, templates, mailing.next);
  return (
    <Split $columns="minmax(0, 1.05fr) minmax(0, 1fr)">
      <Pane aria-label={t`Output and message`}>
        <Bar role="group" aria-label={t`Parts`}>
          {(Object.keys(parts) as (keyof typeof parts)[]).map((id) => (
            <Button key={id} small pressed={part === id} onPress={() => put({ part: id === 'message' ? null : id })}>
              {parts[id]}
            </Button>
          ))}
        </Bar>
        <Scroll style={{ padding: '14px 16px 20px' }}>
          {part === 'output' && <OutputSettings work={work} sample={sample} />}
          {part === 'message' && <MessageSettings work={work} sample={sample} />}
          {part === 'paper' && <PaperSettings work={work} />}
          {part === 'reminders' && <ReminderSettings work={work} />}
        </Scroll>
      </Pane>
      <Pane aria-label={t`For this record`} style={{ background: color.ground }}>
        <div style={{ background: color.sheet }}>
          <RecordBar work={work} />
        </div>
        <Scroll style={{ padding: 16 }}>
          <Stack $gap={16}>
            {part === 'output' && <PathSample sample={sample} />}
            {part === 'output' ? <FilledSample work={work} record={record} /> : <MessageSampleView work={work} />}
            {part !== 'output' && <PathSample sample={sample} />}
          </Stack>
        </Scroll>
      </Pane>
    </Split>
  );
}
