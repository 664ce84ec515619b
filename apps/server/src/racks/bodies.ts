/** What requests about racks carry, and what is answered. */
import { rackPartSchema } from '@kadrel/core';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';

const name = z.string().trim().min(1, 'A rack needs a name.').max(120);

/** More parts than this nobody finds anything in. */
export const MAX_PARTS = 300;

/** What a new rack begins with. */
export class NewRack extends createZodDto(
  z.strictObject({
    name,
    /** Whose members share it. */
    project: z.uuid().optional(),
    parts: z.array(rackPartSchema).max(MAX_PARTS).default([]),
  }),
) {}
/** What of a rack may be changed. */
export class ChangeRack extends createZodDto(z.strictObject({ name })) {}
/** A part that is put on a rack. */
export class PutRackPart extends createZodDto(rackPartSchema) {}

const listed = z.object({
  id: z.string(),
  name: z.string(),
  project: z.string().nullable(),
  /** How many parts there are. */
  parts: z.number(),
});
/** A rack in a list. */
export class ListedRack extends createZodDto(listed) {}
/** A rack with its parts. */
export class OpenedRack extends createZodDto(listed.extend({ parts: z.array(rackPartSchema) })) {}
