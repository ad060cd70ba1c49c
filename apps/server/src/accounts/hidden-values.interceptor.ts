import type { CallHandler, ExecutionContext, NestInterceptor } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Observable } from 'rxjs';
import { map } from 'rxjs';
import type { SignedRequest } from './session.guard.js';

/** Parts of columns that hold values of records. */
const empty: Record<string, unknown> = { examples: [], longest: '' };

function withoutValues(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutValues);
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype) return value;
  const isColumn = 'examples' in value && 'slug' in value;
  return Object.fromEntries(
    Object.entries(value).map(([name, part]) => [name, isColumn && name in empty ? empty[name] : withoutValues(part)]),
  );
}

/** Takes examples of values out of the columns that are told to accounts which may not see values. */
@Injectable()
export class HiddenValues implements NestInterceptor {
  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const { account } = context.switchToHttp().getRequest<SignedRequest>();
    return account && !account.seesValues ? next.handle().pipe(map(withoutValues)) : next.handle();
  }
}
