/** Every error leaves as a problem document (RFC 9457) with a sentence that a person understands. */
import { ArgumentsHost, Catch, ExceptionFilter, HttpException, HttpStatus, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { ZodValidationException } from 'nestjs-zod';
import { ZodError } from 'zod';
import { NewerVersionError } from '@kadrel/core';
import { isBusy, loggedError } from './errorLog.ts';

/** A refusal that the page can act on; `more` goes into the problem document. */
export class Problem extends HttpException {
  constructor(
    status: HttpStatus,
    readonly sentence: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(sentence, status);
  }
}

/** The same for what is not there and for what is another’s. */
export const notFound = (): Problem =>
  new Problem(HttpStatus.NOT_FOUND, 'There is no such project, or it is not yours.');

/** An error as RFC 9457 has it. */
export interface ProblemDocument {
  readonly status: number;
  readonly detail: string;
  readonly more: Readonly<Record<string, unknown>>;
}

/** The body of a problem document. */
export const problemText = ({ status, detail, more }: ProblemDocument): string =>
  JSON.stringify({ type: 'about:blank', status, detail, ...more });

/** Answers every error with a problem document. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('Kadrel');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) return;
    const problem = problemOf(error, this.log);
    response.status(problem.status).type('application/problem+json').send(problemText(problem));
  }
}

/** What whoever asked gets to know of an error. What nobody expected is logged. */
export function problemOf(error: unknown, log: Pick<Logger, 'error'>): ProblemDocument {
  if (error instanceof Problem)
    return { status: error.getStatus(), detail: error.sentence, more: error.more };
  if (error instanceof ZodError) return notUnderstood(error);
  if (error instanceof ZodValidationException) {
    const inner = error.getZodError();
    return notUnderstood(inner instanceof ZodError ? inner : new ZodError([]));
  }
  if (error instanceof NewerVersionError)
    return plain(
      503,
      'This project was saved by a newer Kadrel than this server. Update the server; nothing is lost.',
    );
  const status = statusOf(error);
  if (status !== undefined)
    return plain(
      status,
      SENTENCES[status] ?? (error instanceof HttpException ? error.message : MISUNDERSTOOD),
    );
  log.error(loggedError(error));
  return isBusy(error)
    ? plain(503, 'The database is busy or away. Nothing that was saved is lost; try again in a moment.')
    : plain(500, 'Something went wrong on the server. Nothing that was saved is lost.');
}

const plain = (status: number, detail: string): ProblemDocument => ({ status, detail, more: {} });

const MISUNDERSTOOD = 'The request is not understood.';
const SENTENCES: Readonly<Record<number, string>> = {
  413: 'This is too large to be sent.',
};

/** Of refusals that a library makes; undefined for everything else. */
function statusOf(error: unknown): number | undefined {
  if (error instanceof HttpException) return error.getStatus();
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500 ? status : undefined;
}

function notUnderstood({ issues }: ZodError): ProblemDocument {
  const [first] = issues;
  const errors = issues.slice(0, 20).map(({ path, code, message }) => ({ path, code, message }));
  const detail = first ? `${first.path.join('.') || 'The request'}: ${first.message}` : MISUNDERSTOOD;
  return { status: 400, detail, more: { errors } };
}
