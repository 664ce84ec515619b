/** What the kernel tells of how solids stand to one another. */
import type { ItemId } from '../recipes/ids.ts';
import type { Box } from '../space/box.ts';
import type { Geometry } from '../space/geometry.ts';
import type { Vec3 } from '../space/vector.ts';

/** Lengths in mm, angles in degrees, places in the world; what does not apply is left out. */
export interface MeasuredFacts {
  /** The least distance of two, 0 where they touch or overlap, and a point of each where they are nearest. */
  readonly distance?: number;
  readonly from?: Vec3;
  readonly to?: Vec3;
  /** Gaps between their boxes along X, Y and Z; less than 0 where these overlap. */
  readonly along?: Vec3;
  /** The gap between them along the direction that was asked for; less than 0 where they overlap along it. */
  readonly directed?: number;
  /** From one to the other along the path that was asked for, from foot to foot; of a closed one, the shorter way round. */
  readonly alongPath?: number;
  /** Between their directions, at most 90. */
  readonly angle?: number;
  /** Of one: of an edge, or of the border of a face. */
  readonly length?: number;
  readonly radius?: number;
  readonly area?: number;
  readonly volume?: number;
  /** Through the material, square to a face. */
  readonly thickness?: number;
  /** A place of it. */
  readonly at?: Vec3;
  /** Each as a point, a line, an axis or a plane, where it is one. */
  readonly geometries: readonly (Geometry | null)[];
}

/** Two solids by their tags, as `placedOf` tells them. */
export type SolidPair = readonly [string, string];

/** Solids, and which pairs of them come near one another. */
export interface Nearby {
  readonly solids: readonly StandingSolid[];
  readonly pairs: readonly SolidPair[];
  /** Parts that cannot be built: how they stand is not known. */
  readonly unbuilt: readonly ItemId[];
}

/** A solid where it stands. */
export interface StandingSolid {
  readonly tag: string;
  /** The standing item that it belongs to, and which of its members it is. */
  readonly item: ItemId;
  readonly member: string;
  /** mm³ */
  readonly volume: number;
  /** Exact, in the world. */
  readonly box: Box;
  readonly centroid: Vec3;
}

/** How two solids stand to one another; places in the world, mm. */
export interface PairFacts {
  /** The least distance; 0 where they touch or overlap. */
  readonly gap: number;
  /** A point of each where they are nearest. */
  readonly from: Vec3;
  readonly to: Vec3;
  readonly contact?: Contact;
  readonly overlap?: Overlap;
  /** Wholly within the other: the first, the second, or each in the other. */
  readonly within?: 'first' | 'second' | 'both';
  /** Why it cannot be determined whether they overlap. */
  readonly doubt?: string;
}

/** Where two solids touch, and over which area, mm². */
export interface Contact {
  readonly kind: 'area' | 'edge' | 'point';
  /** mm² */
  readonly area: number;
  readonly at: Vec3;
  /** Out of the first one, length 1. */
  readonly normal: Vec3;
}

/** What two solids have in common, mm³. */
export interface Overlap {
  /** mm³ */
  readonly volume: number;
  readonly box: Box;
  readonly at: Vec3;
}

/** How far something would fall, and onto what. */
export interface Fall {
  /** mm; null where nothing is below. */
  readonly by: number | null;
  /** What it would land on: the tag of a solid; none where that is the bed. */
  readonly onto?: string;
}

/** How far something can go before it touches another, mm, backwards and forwards along X, Y and Z; null where nothing is in the way. */
export type Play = readonly [PlayAlong, PlayAlong, PlayAlong];
export type PlayAlong = readonly [back: number | null, forth: number | null];
