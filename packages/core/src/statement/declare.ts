/**
 * What a verb is: its blanks, its sentence, its key, its place on the bench, and a pure `apply`. The statement bar, the
 * bench, the search, the ledger, the shortcuts, the headless runner and its listing are all made from the declaration.
 */
import type { Question, Replies, StandingDock } from '../questions/question.ts';
import type { Refusal } from '../refusals/refusal.ts';
import type { Drawing } from '../formats/drawing.ts';
import type { ChosenEdge, ChosenFace, ChosenPlace } from '../recipes/chosen.ts';
import type { Regions } from '../recipes/bodies/index.ts';
import type { WayCurve } from '../recipes/layouts/index.ts';
import type { ItemId, KadrelDocument, Num, NumVector } from '../document/schema.ts';
import type { DockPlace } from '../docks/places.ts';
import type { RackPart } from '../document/rack.ts';
import type { Target } from '../document/fit.ts';
import type { DockSaid, Spot } from './docks.ts';
import type { Sheet, SheetEntry, EntryKind, TieRead } from '../document/sheet.ts';
import type { ViewState } from '../space/camera.ts';
import type { Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Feature } from '../snapping/feature.ts';
import type { GivenPlane } from './planes.ts';
import type { Turn } from '../space/pose.ts';
import type { Frame } from './frames.ts';
import type { QuantityKind } from '../quantity/units.ts';
import type { Gesture } from '../gestures/gesture.ts';

export type {
  EdgeFacts,
  MadeFaces,
  FaceFacts,
  Question,
  RegionFound,
  Replies,
  CutFacts,
  ItemOutlines,
  Measuring,
  SectionFacts,
  SolidWritten,
  Standing,
  DrawnCatch,
  DrawnLine,
  DrawnView,
  TiesFound,
} from '../questions/question.ts';
export { isRefusal, refuse, refuseFor, type Refusal } from '../refusals/refusal.ts';

export const GROUPS = [
  'make',
  'draw',
  'place',
  'join',
  'repeat',
  'combine',
  'shape',
  'cut',
  'check',
  'output',
  'edit',
] as const;
export type Group = (typeof GROUPS)[number];

/** What may stand in a blank, and what `apply` receives for it. */
export interface BlankValues {
  /** A new name. */
  name: string;
  /** Existing parts. */
  parts: readonly ItemId[];
  part: ItemId;
  /** A point in the world, mm. */
  point: NumVector;
  /** Three lengths along the axes, mm. */
  vector: NumVector;
  /** The axes that numbers refer to. */
  frame: Frame;
  /** An axis of the frame by its number, or a direction of length 1 in the world. */
  direction: Direction;
  /** A corner, an edge, a face or an axis in the world. */
  feature: Feature;
  /** A curve in the world. */
  path: WayCurve;
  /** Rows of a table: what each column holds, where it is filled. */
  rows: readonly Row[];
  /** A work plane: carries its frame to the world, Z square to it. */
  plane: GivenPlane;
  /** Bounded areas of the profiles that another blank names. */
  regions: Regions;
  /** Edges, or faces, of the part that another blank names. */
  edges: readonly ChosenEdge[];
  faces: readonly ChosenFace[];
  /** Faces, edges and corners of it. */
  places: readonly ChosenPlace[];
  /** Outlines of a file. */
  drawing: Drawing & { readonly name: string };
  /** A view, as it is kept. */
  view: ViewState;
  /** A drawing sheet. */
  sheet: Sheet;
  /** A view, a dimension or a note of the sheet that another blank names. */
  entry: SheetEntry;
  /** What is measured, or fits with another. */
  target: Target;
  /** A place on a part, and the way out of it there. */
  spot: Spot;
  /** A dock, or the part whose best one is meant. */
  dock: DockSaid;
  /** A part of a rack. */
  rackPart: RackPart;
  /** Parameters of the rack part that another blank names: mm, degrees, counts. */
  parameters: Readonly<Record<string, Num>>;
  /** A standard size of it. */
  size: string;
  /** What dimensions are tied to. */
  ties: readonly TieRead[];
  length: Num;
  /** Several in a row: lengths, unless `kind` says otherwise. */
  numbers: readonly Num[];
  angle: Num;
  count: number;
  /** A count that is kept, and follows its variables. */
  tally: Num;
  choice: string;
  /** Free text. */
  text: string;
  /** Text that `apply` reads itself, since `now` differs from part to part; three of them in a `texts`. */
  quantity: string;
  quantities: readonly [string, string, string];
}
export type Direction = { readonly axis: 0 | 1 | 2; readonly sign: 1 | -1 } | { readonly vector: Vec3 };
export type Row = Readonly<Record<string, Num | string>>;
/** A column of a table. */
export interface Column {
  readonly label: string;
  readonly kind: QuantityKind | 'text' | 'choice';
  readonly choices?: Readonly<Record<string, string>>;
  /** As typed, where a row does not say. */
  readonly default?: string;
  readonly needed?: boolean;
}
export type BlankType = keyof BlankValues;

