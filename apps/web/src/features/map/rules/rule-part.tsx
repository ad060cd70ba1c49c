import { t } from '@mailbag/core/words';
import type { FillRule, Field } from '@mailbag/core';
import { beginRule, makesValue, ruleForColumn, ruleTitle, rulesFor } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { anyText } from './any-text';
import { ColumnChoice } from './column-choice';
import { LiveValue } from './live-value';
import { Inset, Lead, Line } from './parts';
import { useRuleSetting } from './rule-setting';

/** A rule that is a part of another. @param field the field that it fills; left out: its value is worked on */
export function RulePart({
  rule,
  place,
  field,
  onChange,
}: {
  rule: FillRule;
  /** Such as “Case 1, then”. */
  place: string;
  field?: Field;
  onChange: (rule: FillRule) => void;
}) {
  const { columns, Body } = useRuleSetting();
  const own = field ?? anyText;
  const kinds = rulesFor(own, field === undefined ? 'value' : 'part').map(({ kind, title, help }) => ({
    id: kind as string,
    text: title,
    detail: help,
  }));
  if (!kinds.some(({ id }) => id === rule.kind)) kinds.unshift({ id: rule.kind, text: ruleTitle(rule.kind), detail: '' });
  const isSimple = rule.kind === 'column' || rule.kind === 'text' || rule.kind === 'blank' || rule.kind === 'copy-fact';
  const body = <Body rule={rule} field={own} place={`${place}: `} onChange={onChange} />;
  return (
    <div role="group" aria-label={place} style={{ minWidth: 0 }}>
      <Line>
        <Choice
          label={t`${place}: kind of rule`}
          hideLabel
          small
          items={kinds}
          value={rule.kind}
          onChange={(kind) => onChange(beginRule(kind as FillRule['kind'], own, columns, rule))}
        />
        {rule.kind === 'translate' && (
          <ColumnChoice label={t`${place}: column`} value={rule.column} onChange={(column) => onChange(ruleForColumn(own, column))} />
        )}
        {isSimple && body}
        {rule.kind !== 'blank' && makesValue(rule) && <LiveValue rule={rule} />}
      </Line>
      {!isSimple && <Inset style={{ marginTop: 6 }}>{body}</Inset>}
    </div>
  );
}

/** The value that a rule works on, in a line of its own. */
export function PartLine({
  lead,
  place,
  rule,
  onChange,
}: {
  lead: string;
  place: string;
  rule: FillRule;
  onChange: (rule: FillRule) => void;
}) {
  return (
    <Line>
      <Lead>{lead}</Lead>
      <RulePart place={`${place}${lead}`} rule={rule} onChange={onChange} />
    </Line>
  );
}
