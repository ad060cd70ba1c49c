import type { Field } from '../pdf/field.js';
import { fieldLabel } from '../pdf/field.js';

const plain = (text: string | null | undefined): string => (text ?? '').replace(/\s+/g, ' ').trim().toLowerCase();

/** What two questions have in common when they are asked in the same words: label, kind and options. Empty: it has no words. @param isSeveral whether it stands for several boxes */
export const questionWords = (field: Field, isSeveral: boolean): string =>
  plain(fieldLabel(field)) === ''
    ? ''
    : JSON.stringify([
        plain(fieldLabel(field)),
        field.labelFrom === 'name' ? 'by name' : '',
        field.kind,
        field.options.map(({ label, value }) => [label, value]),
        field.onValues,
        isSeveral ? 'boxes' : 'box',
      ]);

/**
 * How sure it is that two questions in the same words are one. `under-others`: they stand under different headings, where a bare “Name” may be anybody's;
 * only more words are telling then.
 */
export function sameHeading(one: string | null | undefined, other: string | null | undefined): 'same' | 'under-others' {
  return plain(one) === '' || plain(other) === '' || plain(one) === plain(other) ? 'same' : 'under-others';
}
export const isTelling = (field: Field): boolean => plain(fieldLabel(field)).includes(' ');
