/**
 * The short way of a save, which is what this server is asked for most: a small edit by somebody who was just here, on a document that is
 * at hand, is answered before the application's router, guards and pipes, which cost many times what the save does. Whatever is not
 * plain goes on to the route, unchanged, and is refused or looked into there.
 */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Injectable } from '@nestjs/common';
import { AccountsService } from '../accounts/accounts.service.ts';
import { tokenOf } from '../accounts/session.guard.ts';
import { problemText } from '../common/problem.ts';
import { Rates } from '../common/rates.ts';
import { isSameSite } from '../common/sameSite.ts';
import { EditsService } from './edits.service.ts';
import { MAX_LIGHT, mediaTypeOf, type Answer } from './tasks.ts';

const PATH = /^\/api\/projects\/([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})\/edits$/i;
const PLAIN_JSON = /^application\/json(; ?charset=utf-8)?$/i;

type Request = IncomingMessage & { body?: unknown };
type Listener = (request: IncomingMessage, response: ServerResponse) => void;

/** What else belongs to an answer. */
export interface Around {
  /** What every answer of the API carries. */
  readonly headers: Readonly<Record<string, string>>;
  /** Called before an answer is sent, with when its request came (`performance.now()`). */
  readonly watch: (request: IncomingMessage, response: ServerResponse, started: number) => void;
}

@Injectable()
export class QuickSave {
  constructor(
    private readonly accounts: AccountsService,
    private readonly edits: EditsService,
    private readonly rates: Rates,
  ) {}

  /** Answers requests; what it cannot answer goes to `route`. */
  before(route: Listener, around: Around): Listener {
    return (request: Request, response) => {
      const started = performance.now();
      const asked = askedBy(request);
      if (!asked) return route(request, response);
      this.answered(request, asked).then(
        (answer) => {
          if (!answer) return route(request, response);
          around.watch(request, response, started);
          send(response, answer, around.headers);
        },
        // Whatever goes wrong goes wrong in the route too, which finds the words for it.
        () => route(request, response),
      );
    };
  }

  private async answered(request: Request, { project, token }: Asked): Promise<Answer | undefined> {
    if (!this.rates.mayAsk(request)) return undefined;
    // To its end, before anything can fail: the route cannot read half a body.
    const text = await textOf(request);
    try {
      request.body = JSON.parse(text);
    } catch (error) {
      return { status: 400, text: problemText({ status: 400, detail: (error as Error).message, more: {} }) };
    }
    const account = await this.accounts.accountOf(token);
    return account ? this.edits.appendQuickly(account, project, request.body) : undefined;
  }
}

interface Asked {
  readonly project: string;
  readonly token: string;
}

/** A post of JSON that is small and neither packed nor in another alphabet, by a page of this site. */
function askedBy(request: IncomingMessage): Asked | undefined {
  const { method, url, headers } = request;
  const project = method === 'POST' ? PATH.exec(url!)?.[1] : undefined;
  const isPlain =
    Number(headers['content-length'] ?? Infinity) <= MAX_LIGHT &&
    headers['content-encoding'] === undefined &&
    PLAIN_JSON.test(headers['content-type'] ?? '');
  // What a proxy is called outside is for the route to find out.
  const host = headers['x-forwarded-host'] === undefined ? headers.host : undefined;
  if (project === undefined || !isPlain || !isSameSite(headers, host)) return undefined;
  const token = tokenOf(request);
  return token === undefined ? undefined : { project, token };
}

/** Rejects where the connection breaks off. */
const textOf = (request: IncomingMessage): Promise<string> =>
  new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.once('end', () => resolve(Buffer.concat(parts).toString('utf8')));
    request.once('error', reject);
  });

function send(response: ServerResponse, { status, text }: Answer, headers: Around['headers']): void {
  response.writeHead(status, {
    ...headers,
    'Content-Type': `${mediaTypeOf(status)}; charset=utf-8`,
    'Content-Length': Buffer.byteLength(text),
  });
  response.end(text);
}
