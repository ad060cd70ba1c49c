import type { FieldMap, Problem } from '../map/field-map.js';
import type { FillContext } from '../map/fill-context.js';
import { evaluateMap } from '../map/field-map.js';
import { fitOf } from '../map/kinds/fitted.js';
import type { Row } from '../map/row.js';
import type { CombinedFile } from '../pdf/fill/combine.js';
import type { CompileOptions, CompiledTemplate } from '../pdf/plan/compile.js';
import { compileTemplate } from '../pdf/plan/compile.js';
import type { FilledCopy } from '../pdf/fill/copy-file.js';
import type { Field } from '../pdf/field.js';
import { stampLine } from './stamp-lines.js';
import { isFillable } from '../pdf/field.js';
import { fillCopy, measureCopy } from '../pdf/fill/fill.js';
import type { CopyLayers } from '../pdf/fill/layers.js';
import { copyLayers } from '../pdf/fill/layers.js';
import type { FillOptions } from '../pdf/fill/fill-options.js';
import type { FieldValues, FillNote } from '../pdf/value.js';

/** A template with the rules that fill it. */
export interface MappedTemplate {
  fields: readonly Field[];
  map: FieldMap;
}

/** What a copy is told beside its record. */
export interface CopyContext extends FillContext {
  /** Null: no passwords. */
  protect?: FillOptions['protect'] | null;
  /** Pictures of this copy alone, by the fields in whose boxes they stand. PNG or JPEG. */
  images?: FillOptions['images'];
}

/** A mapped template that is made ready: preview, check, sample, batch and print all fill it in the one way below. */
export class RecordFiller {
  /** How values are fitted into single fields. */
  private readonly fits: NonNullable<FillOptions['fits']>;

  private constructor(
    readonly template: MappedTemplate,
    readonly compiled: CompiledTemplate,
    private readonly images: NonNullable<FillOptions['images']> | null = null,
  ) {
    this.fits = Object.fromEntries(
      Object.entries(template.map).flatMap(([field, rule]) => (rule.kind === 'fitted' ? [[field, fitOf(rule)]] : [])),
    );
  }

  /**
   * Compiles a template for its map: fields that have a rule are drawn anew in every copy.
   * @throws MailbagError as `compileTemplate`
   */
  static async of(pdf: Uint8Array, template: MappedTemplate, options: Omit<CompileOptions, 'given'>): Promise<RecordFiller> {
    const given = template.fields.filter((field) => isFillable(field) && Object.hasOwn(template.map, field.name)).map(({ name }) => name);
    return new RecordFiller(template, await compileTemplate(pdf, { ...options, given }));
  }

  /** The same with other rules, of the same fields. */
  withMap(map: FieldMap): RecordFiller {
    return new RecordFiller({ ...this.template, map }, this.compiled, this.images);
  }

  /** The same with pictures, by the fields in whose boxes they stand in every copy. PNG or JPEG. */
  withImages(images: NonNullable<FillOptions['images']>): RecordFiller {
    return new RecordFiller(this.template, this.compiled, Object.keys(images).length > 0 ? images : null);
  }

  /** The values of a record, and what the rules could not translate. */
  values(row: Row, context: FillContext): { values: FieldValues; problems: Problem[] } {
    return evaluateMap(this.template.fields, this.template.map, row, context);
  }

  /** The copy of a record. @throws MailbagError image-unreadable */
  fill(row: Row, context: CopyContext): { copy: FilledCopy; values: FieldValues; problems: Problem[] } {
    const { values, problems } = this.values(row, context);
    return { copy: this.fillValues(values, context), values, problems };
  }

  /** The copy of values that have been worked out already. */
  fillValues(values: FieldValues, context: CopyContext): FilledCopy {
    const { protect } = context;
    return fillCopy(this.compiled, values, {
      ...this.told(context),
      ...(protect ? { protect } : {}),
    });
  }

  /** The copy of values in two, for looking at it while some fields are being changed. Null: it does not come apart. @see copyLayers */
  layers(values: FieldValues, fields: ReadonlySet<string>, context: FillContext): CopyLayers | null {
    const layers = copyLayers(this.compiled, values, fields, this.told(context));
    const fits = Object.entries(this.fits).filter(([field]) => !fields.has(field));
    return layers && { ...layers, key: JSON.stringify([fits, layers.key]) };
  }

  /** What stamps and pictures of a copy are told. */
  private told(context: CopyContext): FillOptions {
    const { code, link } = context;
    const images = this.imagesWith(context);
    return {
      code,
      ...(link !== undefined && { link }),
      lineOf: (pattern) => stampLine(pattern, context),
      fits: this.fits,
      ...(images ? { images } : {}),
    };
  }

  private imagesWith({ images }: Pick<CopyContext, 'images'>): FillOptions['images'] | null {
    return images && this.images ? { ...this.images, ...images } : (images ?? this.images);
  }

  /** What a copy of values would say of them, without making it. */
  measure(values: FieldValues): FillNote[] {
    return measureCopy(this.compiled, values, { fits: this.fits });
  }

  /** Adds the copy of a record to a file that combines many. */
  addTo(combined: CombinedFile, row: Row, bookmark: string, context: CopyContext): FillNote[] {
    const { values } = this.values(row, context);
    return combined.add(this.compiled, { values, bookmark, options: this.told(context) });
  }
}
