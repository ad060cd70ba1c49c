import { evaluateMap } from '../map/field-map.js';
import { rowReader } from '../map/row.js';
import type { SourceRecord } from '../tables/record.js';
import type { Check, CheckKind, CheckSetup } from './check.js';
import type { Finding } from './finding.js';
import { address, otherAddress } from './kinds/address.js';
import { allowed } from './kinds/allowed.js';
import { capitals } from './kinds/capitals.js';
import { control } from './kinds/control.js';
import { date } from './kinds/date.js';
import { domain } from './kinds/domain.js';
import { fit } from './kinds/fit.js';
import { format } from './kinds/format.js';
import { iban } from './kinds/iban.js';
import { key } from './kinds/key.js';
import { length } from './kinds/length.js';
import { mixedUp } from './kinds/mixed-up.js';
import { numberText } from './kinds/number-text.js';
import { phone } from './kinds/phone.js';
import { postalCode } from './kinds/postal-code.js';
import { range } from './kinds/range.js';
import { requiredColumn } from './kinds/required-column.js';
import { required } from './kinds/required.js';
import { samePerson } from './kinds/same-person.js';
import { shape } from './kinds/shape.js';
import { space } from './kinds/space.js';
import { translation } from './kinds/translation.js';
import { unique } from './kinds/unique.js';
import { zeros } from './kinds/zeros.js';

/** Every check. A new one is a file in kinds/ and a line here. */
const kinds: Record<string, CheckKind> = {
  key,
  address,
  otherAddress,
  domain,
  phone,
  postalCode,
  zeros,
  iban,
  date,
  numberText,
  space,
  control,
  capitals,
  shape,
  mixedUp,
  samePerson,
  requiredColumn,
  unique,
  range,
  allowed,
  translation,
  required,
  length,
  format,
  fit,
};

/** What a run looks at. `record`: findings that hang on one record alone; `all`: those that hang on others too, of the checks named. */
export type CheckScope = { of: 'everything' } | { of: 'record' } | { of: 'all'; checks: readonly string[] };

/** A finding with the check that said it. */
export interface SaidFinding {
  check: string;
  finding: Finding;
}

/** Runs checks over records that come in blocks, and collects what they say. */
export class RecordChecker {
  private readonly checks: [name: string, check: Check][];
  private readonly read;
  private readonly evaluates: boolean;
  private readonly said: SaidFinding[] = [];

  constructor(
    private readonly setup: CheckSetup,
    scope: CheckScope = { of: 'everything' },
  ) {
    this.checks = Object.entries(kinds).flatMap(([name, kind]): [string, Check][] => {
      const check = kind(setup);
      const isWanted =
        check !== null &&
        (scope.of === 'everything' || (scope.of === 'record' ? check.compares === undefined : scope.checks.includes(name)));
      return isWanted ? [[name, check]] : [];
    });
    this.read = rowReader(setup.columns);
    // What compares columns needs nothing of the map, which is what costs time.
    this.evaluates = scope.of !== 'all';
  }

  see(records: readonly SourceRecord[]): void {
    let name = '';
    const say = (finding: Finding): void => void this.said.push({ check: name, finding });
    for (const record of records) {
      const row = this.read(record);
      const evaluations = this.evaluates
        ? this.setup.templates.map(({ fields, map }) => evaluateMap(fields, map, row, this.setup.context))
        : [];
      const checked = { row, evaluations };
      for (const [own, check] of this.checks) {
        name = own;
        check.see(checked, say);
      }
    }
  }

  /** All findings with their checks, in the order of the rows. */
  done(): SaidFinding[] {
    for (const [check, { end }] of this.checks) end?.((finding) => this.said.push({ check, finding }));
    return this.said.sort(
      ({ finding: a }, { finding: b }) => a.row - b.row || (a.severity === b.severity ? 0 : a.severity === 'stop' ? -1 : 1),
    );
  }
}

/** All findings of the records at once. */
export function checkRecords(setup: CheckSetup, records: readonly SourceRecord[]): Finding[] {
  const checker = new RecordChecker(setup);
  checker.see(records);
  return checker.done().map(({ finding }) => finding);
}

/** The checks whose findings on other records may change with a value of the columns. */
export const checksComparing = (setup: CheckSetup, columns: readonly string[]): string[] =>
  Object.entries(kinds).flatMap(([name, kind]) => (kind(setup)?.compares?.some((column) => columns.includes(column)) ? [name] : []));

/** Checks whose findings hang on one record alone. */
export const checksOfRecords = (setup: CheckSetup): string[] =>
  Object.entries(kinds).flatMap(([name, kind]) => {
    const check = kind(setup);
    return check === null || check.compares === undefined ? [name] : [];
  });
