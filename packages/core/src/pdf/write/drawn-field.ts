import type { FieldOption } from '../field.js';

/** What a person can draw on a page. A radio button is one of several with the same name; its `value` tells which. */
export const drawnKinds = ['text', 'multiline', 'comb', 'checkbox', 'radio', 'menu', 'list', 'date', 'signature', 'image'] as const;
export type DrawnKind = (typeof drawnKinds)[number];

/** Faces that every reader has (ISO 32000-2, 9.6.2.2), by the names that a layout knows them by. */
export const drawnFaces = {
  Helvetica: 'Helv',
  'Helvetica-Bold': 'HeBo',
  'Times-Roman': 'TiRo',
  'Times-Bold': 'TiBo',
  Courier: 'Cour',
} as const;
export type DrawnFace = keyof typeof drawnFaces;

/** A field as it is drawn on a page, before it is one of the PDF. */
export interface DrawnField {
  name: string;
  kind: DrawnKind;
  /** 1-based. */
  page: number;
  /** Left, bottom, right, top in points of the page's own space. */
  rect: [number, number, number, number];
  /** Characters of a comb; null for other kinds. */
  cells: number | null;
  /** What a person calls it; the tooltip where none is given. */
  label: string | null;
  tooltip: string | null;
  required: boolean;
  /** Most characters; null: no limit. */
  limit: number | null;
  /** Of menus and lists. */
  options: FieldOption[];
  /** On-value of a tick box or radio button; null: Yes. */
  value: string | null;
  font: DrawnFace;
  /** Points; 0: as large as fits. */
  size: number;
  align: 'left' | 'centre' | 'right';
  /** Of the text, from 0 to 1 each: red, green, blue. */
  colour: [number, number, number];
  /** Whether a frame is drawn around it. */
  border: boolean;
}

const usual: Omit<DrawnField, 'name' | 'kind' | 'page' | 'rect'> = {
  cells: null,
  label: null,
  tooltip: null,
  required: false,
  limit: null,
  options: [],
  value: null,
  font: 'Helvetica',
  size: 0,
  align: 'left',
  colour: [0, 0, 0],
  border: false,
};

/** A field with what is usual for everything that is not said. */
export const drawnField = (given: Pick<DrawnField, 'name' | 'kind' | 'page' | 'rect'> & Partial<DrawnField>): DrawnField => ({
  ...usual,
  ...given,
});
