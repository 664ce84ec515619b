/** The one door to OpenCASCADE: its instance, its lists, its exceptions, and giving its objects back. */
import type {
  OpenCascadeInstance,
  TopoDS_Shape,
  TopoDS_Wire,
  TopoDS_Edge,
  TopoDS_Face,
  TopAbs_ShapeEnum,
  gp_Trsf,
  Message_ProgressRange,
} from 'replicad-opencascadejs';
import { AT_ORIGIN, faultOf, type Box, type Fault, type Pose, type Vec3 } from '@kadrel/core';

/** The library of the kernel. */
export type Occt = OpenCascadeInstance;
export type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape, TopoDS_Wire };

interface Deletable {
  delete(): void;
}
/** Notes what is to be deleted at the end of a scope. */
export type Keep = <T extends Deletable>(made: T) => T;

/** The kernel, and what notes everything that is made with it. */
export interface Scoped {
  readonly occt: Occt;
  readonly keep: Keep;
}

/** Runs `work`; everything passed through `keep` is given back at its end, in reverse order, also when it throws. */
export function scope<T>(work: (keep: Keep) => T): T {
  const made: Deletable[] = [];
  try {
    return work((object) => {
      made.push(object);
      return object;
    });
  } finally {
    for (const object of made.reverse())
      if (!(object as { isDeleted?: () => boolean }).isDeleted?.()) object.delete();
  }
}

/** A failure that belongs to the user's model: the part cannot be built like this. */
export class BuildError extends Error {
  /** The key of the step that could not be done, where it was one. */
  failedStep?: string;

  constructor(
    readonly fault: Fault,
    /** Where it goes wrong, in the frame of what is built, mm. */
    readonly places: readonly Vec3[] = [],
    /** What the kernel itself said: for those who look into it, never for people at work. */
    readonly detail = '',
  ) {
    super(fault.reason);
    this.name = 'BuildError';
  }

  /** What is wrong, in a sentence. */
  get reason(): string {
    return this.fault.reason;
  }

  /** The same failure, with its places in another frame. */
  placedAt(places: readonly Vec3[]): BuildError {
    const placed = this.copiedAt(places);
    if (this.failedStep !== undefined) placed.failedStep = this.failedStep;
    return placed;
  }

  /** A failure of the same class, which knows of no step. */
  protected copiedAt(places: readonly Vec3[]): BuildError {
    return new BuildError(this.fault, places, this.detail);
  }
}

/** Runs `work`; the places of a failure in it are carried on into the frame of the caller. */
export function carryingPlaces<T>(carryOver: (place: Vec3) => Vec3, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    throw error.placedAt(error.places.map(carryOver));
  }
}

/**
 * Translates what the kernel throws. C++ exceptions become a BuildError, with the kernel's own word in its detail; a trap of
 * WebAssembly passes through, since the memory behind it must be taken as damaged; so do our own mistakes.
 */
export function translated(occt: Occt, error: unknown): unknown {
  if (!(error instanceof WebAssembly.Exception)) return error;
  const thrown = error;
  const message = occt.getExceptionMessage(thrown);
  occt.decrementExceptionRefcount(thrown);
  return new BuildError(
    faultOf('kernel.not-built', {}),
    [],
    [message[0], message[1]].filter(Boolean).join(': '),
  );
}

/** What engines say where calls went too deep. In the kernel it leaves the stack of its own memory as it was. */
const TOO_DEEP = /call stack|recursion/;

/** Whether the kernel cannot be used any more after this error: a trap, or calls without an end. */
export const isFatal = (error: unknown): boolean =>
  error instanceof WebAssembly.RuntimeError || (error instanceof Error && TOO_DEEP.test(error.message));

/** The kernel's addresses come as signed numbers, and are below zero from two gigabytes on. */
export const addressOf = (pointer: number): number => pointer >>> 0;

/** Every long call wants one; this build of the kernel cannot report through it. */
export const progressRange = ({ occt, keep }: Scoped): Message_ProgressRange =>
  keep(new occt.Message_ProgressRange());

/** The sub-shapes of one kind, each occurrence: a box has 24 edges here. The caller gives them back. */
export function occurrences(
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
  kind: TopAbs_ShapeEnum,
): TopoDS_Shape[] {
  const explorer = keep(new occt.TopExp_Explorer(shape, kind, 'TopAbs_SHAPE'));
  const found: TopoDS_Shape[] = [];
  for (; explorer.More(); explorer.Next()) found.push(keep(explorer.Current()));
  return found;
}

export function fromList({ occt, keep }: Scoped, list: { IsEmpty(): boolean }): TopoDS_Shape[] {
  const copy = keep(new occt.NCollection_List_TopoDS_Shape(list as never));
  const found: TopoDS_Shape[] = [];
  for (; !copy.IsEmpty(); copy.RemoveFirst()) found.push(keep(copy.First()));
  return found;
}

const MAX_HASH = 2147483647;
export const hashOf = (occt: Occt, shape: TopoDS_Shape): number =>
  occt.ReplicadShapeHasher.HashCode(shape, MAX_HASH);

/** Values by sub-shape, whatever its orientation. The kernel's own maps cannot be built from here. */
export class ShapeMap<T> {
  private readonly buckets = new Map<number, { shape: TopoDS_Shape; value: T }[]>();

  constructor(private readonly occt: Occt) {}

  get(shape: TopoDS_Shape): T | undefined {
    return this.buckets.get(hashOf(this.occt, shape))?.find((entry) => entry.shape.IsSame(shape))?.value;
  }

