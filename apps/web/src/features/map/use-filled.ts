import type { TemplateDetail } from '@mailbag/contract';
import type { Column, Evaluation, FieldMap, FillContext, FillNote, Finish, SourceRecord } from '@mailbag/core';
import { evaluateMap, rowReader } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { queries } from '../../api/queries';
import { fillPreview } from '../../platform/preview';

export interface Filled {
  /** The filled copy; before the first one the template itself. */
  bytes: Uint8Array | null;
  evaluation: Evaluation | null;
  notes: FillNote[];
  error: string | null;
}

/** The filled copy of one record, made by core in a worker, anew at every change. Only the newest wish is answered. */
export function useFilled(
  template: TemplateDetail | undefined,
  map: FieldMap,
  record: SourceRecord | null,
  columns: readonly Column[],
  context: FillContext,
  finish: Finish,
): Filled {
  const { data: pdf } = useQuery({ ...queries.templatePdf(template?.id ?? 0, template?.revisionId ?? 0), enabled: template !== undefined });
  const [made, setMade] = useState<{ key: string; bytes: Uint8Array; notes: FillNote[]; error: string | null } | null>(null);
  const wish = useRef(0);
  const evaluation = useMemo(
    () => (template && record ? evaluateMap(template.fieldList, map, rowReader(columns)(record), context) : null),
    [template, map, record, columns, context],
  );
  const key = template ? `${template.id} ${template.revisionId}` : '';
  useEffect(() => {
    if (!pdf || !template || !record) return;
    const mine = ++wish.current;
    fillPreview({ template: key, map, finish, columns, record, context }, { pdf, fields: template.fieldList }).then(
      ({ bytes, notes }) => mine === wish.current && setMade({ key, bytes, notes, error: null }),
      (error: Error) => mine === wish.current && setMade({ key, bytes: pdf, notes: [], error: error.message }),
    );
  }, [pdf, key, template, map, finish, columns, record, context]);
  const isMine = made?.key === key;
  return { bytes: isMine ? made.bytes : (pdf ?? null), evaluation, notes: isMine ? made.notes : [], error: isMine ? made.error : null };
}
