import type { Column } from '../tables/record.js';

const NAME_HEADING = /name|vorname|nom\b|prénom|apellido|cognome/i;
/** Whether a column holds names of people, by its heading. */
export const isNameColumn = ({ name, kind }: Column): boolean => (kind === 'text' || kind === 'key') && NAME_HEADING.test(name);
