import { IsIn, IsInt, IsISO8601, IsString } from 'class-validator';

/** What can lie in the wastebasket; what needs others comes before them. */
export const WASTEBASKET_KINDS = [
  'intake',
  'mailing',
  'source',
  'template',
  'connection',
  'sender',
  'mail-server',
  'printer',
  'register',
  'view',
] as const;
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
