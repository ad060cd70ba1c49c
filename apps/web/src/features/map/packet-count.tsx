import { counted, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { CopyCount } from '@mailbag/core';
import { SAMPLE_CODE, fillContext, repeatedGroups } from '@mailbag/core';
import { useMemo } from 'react';
import { useRecord } from '../../api/queries';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Small } from '../../ui/layout';
import { NumberInput } from '../../ui/special-input';
import type { MailingWork } from '../mailing/mailing-context';
import { PacketFrame } from './packet-frame';
import { recordCopies } from './record-copies';
import { Line } from './rules/parts';

/** How many copies of a template a record gets: one, or one for so many of the things that its columns tell one after the other. */
export function PacketCount({
  name,
  count,
  work: { mailing, plan, columns, index },
  onChange,
}: {
  name: string;
  count: CopyCount | null;
  work: MailingWork;
  onChange: (count: CopyCount | null) => void;
}) {
  const groups = useMemo(() => repeatedGroups(columns), [columns]);
  const { record } = useRecord(plan.sourceId ?? null, index);
  if (!count) {
    const [first] = groups;
    if (!first) return null;
    return (
      <PacketFrame style={{ paddingTop: 2, paddingBottom: 0, border: 0 }}>
        <Line>
          <Small>{t`One copy.`}</Small>
          <Button
            changes
            small
            look="bare"
            aria-label={t`Several copies of ${name}`}
            tip={t`The records hold up to ${first.items.length} of these each: ${groups.map((group) => `“${group.name}”`).join(', ')}`}
            onPress={() => onChange({ items: first.items, perCopy: 1 })}
          >{t`One for each …`}</Button>
        </Line>
      </PacketFrame>
    );
  }
  const same = (items: readonly (readonly string[])[]): boolean => JSON.stringify(items) === JSON.stringify(count.items);
  const chosen = groups.findIndex(({ items }) => same(items));
  const here = record && recordCopies({ count }, record, columns, fillContext(mailing.next, index, SAMPLE_CODE)).length;
  return (
    <PacketFrame role="group" aria-label={t`Copies of ${name}`} style={{ border: 0, paddingBottom: 0 }}>
      <Line>
        <span>{t`A copy for every`}</span>
        <div style={{ width: 52 }}>
          <NumberInput
            label={t`Items in one copy of ${name}`}
            hideLabel
            value={count.perCopy}
            minimum={1}
            maximum={count.items.length}
            onChange={(perCopy) => onChange({ ...count, perCopy })}
          />
        </div>
        <span>{t`of`}</span>
        <Choice
          label={t`What is repeated in ${name}`}
          hideLabel
          small
          items={[
            ...groups.map((group, at) => ({
              id: String(at),
              text: group.name,
              detail: t`${group.parts.join(', ')} · ${group.items.length} times`,
            })),
            // What was chosen for other records.
            ...(chosen < 0 ? [{ id: '-1', text: count.items[0]!.filter(Boolean).join(', '), detail: t`not in these records` }] : []),
          ]}
          value={String(chosen)}
          onChange={(id) => groups[Number(id)] && onChange({ items: groups[Number(id)]!.items, perCopy: count.perCopy })}
        />
      </Line>
      <Small>{phrase`Map the columns of the first ${count.perCopy === 1 ? t`one` : count.perCopy}; further copies take the next. What is empty is passed over.${here !== null && t` The record you are on gets ${here === 0 ? t`none` : counted(here, 'copy', 'copies')}.`}`}</Small>
      <Line>
        <Button
          changes
          small
          look="bare"
          aria-label={t`One copy of ${name}`}
          onPress={() => onChange(null)}
        >{t`Back to one copy per record`}</Button>
      </Line>
    </PacketFrame>
  );
}
