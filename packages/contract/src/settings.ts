import { IsInt, IsNumber, IsObject, IsString, IsTimeZone, Matches, Max, MaxLength, Min, MinLength, ValidateIf } from 'class-validator';
import { Nullable } from './nullable.js';

export class OfficeRequest {
  /** One line above the address window (DIN 5008). */
  @IsString()
  @MaxLength(120)
  returnLine!: string;

  /** Two letters of ISO 3166-1. */
  @Matches(/^[A-Z]{2}$/, { message: 'The country has two letters, such as DE.' })
  country!: string;

  /** Where days begin and end, as the IANA time zone database names it; empty: where the server is. */
  @ValidateIf(({ timeZone }: OfficeRequest) => timeZone !== undefined && timeZone !== '')
  @IsTimeZone({ message: 'There is no such time zone.' })
  timeZone?: string;
}

export class RetentionRequest {
  /** Days after a batch has ended; 0: for ever. */
  @IsInt()
  @Min(0)
  @Max(36_500)
  recordDays!: number;

  @IsInt()
  @Min(0)
  @Max(36_500)
  copyDays!: number;

  /** Days after a source was read and its last batch has ended; 0: for ever. */
  @IsInt()
  @Min(0)
  @Max(36_500)
  sourceDays!: number;
}

export class RetentionAnswer extends RetentionRequest {
  @Nullable()
  @IsObject()
  lastRun!: { at: string; records: number; copies: number; sources: number } | null;
}

export class PrinterRequest {
  @IsString()
  @MinLength(1, { message: 'Give the printer a name.' })
  @MaxLength(60)
  name!: string;

  @Matches(/^ipps?:\/\/[^\s]+$/, { message: 'The address of a printer begins with ipp:// or ipps://.' })
  @MaxLength(300)
  uri!: string;
}

export class PrinterAnswer {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsString()
  uri!: string;
}
