/** The server's API, each answer checked. Failures carry the server's own sentence. */
import {
  documentSchema,
  editSchema,
  rackPartSchema,
  type Edit,
  type RackPart,
  type Scene,
} from '@kadrel/core';
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

async function call<T>(method: string, path: string, answer: z.ZodType<T>, body?: unknown): Promise<T> {
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
  if (!response.ok) {
    const problem = problemSchema.safeParse(json);
    throw new ApiError(
      response.status,
      problem.success ? problem.data.detail : 'The server refused this.',
      json,
    );
  }
  return answer.parse(json);
}

const meSchema = z.object({ id: z.string(), email: z.string(), name: z.string(), guest: z.boolean() });
/** Who is signed in now; or `confirm`, the address that a message was sent to. */
const signedUpSchema = meSchema.partial().extend({ confirm: z.string().optional() });
const startSchema = z.object({ demo: z.boolean(), archiveDays: z.number(), me: meSchema.nullable() });
const sessionsSchema = z.array(z.object({ isThis: z.boolean(), usedAt: z.string(), expiresAt: z.string() }));
const projectSchema = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number(),
  picture: z.string().nullable(),
  archived: z.boolean(),
  changedAt: z.string(),
});
export type ProjectCard = z.infer<typeof projectSchema>;
/** With the latest of its edits. */
const openedSchema = projectSchema.extend({ document: documentSchema, edits: z.array(editSchema) });
const editsSchema = z.object({ edits: z.array(editSchema) });
/** Edits that are asked for at once: more make an answer that takes long to read. */
export const STRETCH = 1000;
const rackSchema = z.object({
  id: z.string(),
  name: z.string(),
  project: z.string().nullable(),
  parts: z.number(),
});
const openedRackSchema = rackSchema.extend({ parts: z.array(rackPartSchema), drawn: z.array(z.string()) });
const rackPictureSchema = z.object({ version: z.number(), viewBox: z.string(), path: z.string() });
export type RackPictureKept = z.infer<typeof rackPictureSchema>;
export type OpenedRack = z.infer<typeof openedRackSchema>;
const nothing = z.undefined();

/** Everything that the page asks of the server. */
export const api = {
  start: () => call('GET', '/start', startSchema),
  signUp: (body: { email: string; name: string; password: string }) =>
    call('POST', '/sign-up', signedUpSchema, body),
  /** By the link of a message. */
  confirm: (token: string) => call('POST', '/sign-up/confirm', meSchema, { token }),
  signIn: (body: { email: string; password: string }) => call('POST', '/sign-in', meSchema, body),
  demo: () => call('POST', '/demo', meSchema),
  signOut: () => call('POST', '/sign-out', nothing),
  sessions: () => call('GET', '/sessions', sessionsSchema),
  closeOtherSessions: () => call('DELETE', '/sessions', nothing),
  changePassword: (body: { old: string; fresh: string }) => call('PUT', '/password', nothing, body),
  deleteAccount: (password: string) => call('DELETE', '/account', nothing, { password }),
  projects: () => call('GET', '/projects', z.array(projectSchema)),
  createProject: (name: string, scene: Partial<Scene>) =>
    call('POST', '/projects', projectSchema, { name, scene }),
  /** Edits that a project cannot take any more, on a copy of it as it was at their base. */
  keepProject: (id: string, body: { name: string; base: number; edits: readonly Edit[] }) =>
    call('POST', `/projects/${id}/keep`, projectSchema, body),
  openFile: (name: string, document: unknown) =>
    call('POST', '/projects/from-file', projectSchema, { name, document }),
  changeProject: (id: string, body: { name?: string; archived?: boolean }) =>
    call('PATCH', `/projects/${id}`, projectSchema, body),
  deleteProject: (id: string) => call('DELETE', `/projects/${id}`, nothing),
  duplicateProject: (id: string) => call('POST', `/projects/${id}/duplicate`, projectSchema),
  openProject: (id: string) => call('GET', `/projects/${id}`, openedSchema),
  /** The whole ledger after a revision, asked for in stretches. */
  async edits(id: string, after: number): Promise<{ edits: Edit[] }> {
    const edits: Edit[] = [];
    for (;;) {
      const found = await api.stretchOfEdits(id, [after + edits.length, STRETCH]);
      edits.push(...found);
      if (found.length < STRETCH) return { edits };
    }
  },
  /** So many edits after a revision, oldest first. */
  async stretchOfEdits(id: string, [after, limit]: readonly [number, number]): Promise<Edit[]> {
    return (await call('GET', `/projects/${id}/edits?after=${after}&limit=${limit}`, editsSchema)).edits;
  },
  appendEdits: (id: string, base: number, edits: readonly Edit[]) =>
    call('POST', `/projects/${id}/edits`, z.object({ revision: z.number() }), { base, edits }),
  racks: () => call('GET', '/racks', z.array(rackSchema)),
  rack: (id: string) => call('GET', `/racks/${id}`, openedRackSchema),
  createRack: (body: { name: string; project?: string; parts?: readonly RackPart[] }) =>
    call('POST', '/racks', rackSchema, body),
  renameRack: (id: string, name: string) => call('PATCH', `/racks/${id}`, rackSchema, { name }),
  deleteRack: (id: string) => call('DELETE', `/racks/${id}`, nothing),
  /** A new part, or a new version of one. */
  putOnRack: (id: string, part: RackPart) => call('PUT', `/racks/${id}/parts`, rackPartSchema, part),
  takeOffRack: (id: string, part: string) => call('DELETE', `/racks/${id}/parts/${part}`, nothing),
  rackPicture: (id: string, part: string, version: number) =>
    call('GET', `/racks/${id}/parts/${part}/picture?version=${version}`, rackPictureSchema),
  keepRackPicture: (id: string, part: string, picture: RackPictureKept) =>
    call('PUT', `/racks/${id}/parts/${part}/picture`, nothing, picture),
  setPicture: (id: string, picture: Blob) => call('PUT', `/projects/${id}/picture`, projectSchema, picture),
};

const conflictSchema = z.looseObject({ revision: z.number(), edits: z.array(editSchema) });
/** What a stale save misses, or undefined when the error is another one. */
export function missedEdits(error: unknown): { revision: number; edits: Edit[] } | undefined {
  if (!(error instanceof ApiError) || error.status !== 409) return undefined;
  const parsed = conflictSchema.safeParse(error.body);
  return parsed.success ? parsed.data : undefined;
}
