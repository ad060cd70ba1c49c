import { IsIn, IsInt, IsISO8601, IsString } from 'class-validator';

export const WASTEBASKET_KINDS = ['template', 'source', 'mailing', 'intake'] as const;
export type WastebasketKind = (typeof WASTEBASKET_KINDS)[number];

/** Something that was deleted and can be put back. */
export class WastebasketLine {
  @IsIn(WASTEBASKET_KINDS)
  kind!: WastebasketKind;

  @IsInt()
  id!: number;

  @IsString()
  name!: string;

  /** ISO 8601. */
  @IsISO8601()
  deletedAt!: string;

  /** Who deleted it, as they were called then. */
  @IsString()
  deletedBy!: string;

  /** When it is deleted for good. ISO 8601. */
  @IsISO8601()
  goesAt!: string;
}
