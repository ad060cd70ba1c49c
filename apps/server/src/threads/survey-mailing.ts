import { MapSurvey, countedRecords, randomPlaces } from '@mailbag/core';
import type { SourceRecord } from '@mailbag/core';
import { findingStore } from '../stores/finding.store.js';
import type { Tasks } from '../work/tasks.js';
import { recordBlocks } from './source-records.js';
import { threadSql } from './worker-database.js';

type Input = Tasks['survey']['input'];

/** The records of a mailing that would run, each at its place. */
async function* runningRecords({
  sourceId,
  mailing,
}: Pick<Input, 'sourceId' | 'mailing'>): AsyncGenerator<{ record: SourceRecord; index: number }> {
  const leftOut = new Set(mailing.plan.leftOut);
  for await (const { first, records } of recordBlocks(sourceId))
    for (const [at, record] of records.entries()) if (!leftOut.has(record.row)) yield { record, index: first + at };
}

/** Works the map of a mailing out for all of its records. */
export async function surveyMailing(input: Input): Promise<Tasks['survey']['output']> {
  const survey = new MapSurvey(input.mailing.templates, input.mailing.columns, input.context);
  for await (const { record, index } of runningRecords(input)) survey.see(record, index);
  return survey.done();
}

/** The records that a number of a survey counts. */
export async function countRecords(input: Tasks['countedRecords']['input']): Promise<Tasks['countedRecords']['output']> {
  const { mailing, template, field, counted, from, count } = input;
  const isCounted = countedRecords(mailing.templates[template]!, field, counted, mailing.columns, input.context);
  let total = 0;
  const items: { index: number; record: SourceRecord }[] = [];
  for await (const { record, index } of runningRecords(input)) {
    if (!isCounted(record, index)) continue;
    if (total >= from && items.length < count) items.push({ index, record });
    total++;
  }
  return { total, items };
}

/** Records that are worth looking at before anything is made, in their order, each with why. */
export async function pickRecords(input: Tasks['pickRecords']['input']): Promise<Tasks['pickRecords']['output']> {
  const { mailing, mailingId, wish, limit } = input;
  const survey = new MapSurvey(mailing.templates, mailing.columns, input.context);
  const column = mailing.columns.findIndex(({ name }) => name === wish.column);
  const places: number[] = [];
  const values = new Map<string, number>();
  for await (const { record, index } of runningRecords(input)) {
    places.push(index);
    survey.see(record, index);
    const value = record.cells[column]?.text.trim() ?? '';
    if (column >= 0 && !values.has(value)) values.set(value, index);
  }
  const picked = new Map<number, { why: Tasks['pickRecords']['output']['items'][number]['why']; value: string | null }>();
  const pick = (index: number | null | undefined, why: (typeof wish.why)[number], value: string | null = null): void => {
    if (index === null || index === undefined) return;
    const known = picked.get(index) ?? { why: [], value: null };
    picked.set(index, { why: [...new Set([...known.why, why])], value: known.value ?? value });
  };
  const { longest, emptiest } = survey.done();
  const ways: Record<(typeof wish.why)[number], () => void | Promise<void>> = {
    first: () => pick(places[0], 'first'),
    last: () => pick(places.at(-1), 'last'),
    longest: () => pick(longest, 'longest'),
    emptiest: () => pick(emptiest, 'emptiest'),
    async flagged() {
      const running = new Set(places);
      for (const { ordinal } of await findingStore.flagged(threadSql(), mailingId)) if (running.has(ordinal)) pick(ordinal, 'flagged');
    },
    value: () => values.forEach((index, value) => pick(index, 'value', value)),
    random: () => randomPlaces(places.length, wish.random, wish.seed).forEach((place) => pick(places[place], 'random')),
  };
  for (const why of wish.why) await ways[why]();
  const order = [...picked].sort(([a], [b]) => a - b);
  const shown = new Map(order.slice(0, limit));
  const items: Tasks['pickRecords']['output']['items'] = [];
  for await (const { record, index } of runningRecords(input)) {
    const one = shown.get(index);
    if (one) items.push({ index, record, ...one });
  }
  return { items, total: order.length };
}
