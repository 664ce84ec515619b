/** What requests about projects carry, and what is answered. */
import { documentSchema, editSchema, sceneSchema } from '@kadrel/core';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import type { Project } from '../data/entities.ts';

const name = z.string().trim().min(1, 'A project needs a name.').max(120);
/** As the database counts them. */
const MAX_REVISION = 2 ** 31 - 1;
const base = z.number().int().nonnegative();

/** Edits that are to be saved after a revision. */
export const newEditsSchema = z.strictObject({ base, edits: z.array(editSchema).min(1).max(500) });
/** Edits that become a project of their own. */
export const keptEditsSchema = z.strictObject({ name, base, edits: z.array(editSchema).max(5000) });
/** A document that becomes a project. */
export const fileSchema = z.strictObject({ name, document: z.unknown() });

/** What a new project begins with. */
export class NewProjectBody extends createZodDto(
  z.strictObject({ name, scene: sceneSchema.partial().default({}) }),
) {}
/** What of a project may be changed. */
export class ChangeProject extends createZodDto(
  z.strictObject({ name: name.optional(), archived: z.boolean().optional() }),
) {}
/** Of the ledger, so many edits after a revision. */
const stretch = z.object({
  after: z.coerce.number().int().nonnegative().default(0),
  limit: z.coerce.number().int().positive().max(MAX_REVISION).default(MAX_REVISION),
});
/** Which edits are asked for. */
export class Stretch extends createZodDto(stretch) {}
// These are read apart from the request, in a worker where they are large; here they describe it.
export class NewEdits extends createZodDto(newEditsSchema) {}
export class KeptEdits extends createZodDto(keptEditsSchema) {}
export class FileProject extends createZodDto(fileSchema) {}

const listed = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number(),
  picture: z.string().nullable(),
  archived: z.boolean(),
  changedAt: z.string(),
});
/** A project in a list. */
export class ListedProject extends createZodDto(listed) {}
/** With the latest of its edits, oldest first. */
export class OpenedProject extends createZodDto(
  listed.extend({ document: documentSchema, edits: z.array(editSchema) }),
) {}
/** Edits in order. */
export class EditList extends createZodDto(z.object({ edits: z.array(editSchema) })) {}
/** Where a project is after a save. */
export class Revision extends createZodDto(z.object({ revision: z.number() })) {}

/** A project as lists tell it. */
export const listedOf = ({
  id,
  name: called,
  revision,
  picture,
  archived,
  changedAt,
}: Project): z.infer<typeof listed> => ({
  id,
  name: called,
  revision,
  picture: picture ?? null,
  archived,
  changedAt: changedAt.toISOString(),
});