export interface Blank<T extends BlankType = BlankType, Optional extends boolean = boolean> {
  readonly type: T;
  readonly label: string;
  /** One line on what belongs here. */
  readonly about: string;
  readonly optional: Optional;
  /** As typed. */
  readonly default?: unknown;
  /** For a choice: value → words in the sentence. */
  readonly choices?: Readonly<Record<string, string>>;
  /** For parts: how few are enough. */
  readonly least?: number;
  /** For lengths: zero and less are refused. */
  readonly positive?: boolean;
  /** Says more of that other blank, and is asked for once that is filled. */
  readonly of?: string;
  /** Belongs to that value of a choice: it is asked for where that is chosen, and chooses it where it is filled. */
  readonly askedBy?: readonly [choice: string, value: string];
  /** For a choice that may stay empty: what it then means. */
  readonly unsaid?: string;
  /** Seldom wanted: left out of the bar until it is asked for. */
  readonly rare?: boolean;
  /** For rows: the columns by name, in order; a row that is a list fills them one by one. */
  readonly columns?: Readonly<Record<string, Column>>;
  /** A blank that is emptied when this one is filled. */
  readonly excludes?: string;
  /** Needed unless that other blank is filled. */
  readonly neededUnless?: string;
  /** Of a name: it may be one that is taken, and then stands for what has it. */
  readonly replaces?: true;
  /** Of chosen edges and corners: they may be gone, so that only the faces that met there are looked up. */
  readonly former?: true;
  /** Of a plane: it is used by this statement alone, and is not what is drawn on from then on. */
  readonly once?: true;
  /** What a pick for a feature or a curve may catch, where that is not edges and faces alike; `features` are corners too. */
  readonly catches?: 'faces' | 'edges' | 'features';
  /** Picking it carries the statement out. */
  readonly completes?: true;
  /** The blank that has the focus once this one is picked. */
  readonly next?: string | ((typed: Readonly<Record<string, unknown>>) => string | undefined);
  /** Of lengths: on paper, where a bare number means millimetres whatever the scene’s unit is. */
  readonly paper?: true;
  /** Of ties: one alone. */
  readonly single?: true;
  /** Of what stands on a sheet: what may be named. */
  readonly among?: readonly EntryKind[];
  /** For quantity blanks: what the text means. */
  readonly kind?: QuantityKind;
}

/** A blank and its id, by which refusals tell it. */
export interface Asked {
  readonly id: string;
  readonly blank: Blank;
}

type Options<T extends BlankType> = Omit<Blank<T>, 'type' | 'label' | 'about' | 'optional'>;

/** A blank that must be filled. */
export const needed = <T extends BlankType>(
  type: T,
  label: string,
  about: string,
  options: Options<T> = {},
): Blank<T, false> => ({
  type,
  label,
  about,
  optional: false,
  ...options,
});

/** A blank that may stay empty. */
export const optional = <T extends BlankType>(
  type: T,
  label: string,
  about: string,
  options: Options<T> = {},
): Blank<T, true> => ({
  type,
  label,
  about,
  optional: true,
  ...options,
});

export type Values<B extends Record<string, Blank>> = {
  readonly [K in keyof B]: B[K] extends Blank<infer T, infer O>
    ? BlankValues[T] | (O extends true ? undefined : never)
    : never;
};

/** Thrown through `apply` when a reply is not there yet; `perform` turns it into a refusal that carries the question. */
export class Wanting extends Error {
  constructor(readonly question: Question) {
    super('The kernel has not answered yet.');
    this.name = 'Wanting';
  }
}

/** Thrown through `apply` where there is no reply; `perform` turns it into the refusal that says why. */
export class Unanswerable extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.message);
    this.name = 'Unanswerable';
  }
}

