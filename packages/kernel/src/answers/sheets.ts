/** What sheets ask: the lines of a view, and where what dimensions are tied to is now. */
import {
  seenAxes,
  carry,
  catchesOf,
  chain,
  column,
  dowelHoles,
  frameOfView,
  inverse,
  isSection,
  partsShown,
  placedOf,
  poseOf,
  tiesOfSheet,
  unitedOutlines,
  valueOf,
  viewNow,
  worldFromPart,
  dot,
  NO_TURN,
  faultOf,
  type DrawnView,
  type ItemId,
  type KadrelDocument,
  type Placed,
  type Pose,
  type Replies,
  type SnapShape,
  type Sheet,
  type SheetView,
  type Vec3,
} from '@kadrel/core';
import type { RangeOf } from '../facts/wholes.ts';
import { cutThrough, placedContent, type Content, type OperandContent } from '../content/content.ts';
import { keyOf } from '../content/key.ts';
import { BuildError, type Occt } from '../occt/occt.ts';
import { lessQuarter, quarterFrame } from './quarter.ts';
import { sectionOutlines } from './section.ts';
import { LineKeeper, type LineShapes, type Piece, type ViewLines } from './viewLines.ts';

/** Where built shapes come from. All throw BuildError. */
export interface SheetShapes extends LineShapes {
  /** Least and greatest coordinate along a direction, in the frame of the shape; exact. */
  readonly range: RangeOf;
}

/** What a view shows. */
interface Scene {
  readonly pieces: readonly Piece[];
  readonly solids: readonly Placed[];
  /** Items whose cut faces are seen. */
  readonly cut: ReadonlySet<ItemId>;
  /** What the section plane is held against, in its frame. */
  readonly cutFaces: Content;
  /** Names of what cannot be built. */
  readonly missing: readonly string[];
}

/** A view of a sheet, where it looks from, and what it is a view of. */
interface Viewing {
  readonly document: KadrelDocument;
  readonly view: SheetView;
  readonly frame: Pose;
}

type Slice = Extract<SheetView['look'], { kind: 'slice' }>;

/** Views that are kept, so that those whose parts have not changed are not drawn anew. */
const MAX_KEPT = 48;
/** Solids that a plane touches by less than this (mm) are not cut. */
const ON_PLANE_MM = 1e-7;

type Lines = ViewLines & Pick<DrawnView, 'cuts'>;

/** Answers what is asked of sheets, and keeps the lines of views by what they show. */
export class SheetAnswers {
  private readonly kept = new Map<string, Lines>();
  private readonly keeper: LineKeeper;

  constructor(
    private readonly occt: Occt,
    private readonly shapes: SheetShapes,
  ) {
    this.keeper = new LineKeeper(occt, shapes);
  }

  /** Throws BuildError where there is no such view. */
  drawn(document: KadrelDocument, sheetId: string, viewId: string): Replies['drawn'] {
    const stored = document.sheets[sheetId]?.views[viewId];
    if (!stored) throw new BuildError(faultOf('sheet.no-view', {}));
    const view = viewNow(document, stored, (solid) => this.featuresIfBuilt(document, solid));
    const frame = frameOfView(document, view);
    if (!frame) return nothing('what it shows is not there any more.');
    return view.look.kind === 'slice'
      ? this.layer({ document, view, frame }, view.look)
      : this.seen({ document, view, frame });
  }

  /** What is cut of the parts here, and what is cut at the next layer. */
  private layer({ document, view, frame }: Viewing, look: Slice): DrawnView {
    const { height, next } = look;
    const items = [...partsShown(document, view.parts)];
    const cutAt = (shift: number) => {
      const plane = chain(frame, { turn: NO_TURN, shift: [0, 0, shift] });
      return unitedOutlines(
        sectionOutlines(this.occt, this.shapes.shapeOf(cutThrough(document, items, plane))),
      );
    };
    const outlines = cutAt(0);
    const visible = [...outlines, ...dowelHoles(outlines, dowelsIn(look, frame))];
    const lines = { visible, smooth: next === null ? [] : cutAt(next - height), hidden: [] };
    return { lines, cuts: [], catches: [], axes: [] };
  }

