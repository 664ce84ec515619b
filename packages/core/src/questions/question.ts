/** What only the kernel can tell of a document: asked here, answered in kernel/src/answers. */
import type { DrawnPath } from '../curves/curve.ts';
import type { Region2 } from '../recipes/bodies/index.ts';
import type { ChosenEdge } from '../recipes/chosen.ts';
import type { Fall, MeasuredFacts, Nearby, PairFacts, Play, SolidPair } from './fitFacts.ts';
import type { MakeFacts, WallMap } from './makeFacts.ts';
import type { Target } from '../document/fit.ts';
import type { Tie } from '../document/sheet.ts';
import type { DockEnd } from '../document/dock.ts';
import type { ChangedItems } from '../document/changed.ts';
import type { ItemId } from '../recipes/ids.ts';
import type { Box } from '../space/box.ts';
import type { Geometry } from '../space/geometry.ts';
import type { Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';

/** A part, shifted from where the document has it, mm. */
export interface Standing {
  readonly part: ItemId;
  readonly shift: Vec3;
}

/** What only the kernel can tell of the document that a statement begins with; `items` are what the statement has left otherwise so far. */
export type Question =
  /** The exact box in the world, or in the part's own frame. */
  | { readonly ask: 'box'; readonly part: ItemId; readonly frame?: 'own' }
  /** Least and greatest coordinate along a direction of length 1. */
  | {
      readonly ask: 'extent';
      readonly part: ItemId;
      readonly direction: Vec3;
      readonly items?: ChangedItems | undefined;
    }
  /** The bounded areas between the curves of profiles, in the frame of the first. */
  | { readonly ask: 'regions'; readonly profiles: readonly ItemId[] }
  /** Outlines beside a profile, in its own frame: outward, or to the left of an open one, mm. */
  | {
      readonly ask: 'offset';
      readonly profile: ItemId;
      readonly by: number;
      readonly corners: 'round' | 'square';
    }
  /** The borders of what a plane and a part have in common, of its shadow, or of its face there, in the frame of the plane. */
  | {
      readonly ask: 'cut';
      readonly part: ItemId;
      readonly plane: Pose;
      readonly how: 'cut' | 'shadow' | { readonly face: string };
    }
  /** What a section plane cuts, item by item. */
  | { readonly ask: 'section'; readonly part: ItemId }
  /** And the outlines of that, in the frame of the section plane. */
  | { readonly ask: 'outlines'; readonly part: ItemId; readonly items?: ChangedItems | undefined }
  /** The outlines of parts at heights over a plane, mm; in frames that are shifted there. */
  | {
      readonly ask: 'slices';
      readonly parts: readonly ItemId[];
      readonly plane: Pose;
      readonly heights: readonly number[];
      readonly items?: ChangedItems | undefined;
    }
  /** A view of a sheet, as it is drawn. */
  | { readonly ask: 'drawn'; readonly sheet: string; readonly view: string }
  /** Where what is on a sheet is tied to. */
  | { readonly ask: 'ties'; readonly sheet: string }
  /** Sizes of faces, by their names, as one surface. */
  | { readonly ask: 'face'; readonly part: ItemId; readonly names: readonly string[] }
  /** Sizes of edges; those along which faces go on into each other may be named too. */
  | { readonly ask: 'edges'; readonly part: ItemId; readonly edges: readonly ChosenEdge[] }
  /** Faces that a step has made, counted from 0; those of the steps after it are not there yet. */
  | { readonly ask: 'made'; readonly part: ItemId; readonly step: number }
  /** The edges of the cage of a softened solid; none where it is not softened. */
  | { readonly ask: 'cage'; readonly part: ItemId }
  /** The solids of parts, and which of them are no farther apart than a reach, mm; by their boxes. */
  | { readonly ask: 'nearby'; readonly parts: readonly ItemId[]; readonly reach: number }
  /** How solids stand to one another, pair by pair; null where they are farther apart than the reach, mm. */
  | { readonly ask: 'pairs'; readonly pairs: readonly SolidPair[]; readonly reach: number }
  /** How far each of these solids can fall until others are in its way. */
  | { readonly ask: 'falls'; readonly solids: readonly string[]; readonly among: readonly ItemId[] }
  /** How far each of these solids can go both ways along X, Y and Z until others are in its way. */
  | { readonly ask: 'play'; readonly solids: readonly string[]; readonly among: readonly ItemId[] }
  /** What can be measured of one thing, or between two. */
  | ({ readonly ask: 'measured' } & Measuring)
  /** Whether a solid, by its tag, can be made as it stands; faces that lean more than so many degrees from upright hang over. */
  | { readonly ask: 'making'; readonly solid: string; readonly overhang: number }
  /** How thick a solid is all over. */
  | { readonly ask: 'walls'; readonly solid: string }
  /** What two solids have in common. */
  | { readonly ask: 'common'; readonly pair: SolidPair }
  /** Where the docks of an item would stand if these items were as given. Those that do not know where they are, are left out. */
  | { readonly ask: 'docks'; readonly part: ItemId; readonly items: ChangedItems }
  /** A solid written down, with the names of its faces. */
  | { readonly ask: 'solid'; readonly part: ItemId }
  /** How far the moving parts go towards a direction until one touches a fixed one, mm; null when none is in the way. */
  | {
      readonly ask: 'contact';
      readonly moving: readonly Standing[];
      readonly fixed: readonly Standing[];
      readonly towards: Vec3;
    };
/** What is measured, of one thing or between two. */
export interface Measuring {
  readonly from: Target;
  readonly to?: Target | undefined;
  /** Along which the gap is reported as well; length 1. */
  readonly direction?: Vec3 | undefined;
  /** Along which the way from one to the other is reported as well: an edge, or a drawn line. */
  readonly path?: Target | undefined;
  /** Items as a statement has left them so far, where it asks about what it makes. */
  readonly items?: ChangedItems | undefined;
}

/** What is answered to each question. */
export interface Replies {
  box: Box;
  extent: readonly [number, number];
  contact: number | null;
  regions: readonly RegionFound[];
  offset: readonly DrawnPath[];
  cut: readonly DrawnPath[];
  section: SectionFacts;
  outlines: readonly ItemOutlines[];
  slices: readonly (readonly ItemOutlines[])[];
  drawn: DrawnView;
  ties: TiesFound;
  face: FaceFacts;
  edges: EdgeFacts;
  measured: MeasuredFacts;
  docks: readonly StandingDock[];
  nearby: Nearby;
  pairs: readonly (PairFacts | null)[];
  falls: readonly Fall[];
  play: readonly Play[];
  common: MadeFaces;
  making: MakeFacts;
  walls: WallMap;
  made: MadeFaces;
  /** 6·E: both ends of each, in the part’s own frame, mm. */
  cage: readonly number[];
  solid: SolidWritten;
}

/** A dock as it stands in the world: Z points outward, X is where its roll begins. */
export interface StandingDock {
  readonly end: DockEnd;
  readonly pose: Pose;
}

/** Exact, in the part's own frame. */
export interface SolidWritten {
  readonly shape: string;
  /** In the order of the shape. */
  readonly faces: readonly string[];
}

/** Lines of a view, in its own frame, mm: the origin where its anchor is. */
export interface DrawnView {
  /** Why it cannot be drawn, or not all of it; undefined where all is well. */
  readonly fault?: string;
  readonly lines: Readonly<Record<DrawnLine, readonly DrawnPath[]>>;
  /** Cut faces of a section, item by item. */
  readonly cuts: readonly ItemOutlines[];
  readonly catches: readonly DrawnCatch[];
  /** Axes of round things that are seen from the side, from end to end. */
  readonly axes: readonly DrawnAxis[];
}
/** From one end of a round thing to the other, in the frame of the view, mm. */
export type DrawnAxis = readonly [from: readonly [number, number], to: readonly [number, number]];

/** Whether a drawn line is seen, hidden, or where faces run into one another smoothly. */
export type DrawnLine = 'visible' | 'smooth' | 'hidden';

/** A point of what is drawn that a dimension can be tied to. */
export interface DrawnCatch {
  readonly at: Vec3;
  readonly snap: SnapName;
  /** Of a circle that is seen squarely, mm. */
  readonly radius?: number;
  /** The circle goes all round. */
  readonly isWhole?: true;
  /** Of an edge that is seen as a straight line, in the frame of the view, mm. */
  readonly ends?: DrawnAxis;
  /** It is a circle that is seen from the side. */
  readonly isAside?: true;
  readonly tie: Tie;
}
type SnapName = 'endpoint' | 'midpoint' | 'centre' | 'quadrant' | 'face centre' | 'edge';

/** Of dimensions and notes, by their ids: the places of their ties in order, in the world; null for what is not there any more. */
export type TiesFound = Readonly<Record<string, readonly (Geometry | null)[]>>;

/** What a section plane cuts. */
export interface SectionFacts {
  readonly items: readonly CutFacts[];
  /** Where two items fill the same place on the plane. */
  readonly overlaps: readonly {
    readonly items: readonly [ItemId, ItemId];
    readonly area: number;
    readonly at: Vec3;
    /** 9·T: corners of its facets, in the frame of the section plane, mm. */
    readonly corners: readonly number[];
  }[];
}

/** Outlines of one item. */
export interface ItemOutlines {
  readonly item: ItemId;
  readonly paths: readonly DrawnPath[];
}

/** What is cut of one item. */
export interface CutFacts {
  readonly item: ItemId;
  /** mm² */
  readonly area: number;
  /** Of all borders together, mm. */
  readonly border: number;
  /** In the world, mm. */
  readonly centroid: Vec3;
}

/** Faces by the corners of their facets. */
export interface MadeFaces {
  /** Their names. */
  readonly faces: readonly string[];
  /** 9·T: corners of their facets, in the part’s own frame, mm. */
  readonly corners: readonly number[];
}

/** Sizes of selected edges. */
export interface EdgeFacts {
  readonly count: number;
  /** Of all together, mm. */
  readonly length: number;
  /** Where all are arcs of one radius, mm. */
  readonly radius?: number;
  /** Between the two faces within the material, where it is the same at all of them, degrees: 90 along the edges of a box. */
  readonly angle?: number;
}

/** Sizes of selected faces. */
export interface FaceFacts {
  readonly count: number;
  /** mm² */
  readonly area: number;
  /** Of all their borders together, mm. */
  readonly border: number;
}

/** A bounded area among profiles, with its outlines. */
export interface RegionFound extends Region2 {
  /** mm² */
  readonly area: number;
  /** Corners of triangles that fill it, x and y. */
  readonly triangles: Float64Array;
}
