import { acceptedValues, isButtonWithStates, isChoice } from '../pdf/field.js';
import type { Field } from '../pdf/field.js';
import { blankFor } from './rule.js';
import type { RuleResult } from './rule.js';

/** Text for comparing: case, stray and double spaces do not count. */
export const normalised = (text: string): string =>
  text
    .replace(/[\s\u00a0]+/g, ' ')
    .trim()
    .toLowerCase();

/** Text as the value of a field: an option by its display or export value, a button by its on-value. Anything else is untranslated. */
export function chooseValue(field: Field, text: string, column: string): RuleResult {
  if (text.trim() === '') return { value: blankFor(field) };
  const wanted = normalised(text);
  const miss = (): RuleResult => ({ value: blankFor(field), untranslated: { column, text, accepted: acceptedValues(field) } });
  if (isButtonWithStates(field)) {
    if (wanted === 'off') return { value: false };
    const index = field.onValues.findIndex((on, at) => normalised(on) === wanted || normalised(field.options[at]?.label ?? on) === wanted);
    return index >= 0 ? { value: field.onValues[index]! } : miss();
  }
  if (isChoice(field)) {
    const option =
      field.options.find((one) => normalised(one.label) === wanted) ?? field.options.find((one) => normalised(one.value) === wanted);
    if (option) return { value: field.kind === 'list' ? [option.value] : option.value };
    return field.flags.includes('edit') ? { value: text } : miss();
  }
  return { value: text };
}
