/** Structured logs: one JSON object a line on standard error, with an id for each request, and nothing that people sent. */
import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Params } from 'nestjs-pino';
import pino from 'pino';

/** What a proxy may give a request, so that both logs can be read side by side. */
const ID = /^[\w-]{8,64}$/;
const UUID = /[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;
const STANDARD_ERROR = 2;

/** Of a thread that answers no requests itself. */
export const logOf = (level: string): pino.Logger => pino({ level }, pino.destination(STANDARD_ERROR));

export const loggingOf = (level: string): Params => ({
  pinoHttp: {
    level,
    stream: pino.destination(STANDARD_ERROR),
    genReqId: requestId,
    customLogLevel: (_, response, error) => (error || response.statusCode >= 500 ? 'error' : 'info'),
    serializers: {
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({
        id,
        method,
        path: pathOf(url),
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
      // Errors are logged where they are caught, by kind and place.
      err: () => undefined,
    },
    wrapSerializers: false,
  },
});

/** Of a request: the proxy's, or a new one; also sent to whoever asks. */
export function requestId(request: IncomingMessage, response: ServerResponse): string {
  const given = request.headers['x-request-id'];
  const id = typeof given === 'string' && ID.test(given) ? given : randomUUID();
  response.setHeader('X-Request-Id', id);
  return id;
}

/** Without ids and questions. */
export const pathOf = (url: string): string => url.split('?')[0]!.replaceAll(UUID, ':id');
