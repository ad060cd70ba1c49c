import { t } from '@mailbag/core/words';
import type { Condition } from '@mailbag/core';
import { SAMPLE_CODE, conditionSentence, fillContext, ruleSentence, rowReader, workOn } from '@mailbag/core';
import { useMemo } from 'react';
import { useRecord } from '../../api/queries';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import type { MailingWork } from '../mailing/mailing-context';
import { PacketFrame } from './packet-frame';
import { SentenceWords } from './rule-words';
import { ConditionEditor } from './rules/condition-editor';
import { Line } from './rules/parts';
import { RuleBody } from './rules/loaded-rule-body';
import { RuleSettingContext } from './rules/rule-setting';

/** Who gets a template of the packet: everybody, or the records for which a condition holds. */
export function PacketCondition({
  name,
  condition,
  work: { mailing, plan, columns, index },
  onChange,
}: {
  name: string;
  condition: Condition | null;
  work: MailingWork;
  onChange: (condition: Condition | null) => void;
}) {
  const { record } = useRecord(plan.sourceId ?? null, index);
  const setting = useMemo(() => {
    const work = record ? workOn(rowReader(columns)(record), fillContext(mailing.next, index, SAMPLE_CODE)) : null;
    return { columns, work, locale: mailing.next.locale, Body: RuleBody };
  }, [columns, record, mailing.next, index]);
  if (!condition)
    return (
      <PacketFrame style={{ paddingTop: 2, paddingBottom: 4 }}>
        <Line>
          <Small>{t`For every record.`}</Small>
          <Button
            changes
            small
            look="bare"
            aria-label={t`Only some records get ${name}`}
            onPress={() => onChange({ of: { kind: 'column', column: columns[0]!.name }, test: 'not-empty' })}
          >{t`Only some …`}</Button>
        </Line>
      </PacketFrame>
    );
  return (
    <PacketFrame role="group" aria-label={t`Who gets ${name}`}>
      <div>
        <Small>{t`Only records for which `}</Small>
        <SentenceWords parts={conditionSentence(condition, ruleSentence)} />
      </div>
      <RuleSettingContext.Provider value={setting}>
        <ConditionEditor condition={condition} place="" onChange={onChange} />
      </RuleSettingContext.Provider>
      <Line>
        <Button
          changes
          small
          look="bare"
          aria-label={t`Every record gets ${name}`}
          onPress={() => onChange(null)}
        >{t`Back to every record`}</Button>
      </Line>
    </PacketFrame>
  );
}