  /** The value of the shape, made by `make` when it is new. */
  ensure(shape: TopoDS_Shape, make: () => T): T {
    const hash = hashOf(this.occt, shape);
    const bucket = this.buckets.get(hash) ?? [];
    const known = bucket.find((entry) => entry.shape.IsSame(shape));
    if (known) return known.value;
    const value = make();
    bucket.push({ shape, value });
    this.buckets.set(hash, bucket);
    return value;
  }
}

/** Each sub-shape of a kind once, in the kernel's order, which a rigid move keeps. */
export function uniqueShapes(
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
  kind: TopAbs_ShapeEnum,
): TopoDS_Shape[] {
  const seen = new ShapeMap<true>(occt);
  return occurrences({ occt, keep }, shape, kind).filter((sub) => {
    let isNew = false;
    seen.ensure(sub, () => (isNew = true));
    return isNew;
  });
}

/** The transformation of a pose; a pure shift keeps every bit of it. */
export function transformOf({ occt, keep }: Scoped, { turn: t, shift: [x, y, z] }: Pose): gp_Trsf {
  const transform = keep(new occt.gp_Trsf());
  transform.SetValues(t[0], t[1], t[2], x, t[3], t[4], t[5], y, t[6], t[7], t[8], z);
  return transform;
}

/** The shape carried by a pose, sharing its geometry. The caller gives it back. */
export function moved(occt: Occt, shape: TopoDS_Shape, pose: Pose): TopoDS_Shape {
  return scope((keep) =>
    shape.Moved(keep(new occt.TopLoc_Location(transformOf({ occt, keep }, pose))), false),
  );
}

/** A copy of the shape carried by a pose, that shares nothing with it; its faces come in the same order. The caller gives it back. */
export function copied(occt: Occt, shape: TopoDS_Shape, pose: Pose): TopoDS_Shape {
  return scope((keep) =>
    keep(new occt.BRepBuilderAPI_Transform(shape, transformOf({ occt, keep }, pose), true, false)).Shape(),
  );
}

/** A copy with the curves of its edges in the planes of its faces, which a plain copy is without: rounding an edge asks for them again and again. */
export function copiedWithCurves(occt: Occt, shape: TopoDS_Shape): TopoDS_Shape {
  const copy = copied(occt, shape, AT_ORIGIN);
  scope((keep) => {
    const site = { occt, keep };
    for (const found of uniqueShapes(site, copy, 'TopAbs_FACE')) {
      const face = keep(occt.TopoDS.Face(found));
      for (const edge of occurrences(site, face, 'TopAbs_EDGE'))
        occt.BRepLib.BuildPCurveForEdgeOnPlane(keep(occt.TopoDS.Edge(edge)), face);
    }
  });
  return copy;
}

/** How far a shape is from a point, mm: 0 within a solid. */
export const distanceTo = (occt: Occt, shape: TopoDS_Shape, at: Vec3): number =>
  scope((keep) => distanceBetween(occt, shape, pointShape({ occt, keep }, at)));

/** The least distance between two shapes, mm; infinite where the kernel finds none. */
export function distanceBetween(occt: Occt, a: TopoDS_Shape, b: TopoDS_Shape): number {
  return scope((keep) => {
    const distance = keep(new occt.BRepExtrema_DistShapeShape());
    const ask = (first: TopoDS_Shape, second: TopoDS_Shape) => {
      distance.LoadS1(first);
      distance.LoadS2(second);
      distance.Perform(progressRange({ occt, keep }));
      return distance.IsDone() ? distance.Value() : Infinity;
    };
    const found = ask(a, b);
    // As above: what it holds is only given back when it is asked something else.
    const nothing = pointShape({ occt, keep }, [0, 0, 0]);
    ask(nothing, nothing);
    return found;
  });
}

export const pointShape = ({ occt, keep }: Scoped, [x, y, z]: Vec3): TopoDS_Shape =>
  keep(keep(new occt.BRepBuilderAPI_MakeVertex(keep(new occt.gp_Pnt(x, y, z)))).Vertex());

/** Several shapes as one; the caller gives it back. */
export function compoundOf(occt: Occt, shapes: readonly TopoDS_Shape[]): TopoDS_Shape {
  return scope((keep) => {
    const build = keep(new occt.TopoDS_Builder());
    const compound = new occt.TopoDS_Compound();
    build.MakeCompound(compound);
    for (const shape of shapes) build.Add(compound, shape);
    return compound;
  });
}

/** A box that holds a shape, quickly and not always closely. */
export function roughBox(occt: Occt, shape: TopoDS_Shape): Box {
  return scope((keep) => {
    const box = keep(new occt.Bnd_Box());
    occt.BRepBndLib.Add(shape, box, false);
    return { min: read(box.CornerMin(), keep), max: read(box.CornerMax(), keep) };
  });
}

/** Facets laid on a shape are lost memory, some 10 KB a face, unless they are taken off before it goes. */
export const withoutFacets = (occt: Occt, shape: TopoDS_Shape): void => occt.BRepTools.Clean(shape, true);

/** Gives a shape back, with whatever facets were laid on it. */
export function release(occt: Occt, shape: TopoDS_Shape): void {
  withoutFacets(occt, shape);
  shape.delete();
}

/** A point, a vector or a direction of the kernel. */
export interface Coordinates {
  X(): number;
  Y(): number;
  Z(): number;
  delete(): void;
}

/** Its numbers; the object itself is kept for the scope. */
export const read = (one: Coordinates, keep: Keep): Vec3 => (keep(one), [one.X(), one.Y(), one.Z()]);
