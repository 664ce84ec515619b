/** Every error leaves as a problem document (RFC 9457) with a sentence that a person understands. */
import { ArgumentsHost, Catch, ExceptionFilter, HttpException, HttpStatus, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { ZodValidationException } from 'nestjs-zod';
import { ZodError } from 'zod';
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

export const notFound = (): Problem =>
  new Problem(HttpStatus.NOT_FOUND, 'There is no such project, or it is not yours.');

@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('Kadrel');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) return;
    const { status, detail, more } = this.describe(error);
    response
      .status(status)
      .type('application/problem+json')
      .send(JSON.stringify({ type: 'about:blank', status, detail, ...more }));
  }

  private describe(error: unknown): {
    status: number;
    detail: string;
    more: Readonly<Record<string, unknown>>;
  } {
    if (error instanceof Problem)
      return { status: error.getStatus(), detail: error.sentence, more: error.more };
    if (error instanceof ZodValidationException) {
      const inner = error.getZodError();
      const issues = inner instanceof ZodError ? inner.issues : [];
      const [first] = issues;
      const errors = issues.slice(0, 20).map(({ path, code, message }) => ({ path, code, message }));
      return {
        status: 400,
        detail: first
          ? `${first.path.join('.') || 'The request'}: ${first.message}`
          : 'The request is not understood.',
        more: { errors },
      };
    }
    if (error instanceof HttpException)
      return {
        status: error.getStatus(),
        detail: this.sentenceFor(error.getStatus()) ?? error.message,
        more: {},
      };
    const status = (error as { status?: unknown } | null)?.status;
    if (typeof status === 'number' && status >= 400 && status < 500)
      return { status, detail: this.sentenceFor(status) ?? 'The request is not understood.', more: {} };
    this.log.error(loggedError(error));
    if (isBusy(error))
      return {
        status: 503,
        detail: 'The database is busy or away. Nothing that was saved is lost; try again in a moment.',
        more: {},
      };
    return {
      status: 500,
      detail: 'Something went wrong on the server. Nothing that was saved is lost.',
      more: {},
    };
  }

  private sentenceFor(status: number): string | undefined {
    if (status === 413) return 'This is too large to be sent.';
    if (status === 429) return 'Too many requests. Wait a minute and try again.';
    return undefined;
  }
}
