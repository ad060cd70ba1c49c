import type { MailingPlan, PicturePlan } from '@mailbag/contract';
import type { Condition, CopyCount, FieldMap, Layout } from '@mailbag/core';

/** Where the description of a mailing stands in its zip; everything else is told in it. */
export const MAILING_JSON = 'mailing.json';
/** What the description says it is. */
export const FORMAT = 'mailbag-mailing';

/** A template of a mailing in a zip. Paths are those of files in the zip. */
export interface FiledTemplate {
  name: string;
  /** As it was called when it came in. */
  fileName: string;
  file: string;
  /** The file beneath what was drawn, and what was drawn; null: the file came as it is. */
  drawn: { beneath: string; layout: Layout } | null;
}

/** A mailing as it stands in a zip of JSON and PDFs. Templates are told by their place in `templates`, from 0. */
export interface FiledMailing {
  format: typeof FORMAT;
  version: 1;
  plan: Omit<MailingPlan, 'packet' | 'sourceId' | 'maps' | 'conditions' | 'counts' | 'leftOut'>;
  /** Of the records that it was over, for those who look for some like them. */
  columns: string[];
  templates: FiledTemplate[];
  maps: Record<string, FieldMap>;
  conditions: Record<string, Condition>;
  /** Files of before this was kept have none. */
  counts?: Record<string, CopyCount>;
  /** Files that go along with messages or stand on copies, by their digest. */
  files: Record<string, string>;
}

/** Things by template with other names for the templates; what has none is left out. */
export const renamed = <Thing>(things: Readonly<Record<string, Thing>>, names: ReadonlyMap<string, string>): Record<string, Thing> =>
  Object.fromEntries(
    Object.entries(things).flatMap(([template, thing]) => {
      const name = names.get(template);
      return name === undefined ? [] : [[name, thing]];
    }),
  );

export const renamedPictures = (pictures: readonly PicturePlan[] | undefined, names: ReadonlyMap<string, string>): PicturePlan[] =>
  (pictures ?? []).flatMap((picture) => {
    const name = names.get(String(picture.template));
    return name === undefined ? [] : [{ ...picture, template: Number(name) }];
  });
