import { t } from '@mailbag/core/words';
import type { Case, CasesRule } from '@mailbag/core';
import { ArrowUp, Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { anyText } from './any-text';
import { ConditionEditor } from './condition-editor';
import { Inset, Lead, Line } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

export function CasesBody({ rule, field, place, onChange }: BodyProps<CasesRule>) {
  const { columns } = useRuleSetting();
  const { cases } = rule;
  const put = (next: Case[]): void => onChange({ ...rule, cases: next });
  const replace = (at: number, change: Partial<Case>): void => put(cases.map((one, index) => (index === at ? { ...one, ...change } : one)));
  const outcome = field === anyText ? {} : { field };
  return (
    <>
      {cases.map(({ when, then }, at) => (
        <Line key={at} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
          <Lead>{at === 0 ? t`When` : t`or when`}</Lead>
          <div style={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column', gap: 6 }}>
            <ConditionEditor condition={when} place={t`${place}Case ${at + 1}: `} onChange={(next) => replace(at, { when: next })} />
            <Line style={{ alignItems: 'flex-start' }}>
              <Lead style={{ minWidth: 32, paddingTop: 5 }}>{t`then`}</Lead>
              <RulePart {...outcome} place={t`${place}Case ${at + 1}, then`} rule={then} onChange={(next) => replace(at, { then: next })} />
            </Line>
          </div>
          {at > 0 && (
            <IconButton
              label={t`${place}Move case ${at + 1} up`}
              small
              onPress={() => put([...cases.slice(0, at - 1), cases[at]!, cases[at - 1]!, ...cases.slice(at + 1)])}
            >
              <ArrowUp size={13} />
            </IconButton>
          )}
          <IconButton label={t`${place}Remove case ${at + 1}`} small onPress={() => put(cases.filter((_, index) => index !== at))}>
            <X size={13} />
          </IconButton>
        </Line>
      ))}
      <Line>
        <Lead />
        <Button
          small
          onPress={() =>
            put([
              ...cases,
              { when: { of: { kind: 'column', column: columns[0]?.name ?? '' }, test: 'is', values: [] }, then: { kind: 'blank' } },
            ])
          }
        >
          <Plus size={13} />
          {t`Add a case`}
        </Button>
      </Line>
      <Inset>
        <Line style={{ alignItems: 'flex-start' }}>
          <Lead style={{ paddingTop: 5 }}>{t`Otherwise`}</Lead>
          <RulePart
            {...outcome}
            place={t`${place}Otherwise`}
            rule={rule.otherwise}
            onChange={(otherwise) => onChange({ ...rule, otherwise })}
          />
        </Line>
      </Inset>
    </>
  );
}
