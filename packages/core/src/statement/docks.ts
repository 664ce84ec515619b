/** Docks and places for them, as typed or picked: `Lid: hinge`, `{ on, dock }`, `{ on, at, snap }`, or three numbers. */
import { partNamed, vectorOf } from '../document/items.ts';
import type { Dock } from '../document/dock.ts';
import type { ItemId, KadrelDocument, NumVector } from '../document/schema.ts';
import { keptNames, namedPlace, outOf, type DockedSolid, type NamedPlace } from '../docks/frames.ts';
import { docksOn, type DockPlace, type ShapeOf } from '../docks/places.ts';
import type { NamedPoint } from '../snapping/locate.ts';
import { solidNamed } from '../snapping/solidNamed.ts';
import { carryBack, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { isRefusal, refuse, type Refusal } from '../refusals/refusal.ts';

/** What reads what docks are made of. */
interface DockReaders {
  readonly document: KadrelDocument;
  readonly shapeOf: ShapeOf;
  /** A point of the world. */
  readonly point: (given: unknown) => NumVector | Refusal;
}

/** A dock that was said; without `place` the part alone, whose best dock is meant. */
export interface DockSaid {
  readonly part: ItemId;
  readonly place?: DockPlace;
}

/** A place for a dock. */
export interface Spot {
  /** The part that it is on; undefined where it is a bare point of the world. */
  readonly part?: ItemId;
  /** In the frame of that part, mm; of the world where there is none. */
  readonly point: Vec3;
  /** As it was given by numbers, with its formulas. */
  readonly asTyped?: NumVector;
  /** The way out there, in the same frame, length 1. */
  readonly out?: Vec3 | undefined;
  /** The names that it follows. */
  readonly on?: NonNullable<Dock['on']>;
}

interface DockGiven {
  readonly on?: unknown;
  readonly dock?: unknown;
  readonly member?: unknown;
  readonly of?: unknown;
}

export function readDock(given: unknown, readers: DockReaders): DockSaid | Refusal {
  const { document } = readers;
  const read = typeof given === 'string' ? dockOfText(given, document) : (given as DockGiven | null);
  if (typeof read?.on !== 'string') return refuse('type.dock', {});
  const part = partNamed(document, read.on);
  if (!part) return refuse('unknown-part', { of: read.on });
  if (read.dock === undefined || read.dock === '') return { part: part.id };
  const place = dockNamed(part.id, read, readers);
  if (isRefusal(place)) return place;
  if (place.lost !== undefined)
    return refuse('dock-lost.does', { name: place.dock.name, part: part.name, lost: place.lost });
  return { part: place.part, place };
}

function dockOfText(text: string, document: KadrelDocument): DockGiven {
  const bare = text.trim();
  if (partNamed(document, bare)) return { on: bare };
  const colon = bare.lastIndexOf(':');
  return colon > 0 ? { on: bare.slice(0, colon).trim(), dock: bare.slice(colon + 1).trim() } : { on: bare };
}

/** Of one item, or of what it is made from; a member of a pattern where it is said, else the first. */
function dockNamed(
  part: ItemId,
  { dock, member, of }: DockGiven,
  { document, shapeOf }: DockReaders,
): DockPlace | Refusal {
  const { name } = document.items[part]!;
  const holder = typeof of === 'string' ? partNamed(document, of)?.id : undefined;
  const wanted = member === undefined || member === '' ? undefined : String(member);
  const all = docksOn(document, part, shapeOf).filter(
    (place) =>
      (holder === undefined || place.end.of === holder) &&
      (wanted === undefined || place.end.member === wanted),
  );
  const found = all.filter((place) => place.dock.name === dock);
  const fitting = found.length > 0 ? found : all.filter((place) => place.dock.id === dock);
  const [first] = fitting;
  if (!first) {
    const names = [...new Set(all.map((place) => place.dock.name))];
    return refuse('unknown-dock.named', {
      name,
      dock: String(dock),
      words: names.length > 0 ? `; it has ${names.slice(0, 8).join(', ')}` : '',
    });
  }
  if (fitting.some(({ end }) => end.of !== first.end.of))
    return refuse('ambiguous.several', { name, dock: String(dock) });
  return first;
}

/** A picked place of a part, or three numbers. */
export function readSpot(given: unknown, readers: DockReaders): Spot | Refusal {
  const { document, shapeOf } = readers;
  const spot = (
    typeof given === 'object' && given !== null && !Array.isArray(given) ? given : {}
  ) as Partial<NamedPoint> & {
    readonly point?: unknown;
  };
  if (typeof spot.on !== 'string' || typeof spot.at !== 'string') {
    const point = readers.point(given);
    return isRefusal(point) ? point : { point: vectorOf(point), asTyped: point };
  }
  const part = partNamed(document, spot.on);
  if (!part) return refuse('unknown-part', { of: spot.on });
  const solid = solidNamed(document, part.id, spot);
  if (isRefusal(solid)) return solid;
  const shape = shapeOf(solid.leaf, solid);
  if (isRefusal(shape)) return shape;
  const plain = (v: Vec3): Vec3 => (solid.mirrored ? [0 - v[0], v[1], v[2]] : v);
  const docked = { document, name: part.name, shape: shape.snaps };
  const found =
    spot.point === undefined
      ? namedPlace(spot as NamedPoint, docked)
      : pickedPlace(spot as NamedPoint, readers.point(spot.point), { ...docked, pose: solid.pose });
  if (isRefusal(found)) return found;
  const { at, snap, near } = spot as NamedPoint;
  const on = {
    at: keptNames(at, shape.snaps, document),
    ...(snap === undefined ? {} : { snap }),
    near: [...plain(near ?? found.point)] as [number, number, number],
  };
  return {
    part: solid.leaf,
    point: plain(found.point),
    out: found.out && plain(found.out),
    ...(spot.point === undefined ? { on } : {}),
  };
}

/** A place by its numbers, and the way out of what it lies on. */
function pickedPlace(
  named: NamedPoint,
  world: NumVector | Refusal,
  { pose, ...docked }: DockedSolid & { readonly pose: Pose },
): NamedPlace | Refusal {
  if (isRefusal(world)) return world;
  const point = carryBack(pose, vectorOf(world));
  return { point, out: outOf(named, point, docked) };
}
