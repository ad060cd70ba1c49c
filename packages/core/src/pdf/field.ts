import { t, translated } from '../words/words.js';
import type { Answer } from '../answers/answer.js';
import type { LabelSource } from '../page/field-words.js';
import type { Calculation, FormatScript } from './read/scripts/script.js';

/** What a form field is (ISO 32000-2, 12.7.5). */
export type FieldKind = 'text' | 'checkbox' | 'radio' | 'combo' | 'list' | 'signature' | 'button';

export type FieldFlag =
  | 'readOnly'
  | 'required'
  | 'noExport'
  | 'multiline'
  | 'password'
  | 'fileSelect'
  | 'doNotSpellCheck'
  | 'doNotScroll'
  | 'comb'
  | 'richText'
  | 'noToggleToOff'
  | 'radio'
  | 'pushButton'
  | 'radiosInUnison'
  | 'combo'
  | 'edit'
  | 'sort'
  | 'multiSelect'
  | 'commitOnSelChange';

/** One place where a field stands on a page. */
export interface FieldWidget {
  /** 1-based; 0: on no page. */
  page: number;
  /** Left, bottom, right, top in points of the page's own space (1/72 inch, origin bottom left). */
  rect: [number, number, number, number];
  /** Degrees by which the content is turned counter-clockwise (MK /R): 0, 90, 180, 270. */
  rotation: number;
  /** ISO 32000-2, table 167. */
  annotFlags: number;
  /** On-value of this tick box or radio button; null for other kinds. */
  onValue: string | null;
  /** Whether the file itself names that on-value; else it is the one that copies get. */
  hasOnValue: boolean;
  /** AS, the state that the widget shows now; null: none. */
  state: string | null;
  hidden: boolean;
}

export interface FieldOption {
  /** Export value. */
  value: string;
  /** Display value. */
  label: string;
}

/** A terminal AcroForm field with everything inherited resolved. */
export interface Field {
  /** Fully qualified name (ISO 32000-2, 12.7.4.2). */
  name: string;
  kind: FieldKind;
  /** Its own part of the name (T). */
  partialName: string;
  /** TU; null: none. */
  tooltip: string | null;
  /** What a person would call it: by the print beside its first box, its tooltip or its name; null: none of them says anything. */
  label: string | null;
  /** Where the label comes from; null: there is none. Left out: of a template that was read before labels said so, by the print. */
  labelFrom?: LabelSource | null;
  /** The heading that its first box stands under; null: none is told. */
  section?: string | null;
  /** Page of the first widget, 1-based. */
  page: number;
  flags: FieldFlag[];
  /** Greatest number of characters; null: no limit. */
  maxLength: number | null;
  options: FieldOption[];
  /** On-values of tick boxes and radio buttons, in the order of the widgets, each once. */
  onValues: string[];
  /** The value in the template: text, on-value, or chosen options; null: none. */
  value: string | string[] | null;
  /** DV; null: none. */
  defaultValue: string | string[] | null;
  /** How the form's author formats the value by script; null: not, or by a script that is not known. */
  format: FormatScript | null;
  /** How the form's author works the value out from other fields; null: not, or by a script that is not known. */
  calculation: Calculation | null;
  isPassword: boolean;
  widgets: FieldWidget[];
}

/** Page in points after rotation, as a person sees it, with what a viewer needs to place boxes. */
export interface PageSize {
  width: number;
  height: number;
  /** Degrees clockwise: 0, 90, 180, 270. */
  rotation: number;
  /** Lower left corner of the visible box in the page's own space. */
  left: number;
  bottom: number;
}

export type TemplateNoteCode =
  | 'mended'
  | 'encrypted'
  | 'xfa-dropped'
  | 'signed'
  | 'scripts'
  | 'fonts-missing'
  | 'stray-widgets'
  | 'filling-forbidden'
  | 'two-kinds'
  | 'print-unread';

/** Something to know about a template that can be used all the same. */
export interface TemplateNote {
  code: TemplateNoteCode;
  fields: string[];
}

