import { evaluateTemplate } from '../map/packet.js';
import type { CopyEvaluation } from '../map/packet.js';
import { rowReader } from '../map/row.js';
import type { FillContext } from '../map/fill-context.js';
import type { Cell, Column, SourceRecord } from '../tables/record.js';
import type { CheckPlan, ColumnChecks } from './column-checks.js';
import type { Check, CheckSetup, PreparedSetup } from './check.js';
import { checksOf } from './check-plan.js';
import type { Finding } from './finding.js';
import { checkKinds } from './registry.js';
/** What a run looks at. `record`: findings that hang on one record alone; `all`: those that hang on others too, of the checks named. */
export type CheckScope = { of: 'everything' } | { of: 'record' } | { of: 'all'; checks: readonly string[] };

/** A finding with the check that said it. */
export interface SaidFinding {
  check: string;
  finding: Finding;
}

/** What is said of a later copy stands in the columns that it takes. */
const sayAtSource =
  (evaluations: readonly (CopyEvaluation | null)[], say: (finding: Finding) => void) =>
  (finding: Finding): void =>
    say({ ...finding, column: finding.column && (evaluations[finding.template ?? -1]?.row.source(finding.column) ?? finding.column) });

const prepared = (setup: CheckSetup): PreparedSetup => ({ ...setup, checksOf: (column) => checksOf(setup.plan ?? {}, column) });

/** Every check by its name, begun for a run; null: it has nothing to look at. */
const begun = (setup: CheckSetup): [name: string, check: Check | null][] =>
  Object.entries(checkKinds).map(([name, kind]) => [name, kind.begin(prepared(setup))]);

/** Runs checks over records that come in blocks, and collects what they say. */
export class RecordChecker {
  private readonly checks: [name: string, check: Check][];
  private readonly read;
  private readonly evaluates: boolean;
  private readonly findings: SaidFinding[] = [];

  constructor(
    private readonly setup: CheckSetup,
    scope: CheckScope = { of: 'everything' },
  ) {
    this.checks = begun(setup).flatMap(([name, check]): [string, Check][] => {
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
    const say = (finding: Finding): void => void this.findings.push({ check: name, finding });
    for (const record of records) {
      const row = this.read(record);
      const copies = this.evaluates ? this.setup.templates.map((template) => evaluateTemplate(template, row, this.setup.context)) : [];
      for (let at = 0, limit = Math.max(1, ...copies.map(({ length }) => length)); at < limit; at++) {
        const evaluations = copies.map((own) => own[at] ?? null);
        const sayOf = at === 0 ? say : sayAtSource(evaluations, say);
        for (const [own, check] of this.checks) {
          if (at > 0 && !check.ofCopies) continue;
          name = own;
          check.see({ record, row, evaluations }, sayOf);
        }
      }
    }
  }

  /** All findings with their checks, in the order of the rows. */
  done(): SaidFinding[] {
    for (const [check, { end }] of this.checks) end?.((finding) => this.findings.push({ check, finding }));
    return this.findings.sort(
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

/** What the checks of a column say of one value by itself; checks that compare records have nothing to compare it with. */
export const checkValue = (column: Column, checks: ColumnChecks, { country }: CheckPlan, cell: Cell, context: FillContext): Finding[] =>
  checkRecords(
    {
      plan: { ...(country !== undefined && { country }), mixedUp: false, samePerson: false, columns: { [column.name]: checks } },
      columns: [column],
      templates: [],
      context,
      keyColumn: null,
      addressColumn: null,
    },
    [{ row: 1, cells: [cell] }],
  );

/** The checks whose findings on other records may change with a value of the columns. */
export const checksComparing = (setup: CheckSetup, columns: readonly string[]): string[] =>
  begun(setup).flatMap(([name, check]) => (check?.compares?.some((column) => columns.includes(column)) ? [name] : []));

/** The checks whose findings on a record hang on others too. */
export const comparingChecks = (setup: CheckSetup): string[] =>
  begun(setup).flatMap(([name, check]) => (check?.compares === undefined ? [] : [name]));

/** Checks whose findings hang on one record alone. */
export const checksOfRecords = (setup: CheckSetup): string[] =>
  begun(setup).flatMap(([name, check]) => (check === null || check.compares === undefined ? [name] : []));
