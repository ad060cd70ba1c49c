import type { Column } from '../tables/record.js';

/** What is looked at in each value of a column. True: on; the last two need to be told what is right. */
export interface ColumnChecks {
  email?: boolean;
  domain?: boolean;
  phone?: boolean;
  postalCode?: boolean;
  iban?: boolean;
  date?: boolean;
  numberText?: boolean;
  zeros?: boolean;
  spaces?: boolean;
  control?: boolean;
  capitals?: boolean;
  shape?: boolean;
  required?: boolean;
  unique?: boolean;
  /** Least and most, both counting as right: numbers, or dates as YYYY-MM-DD. Empty: no limit. */
  range?: { least: string; most: string } | null;
  /** The only values that are right; empty: all are. */
  allowed?: string[] | null;
}
export type ColumnCheckName = keyof ColumnChecks;

/** What a person has set beside what is proposed. */
export interface CheckPlan {
  /** Country of telephone numbers and postal codes that do not say theirs (ISO 3166-1, two letters); empty: not said. */
  country?: string;
  columns?: Record<string, ColumnChecks>;
  /** Off where a person has switched it off. */
  samePerson?: boolean;
  mixedUp?: boolean;
}

/** The checks of columns in the order in which they are offered, with what they look for. */
export const columnCheckWords: Record<ColumnCheckName, string> = {
  required: 'is filled',
  unique: 'stands only once',
  email: 'is an e-mail address',
  domain: 'has no mistyped domain',
  phone: 'is a telephone number',
  postalCode: 'is a postal code',
  iban: 'is an IBAN',
  date: 'is a date that exists',
  numberText: 'is a number, not text that looks like one',
  zeros: 'has lost no leading zero',
  spaces: 'has no stray or odd spaces',
  control: 'has no control characters',
  capitals: 'is not in capitals only',
  shape: 'looks like its neighbours',
  range: 'lies between two limits',
  allowed: 'is one of these',
};

const NAME_HEADING = /name|vorname|nom\b|prénom|apellido|cognome/i;
export const isNameColumn = ({ name, kind }: Column): boolean => (kind === 'text' || kind === 'key') && NAME_HEADING.test(name);

/** The checks that a column's profile asks for. */
export function proposedChecks(column: Column): ColumnChecks {
  const { kind } = column;
  const common: ColumnChecks = { spaces: true, control: true };
  switch (kind) {
    case 'email':
      return { ...common, email: true, domain: true };
    case 'phone':
      return { ...common, phone: true, shape: true };
    case 'postal-code':
      return { ...common, postalCode: true, zeros: true, shape: true };
    case 'iban':
      return { ...common, iban: true };
    case 'date':
      return { ...common, date: true };
    case 'number':
      return { ...common, numberText: true };
    case 'key':
      return { ...common, shape: true };
    default:
      return isNameColumn(column) ? { ...common, capitals: true } : common;
  }
}

/** What is checked in a column: what a person has set, else what is proposed. */
export const checksOf = (plan: CheckPlan, column: Column): ColumnChecks => ({
  ...proposedChecks(column),
  ...(plan.columns && Object.hasOwn(plan.columns, column.name) ? plan.columns[column.name] : {}),
});

/** The first check of a plan that there is none of; null: all are known. */
export function unknownChecks({ columns = {} }: CheckPlan): string | null {
  for (const checks of Object.values(columns))
    for (const name of Object.keys(checks ?? {})) if (!Object.hasOwn(columnCheckWords, name)) return name.slice(0, 60);
  return null;
}
