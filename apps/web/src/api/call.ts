/** One request to the server, its answer checked. Failures carry the server's own sentence. */
import { z } from 'zod';

const problemSchema = z.looseObject({ status: z.number(), detail: z.string() });

/** Why the server did not do what it was asked. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly body: unknown,
  ) {
    super(message);
    this.name = 'ApiError';
  }
  /** The server was not reached, could not answer, or wants a sign-in: the same request may go through later. */
  get isPassing(): boolean {
    return this.status === 0 || this.status >= 500 || [401, 408, 429].includes(this.status);
  }
}

/** A lost server must not hang the save queue. */
const TIMEOUT_MS = 20_000;

/** An answer that was asked for ahead is old after so long, ms. */
const AHEAD_MS = 5000;
const ahead = new Map<string, { readonly since: number; readonly response: Promise<Response> }>();

/** Asks for what is about to be asked for, while those who will are still on their way: the next `call` takes the answer. */
export function askAhead(path: string): void {
  const response = sent('GET', path, undefined);
  // Whoever takes it is told of its failure.
  response.catch(() => undefined);
  ahead.set(path, { since: performance.now(), response });
}

/** Each is taken once. */
function takenAhead(path: string): Promise<Response> | undefined {
  const found = ahead.get(path);
  ahead.delete(path);
  return found && performance.now() - found.since < AHEAD_MS ? found.response : undefined;
}

function sent(method: string, path: string, body: unknown): Promise<Response> {
  const isBlob = body instanceof Blob;
  const headers: Record<string, string> =
    body === undefined ? {} : { 'Content-Type': isBlob ? body.type : 'application/json' };
  return fetch(`/api${path}`, {
    method,
    headers,
    signal: AbortSignal.timeout(TIMEOUT_MS),
    ...(body === undefined ? {} : { body: isBlob ? body : JSON.stringify(body) }),
  });
}

/** @param answer what the answer must be */
export async function call<T>(
  method: string,
  path: string,
  answer: z.ZodType<T>,
  body?: unknown,
): Promise<T> {
  let response: Response;
  try {
    response = await ((method === 'GET' ? takenAhead(path) : undefined) ?? sent(method, path, body));
  } catch (error) {
    throw new ApiError(0, 'The server does not answer.', error);
  }
  const text = await response.text();
  let json: unknown;
  try {
    json = text ? JSON.parse(text) : undefined;
  } catch {
    // A proxy's page in place of an answer counts as no answer.
    throw new ApiError(
      response.status >= 400 ? response.status : 502,
      'The server’s answer is not understood.',
      text,
    );
  }
  if (!response.ok) throw refusalOf(response, json);
  return answer.parse(json);
}

/** A failure in the server's own sentence, where it has said one. */
function refusalOf({ status }: Response, json: unknown): ApiError {
  const problem = problemSchema.safeParse(json);
  return new ApiError(status, problem.success ? problem.data.detail : 'The server refused this.', json);
}