  ties(document: KadrelDocument, sheetId: string): Replies['ties'] {
    const sheet: Sheet | undefined = document.sheets[sheetId];
    if (!sheet) throw new BuildError(faultOf('sheet.no-sheet', {}));
    return tiesOfSheet(document, sheet, (solid) => this.featuresIfBuilt(document, solid));
  }

  private seen(viewing: Viewing): DrawnView {
    const scene = this.sceneOf(viewing);
    const { pieces, missing } = scene;
    const key = JSON.stringify([
      pieces.map(({ content, pose, item }) => [keyOf(content), pose, item]),
      scene.cut.size > 0 ? viewing.frame : null,
    ]);
    const known = this.kept.get(key);
    const lines = known ?? this.linesOf(scene);
    this.keep(key, lines);
    const features = (solid: Placed) => this.featuresIfBuilt(viewing.document, solid);
    const { crossing, ...drawn } = lines;
    const faults = [
      ...(missing.length > 0 ? [`${missing.join(', ')}: not built, and left out.`] : []),
      ...crossingWords(viewing.document, crossing),
    ];
    const catches = catchesOf(viewing, { solids: scene.solids, cut: scene.cut, features });
    const axes = seenAxes(viewing.frame, { solids: scene.solids, features });
    return { ...drawn, catches, axes, ...(faults.length === 0 ? {} : { fault: faults.join(' ') }) };
  }

  private linesOf({ pieces, cut, cutFaces }: Scene): Lines {
    const cuts = cut.size === 0 ? [] : sectionOutlines(this.occt, this.shapes.shapeOf(cutFaces));
    return { ...this.keeper.draw(pieces), cuts };
  }

  private keep(key: string, lines: Lines): void {
    this.kept.delete(key);
    this.kept.set(key, lines);
    for (const oldest of this.kept.keys()) {
      if (this.kept.size <= MAX_KEPT) return;
      this.kept.delete(oldest);
    }
  }

  private sceneOf({ document, view, frame }: Viewing): Scene {
    const plane = sectionOf(document, view);
    const whole = new Set(plane?.recipe.base.whole ?? []);
    const pieces: Piece[] = [];
    const solids: Placed[] = [];
    const [cut, missing] = [new Set<ItemId>(), new Set<string>()];
    const across: OperandContent[] = [];
    const back = inverse(frame);
    for (const item of partsShown(document, view.parts))
      for (const solid of placedOf(document, item)) {
        try {
          const content = placedContent(document, solid);
          this.shapes.shapeOf(content);
          const isCut = plane !== undefined && !whole.has(item);
          const left = isCut
            ? this.leftBy({ document, plane, frame }, { content, pose: solid.pose, item })
            : { content, across: undefined };
          // What cannot be built is named, and the rest is drawn all the same.
          [left.content, left.across].forEach((needed) => needed && this.shapes.shapeOf(needed));
          const pose = chain(back, solid.pose);
          if (left.content !== content && left.across) {
            cut.add(item);
            across.push({ tag: solid.tag, pose, content: left.across });
          }
          if (!left.content) continue;
          pieces.push({ content: left.content, pose, item });
          solids.push(solid);
        } catch (error) {
          if (!(error instanceof BuildError)) throw error;
          missing.add(document.items[item]!.name);
        }
      }
    const cutFaces: Content = { kind: 'section', size: 1, pieces: across };
    return { pieces, solids, cut, cutFaces, missing: [...missing] };
  }

