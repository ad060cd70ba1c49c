import { t } from '@mailbag/core/words';
import type { FirstRule, FillRule } from '@mailbag/core';
import { Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { Lead, Line } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

export function FirstBody({ rule, place, onChange }: BodyProps<FirstRule>) {
  const { columns } = useRuleSetting();
  const put = (of: FillRule[]): void => onChange({ ...rule, of });
  return (
    <>
      {rule.of.map((one, at) => (
        <Line key={at} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
          <Lead>{at === 0 ? t`First` : t`or else`}</Lead>
          <RulePart
            place={t`${place}Choice ${at + 1}`}
            rule={one}
            onChange={(next) => put(rule.of.map((other, index) => (index === at ? next : other)))}
          />
          {rule.of.length > 1 && (
            <IconButton label={t`${place}Remove choice ${at + 1}`} small onPress={() => put(rule.of.filter((_, index) => index !== at))}>
              <X size={13} />
            </IconButton>
          )}
        </Line>
      ))}
      <Line>
        <Button small onPress={() => put([...rule.of, { kind: 'column', column: columns[0]?.name ?? '' }])}>
          <Plus size={13} />
          {t`Add a choice`}
        </Button>
      </Line>
    </>
  );
}
