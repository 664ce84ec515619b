/** Docks, the named joining places of parts, and joints, which say what is joined to what. Lengths in mm, angles in degrees. */
import { z } from 'zod';
import { idSchema } from '../recipes/ids.ts';
import { finite, numberSchema, pointSchema, vectorSchema } from '../recipes/numbers.ts';

const nameSchema = z.string().min(1).max(120);

/** What goes into what, in the words of the sentence. */
export const DOCK_ROLES = { plug: 'plug', socket: 'socket' } as const;
/** Whether a dock goes into its like, or takes it in. */
export type DockRole = keyof typeof DOCK_ROLES;

/** A dock as it is stored on its part. */
export const dockSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: finite,
  /** Docks of one kind fit one another: `pipe 40`. Empty fits anything. */
  kind: z.string().max(60),
  role: z.enum(Object.keys(DOCK_ROLES) as [DockRole, ...DockRole[]]).optional(),
  /** Docks that both tell a size fit where these are equal, mm. */
  size: numberSchema.optional(),
  /** Where it stands in the frame of its part. */
  origin: vectorSchema,
  /** Degrees about X, Y, Z of its part: its own Z then points outward, and its X is where its roll begins. */
  turn: vectorSchema,
  /** The names that it follows when sizes change; `origin` and `turn` are then where it was when it was made. */
  on: z
    .strictObject({
      at: z.string().min(1).max(2000),
      snap: z.string().max(40).optional(),
      /** Of several places of that name the nearest to this one, in the frame of the part. */
      near: pointSchema.optional(),
    })
    .optional(),
});
export type Dock = z.infer<typeof dockSchema>;

/** Docks of a part by id. Ids are its own: a copy has the same ones. */
export const docksSchema = z.record(idSchema, dockSchema);

/** A dock as it stands: of this item, and within a pattern of this member of it. */
export const dockEndSchema = z.strictObject({
  of: idSchema,
  dock: idSchema,
  member: z.string().max(40).optional(),
});
export type DockEnd = z.infer<typeof dockEndSchema>;

/** A joint as it is stored. */
export const jointSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: finite,
  /** What hangs on the other. */
  moved: dockEndSchema,
  onto: dockEndSchema,
  /** About the axis of `onto`, then about its X and its Y. */
  turn: numberSchema,
  tilt: z.tuple([numberSchema, numberSchema]),
  /** Between the two, along the axis of `onto`. */
  offset: numberSchema,
  /** What hangs on it moves when that which it hangs on moves. */
  held: z.literal(true).optional(),
});
export type Joint = z.infer<typeof jointSchema>;

/** Whether two ends are one dock of one member. */
export const isSameEnd = (a: DockEnd, b: DockEnd): boolean =>
  a.of === b.of && a.dock === b.dock && (a.member ?? '') === (b.member ?? '');

/** The docks of a part in the order in which they were made. */
export const docksInOrder = ({
  docks,
}: {
  readonly docks?: Readonly<Record<string, Dock>> | undefined;
}): Dock[] => Object.values(docks ?? {}).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
