/** What a question takes. */
export const questionKinds = [
  'text',
  'long text',
  'number',
  'amount',
  'date',
  'yes or no',
  'one of',
  'some of',
  'e-mail',
  'telephone',
  'postal code',
  'IBAN',
  'signature',
  'image',
] as const;
export type QuestionKind = (typeof questionKinds)[number];
