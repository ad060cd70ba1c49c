import type { Account, Role } from '@mailbag/contract';
import { roles } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Injectable, SetMetadata, createParamDecorator } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, Response } from 'express';
import type { Principal } from '../platform/principal.js';
import { MAILBAG, actsFor, person } from '../platform/principal.js';
import { OPEN_LIMITS, USUAL_LIMITS, readBody } from '../platform/request-body.js';
import { AccountsService } from './accounts.service.js';
import { hiding } from './hidden-values.js';
import { isForeign } from './origin.js';
import { sessionToken } from './session-cookie.js';

const OPEN = 'open to everybody';
/** Marks a path that the unknown may use. */
export const OpenToEverybody = () => SetMetadata(OPEN, true);

const NEEDS = 'needs a role';
/** Marks what only accounts of a role, or of one above it, may use. Without it: looking is for all, changing for operators. */
export const Needs = (role: Role) => SetMetadata(NEEDS, role);
const MEGABYTES = 'takes megabytes';
/** Marks what takes a larger body than is usual. */
export const TakesMegabytes = (limit: number) => SetMetadata(MEGABYTES, limit);

export type SignedRequest = Request & { account?: Account };
/** The account that is signed in. */
export const SignedIn = createParamDecorator(
  (_: unknown, context: ExecutionContext): Account => context.switchToHttp().getRequest<SignedRequest>().account!,
);
/** Who is signed in. */
export const Who = createParamDecorator((_: unknown, context: ExecutionContext): Principal => {
  const { account } = context.switchToHttp().getRequest<SignedRequest>();
  return account ? person(account.id, account.name) : MAILBAG;
});

const isChange = (method: string): boolean => !['GET', 'HEAD', 'OPTIONS'].includes(method);

/**
 * Lets only the signed-in through. Requests that change something must carry a header that no other site's form can send,
 * and where the browser says where they come from, that must be here. The body is read last: nobody is listened to who may not speak.
 */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly accounts: AccountsService,
    private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<SignedRequest>();
    if (isChange(request.method)) {
      if (request.headers['x-mailbag'] !== '1' || isForeign(request)) throw new MailbagError('request-not-ours');
    }
    const twice = Object.entries(request.query).find(([, value]) => typeof value !== 'string');
    if (twice) throw new MailbagError('request-wrong', { why: t`“${twice[0].slice(0, 50)}” stands in its address more than once` });
    const response = context.switchToHttp().getResponse<Response>();
    if (this.reflector.get<boolean | undefined>(OPEN, context.getHandler())) {
      const more = this.reflector.get<number | undefined>(MEGABYTES, context.getHandler());
      await readBody(request, response, more === undefined ? OPEN_LIMITS : { ...OPEN_LIMITS, bytes: more * 1024 * 1024 });
      return true;
    }
    const account = await this.accounts.accountOf(sessionToken(request));
    if (!account) throw new MailbagError('account-signed-out');
    request.account = account;
    actsFor(person(account.id, account.name));
    const asked = <T>(name: string): T | undefined =>
      this.reflector.getAllAndOverride<T | undefined>(name, [context.getHandler(), context.getClass()]);
    const needed = asked<Role>(NEEDS) ?? (isChange(request.method) ? 'operator' : 'viewer');
    if (roles.indexOf(account.role) > roles.indexOf(needed)) throw new MailbagError('account-not-allowed', { role: needed });
    if (!account.seesValues && !hiding(this.reflector, context)) throw new MailbagError('account-values-hidden');
    // Only now is it known that somebody may send something, and how much.
    const megabytes = asked<number>(MEGABYTES);
    await readBody(request, response, megabytes === undefined ? USUAL_LIMITS : { ...USUAL_LIMITS, bytes: megabytes * 1024 * 1024 });
    return true;
  }
}
