import type { IncomingMessage, ServerResponse } from 'node:http';
import { Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import { requestId } from './logging.ts';

/** The line in the log of a request that is answered before the router, like that of any other. */
@Injectable()
export class RequestLog {
  constructor(private readonly log: PinoLogger) {}

  /** Before the answer is sent. @param started as `performance.now()` tells, ms */
  write(request: IncomingMessage, response: ServerResponse, started: number): void {
    const id = requestId(request, response);
    const { logger } = this.log;
    if (!logger.isLevelEnabled('info')) return;
    response.once('finish', () => {
      const { method, url } = request;
      const responseTime = Math.round(performance.now() - started);
      logger.info({ req: { id, method, url }, res: response, responseTime }, 'request completed');
    });
  }
}
