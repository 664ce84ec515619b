/** What is asked of the snaps, and what they answer. Lengths in mm, pixels on the screen. */
import type { Camera } from '../space/camera.ts';
import type { Plane } from '../space/plane.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Guide } from './guide.ts';
import type { SnapScene } from './scene.ts';
import type { SnapKind } from './shape.ts';

/** What may be caught, and how. */
export interface SnapSettings {
  readonly kinds: ReadonlySet<SnapKind>;
  /** Also catch what stands behind a nearer face. */
  readonly seeThrough: boolean;
  /** How near the pointer must be, pixels. */
  readonly reachPx: number;
  /** Grid step, mm, on `plane`. */
  readonly gridStep: number;
  /** The work plane. */
  readonly plane: Plane;
  /** Where *divide* divides an edge. */
  readonly divide?: Divide;
  /** What *half-way* is half-way through: the part under the pointer, or everything under it. */
  readonly halfWay?: 'part' | 'all';
}

/** Into equal pieces, or at a length from the end that is nearer to the pointer. */
export type Divide = { readonly into: number } | { readonly at: number };

/** Where the pointer is, and what there is to be caught. */
export interface SnapQuery {
  readonly pointer: readonly [x: number, y: number];
  readonly camera: Camera;
  readonly scene: SnapScene;
  readonly settings: SnapSettings;
  /** Pins in the world, by name. */
  readonly pins?: readonly { readonly name: string; readonly at: Vec3 }[];
  /** Docks in the world, by name. */
  readonly docks?: readonly (Pick<Snap, 'member' | 'leaf'> & {
    readonly part: string;
    readonly dock: string;
    readonly at: Vec3;
  })[];
  /** The from-point, which perpendiculars and tangents start at. */
  readonly from?: Vec3 | undefined;
  readonly guides?: readonly Guide[];
  /** Parts that are never caught, nor hide anything: those being moved. */
  readonly without?: Pick<ReadonlySet<string>, 'has'> | undefined;
  /** Whether a part may be caught; one that may not still hides what is behind it. */
  readonly may?: ((part: string) => boolean) | undefined;
}

/** What was caught. */
export interface Snap {
  readonly point: Vec3;
  readonly kind: SnapKind;
  /** Part that was caught; undefined for the grid, the origin, pins and guides. */
  readonly part?: string;
  /** Of a pattern, which member was caught; and the part whose recipe the solid has, where that is another. */
  readonly member?: string;
  readonly leaf?: string;
  /** Names of the faces that meet there, joined by &. */
  readonly feature?: string;
  /** The pin that was caught. */
  readonly pin?: string;
  /** The name of the dock that was caught. */
  readonly dock?: string;
  /** Outward normal, on a face. */
  readonly normal?: Vec3;
  /** More about it, in words: which box point, which guide. */
  readonly words?: string;
  /** The guide that was caught, for a distance along it. */
  readonly guide?: Guide;
  /** The guides that meet there, one another or an edge. */
  readonly meeting?: readonly Guide[];
}
