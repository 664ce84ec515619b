/** Who is asking: from the session cookie. Every route needs an account unless it is marked `@Open()`. */
import {
  CanActivate,
  createParamDecorator,
  ExecutionContext,
  HttpStatus,
  Injectable,
  SetMetadata,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { Problem } from '../common/problem.ts';
import type { Account } from '../data/entities.ts';
import { AccountsService } from './accounts.service.ts';

/** Over https the browser itself sees to it that no other host and no plain page sets it. Source: RFC 6265bis, `__Host-`. */
export const cookieName = ({ secure }: { readonly secure: boolean }): string =>
  secure ? '__Host-kadrel_session' : 'kadrel_session';
const OPEN = 'open';

/** A route that needs no account. */
export const Open = () => SetMetadata(OPEN, true);

interface WithAccount extends Request {
  account?: Account;
}

/** The token in the cookies of a request. */
export function tokenOf({ headers }: Pick<Request, 'headers'>): string | undefined {
  const found = /(?:^|;\s*)(?:__Host-)?kadrel_session=([\w-]+)/.exec(headers.cookie ?? '');
  return found?.[1];
}

/** Lets nobody in without a session, but where a route says so. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly accounts: AccountsService,
    private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (this.reflector.getAllAndOverride<boolean>(OPEN, [context.getHandler(), context.getClass()]))
      return true;
    const request = context.switchToHttp().getRequest<WithAccount>();
    const token = tokenOf(request);
    const account = token ? await this.accounts.accountOf(token) : null;
    if (!account) throw new Problem(HttpStatus.UNAUTHORIZED, 'Sign in first.');
    request.account = account;
    return true;
  }
}

/** The account that is asking. */
export const Asker = createParamDecorator((_: unknown, context: ExecutionContext): Account => {
  const { account } = context.switchToHttp().getRequest<WithAccount>();
  if (!account) throw new Problem(HttpStatus.UNAUTHORIZED, 'Sign in first.');
  return account;
});
