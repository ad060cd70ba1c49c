import type { Change, Clash, Field, Layout, LayoutAids, PageSize } from '@mailbag/core';
import { ArrayMaxSize, IsArray, IsBoolean, IsInt, IsNumber, IsObject, Min } from 'class-validator';

/** What is drawn on a template, and on what. */
export class LayoutAnswer {
  /** Grows with every change; 0: nothing was ever drawn. */
  @IsInt()
  version!: number;

  /** Whether something is drawn that is not in use. */
  @IsBoolean()
  isDraft!: boolean;

  @IsObject()
  layout!: Layout;

  /** What the latest revision has. */
  @IsObject()
  inUse!: Layout;

  /** The revision whose file lies beneath. */
  @IsInt()
  baseId!: number;

  /** Its number. */
  @IsInt()
  baseNumber!: number;

  /** The latest revision: the base itself, or one that was written from a layout. A later one from elsewhere came in since. */
  @IsInt()
  latest!: number;

  /** Whether a new edition came in that is not what this is drawn on. */
  @IsBoolean()
  isOvertaken!: boolean;

  /** Pages of the base. */
  @IsArray()
  @IsObject({ each: true })
  pages!: PageSize[];

  /** Fields that the base has by itself. */
  @IsArray()
  @IsObject({ each: true })
  fields!: Field[];
}

export class LayoutChangesRequest {
  @IsArray()
  @ArrayMaxSize(50_000)
  changes!: Change[];
}

/** What became of changes: the layout that is there now, and what could not be made. */
export class LayoutChangesAnswer {
  @IsNumber()
  version!: number;

  @IsObject()
  layout!: Layout;

  @IsArray()
  @IsObject({ each: true })
  clashes!: Clash[];
}

/** What helps to draw: lines to snap to, and blanks that were found. */
export class LayoutAidsAnswer implements LayoutAids {
  @IsArray()
  @IsObject({ each: true })
  pages!: LayoutAids['pages'];

  @IsArray()
  @IsObject({ each: true })
  blanks!: LayoutAids['blanks'];
}

/** The layout is taken into use as it was seen. */
export class LayoutUseRequest {
  @IsInt()
  @Min(0)
  version!: number;
}
