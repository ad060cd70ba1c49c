import type { Column, IntakeAnswers, IntakeKind, IntakePlan } from '@mailbag/core';
import { Gatherer, NUMBER_COLUMN, intakeColumns, orderedQuestions, submissionRecord, typedText } from '@mailbag/core';
import { intakeStore } from '../../stores/intake.store.js';
import { submissionStore } from '../../stores/submission.store.js';
import { threadSql } from '../worker-database.js';
import type { ReadingKind } from './kind.js';

/** Submissions that are read at a time. */
const BLOCK = 500;

const columnKinds: Partial<Record<IntakeKind, Column['kind']>> = {
  date: 'date',
  'yes or no': 'yes-no',
  consent: 'yes-no',
  'e-mail': 'email',
  telephone: 'phone',
  'postal code': 'postal-code',
  IBAN: 'iban',
};

/** What people have answered to an intake, a record each. */
export const intakeKind: ReadingKind<'intake'> = {
  async read({ intakeId, name, zone }, reading, onRecords) {
    const sql = threadSql();
    const plans = new Map<number, IntakePlan>();
    const intake = (await intakeStore.byId(sql, intakeId))!;
    const names = intakeColumns(intake.plan);
    const readings = { ...reading.columns };
    readings[NUMBER_COLUMN] ??= { kind: 'key' };
    for (const { column, kind } of orderedQuestions(intake.plan)) {
      const known = columnKinds[kind];
      if (known) readings[column] ??= { kind: known };
    }
    const gatherer = new Gatherer({ where: name, headingRow: 0, readings, onRecords, mayBeEmpty: true });
    gatherer.see(
      0,
      names.map((text) => ({ text, value: text })),
      false,
    );
    for (let last = 0, row = 0; ;) {
      const block = await submissionStore.after(sql, intakeId, last, BLOCK);
      if (block.length === 0) break;
      for (const { id, editionId, number, receivedAt, answers, known } of block) {
        last = id;
        let plan = plans.get(editionId);
        if (!plan) plans.set(editionId, (plan = JSON.parse((await intakeStore.edition(sql, editionId))!.plan) as IntakePlan));
        const values: Record<string, string> = {
          ...(JSON.parse(known) as Record<string, string>),
          ...submissionRecord(plan, { answers: JSON.parse(answers) as IntakeAnswers, number, receivedAt }, zone),
        };
        gatherer.see(
          ++row,
          names.map((column) => typedText(values[column] ?? '', readings[column])),
          false,
        );
      }
    }
    return { ...gatherer.done(), count: gatherer.count, reading };
  },
};
