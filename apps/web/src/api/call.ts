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

/** @param answer what the answer must be */
export async function call<T>(
  method: string,
  path: string,
  answer: z.ZodType<T>,
  body?: unknown,
): Promise<T> {
  const isBlob = body instanceof Blob;
  const headers: Record<string, string> =
    body === undefined ? {} : { 'Content-Type': isBlob ? body.type : 'application/json' };
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers,
      signal: AbortSignal.timeout(TIMEOUT_MS),
      ...(body === undefined ? {} : { body: isBlob ? body : JSON.stringify(body) }),
    });
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
