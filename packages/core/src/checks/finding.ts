/** `stop`: this record cannot run. `look`: a person should look. */
export type Severity = 'stop' | 'look';

export const findingCodes = [
  'key-blank',
  'key-twice',
  'address-wrong',
  'address-missing',
  'required-blank',
  'untranslated',
  'too-long',
  'format-unfit',
  'cannot-draw',
  'overflows',
  'stray-space',
  'odd-space',
  'control-character',
  'domain-typo',
  'phone-wrong',
  'postal-code-wrong',
  'lost-zeros',
  'iban-wrong',
  'date-wrong',
  'date-as-text',
  'not-a-number',
  'number-as-text',
  'all-capitals',
  'odd-shape',
  'mixed-up',
  'same-person',
  'value-missing',
  'not-unique',
  'out-of-range',
  'not-allowed',
] as const;
export type FindingCode = (typeof findingCodes)[number];

/** What a check has to say about one record. */
export interface Finding {
  code: FindingCode;
  severity: Severity;
  /** Row in the sheet. */
  row: number;
  /** Column it is about; null: none. */
  column: string | null;
  /** Place of the template in the packet; null: none. */
  template: number | null;
  /** Name of the field; null: none. */
  field: string | null;
  /** Label of the field for people. */
  label: string | null;
  value: string;
  details: { why?: string; accepted?: string[]; limit?: number; length?: number; rows?: number[]; characters?: string[] };
  /** What the value should be, where one can be proposed. */
  mend?: string | null;
}

/** Where a face for some characters comes from. */
export const facesAdvice = (characters: readonly string[] = []): string =>
  characters.some((char) => /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u.test(char))
    ? 'Faces for Chinese, Japanese and Korean come with “npm run faces”.'
    : 'Put a TrueType face that has them into the folder of faces, or change the value.';

const list = (values: readonly string[] | undefined): string => {
  const shown = (values ?? [])
    .slice(0, 8)
    .map((value) => `“${value}”`)
    .join(', ');
  return (values?.length ?? 0) > 8 ? `${shown} and ${values!.length - 8} more` : shown;
};

const titles: Record<FindingCode, string> = {
  'key-blank': 'Record key is empty',
  'key-twice': 'Record key stands twice',
  'address-wrong': 'Not an e-mail address',
  'address-missing': 'No e-mail address',
  'required-blank': 'Required field left blank',
  untranslated: 'Value without a translation',
  'too-long': 'Longer than the field allows',
  'format-unfit': 'Not what the field shows',
  'cannot-draw': 'Characters that cannot be drawn',
  overflows: 'Does not fit its box',
  'stray-space': 'Stray space',
  'odd-space': 'Odd space inside',
  'control-character': 'Control character',
  'domain-typo': 'Domain looks mistyped',
  'phone-wrong': 'Not a telephone number',
  'postal-code-wrong': 'Not a postal code',
  'lost-zeros': 'Leading zero lost',
  'iban-wrong': 'Not an IBAN',
  'date-wrong': 'Not a date',
  'date-as-text': 'Date kept as text',
  'not-a-number': 'Not a number',
  'number-as-text': 'Number kept as text',
  'all-capitals': 'Name in capitals',
  'odd-shape': 'Looks unlike its neighbours',
  'mixed-up': 'In the wrong column',
  'same-person': 'Probably the same person',
  'value-missing': 'Required column empty',
  'not-unique': 'Stands more than once',
  'out-of-range': 'Outside of its limits',
  'not-allowed': 'Not an allowed value',
};

/** The kind of finding, as a heading. */
export const findingTitle = (code: FindingCode): string => titles[code];

/** What a finding says of its record: what is wrong and what to do. */
export function findingSentence(finding: Finding): string {
  const { details } = finding;
  switch (finding.code) {
    case 'key-blank':
      return `“${finding.column}” is empty. Give the record a key of its own or leave it out.`;
    case 'key-twice':
      return `“${finding.value}” is also the key of row ${details.rows?.join(', ')}. Only one of them can be right.`;
    case 'address-wrong':
      return `“${finding.value}” cannot be mailed to: ${details.why}.`;
    case 'address-missing':
      return `No address in “${finding.column}”. The copy is made and kept, but not mailed.`;
    case 'required-blank':
      return `“${finding.label}” must be filled, and this record has nothing for it.`;
    case 'untranslated':
      return `“${finding.label}” does not accept “${finding.value}”. It accepts ${list(details.accepted)}.`;
    case 'too-long':
      return `“${finding.label}” takes ${details.limit} characters; this value has ${details.length}.`;
    case 'format-unfit':
      return `“${finding.value}” does not go into “${finding.label}”: ${details.why}.`;
    case 'cannot-draw':
      return `No face can draw ${list(details.characters)} in “${finding.label}”. ${facesAdvice(details.characters)}`;
    case 'overflows':
      return details.characters
        ? `The box of “${finding.label}” is not high enough for all that is chosen: ${list(details.characters)} cannot be seen.`
        : `The value does not fit the box of “${finding.label}”, even in small type.`;
    case 'stray-space':
      return `“${finding.column}” starts or ends with a space, which would be printed.`;
    case 'odd-space':
      return `“${finding.column}” has doubled or invisible spaces inside.`;
    case 'control-character':
      return `“${finding.column}” holds ${details.characters?.join(', ')}, which no form can print.`;
    case 'domain-typo':
      return `Most addresses end in ${details.why}. Is it meant here too?`;
    case 'phone-wrong':
      return `“${finding.value}” cannot be dialled: ${details.why}.`;
    case 'postal-code-wrong':
      return `“${finding.value}” is no postal code of ${details.why}.`;
    case 'lost-zeros':
      return `“${finding.value}” has ${details.length} digits, the others have ${details.limit}. Its leading zero was lost.`;
    case 'iban-wrong':
      return `“${finding.value}” is no IBAN: ${details.why}.`;
    case 'date-wrong':
      return `“${finding.value}” is no date: ${details.why}.`;
    case 'date-as-text':
      return `“${finding.value}” is kept as text, so no date format applies to it.`;
    case 'not-a-number':
      return `“${finding.column}” holds numbers; “${finding.value}” is none.`;
    case 'number-as-text':
      return `“${finding.value}” is kept as text, so it is neither summed nor formatted.`;
    case 'all-capitals':
      return `“${finding.value}” is in capitals, unlike the other names.`;
    case 'odd-shape':
      return `“${finding.value}” is made up otherwise than the others, such as “${details.why}”.`;
    case 'mixed-up':
      return `“${finding.value}” looks like a value for “${details.why}”, which has none of its own here.`;
    case 'same-person':
      return `Row ${details.rows?.join(', ')} has the same name and the same ${details.why}.`;
    case 'value-missing':
      return `“${finding.column}” must be filled and is empty.`;
    case 'not-unique':
      return `“${finding.value}” also stands in row ${details.rows?.join(', ')}.`;
    case 'out-of-range': {
      const [least, most] = details.accepted ?? [];
      return `“${finding.value}” is not ${least && most ? `between ${least} and ${most}` : least ? `${least} or more` : `${most} or less`}.`;
    }
    case 'not-allowed':
      return `“${finding.column}” does not allow “${finding.value}”. It allows ${list(details.accepted)}.`;
  }
}
