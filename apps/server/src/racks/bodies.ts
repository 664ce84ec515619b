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

/** More than this is no small picture. */
const MAX_PICTURE = 400_000;

/** A picture of a part: lines, as the path of an SVG, and the box round them. */
export class RackPicture extends createZodDto(
  z.strictObject({
    /** Of the part that it shows. */
    version: z.number().int().min(1),
    viewBox: z
      .string()
      .max(200)
      .regex(/^-?[\d.]+(e-?\d+)?( -?[\d.]+(e-?\d+)?){3}$/, 'Four numbers.'),
    path: z
      .string()
      .max(MAX_PICTURE)
      .regex(/^[MLCQAZ\d\s.,e+-]*$/i, 'The path of an SVG.'),
  }),
) {}

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
export class OpenedRack extends createZodDto(
  listed.extend({
    parts: z.array(rackPartSchema),
    /** Ids of the parts that have a picture. */
    drawn: z.array(z.string()),
  }),
) {}
