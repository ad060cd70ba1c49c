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
      {line('Full name', field.name)}
      {line('Kind', kindWords(field))}
      {line('Tooltip', field.tooltip ?? '')}
      {line('Called so by', labelSourceWords(field))}
      {line('Under', field.section ?? '')}
      {line('Limits', fieldLimits(field).join(', '))}
      {line('Options', field.options.map((one) => (one.label === one.value ? one.value : `${one.label} (${one.value})`)).join(' · '))}
      {line('On-values', field.onValues.join(' · '))}
      {line('Value now', Array.isArray(field.value) ? field.value.join(', ') : (field.value ?? ''))}
      {line('Format', formatWords(field))}
      {line('Worked out', calculationWords(field))}
      {line('Pages', [...new Set(field.widgets.map((widget) => widget.page))].join(', '))}
    </ChosenFacts>
  );
}
