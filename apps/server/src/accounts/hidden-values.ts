import type { MailingDetail, PrintRunDetail, SourceSummary } from '@mailbag/contract';
import type { CallHandler, ExecutionContext, NestInterceptor } from '@nestjs/common';
import { Injectable, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Observable } from 'rxjs';
import { map } from 'rxjs';
import type { SignedRequest } from './session.guard.js';

const HIDES = 'hides values';
/** What of an answer is told to accounts that do not see values. */
type Hide = (answer: never) => unknown;
const everything = (answer: unknown): unknown => answer;

/**
 * Marks what accounts may use that do not see values of records: its answer holds none, or `hide` takes them out, and what it does shows none to anybody
 * who should not see them. Whatever has no such mark they may not use at all, so a new path shows nothing by oversight.
 * What a person sees of a copy all the same are its code, its recipient's name and address, its file's name and its state: who has what.
 */
export const WithoutValues = (hide: Hide = everything) => SetMetadata(HIDES, hide);

/** How the answer of what is asked is told without values; undefined: it may not be asked. */
export const hiding = (reflector: Reflector, context: ExecutionContext): Hide | undefined =>
  reflector.getAllAndOverride<Hide | undefined>(HIDES, [context.getHandler(), context.getClass()]);

/** A source without examples of values, what they were before, and what a query was asked with. */
export const sourceWithoutValues = (source: SourceSummary): SourceSummary => ({
  ...source,
  columns: source.columns.map((column) => ({ ...column, examples: [], longest: '' })),
  query: source.query && { ...source.query, sql: '', parameters: {} },
  changes: source.changes && {
    ...source.changes,
    addedKeys: [],
    goneKeys: [],
    changedValues: [],
    corrections: { ...source.changes.corrections, unfit: [] },
  },
  error: source.error && { ...source.error, fields: {} },
});

export const mailingWithoutValues = (mailing: MailingDetail): MailingDetail => ({
  ...mailing,
  source: mailing.source && sourceWithoutValues(mailing.source),
});

export const printRunWithoutValues = (run: PrintRunDetail): PrintRunDetail => ({
  ...run,
  sheetsOf: run.sheetsOf.map((sheet) => ({ ...sheet, postalCode: '' })),
});

/** Takes values out of what is told to accounts which may not see them. */
@Injectable()
export class HiddenValues implements NestInterceptor {
  constructor(private readonly reflector: Reflector) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const { account } = context.switchToHttp().getRequest<SignedRequest>();
    if (!account || account.seesValues) return next.handle();
    return next.handle().pipe(map((hiding(this.reflector, context) ?? everything) as (answer: unknown) => unknown));
  }
}
