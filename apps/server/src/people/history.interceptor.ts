import { plural, t } from '@mailbag/core/words';
import type { CallHandler, ExecutionContext, NestInterceptor } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Observable } from 'rxjs';
import { tap } from 'rxjs';
import type { SignedRequest } from '../accounts/session.guard.js';
import { recordedActions } from './recorded-actions.js';
import type { Principal } from '../platform/principal.js';
import { person } from '../platform/principal.js';
import { History } from '../history/history.service.js';

/** Parts of a request that say what it was about. Values of records and secrets are never among them. */
const told = ['name', 'email', 'address', 'action', 'role', 'host'] as const;

/** Writes down who changed what, after it was done. */
@Injectable()
export class HistoryInterceptor implements NestInterceptor {
  constructor(private readonly history: History) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const request = context.switchToHttp().getRequest<SignedRequest>();
    const route = (request.route as { path?: string } | undefined)?.path ?? request.path;
    const action = recordedActions[`${request.method} ${route}`];
    if (!action) return next.handle();
    return next.handle().pipe(tap(() => void this.write(request, action)));
  }

  private async write(request: SignedRequest, action: string): Promise<void> {
    const body = (request.body ?? {}) as Record<string, unknown>;
    // Whose copy it was stands in the ledger.
    const about = (action.includes('copy') ? [] : told).flatMap((name) =>
      typeof body[name] === 'string' && body[name] !== '' ? [`${String(body[name]).slice(0, 120)}`] : [],
    );
    const ids = Array.isArray(body.ids) ? [t`${plural(body.ids.length, 'copy', 'copies')}`] : [];
    const place = request.params.id ? [t`number ${String(request.params.id)}`] : [];
    const { account } = request;
    const who: Principal = account
      ? person(account.id, account.name)
      : { kind: 'visitor', id: null, name: typeof body.email === 'string' ? body.email : t`somebody` };
    await this.history.note(action, [...place, ...ids].join(' · '), about.join(' · ') || null, who);
  }
}
