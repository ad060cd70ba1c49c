import type { OutputPlan, TemplateDetail } from '@mailbag/contract';
import type { Column, Evaluation, FieldMap, FieldValues, FillContext, FillNote, SourceRecord } from '@mailbag/core';
import { evaluateMap, rowReader } from '@mailbag/core';
import type { UseQueryOptions } from '@tanstack/react-query';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { queries } from '../../api/queries';
import type { FilledPreview } from '../../platform/preview';
import { fillPreview } from '../../platform/preview';

export interface Filled {
  /** The filled copy; before the first one the template itself. */
  bytes: Uint8Array | null;
  /** What is drawn over it; null: nothing. */
  layer: Uint8Array | null;
  evaluation: Evaluation | null;
  notes: FillNote[];
  error: string | null;
}

const NOTHING: readonly string[] = [];
const NONE: Readonly<Record<string, Uint8Array>> = {};

/** The record whose own pictures are wanted, and where they come from. */
export interface PicturedRecord {
  sourceId: number | null;
  record: SourceRecord | null;
  columns: readonly Column[];
}

/** The boxes of a template with the pictures that a record names for them. */
export function picturesNamed(
  template: number | undefined,
  pictures: OutputPlan['pictures'] = [],
  { record, columns }: Pick<PicturedRecord, 'record' | 'columns'>,
): { field: string; name: string }[] {
  return pictures.flatMap(({ template: own, field, column }) => {
    const name = record?.cells[columns.findIndex((one) => one.name === column)]?.text.trim() ?? '';
    return own === template && column !== undefined && name !== '' ? [{ field, name }] : [];
  });
}

/** Pictures of a template by field, as soon as they are there: those of all copies, and those of one record. */
export function usePictures(
  template: number | undefined,
  pictures: OutputPlan['pictures'] = [],
  pictured?: PicturedRecord,
): Readonly<Record<string, Uint8Array>> {
  const fixed = pictures.flatMap(({ template: own, field, file }) => (own === template && file ? [{ field, file }] : []));
  const named = pictured && pictured.sourceId !== null ? picturesNamed(template, pictures, pictured) : [];
  // Compared by what they are, not by the array that they come in.
  const fields = JSON.stringify([...fixed, ...named].map(({ field }) => field));
  return useQueries({
    queries: [
      ...fixed.map(({ file }): UseQueryOptions<Uint8Array | null> => queries.picture(file.fileId) as UseQueryOptions<Uint8Array | null>),
      ...named.map(({ name }) => queries.sourcePicture(pictured!.sourceId!, name) as UseQueryOptions<Uint8Array | null>),
    ],
    combine: useCallback(
      (results: { data: Uint8Array | null | undefined }[]) => {
        const there = (JSON.parse(fields) as string[]).flatMap((field, at) =>
          results[at]?.data ? [[field, results[at].data] as const] : [],
        );
        return there.length === 0 ? NONE : Object.fromEntries(there);
      },
      [fields],
    ),
  });
}

/**
 * The filled copy of one record, made by core in a worker, anew at every change. Only the newest wish is answered.
 * @param sourceId where pictures come from that the record names; null: from nowhere
 * @param values what stands in the fields in place of what the rules make of the record; null: that
 * @param apart fields that are being changed: what they show is drawn over the rest, which stays
 */
export function useFilled(
  template: TemplateDetail | undefined,
  map: FieldMap,
  record: SourceRecord | null,
  columns: readonly Column[],
  context: FillContext,
  { finish = 'flattened', stamp = null, pictures }: OutputPlan,
  sourceId: number | null,
  values: FieldValues | null = null,
  apart: readonly string[] = NOTHING,
): Filled {
  const { data: pdf } = useQuery({ ...queries.templatePdf(template?.id ?? 0, template?.revisionId ?? 0), enabled: template !== undefined });
  const [made, setMade] = useState<(FilledPreview & { key: string; error: string | null }) | null>(null);
  const wish = useRef(0);
  const images = usePictures(template?.id, pictures, { sourceId, record, columns });
  const evaluation = useMemo(
    () =>
      template && record
        ? values
          ? { values, problems: [] }
          : evaluateMap(template.fieldList, map, rowReader(columns)(record), context)
        : null,
    [template, map, record, columns, context, values],
  );
  const key = template ? `${template.id} ${template.revisionId}` : '';
  useEffect(() => {
    if (!pdf || !template || !record) return;
    const mine = ++wish.current;
    fillPreview(
      { template: key, map, finish, stamp, images, columns, record, context, values, apart },
      { pdf, fields: template.fieldList, stamps: template.stamps },
    ).then(
      (filled) => mine === wish.current && setMade({ key, ...filled, error: null }),
      (error: Error) => mine === wish.current && setMade({ key, bytes: pdf, layer: null, notes: [], error: error.message }),
    );
  }, [pdf, key, template, map, finish, stamp, images, columns, record, context, values, apart]);
  const { bytes = pdf ?? null, layer = null, notes = [], error = null } = made?.key === key ? made : {};
  return { bytes, layer, evaluation, notes, error };
}
