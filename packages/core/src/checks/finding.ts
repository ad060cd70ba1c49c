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
  'cannot-draw',
  'overflows',
  'stray-space',
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
}

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
  'cannot-draw': 'Characters that cannot be drawn',
  overflows: 'Does not fit its box',
  'stray-space': 'Stray space',
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
    case 'cannot-draw':
      return `No face can draw ${list(details.characters)} in “${finding.label}”.`;
    case 'overflows':
      return `The value is too long for the box of “${finding.label}”, even in small type.`;
    case 'stray-space':
      return `“${finding.column}” starts or ends with a space, which would be printed.`;
  }
}