export interface TemplateDescription {
  pages: PageSize[];
  fields: Field[];
  notes: TemplateNote[];
  /** Which fields are one answer, as proposed. Left out: of a template that was read before answers were told, and where nobody asked. */
  answers?: Answer[];
}

const noteSentences: Record<TemplateNoteCode, string> = {
  mended: t`The file was damaged and was repaired while it was read. Look through its pages once.`,
  encrypted: t`The file is protected by its author, but opens without a password. Copies are made without that protection.`,
  'xfa-dropped': t`The file also holds an XFA form. Mailbag fills its AcroForm fields; copies go out without XFA.`,
  signed: t`The file is signed. Filling it breaks that signature, so copies go out without it.`,
  scripts: t`The file contains scripts. They are never run. Formats and sums of the usual kinds are worked out by Mailbag itself; fields with others are filled like any other, so put the finished value into the records.`,
  'fonts-missing': t`The file does not contain all fonts that its fields ask for. Values are drawn in the nearest available font.`,
  'stray-widgets': t`Some fields were missing from the form’s own list. They were included.`,
  'filling-forbidden': t`The author’s permissions forbid filling this form. Make sure that you may use it.`,
  'print-unread': t`Words printed on the form cannot be read, because its fonts do not say which letters they draw. Fields there take their labels from tooltips and names, so look through the labels.`,
  'two-kinds': t`Fields of one name have two different kinds; they are filled as the first of them.`,
};

/** A note of a template as a sentence for the screen. */
export const templateNoteSentence = (note: TemplateNote): string => noteSentences[note.code];

/** At most five names, and how many more there are. */
export const fewNames = (names: readonly string[]): string =>
  names.length > 5 ? t`${names.slice(0, 5).join(', ')} and ${names.length - 5} more` : names.join(', ');

const isFlag = (field: Field, flag: FieldFlag): boolean => field.flags.includes(flag);
export const isRequired = (field: Field): boolean => isFlag(field, 'required');
export const isReadOnly = (field: Field): boolean => isFlag(field, 'readOnly');
export const isButtonWithStates = (field: Field): boolean => field.kind === 'checkbox' || field.kind === 'radio';
export const isChoice = (field: Field): boolean => field.kind === 'combo' || field.kind === 'list';
/** Fields that take a value from a record. Push buttons and signature fields do not. */
export const isFillable = (field: Field): boolean => field.kind !== 'button' && field.kind !== 'signature' && !isReadOnly(field);

export { formatFault } from './read/scripts/script.js';

/** A name for people: its label; of templates that were read before, the tooltip, else the print; else the last part of the field's name made readable. */
export function fieldLabel(field: Field): string {
  if (field.labelFrom && field.label) return field.label;
  if (field.tooltip?.trim()) return field.tooltip.trim();
  if (field.label?.trim()) return field.label.trim();
  const last = field.name.split('.').at(-1) ?? field.name;
  const readable = last
    .replace(/\[\d+\]$/, '')
    .replace(/([\p{Ll}\d])(\p{Lu})/gu, '$1 $2')
    .replace(/[_-]+/g, ' ')
    .trim();
  return readable ? readable[0]!.toUpperCase() + readable.slice(1) : field.name;
}

/** The values which a field accepts, as a person would write them: options as displayed, on-values. Empty: anything. */
export function acceptedValues(field: Field): string[] {
  if (isButtonWithStates(field)) return field.onValues.map((on, index) => field.options[index]?.label ?? on);
  return isChoice(field) && !isFlag(field, 'edit') ? field.options.map((option) => option.label) : [];
}

const kinds: Record<FieldKind, string> = {
  text: 'text',
  checkbox: 'tick box',
  radio: 'radio buttons',
  combo: 'menu',
  list: 'list',
  signature: 'signature',
  button: 'push button',
};

/** The kind of a field in words. */
export function kindWords(field: Field): string {
  if (field.flags.includes('comb')) return t`comb, ${field.maxLength} cells`;
  if (field.flags.includes('multiline')) return t`text, several lines`;
  return translated(kinds[field.kind]);
}
