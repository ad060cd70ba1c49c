import type { CheckPlan, Condition, CopyCount, CopyStamp, FieldMap, Finish, StampCorner, Symbology } from '@mailbag/core';
import { MOST_PICTURES, stampCorners, stampHoldings, stampWidths, stampedPages, symbologies } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsISO8601,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

/** A file that a mailing brings along: with every message, or as a picture. */
export class ExtraFile {
  /** SHA-256 of its bytes, in hexadecimal. */
  @Matches(/^[0-9a-f]{64}$/)
  fileId!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;

  /** In bytes. */
  @IsInt()
  @Min(0)
  size!: number;
}

/** The copy code as a symbol on the paper. */
export class StampPlan implements CopyStamp {
  @IsIn(symbologies)
  symbology!: Symbology;

  @IsIn(stampedPages)
  pages!: CopyStamp['pages'];

  @IsIn(stampCorners)
  corner!: StampCorner;

  @IsNumber()
  @Min(0)
  @Max(5000)
  fromSide!: number;

  @IsNumber()
  @Min(0)
  @Max(5000)
  fromEnd!: number;

  @IsNumber()
  @Min(stampWidths.minimum)
  @Max(stampWidths.maximum)
  width!: number;

  @IsBoolean()
  inPrint!: boolean;

  @IsOptional()
  @IsIn(stampHoldings)
  holds?: CopyStamp['holds'];
}

/** A picture that stands in a box of a copy, its aspect kept: the same in all of them, or the one that a column names. */
export class PicturePlan {
  /** Id of the template. */
  @IsInt()
  template!: number;

  @IsString()
  @MaxLength(1000)
  field!: string;

  /** PNG or JPEG. Left out: the record names its own. */
  @ValidateIf(({ column }: PicturePlan) => column === undefined)
  @ValidateNested()
  @Type(() => ExtraFile)
  file?: ExtraFile;

  /** Column that names the picture of each record, among those that came with the source. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  column?: string;
}

/** Where copies are kept, how they are named, and what becomes of their fields. */
export class OutputPlan {
  @IsString()
  @MaxLength(500)
  folder!: string;

  @IsString()
  @MaxLength(500)
  file!: string;

  /** What becomes of the fields; flattened where nothing is said. */
  @IsOptional()
  @IsIn(['flattened', 'locked', 'open'] satisfies Finish[])
  finish?: Finish;

  /** The copy code on the paper; null where it is not stamped. */
  @IsOptional()
  @ValidateNested()
  @Type(() => StampPlan)
  stamp?: StampPlan | null;

  @IsOptional()
  @ValidateNested({ each: true })
  @Type(() => PicturePlan)
  @ArrayMaxSize(MOST_PICTURES)
  pictures?: PicturePlan[];

  /** Pattern of the password that opens a copy; empty: it opens without. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  openPassword?: string;

  /** Pattern of the password that lifts the limits of use; empty: none is set. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  permissionsPassword?: string;

  /** Combined files that are made beside the single ones: one a batch, or one a template. */
  @IsOptional()
  @IsIn(['none', 'batch', 'template'])
  combined?: 'none' | 'batch' | 'template';

  /** Combined files for printing on both sides: each copy begins on a sheet of its own. */
  @IsOptional()
  @IsBoolean()
  duplex?: boolean;

  /** Columns whose values are written into the manifest, and can be searched by. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @IsString({ each: true })
  metadata?: string[];
}

/** What is sent to those whose copy has not come back. */
export class ReminderPlan {
  @IsString()
  @MaxLength(500)
  subject!: string;

  @IsString()
  @MaxLength(20_000)
  body!: string;

  /** Days after sending until the first one. */
  @IsInt()
  @Min(1)
  @Max(365)
  afterDays!: number;

  /** How many at most, as far apart as the first. */
  @IsInt()
  @Min(1)
  @Max(10)
  maximum!: number;

  /** Whether they go out by themselves. */
  @IsBoolean()
  bySchedule!: boolean;

  /** Whether the copies go along again. */
  @IsBoolean()
  attach!: boolean;
}

/** Where the postal address of a record stands, as patterns. */
export class PaperPlan {
  @IsString()
  @MaxLength(500)
  name!: string;

