import type { PublicBox } from '@mailbag/contract';
import { askedSections, readsColumns } from '@mailbag/core';
import type { Edition } from '../intakes/editions.service.js';

/** Where the answers to questions stand on the forms, so that a box leads to its question. */
export function answerBoxes({ plan, frozen }: Pick<Edition, 'plan' | 'frozen'>): PublicBox[] {
  const idOf = new Map(askedSections(plan).flatMap(({ questions }) => questions.map(({ id, column }) => [column, id] as const)));
  const pictures = frozen.plan.output.pictures ?? [];
  return frozen.templates.flatMap(({ id, map, fields }, form) =>
    fields.flatMap(({ name, widgets }) => {
      const picture = pictures.find((one) => one.template === id && one.field === name)?.column;
      const columns = picture !== undefined ? [picture] : Object.hasOwn(map, name) ? readsColumns(map[name]!) : [];
      const question = columns.map((column) => idOf.get(column)).find((one) => one !== undefined);
      return question === undefined ? [] : widgets.map(({ page, rect }) => ({ question, form, page, rect: [...rect] }));
    }),
  );
}
