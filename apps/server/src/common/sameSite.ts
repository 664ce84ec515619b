/** What browsers tell of where a request comes from: nothing is changed for another site's page. */
import type { IncomingHttpHeaders } from 'node:http';
import type { NextFunction, Request, Response } from 'express';

const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Answers of the API are kept by nobody unless their route says otherwise. */
export const NOT_STORED = ['Cache-Control', 'no-store'] as const;
/** No answer of the API is kept by what lies between. */
export function notStored(_: Request, response: Response, next: NextFunction): void {
  response.setHeader(...NOT_STORED);
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

const isOwn = (request: Request): boolean => isSameSite(request.headers, request.host);

/** @param host what whoever asks takes this server to be, with its port */
export function isSameSite(headers: IncomingHttpHeaders, host: string | undefined): boolean {
  const { 'sec-fetch-site': site, origin } = headers;
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  return origin === undefined || (host !== undefined && hostOf(origin) === host);
}

/** Of `null`, which pages without an origin send, none. */
function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}
