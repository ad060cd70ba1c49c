import { t } from '@mailbag/core/words';
import type { Column, Field, FillRule, Work } from '@mailbag/core';
import { beginRule, ruleFacts, ruleForColumn, rulesFor } from '@mailbag/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { color } from '../../../theme';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Small } from '../../../ui/layout';
import { ColumnChoice } from './column-choice';
import { Line } from './parts';
import { RuleBody } from './loaded-rule-body';
import { RuleSettingContext } from './rule-setting';

const Frame = styled.div`
  background: ${color.plumWash};
  padding: 8px 12px 12px;
  display: flex;
  flex-direction: column;
  gap: 10px;
`;

/** The rule of one field, edited in place. @param work the record whose values stand beside the parts; null: there is none */
export function RuleEditor({
  field,
  rule,
  columns,
  work,
  locale,
  isSeveral = false,
  onChange,
}: {
  field: Field;
  rule: FillRule | undefined;
  columns: readonly Column[];
  work: Work | null;
  locale: string;
  /** The field stands for an answer over several boxes, each of which takes a piece. */
  isSeveral?: boolean;
  onChange: (rule: FillRule | undefined) => void;
}) {
  const setting = useMemo(() => ({ columns, work, locale, Body: RuleBody }), [columns, work, locale]);
  const kinds = rulesFor(field).filter(({ isOutermost }) => !isOutermost || !isSeveral);
  if (rule && !kinds.some(({ kind }) => kind === rule.kind)) kinds.unshift(ruleFacts(rule.kind));
  const isLine = rule?.kind === 'column' || rule?.kind === 'text' || rule?.kind === 'copy-fact';
  const body = rule && <RuleBody rule={rule} field={field} place="" onChange={onChange} />;
  return (
    <RuleSettingContext.Provider value={setting}>
      <Frame role="group" aria-label={t`Rule for ${field.name}`}>
        <Line>
          <Small>{t`Filled with`}</Small>
          <Choice
            label={t`Kind of rule`}
            hideLabel
            small
            items={kinds.map(({ kind, title, help }) => ({ id: kind, text: title, detail: help }))}
            value={rule?.kind ?? null}
            placeholder={t`nothing yet`}
            onChange={(kind) => onChange(beginRule(kind as FillRule['kind'], field, columns, rule))}
          />
          {!rule && columns.length > 0 && <ColumnChoice value={null} onChange={(column) => onChange(ruleForColumn(field, column))} />}
          {rule?.kind === 'translate' && <ColumnChoice value={rule.column} onChange={(column) => onChange(ruleForColumn(field, column))} />}
          {isLine && body}
          <div style={{ flex: 1 }} />
          {rule && <Button small look="bare" onPress={() => onChange(undefined)}>{t`Remove rule`}</Button>}
        </Line>
        {!isLine && body}
      </Frame>
    </RuleSettingContext.Provider>
  );
}
