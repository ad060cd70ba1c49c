import type { Evaluation, FieldMap } from '../map/field-map.js';
import type { Row } from '../map/row.js';
import type { Field } from '../pdf/field.js';
import type { FieldValues, Fit } from '../pdf/value.js';
import type { Column } from '../tables/record.js';
import type { Finding } from './finding.js';

/** One template of the packet as checks see it. */
export interface CheckedTemplate {
  fields: readonly Field[];
  map: FieldMap;
  /** Lays values out with the metrics that will draw them; only what does not simply fit is told. Null: not measured. */
  measure: ((values: FieldValues) => { field: string; fit: Fit; characters: string[] }[]) | null;
}

export interface CheckSetup {
  columns: readonly Column[];
  templates: readonly CheckedTemplate[];
  /** Column that identifies a record; null: none. */
  keyColumn: string | null;
  /** Column of the recipients' addresses; null: nothing is mailed. */
  addressColumn: string | null;
}

/** A record with what the map makes of it. */
export interface CheckedRecord {
  row: Row;
  evaluations: readonly Evaluation[];
}

/** A check looks at records one after the other and may say something at the end about all of them. */
export interface Check {
  see(record: CheckedRecord, say: (finding: Finding) => void): void;
  end?(say: (finding: Finding) => void): void;
}

/** Makes a check for one run; null when there is nothing for it to look at. */
export type CheckKind = (setup: CheckSetup) => Check | null;
