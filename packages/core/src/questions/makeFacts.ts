/** What the kernel tells of whether a solid can be made. Places in the world, mm. */
import type { Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Vec2 } from '../space/vector2.ts';

/** What is to be known of a solid that is to be made. */
export interface MakeFacts {
  /** Every edge has two faces beside it, or four where it touches itself. */
  readonly closed: boolean;
  /** It touches itself along an edge or in a point. */
  readonly touching: boolean;
  /** Separate solids in one part. */
  readonly solids: number;
  /** mm³ */
  readonly volume: number;
  readonly centroid: Vec3;
  readonly box: Box;
  /** Where the material is thinnest, and where the air within the solid is narrowest, between faces that look away from, or at, each other. */
  readonly wall?: Sounding;
  readonly gap?: Sounding;
  readonly overhang?: Overhang;
  /** What begins in the air: the lowest places of what hangs down, but for what stands on the ground. */
  readonly islands: readonly Vec3[];
  readonly footing: Footing;
  /** The thinnest whole cylinder, and the narrowest whole bore. */
  readonly pin?: Round;
  readonly bore?: Round;
  /** Where it is a sheet of one thickness. */
  readonly sheet?: CutSheet;
  /** Of such a sheet: the tightest corner that is cut out of it. */
  readonly inner?: InnerCorner;
}

/** A corner of an outline that a round cutter has to reach into. */
export interface InnerCorner {
  /** mm; 0 where it is sharp. */
  readonly radius: number;
  readonly at: Vec3;
}

/** The least thickness or gap that was found, mm, and where. */
export interface Sounding {
  /** mm */
  readonly size: number;
  readonly from: Vec3;
  readonly to: Vec3;
  /** Names of the face that it was taken from, and of the one that it comes to. */
  readonly faces: readonly [string, string];
}

/** Faces that look down and lean farther out than was asked about, but for what lies on the ground. */
export interface Overhang {
  /** mm²; of round faces, of their facets. */
  readonly area: number;
  /** Farthest from upright, degrees: 90 for a ceiling. */
  readonly steepest: number;
  readonly box: Box;
  /** A quarter or half turn about X or Y that leaves less than half of it, and how much it leaves. */
  readonly better?: { readonly about: 'x' | 'y'; readonly angle: number; readonly area: number };
}

/** What a solid stands on, and whether its weight is over that. */
export interface Footing {
  /** The border of what touches the ground, against the clock; a point or two where it stands on no area. */
  readonly hull: readonly Vec2[];
  /** How far the plumb line of the centre of mass is within it, mm; 0 or less where the solid falls over. */
  readonly margin: number;
}

/** The smallest pin or bore of a solid, mm. */
export interface Round {
  /** mm */
  readonly diameter: number;
  readonly at: Vec3;
  readonly face: string;
}

/** A flat piece that is cut out of a sheet: its thickness and length of cut, mm. */
export interface CutSheet {
  /** mm */
  readonly thickness: number;
  /** Of all its outlines, mm. */
  readonly cut: number;
}

/** How thick a solid is all over: its facets in small pieces. */
export interface WallMap {
  /** 9·P: corners of each, in the world, mm. */
  readonly corners: Float32Array;
  /** P: mm; infinite where no face lies opposite. */
  readonly sizes: Float64Array;
}
