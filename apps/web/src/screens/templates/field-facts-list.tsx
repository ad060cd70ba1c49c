import { t } from '@mailbag/core/words';
import type { Field } from '@mailbag/core';
import { kindWords } from '@mailbag/core';
import styled from 'styled-components';
import { calculationWords, fieldLimits, formatWords, labelSourceWords } from '../../features/page/field-facts';
import { color } from '../../theme';
import { Facts } from '../../ui/layout';

const ChosenFacts = styled(Facts)`
  padding: 0 12px 10px;
  background: ${color.plumWash};
  border-bottom: 1px solid ${color.hair};
`;

/** All that is known of a field. */
export function FieldFacts({ field }: { field: Field }) {
  const line = (name: string, value: string): React.ReactNode =>
    value ? (
      <>
        <dt>{name}</dt>
        <dd>{value}</dd>
      </>
    ) : null;
  return (
    <ChosenFacts $names="92px">
      {line(t`Full name`, field.name)}
      {line(t`Kind`, kindWords(field))}
      {line(t`Tooltip`, field.tooltip ?? '')}
      {line(t`Label from`, labelSourceWords(field))}
      {line(t`Under`, field.section ?? '')}
      {line(t`Limits`, fieldLimits(field).join(', '))}
      {line(t`Options`, field.options.map((one) => (one.label === one.value ? one.value : `${one.label} (${one.value})`)).join(' · '))}
      {line('On-values', field.onValues.join(' · '))}
      {line(t`Current value`, Array.isArray(field.value) ? field.value.join(', ') : (field.value ?? ''))}
      {line(t`Format`, formatWords(field))}
      {line(t`Calculated`, calculationWords(field))}
      {line('Pages', [...new Set(field.widgets.map((widget) => widget.page))].join(', '))}
    </ChosenFacts>
  );
}
