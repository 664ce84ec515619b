/** What browsers tell of where a request comes from: nothing is changed for another site's page. */
import type { NextFunction, Request, Response } from 'express';

const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Answers of the API are kept by nobody unless their route says otherwise. */
export function notStored(_: Request, response: Response, next: NextFunction): void {
  response.setHeader('Cache-Control', 'no-store');
  next();
}

/**
 * Refuses what would change something and was sent by another site's page. Requests that no browser sent have neither header.
 * Source: Fetch Metadata Request Headers, W3C; the Origin header, RFC 6454, section 7.
 */
export function sameSiteOnly(request: Request, response: Response, next: NextFunction): void {
  if (READING.has(request.method) || isOwn(request)) {
    next();
    return;
  }
  response
    .status(403)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: 'about:blank',
        status: 403,
        detail: 'This came from another site’s page. Open Kadrel itself and try again.',
      }),
    );
}

function isOwn(request: Request): boolean {
  const site = request.get('Sec-Fetch-Site');
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  const origin = request.get('Origin');
  return origin === undefined || hostOf(origin) === request.host;
}

/** Of `null`, which pages without an origin send, none. */
function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}