  @IsString()
  @MaxLength(500)
  street!: string;

  @IsString()
  @MaxLength(300)
  postalCode!: string;

  @IsString()
  @MaxLength(300)
  town!: string;

  @IsString()
  @MaxLength(300)
  region!: string;

  /** Two letters (ISO 3166-1) or a pattern that gives them; empty: the office's own country. */
  @IsString()
  @MaxLength(300)
  country!: string;

  /** Who asks for paper: the column, and the values that say so. Null: nobody is asked. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  wantsColumn!: string | null;

  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  wantsValues!: string[];
}

/** What the recipient gets. */
export class MessagePlan {
  /** False: copies are made and kept. */
  @IsBoolean()
  mailed!: boolean;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  addressColumn!: string | null;

  /** Pattern of the recipient's name. */
  @IsString()
  @MaxLength(500)
  recipient!: string;

  @IsString()
  @MaxLength(500)
  subject!: string;

  @IsString()
  @MaxLength(20_000)
  body!: string;

  /** `html`: the body is rich text; `text` where nothing is said. */
  @IsOptional()
  @IsIn(['text', 'html'])
  bodyFormat?: 'text' | 'html';

  /** Who it comes from; the first confirmed sender where nothing is said. */
  @IsOptional()
  @IsInt()
  senderId?: number | null;

  /** Whether a cell may hold several addresses. */
  @IsOptional()
  @IsBoolean()
  several?: boolean;

  /** Patterns of addresses that get it too, openly and blind. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  copyTo?: string;

  @IsOptional()
  @IsString()
  @MaxLength(500)
  blindCopyTo?: string;

  /** How the packet goes along: its files, one combined PDF, or one zip. */
  @IsOptional()
  @IsIn(['files', 'combined', 'zip'])
  attach?: 'files' | 'combined' | 'zip';

  @IsOptional()
  @ValidateNested({ each: true })
  @Type(() => ExtraFile)
  @ArrayMaxSize(10)
  extraFiles?: ExtraFile[];

  /** The sentence that tells how the attachment is opened, for copies with a password. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  passwordSentence?: string;

  /** ISO 8601 time before which nothing is sent. */
  @IsOptional()
  @IsISO8601()
  startAt?: string | null;

  @IsOptional()
  @ValidateNested()
  @Type(() => ReminderPlan)
  reminder?: ReminderPlan | null;
}

/** Everything of a mailing that a person decides. Saved as a whole; the steps of undo are whole plans. */
export class MailingPlan {
  @IsString()
  @MinLength(1, { message: 'A mailing needs a name.' })
  @MaxLength(200)
  name!: string;

  /** Ids of templates in their order. */
  @IsArray()
  @ArrayMaxSize(50)
  @ArrayUnique()
  @IsInt({ each: true })
  packet!: number[];

  @IsOptional()
  @IsInt()
  sourceId!: number | null;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  keyColumn!: string | null;

  /** Rules by template id and field name. */
  @IsObject()
  maps!: Record<string, FieldMap>;

  /** The records that get a template, by its id. A template without one is for all. */
  @IsOptional()
  @IsObject()
  conditions?: Record<string, Condition>;

  /** How many copies of a template a record gets, by its id: one for so many items of a repeated group. A template without one is filled once. */
  @IsOptional()
  @IsObject()
  counts?: Record<string, CopyCount>;

  /** Rows of the sheet that are left out. */
  @IsArray()
  @IsInt({ each: true })
  leftOut!: number[];

  /** Checks that were set otherwise than proposed. */
  @IsOptional()
  @IsObject()
  checks?: CheckPlan;

  @ValidateNested()
  @Type(() => OutputPlan)
  output!: OutputPlan;

  @ValidateNested()
  @Type(() => MessagePlan)
  message!: MessagePlan;

  /** How copies on paper are addressed; guessed from the columns where nothing is said. */
  @IsOptional()
  @ValidateNested()
  @Type(() => PaperPlan)
  paper?: PaperPlan | null;
}
