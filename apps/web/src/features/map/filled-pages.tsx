import type { OutputPlan, TemplateDetail } from '@mailbag/contract';
import type { Column, FieldMap, FieldValues, FillContext, FillNote, SourceRecord } from '@mailbag/core';
import { useEffect } from 'react';
import { Notice } from '../../ui/mark';
import type { PdfPagesProps } from '../page/pdf-pages';
import { PdfPages } from '../page/pdf-pages';
import { useFilled } from './use-filled';

interface Props extends Omit<PdfPagesProps, 'bytes' | 'layer' | 'pages' | 'fields'> {
  template: TemplateDetail;
  map: FieldMap;
  record: SourceRecord | null;
  columns: readonly Column[];
  context: FillContext;
  output: OutputPlan;
  sourceId: number | null;
  /** What stands in the fields in place of what the rules make of the record; null: that. */
  values: FieldValues | null;
  /** Fields that are being changed. */
  changing: readonly string[];
  /** Is told what is to be known of the values, each time that it is something else. */
  onNotes: (notes: readonly FillNote[]) => void;
}

/** The pages of a template as one record fills them. What is drawn anew here draws nothing else on the screen anew. */
export function FilledPages({ template, map, record, columns, context, output, sourceId, values, changing, onNotes, ...pages }: Props) {
  const { bytes, layer, notes, error } = useFilled(template, map, record, columns, context, output, sourceId, values, changing);
  const told = JSON.stringify(notes);
  useEffect(() => {
    onNotes(JSON.parse(told) as FillNote[]);
  }, [told, onNotes]);
  return (
    <>
      {error && <Notice tone="brick">{error}</Notice>}
      <PdfPages bytes={bytes} layer={layer} pages={template.pageSizes} fields={template.fieldList} {...pages} />
    </>
  );
}
