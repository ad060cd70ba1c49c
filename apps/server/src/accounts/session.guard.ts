import type { Account, Role } from '@mailbag/contract';
import { roles } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Injectable, SetMetadata, createParamDecorator } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { AccountsService } from './accounts.service.js';
import { sessionToken } from './session-cookie.js';

const OPEN = 'open to everybody';
/** Marks a path that the unknown may use. */
export const OpenToEverybody = () => SetMetadata(OPEN, true);

const NEEDS = 'needs a role';
/** Marks what only accounts of a role, or of one above it, may use. Without it: looking is for all, changing for operators. */
export const Needs = (role: Role) => SetMetadata(NEEDS, role);
const VALUES = 'shows values';
/** Marks what shows values of records. */
export const ShowsValues = () => SetMetadata(VALUES, true);

export type SignedRequest = Request & { account?: Account };
/** The account that is signed in. */
export const SignedIn = createParamDecorator(
  (_: unknown, context: ExecutionContext): Account => context.switchToHttp().getRequest<SignedRequest>().account!,
);
/** Name of who is signed in, for histories. */
export const Who = createParamDecorator(
  (_: unknown, context: ExecutionContext): string => context.switchToHttp().getRequest<SignedRequest>().account?.name ?? 'Mailbag',
);

const isChange = (method: string): boolean => !['GET', 'HEAD', 'OPTIONS'].includes(method);

/**
 * Lets only the signed-in through. Requests that change something must carry a header that no other site's form can send,
 * and where the browser says where they come from, that must be here.
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
      const origin = request.headers.origin;
      const foreign = origin !== undefined && new URL(origin).host !== request.headers.host;
      if (request.headers['x-mailbag'] !== '1' || foreign) throw new MailbagError('request-not-ours');
    }
    if (this.reflector.get<boolean | undefined>(OPEN, context.getHandler())) return true;
    const account = await this.accounts.accountOf(sessionToken(request));
    if (!account) throw new MailbagError('account-signed-out');
    request.account = account;
    const asked = <T>(name: string): T | undefined =>
      this.reflector.getAllAndOverride<T | undefined>(name, [context.getHandler(), context.getClass()]);
    const needed = asked<Role>(NEEDS) ?? (isChange(request.method) ? 'operator' : 'viewer');
    if (roles.indexOf(account.role) > roles.indexOf(needed)) throw new MailbagError('account-not-allowed', { role: needed });
    if (!account.seesValues && asked<boolean>(VALUES)) throw new MailbagError('account-values-hidden');
    return true;
  }
}
