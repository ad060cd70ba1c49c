import { evaluateMap } from '../map/field-map.js';
import { rowReader } from '../map/row.js';
import type { SourceRecord } from '../tables/record.js';
import type { Check, CheckSetup } from './check.js';
import type { Finding } from './finding.js';
import { address } from './kinds/address.js';
import { fit } from './kinds/fit.js';
import { key } from './kinds/key.js';
import { length } from './kinds/length.js';
import { required } from './kinds/required.js';
import { space } from './kinds/space.js';
import { translation } from './kinds/translation.js';

/** Every check. A new one is a file in kinds/ and a line here. */
const kinds = [key, address, translation, required, length, fit, space];

/** Runs all checks over records that come in blocks, and collects what they say. */
export class RecordChecker {
  private readonly checks: Check[];
  private readonly read;
  readonly findings: Finding[] = [];

  constructor(private readonly setup: CheckSetup) {
    this.checks = kinds.map((kind) => kind(setup)).filter((check) => check !== null);
    this.read = rowReader(setup.columns);
  }

  see(records: readonly SourceRecord[]): void {
    const say = (finding: Finding): void => void this.findings.push(finding);
    for (const record of records) {
      const row = this.read(record);
      const evaluations = this.setup.templates.map(({ fields, map }) => evaluateMap(fields, map, row));
      for (const check of this.checks) check.see({ row, evaluations }, say);
    }
  }

  /** All findings, in the order of the rows. */
  done(): Finding[] {
    for (const check of this.checks) check.end?.((finding) => this.findings.push(finding));
    return this.findings.sort((a, b) => a.row - b.row || (a.severity === b.severity ? 0 : a.severity === 'stop' ? -1 : 1));
  }
}

/** All findings of the records at once. */
export function checkRecords(setup: CheckSetup, records: readonly SourceRecord[]): Finding[] {
  const checker = new RecordChecker(setup);
  checker.see(records);
  return checker.done();
}
