import type { FieldMap, Problem } from '../map/field-map.js';
import { evaluateMap } from '../map/field-map.js';
import type { Row } from '../map/row.js';
import type { CombinedFile } from '../pdf/fill/combine.js';
import type { CompileOptions, CompiledTemplate } from '../pdf/plan/compile.js';
import { compileTemplate } from '../pdf/plan/compile.js';
import type { FilledCopy } from '../pdf/fill/copy-file.js';
import type { Field } from '../pdf/field.js';
import { isFillable } from '../pdf/field.js';
import { fillCopy, measureCopy } from '../pdf/fill/fill.js';
import type { FillNote, FillOptions } from '../pdf/fill/fill-options.js';
import type { FieldValues } from '../pdf/value.js';

/** A template with the rules that fill it. */
export interface MappedTemplate {
  fields: readonly Field[];
  map: FieldMap;
}

/** What a copy needs to know beside its record; frozen with the batch, so that a copy made again is the same. */
export interface CopyContext {
  /** For stamps. */
  code: string;
  /** Null: no passwords. */
  protect?: FillOptions['protect'] | null;
}

/** A mapped template that is made ready: preview, check, sample, batch and print all fill it in the one way below. */
export class RecordFiller {
  private constructor(
    readonly template: MappedTemplate,
    readonly compiled: CompiledTemplate,
  ) {}

  /**
   * Compiles a template for its map: fields that have a rule are drawn anew in every copy.
   * @throws MailbagError as `compileTemplate`
   */
  static async of(pdf: Uint8Array, template: MappedTemplate, options: Omit<CompileOptions, 'given'>): Promise<RecordFiller> {
    const given = template.fields.filter((field) => isFillable(field) && Object.hasOwn(template.map, field.name)).map(({ name }) => name);
    return new RecordFiller(template, await compileTemplate(pdf, { ...options, given }));
  }

  /** The values of a record, and what the rules could not translate. */
  values(row: Row): { values: FieldValues; problems: Problem[] } {
    return evaluateMap(this.template.fields, this.template.map, row);
  }

  /** The copy of a record. @throws MailbagError image-unreadable */
  fill(row: Row, context: CopyContext): { copy: FilledCopy; values: FieldValues; problems: Problem[] } {
    const { values, problems } = this.values(row);
    return { copy: this.fillValues(values, context), values, problems };
  }

  /** The copy of values that have been worked out already. */
  fillValues(values: FieldValues, { code, protect }: CopyContext): FilledCopy {
    return fillCopy(this.compiled, values, { code, ...(protect ? { protect } : {}) });
  }

  /** What a copy of values would say of them, without making it. */
  measure(values: FieldValues): FillNote[] {
    return measureCopy(this.compiled, values);
  }

  /** Adds the copy of a record to a file that combines many. */
  addTo(combined: CombinedFile, row: Row, bookmark: string, { code }: CopyContext): FillNote[] {
    return combined.add(this.compiled, { values: this.values(row).values, bookmark, options: { code } });
  }
}
