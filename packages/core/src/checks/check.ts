import type { MailbagError } from '../errors/catalogue.js';
import type { Condition } from '../map/condition.js';
import type { FieldMap } from '../map/field-map.js';
import type { FillContext } from '../map/fill-context.js';
import type { CopyEvaluation } from '../map/packet.js';
import type { CopyCount } from '../map/repeated.js';
import type { Row } from '../map/row.js';
import type { Field } from '../pdf/field.js';
import type { FieldValues, FillNote } from '../pdf/value.js';
import type { Cell, Column, SourceRecord } from '../tables/record.js';
import type { CheckPlan, ColumnChecks } from './column-checks.js';
import type { Finding } from './finding.js';

/** One template of the packet as checks see it. */
export interface CheckedTemplate {
  fields: readonly Field[];
  map: FieldMap;
  /** The records that get it. Left out or null: all of them. */
  when?: Condition | null;
  /** How many copies a record gets. Left out or null: one. */
  count?: CopyCount | null;
  /** Lays values out with the metrics that will draw them; only what does not simply fit is told. Null: not measured. */
  measure: ((values: FieldValues) => FillNote[]) | null;
}

export interface CheckSetup {
  columns: readonly Column[];
  templates: readonly CheckedTemplate[];
  /** For rules that read it; which number and code a copy will have is not known yet. */
  context: FillContext;
  /** Column that identifies a record; null: none. */
  keyColumn: string | null;
  /** Column of the recipients' addresses; null: nothing is mailed. */
  addressColumn: string | null;
  /** Whether a cell of it may hold several addresses. */
  severalAddresses?: boolean;
  /** Columns whose values go anywhere: into fields, file names, the message. Left out: all. */
  usedColumns?: readonly string[];
  plan?: CheckPlan;
  /** Why the copies of a record cannot have their passwords; null: they can, or have none. Left out: none have. */
  passwordFault?: ((record: SourceRecord) => MailbagError | null) | null;
  /** The password that opens the copies of a record. Null or left out: none does. */
  openPassword?: ((record: SourceRecord) => string) | null;
  /** Where in the archive the copies of a record are wanted. Null or left out: no two can be the same. */
  places?: CopyPlaces | null;
  /** Boxes with pictures of the records' own. Left out: there are none. */
  pictures?: readonly NamedPicture[];
}

/** A box that takes the picture that a column names. */
export interface NamedPicture {
  /** Place in the packet. */
  template: number;
  field: string;
  column: string;
  /** Whether a picture of that name is there. */
  has(name: string): boolean;
}

/** The files that the copies of records are wanted in. */
export interface CopyPlaces {
  /** Columns that names of files and folders are composed of, and conditions of templates. */
  columns: readonly string[];
  /** Paths below the archive, one for each copy. */
  of(record: SourceRecord): string[];
}

/** A setup with what is checked in each of its columns. */
export interface PreparedSetup extends CheckSetup {
  checksOf: (column: Column) => ColumnChecks;
}

/** A record with what the map makes of it. */
export interface CheckedRecord {
  record: SourceRecord;
  row: Row;
  /** One copy of each template; null: the record does not get it, or no further copy of it. */
  evaluations: readonly (CopyEvaluation | null)[];
}

/** A check looks at records one after the other and may say something at the end about all of them. */
export interface Check {
  /** Whether it looks at copies: where a record gets several of a template, it sees the record with each of them. */
  ofCopies?: boolean;
  see(record: CheckedRecord, say: (finding: Finding) => void): void;
  end?(say: (finding: Finding) => void): void;
  /**
   * For checks whose findings hang on other records too: the columns whose values they compare. A change of one of them means that
   * the check has to see all records again.
   */
  compares?: readonly string[];
}

/** How a finding is told to a person. */
export interface FindingWords {
  /** The kind of finding, as a heading. */
  title: string;
  /** What is wrong with this one and what to do. */
  sentence: (finding: Finding) => string;
}

/** A check that people switch on and off for a column. */
export interface ColumnCheck {
  /** Its name in a check plan. */
  switch: string;
  /** What a value is when it is right. */
  says: string;
  /** Whether a column's profile asks for it. */
  proposed: (column: Column) => boolean;
}

/** Everything about one check. */
export interface CheckKind {
  /** Its place among the checks that are offered, by tens. */
  order: number;
  column?: ColumnCheck;
  /** What it finds, by the code of the finding. */
  findings: Readonly<Record<string, FindingWords>>;
  /** Makes it ready for one run; null when there is nothing for it to look at. */
  begin: (setup: PreparedSetup) => Check | null;
}

/** The columns for which a check is on, with its setting. Columns that go nowhere are looked at only where a person has asked for it. */
export function columnsWith<Name extends string>(
  { columns, plan = {}, usedColumns, checksOf }: PreparedSetup,
  name: Name,
): { column: Column; setting: NonNullable<ColumnChecks[Name]> }[] {
  return columns.flatMap((column) => {
    const isAsked = plan.columns?.[column.name]?.[name] !== undefined;
    if (!isAsked && usedColumns && !usedColumns.includes(column.name)) return [];
    const setting = checksOf(column)[name];
    return setting ? [{ column, setting: setting as NonNullable<ColumnChecks[Name]> }] : [];
  });
}

/** A finding about a value of the sheet, whatever the form makes of it. */
export const aboutValue = (row: number, column: string, value: string): Omit<Finding, 'code' | 'severity'> => ({
  row,
  column,
  template: null,
  field: null,
  label: null,
  value,
  details: {},
});

type Judgement = Pick<Finding, 'code' | 'severity'> & Partial<Pick<Finding, 'details' | 'mend'>>;

/** A check that judges every filled value of the columns it is on for, by itself. */
export function valueCheck<Name extends string>(
  name: Name,
  prepare: (setup: PreparedSetup) => (cell: Cell, setting: NonNullable<ColumnChecks[Name]>, column: Column) => Judgement | null,
): CheckKind['begin'] {
  return (setup) => {
    const watched = columnsWith(setup, name);
    if (watched.length === 0) return null;
    const judge = prepare(setup);
    return {
      see({ row }, say) {
        for (const { column, setting } of watched) {
          const cell = row.cell(column.name);
          if (cell.text === '') continue;
          const judgement = judge(cell, setting, column);
          if (judgement) say({ ...aboutValue(row.row, column.name, cell.text), ...judgement });
        }
      },
    };
  };
}