export interface Outcome {
  readonly refused?: false;
  /** The part that the statement's `as` names. */
  readonly result?: ItemId;
  /** What is selected afterwards. */
  readonly select?: readonly ItemId[];
  /** The sheet that is shown afterwards. */
  readonly sheet?: ItemId;
  /** The step that was left between a part and its copy: what a pattern can go on with. */
  readonly step?: Step;
  /** How parts whose form changed look in the world, mapped from how they looked: for the preview. */
  readonly reshaped?: Readonly<Record<ItemId, Affine>>;
}

/** One step of a row, or of a ring, in the world. */
export type Step =
  | { readonly kind: 'along'; readonly by: Vec3 }
  | { readonly kind: 'around'; readonly axis: Vec3; readonly centre: Vec3; readonly angle: number };

/** Carries a world point p to `linear · p + shift`. */
export interface Affine {
  readonly linear: Turn;
  readonly shift: Vec3;
}

/** A point of a surface in the world, and the normal out of it, length 1. */
export interface Surface {
  readonly part: ItemId;
  readonly point: Vec3;
  readonly normal: Vec3;
}

/** What a verb may ask of the world round it. */
export interface VerbContext {
  newId(): ItemId;
  /** Reads a text; throws QuantityError. */
  read(text: string, kind: QuantityKind, now?: number): Num;
  /** The exact box of a part in its own frame, from the kernel's facts where the recipe does not tell. */
  boxOf(part: ItemId): Box | undefined;
  /** What the kernel replies, of the document that the statement began with. May throw Wanting. */
  ask<K extends Question['ask']>(question: Extract<Question, { ask: K }>): Replies[K];
  /** The exact box in the world, of the document that the statement began with. May throw Wanting. */
  worldBox(part: ItemId): Box;
  /** The docks of an item and of what it is made from as they stand, of the document that the statement began with. */
  docksOn(part: ItemId): readonly DockPlace[];
  /** The docks of an item as the draft has it by now; none where it cannot be built. May throw Wanting. */
  docksAfter(draft: KadrelDocument, part: ItemId): readonly StandingDock[];
  /** The way out of a solid at a point of its surface, both in the world; undefined elsewhere, and where nothing is known of it. */
  wayOut(part: ItemId, point: Vec3): Vec3 | undefined;
  /**
   * The first surface of the visible parts that a ray meets, of the document that the statement began with, and the way
   * out of it. Exact on planes, cylinders and balls; on free-form faces as exact as their facets.
   */
  firstSurface(from: Vec3, direction: Vec3, without: ReadonlySet<ItemId>): Surface | undefined;
}

/** A draft that a verb changes, and what it may ask while it does. */
export interface Drafting<C = VerbContext> {
  readonly draft: KadrelDocument;
  readonly context: C;
}

/** Ways in which a verb is worked with in the views. */
export type Handling =
  /** A point is carried to another. */
  | 'moves'
  /** A protractor stands at its centre. */
  | 'turns'
  /** Points of a profile are dragged. */
  | 'points'
  /** An arrow pulls faces. */
  | 'pulls'
  /** A distance is shown between two places. */
  | 'measures'
  /** Sides are chosen axis by axis. */
  | 'aligns'
  /** The arrow keys go on with it. */
  | 'nudges'
  /** X, Y and Z turn what goes onto a dock. */
  | 'joins';

export interface Verb<B extends Record<string, Blank> = Record<string, Blank>> {
  readonly id: string;
  readonly name: string;
  readonly group: Group;
  /** A letter, or a name as in KeyboardEvent.key, with `Ctrl+` before it where wanted. */
  readonly key?: string;
  /** One line for the bench. */
  readonly about: string;
  /** Everyday words that find it. */
  readonly words: readonly string[];
  readonly blanks: B;
  /** `{blank}` stands for a blank; what is in square brackets is left out of the ledger when its blanks are empty. */
  readonly sentence: string;
  /** What it makes is built and shown before it is carried out. */
  readonly isBuiltFirst?: true;
  /** What it shows and takes hold of in the views, and which panels and keys are about it. */
  readonly handling?: Handling;
  /** The page says it for itself: nobody looks for it. */
  readonly isUnlisted?: true;
  /** How it is drawn by the pointer, where it is. */
  readonly gesture?: Gesture;
  apply(draft: KadrelDocument, values: Values<B>, context: VerbContext): Outcome | Refusal;
}

export const declareVerb = <B extends Record<string, Blank>>(verb: Verb<B>): Verb<B> => verb;
