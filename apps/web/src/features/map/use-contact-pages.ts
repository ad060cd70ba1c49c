import type { OutputPlan, TemplateDetail } from '@mailbag/contract';
import type { Column, FieldMap, FillContext, FillNote, SourceRecord } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { queries } from '../../api/queries';
import { thumbnailOf } from '../../platform/pdf-reader';
import { fillPreview } from '../../platform/preview';
import { usePictures } from './use-filled';

/** A page of a copy, drawn small. */
export interface ContactPage {
  /** As the address of a picture; null: it is not drawn yet. */
  picture: string | null;
  notes: readonly FillNote[];
  error: string | null;
}

/** The copies of several records, each a page, filled by the engine in the worker and drawn one after the other; anew when the map changes. */
export function useContactPages(
  template: TemplateDetail | undefined,
  { map, columns, output }: { map: FieldMap; columns: readonly Column[]; output: OutputPlan },
  records: readonly { index: number; record: SourceRecord }[] | undefined,
  contextOf: (index: number) => FillContext,
  page: number,
  width: number,
): ReadonlyMap<number, ContactPage> {
  const { data: pdf } = useQuery({ ...queries.templatePdf(template?.id ?? 0, template?.revisionId ?? 0), enabled: template !== undefined });
  const images = usePictures(template?.id, output.pictures);
  const [drawn, setDrawn] = useState<ReadonlyMap<number, ContactPage>>(new Map());
  const { finish = 'flattened', stamp = null } = output;
  useEffect(() => {
    if (!pdf || !template || !records) return;
    let isWanted = true;
    const told = { pdf, fields: template.fieldList, stamps: template.stamps };
    const pages = new Map<number, ContactPage>();
    const draw = async ({ index, record }: { index: number; record: SourceRecord }): Promise<void> => {
      try {
        const key = `${template.id} ${template.revisionId}`;
        const wish = { template: key, map, finish, stamp, images, columns, record, context: contextOf(index) };
        const { bytes, notes } = await fillPreview(wish, told);
        if (!isWanted) return;
        pages.set(index, { picture: await thumbnailOf(bytes, width, page), notes, error: null });
      } catch (error) {
        pages.set(index, { picture: null, notes: [], error: (error as Error).message });
      }
      if (isWanted) setDrawn(new Map(pages));
    };
    setDrawn(new Map());
    void Promise.all(records.map(draw));
    return () => {
      isWanted = false;
    };
  }, [pdf, template, map, finish, stamp, images, columns, records, contextOf, page, width]);
  return drawn;
}
