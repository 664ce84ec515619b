/** What the routes of projects share. */
import { ParseUUIDPipe } from '@nestjs/common';
import type { Response } from 'express';
import { notFound } from '../common/problem.ts';
import { mediaTypeOf, type Answer } from './tasks.ts';

/** What is no id is no project. */
export const projectId = new ParseUUIDPipe({ exceptionFactory: notFound });

/** What is ready as text is not read and written again. */
export function send(response: Response, { status, text }: Answer): void {
  response.status(status).type(mediaTypeOf(status)).send(text);
}
