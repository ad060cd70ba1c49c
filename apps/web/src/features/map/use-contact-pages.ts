import type { OutputPlan, TemplateDetail } from '@mailbag/contract';
import type { Column, FieldMap, FillContext, FillNote, SourceRecord } from '@mailbag/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { queries } from '../../api/queries';
import { thumbnailsOf } from '../../platform/pdf-reader';
import { fillSheet } from '../../platform/preview';
import { picturesNamed, usePictures } from './use-filled';

/** A page of a copy, drawn small. */
export interface ContactPage {
  /** As the address of a picture. */
  picture: string;
  notes: readonly FillNote[];
}

/** Pages after which the screen is drawn anew. */
const AT_ONCE = 4;

/** The copies of several records, each a page, filled by the engine in the worker into one file and drawn one after the other; anew when the map changes. */
export function useContactPages(
  template: TemplateDetail | undefined,
  { map, columns, output, sourceId }: { map: FieldMap; columns: readonly Column[]; output: OutputPlan; sourceId: number | null },
  records: readonly { index: number; record: SourceRecord }[] | undefined,
  contextOf: (index: number) => FillContext,
  page: number,
  width: number,
): { pages: ReadonlyMap<number, ContactPage>; error: string | null } {
  const { data: pdf } = useQuery({ ...queries.templatePdf(template?.id ?? 0, template?.revisionId ?? 0), enabled: template !== undefined });
  const images = usePictures(template?.id, output.pictures);
  const [drawn, setDrawn] = useState<{ pages: ReadonlyMap<number, ContactPage>; error: string | null }>({ pages: new Map(), error: null });
  const { stamp = null, pictures } = output;
  const client = useQueryClient();
  useEffect(() => {
    if (!pdf || !template || !records) return;
    let isWanted = true;
    const addresses: string[] = [];
    const draw = async (): Promise<void> => {
      const wish = { template: `${template.id} ${template.revisionId}`, map, stamp, images, columns };
      const own = async (record: SourceRecord): Promise<Record<string, Uint8Array>> => {
        const found = sourceId === null ? [] : picturesNamed(template.id, pictures, { record, columns });
        const read = found.map(
          async ({ field, name }) => [field, await client.fetchQuery(queries.sourcePicture(sourceId!, name))] as const,
        );
        return Object.fromEntries((await Promise.all(read)).flatMap(([field, bytes]) => (bytes ? [[field, bytes]] : [])));
      };
      const copies = await Promise.all(
        records.map(async ({ index, record }) => ({ record, context: contextOf(index), images: await own(record) })),
      );
      const told = { pdf, fields: template.fieldList, stamps: template.stamps };
      const { bytes, notes } = await fillSheet({ ...wish, copies }, told);
      if (!isWanted) return;
      const pages = new Map<number, ContactPage>();
      await thumbnailsOf(
        bytes,
        records.map((_, at) => at * template.pageSizes.length + page),
        width,
        (picture, at) => {
          addresses.push(picture);
          if (!isWanted) addresses.forEach((address) => URL.revokeObjectURL(address));
          pages.set(records[at]!.index, { picture, notes: notes[at] ?? [] });
          if (isWanted && (pages.size % AT_ONCE === 0 || pages.size === records.length)) setDrawn({ pages: new Map(pages), error: null });
          return isWanted;
        },
      );
    };
    setDrawn({ pages: new Map(), error: null });
    if (records.length > 0)
      draw().catch(
        (error: unknown) => isWanted && setDrawn({ pages: new Map(), error: error instanceof Error ? error.message : String(error) }),
      );
    return () => {
      isWanted = false;
      addresses.forEach((address) => URL.revokeObjectURL(address));
    };
  }, [pdf, template, map, stamp, images, pictures, sourceId, client, columns, records, contextOf, page, width]);
  return drawn;
}