  /** What a section leaves of a solid, and what its plane cuts across; undefined for nothing. Throws BuildError. */
  private leftBy({ document, plane, frame }: CutIn, solid: Piece): ReturnType<typeof lessQuarter> {
    if (plane.recipe.base.form !== 'corner') {
      const content = this.leftOf(solid, planesOf(plane, frame));
      return { content, across: content && solid.content };
    }
    const shape = this.shapes.shapeOf(solid.content);
    const rangeAlong = (direction: Vec3) => this.shapes.range(shape, direction);
    return lessQuarter(
      { ...solid, rangeAlong },
      quarterFrame(worldFromPart(document, plane.id), column(frame.turn, 2)),
    );
  }

  /** What planes leave of a solid; undefined for nothing. Throws BuildError. */
  private leftOf(solid: Piece, planes: readonly CuttingPlane[]): Content | undefined {
    let { content } = solid;
    for (const { frame, keep } of planes) {
      const own = chain(inverse(solid.pose), frame);
      const normal = column(own.turn, 2);
      const at = dot(normal, own.shift);
      const [low, high] = this.shapes.range(this.shapes.shapeOf(content), normal);
      const [inside, outside] = keep === 'behind' ? [high - at, low - at] : [at - low, at - high];
      if (outside > -ON_PLANE_MM) return undefined;
      if (inside > ON_PLANE_MM) content = { kind: 'cut', of: content, frame: own, keep };
    }
    return content;
  }

  private featuresIfBuilt(document: KadrelDocument, solid: Placed): SnapShape | undefined {
    try {
      return this.shapes.snapsOf(placedContent(document, solid));
    } catch (error) {
      if (error instanceof BuildError) return undefined;
      throw error;
    }
  }
}

/** More pairs are not all named. */
const MAX_NAMED = 3;

function crossingWords({ items }: KadrelDocument, pairs: Lines['crossing']): string[] {
  const named = pairs.slice(0, MAX_NAMED).map((pair) => pair.map((id) => items[id]!.name).join(' and '));
  const more = pairs.length > MAX_NAMED ? [`${pairs.length - MAX_NAMED} more pairs`] : [];
  if (pairs.length === 0) return [];
  return [
    `${[...named, ...more].join(', ')} go through one another and cannot be united: lines there may be hidden wrongly, and those where they meet are not drawn.`,
  ];
}

interface CuttingPlane {
  readonly frame: Pose;
  readonly keep: 'front' | 'behind';
}

/** A section that a view is of. */
interface CutIn {
  readonly document: KadrelDocument;
  readonly plane: NonNullable<ReturnType<typeof sectionOf>>;
  /** Of the view. */
  readonly frame: Pose;
}

function sectionOf(document: KadrelDocument, { look }: SheetView) {
  const plane = look.kind === 'section' ? document.items[look.plane] : undefined;
  return plane && isSection(plane) ? plane : undefined;
}

/** The near side is taken away, and of a slab what lies beyond its depth. */
function planesOf(plane: NonNullable<ReturnType<typeof sectionOf>>, frame: Pose): CuttingPlane[] {
  const { form, depth } = plane.recipe.base;
  const near: CuttingPlane = { frame, keep: 'behind' };
  if (form !== 'slab') return [near];
  const far = chain(frame, { turn: NO_TURN, shift: [0, 0, -valueOf(depth)] });
  return [near, { frame: far, keep: 'front' }];
}

/** The dowels of a layer, in its frame. */
function dowelsIn({ dowels, frame: plane, height }: Slice, frame: Pose): Parameters<typeof dowelHoles>[1] {
  if (!dowels) return { at: [], diameter: 0 };
  const carried = chain(inverse(frame), poseOf(plane.origin, plane.turn));
  const at = dowels.at.map(([x, y]): readonly [number, number] => {
    const [u, v] = carry(carried, [x, y, height]);
    return [u, v];
  });
  return { at, diameter: dowels.diameter };
}

const nothing = (fault: string): DrawnView => ({
  fault,
  lines: { visible: [], smooth: [], hidden: [] },
  cuts: [],
  catches: [],
  axes: [],
});
