/** What the workshop asks of the server: projects with their documents and edits, and racks. */
import { documentSchema, editSchema, rackPartSchema, type Edit, type RackPart } from '@kadrel/core';
import { z } from 'zod';
import { ApiError, call } from './call.ts';
import { projectSchema } from './client.ts';

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

export const workshopApi = {
  /** Edits that a project cannot take any more, on a copy of it as it was at their base. */
  keepProject: (id: string, body: { name: string; base: number; edits: readonly Edit[] }) =>
    call('POST', `/projects/${id}/keep`, projectSchema, body),
  openProject: (id: string) => call('GET', `/projects/${id}`, openedSchema),
  /** The whole ledger after a revision, asked for in stretches. */
  async edits(id: string, after: number): Promise<{ edits: Edit[] }> {
    const edits: Edit[] = [];
    for (;;) {
      const found = await workshopApi.stretchOfEdits(id, [after + edits.length, STRETCH]);
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
};

const conflictSchema = z.looseObject({ revision: z.number(), edits: z.array(editSchema) });
/** What a stale save misses, or undefined when the error is another one. */
export function missedEdits(error: unknown): { revision: number; edits: Edit[] } | undefined {
  if (!(error instanceof ApiError) || error.status !== 409) return undefined;
  const parsed = conflictSchema.safeParse(error.body);
  return parsed.success ? parsed.data : undefined;
}
