/** The cookie by which a page is known. */
import type { Response } from 'express';
import type { Settings } from '../common/settings.ts';
import { SESSION_DAYS } from './accounts.service.ts';
import { cookieName } from './session.guard.ts';

type Secured = Pick<Settings, 'secureCookies'>;

/** Sends the token of a session along. */
export function giveCookie(response: Response, token: string, { secureCookies: secure }: Secured): void {
  response.cookie(cookieName({ secure }), token, {
    httpOnly: true,
    sameSite: 'strict',
    secure,
    path: '/',
    maxAge: SESSION_DAYS * 86_400_000,
  });
}

/** The page is not known any more. */
export function takeCookie(response: Response, { secureCookies: secure }: Secured): void {
  response.clearCookie(cookieName({ secure }), { path: '/', secure });
}
