/** What statements ask of built geometry: boxes, extents, regions, outlines, faces, edges, and how far something can go. */
import {
  NO_TURN,
  add,
  areasOf,
  boxSize,
  carryBox,
  chain,
  docksOn,
  inverse,
  nameFit,
  pathsOf,
  pathsOnPlane,
  scale,
  softenedBy,
  withStepsUpTo,
  worldFromPart,
  withChangedItems,
  faultOf,
  type Box,
  type ItemId,
  type KadrelDocument,
  type Pose,
  type Question,
  type Replies,
  type SnapShape,
  type Standing,
  type Variant,
  type Vec3,
} from '@kadrel/core';
import { cutThrough } from '../content/content.ts';
import { contactWay, type Body } from '../facts/contact.ts';
import { faceOutline, facesTogether } from '../facts/faces.ts';
import { exactBox } from '../facts/extent.ts';
import type { Measures } from '../facts/measure.ts';
import { displayChord } from '../facts/mesh.ts';
import { edgeEnds, edgeFacts } from './edges.ts';
import type { FitShapes } from './bodies.ts';
import { FitAnswers, isAboutFit, type FitQuestion } from './fit.ts';
import { facesMade } from './made.ts';
import { sectionFacts, sectionOutlines } from './section.ts';
import { SheetAnswers, type SheetShapes } from './sheets.ts';
import { cutOutlines, parallelsOf, shadowOutlines } from './outlines.ts';
import { reachOf, type Solid } from '../facts/wholes.ts';
import { BuildError, compoundOf, moved, progressRange, scope, type Occt } from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';
import { splitRegions } from '../build/bodies/regions.ts';
import { writtenSolid } from '../build/bodies/settled.ts';

/** Where built items and their measures come from. All throw BuildError. */
interface BuiltParts {
  readonly shapes: SheetShapes & FitShapes;
  built(document: KadrelDocument, id: ItemId): { readonly named: NamedShape };
  solidsOf(document: KadrelDocument, id: ItemId): readonly Solid[];
  measure(document: KadrelDocument, id: ItemId): Measures;
  facts(document: KadrelDocument, id: ItemId, variant?: Variant): { readonly snaps: SnapShape };
  wholeIn(document: KadrelDocument, id: ItemId, frameFromWorld: Pose): Measures;
}

/** Relative error that the area of a region is given to. */
const REGION_AREA = 1e-9;

/** Solids that go into each other by less than this (mm) only touch. */
const OVERLAP_MM = 1e-4;

type Contact = Extract<Question, { ask: 'contact' }>;

/** What is answered here; the rest is about fit. */
type OwnAsk = Exclude<Question['ask'], FitQuestion['ask']>;
type Reply<K extends OwnAsk> = (
  document: KadrelDocument,
  question: Extract<Question, { ask: K }>,
) => Replies[K];

/** Replies to the questions of statements and reports. */
export class Answers {
  private readonly sheets: SheetAnswers;
  private readonly fit: FitAnswers;

  constructor(
    private readonly occt: Occt,
    private readonly parts: BuiltParts,
  ) {
    this.sheets = new SheetAnswers(occt, parts.shapes);
    this.fit = new FitAnswers(occt, parts.shapes);
  }

  /** Throws BuildError. */
  answer(document: KadrelDocument, question: Question): Replies[Question['ask']] {
    if (isAboutFit(question)) return this.fit.answer(document, question);
    const reply = this.replies[question.ask] as (
      document: KadrelDocument,
      question: Question,
    ) => Replies[Question['ask']];
    return reply(document, question);
  }

  private readonly replies: { readonly [K in OwnAsk]: Reply<K> } = {
    box: (document, { part, frame }) =>
      frame === 'own'
        ? this.parts.wholeIn(document, part, inverse(worldFromPart(document, part))).box
        : this.parts.measure(document, part).box,
    offset: (document, { profile, by, corners }) =>
      parallelsOf(this.occt, pathsOf(document, profile), { by, corners }),
    cut: (document, question) => this.cut(document, question),
    section: (document, { part }) => this.section(document, part),
    outlines: (document, { part, items }) =>
      sectionOutlines(this.occt, this.namedOf(withChangedItems(document, items ?? {}), part)),
    slices: (document, question) => {
      const then = withChangedItems(document, question.items ?? {});
      return question.heights.map((height) => this.slice(then, question, height));
    },
    drawn: (document, { sheet, view }) => this.sheets.drawn(document, sheet, view),
    ties: (document, { sheet }) => this.sheets.ties(document, sheet),
    face: (document, { part, names }) => facesTogether(this.occt, this.namedOf(document, part), names),
    edges: (document, { part, edges }) => edgeFacts(this.occt, this.namedOf(document, part), edges),
    made: (document, { part, step }) => this.made(document, part, step),
    cage: (document, { part }) => this.cage(document, part),
    docks: (document, question) => this.docks(document, question),
    solid: (document, { part }) => writtenSolid(this.occt, this.namedOf(document, part)),
    regions: (document, { profiles }) => this.regions(document, profiles),
    extent: (document, { part, direction, items }) =>
      this.extent(withChangedItems(document, items ?? {}), part, direction),
    contact: (document, question) => this.contact(document, question),
  };

  private readonly namedOf = (document: KadrelDocument, part: ItemId): NamedShape =>
    this.parts.built(document, part).named;

  private section(document: KadrelDocument, id: ItemId): Replies['section'] {
    return sectionFacts(this.occt, this.namedOf(document, id), worldFromPart(document, id));
  }

  private slice(
    document: KadrelDocument,
    { parts, plane }: Extract<Question, { ask: 'slices' }>,
    height: number,
  ): Replies['outlines'] {
    const there = chain(plane, { turn: NO_TURN, shift: [0, 0, height] });
    return sectionOutlines(this.occt, this.parts.shapes.shapeOf(cutThrough(document, parts, there)));
  }

  private made(document: KadrelDocument, part: ItemId, step: number): Replies['made'] {
    const upTo = (last: number) => this.parts.built(withStepsUpTo(document, part, last), part).named;
    // The later one is built from the earlier one, which is then at hand.
    const after = upTo(step);
    return facesMade(this.occt, upTo(step - 1), after);
  }

  private docks(document: KadrelDocument, { part, items }: Extract<Question, { ask: 'docks' }>) {
    const then = withChangedItems(document, items);
    const places = docksOn(then, part, (leaf, variant) => this.parts.facts(then, leaf, variant));
    return places.filter(({ lost }) => lost === undefined).map(({ end, pose }) => ({ end, pose }));
  }

  private cage(document: KadrelDocument, part: ItemId): Replies['cage'] {
    const step = softenedBy(document, document.items[part]!);
    if (step === undefined) return [];
    return edgeEnds(this.occt, this.parts.built(withStepsUpTo(document, part, step - 1), part).named.shape);
  }

  private extent(document: KadrelDocument, part: ItemId, direction: Vec3): readonly [number, number] {
    const solids = this.parts.solidsOf(document, part);
    const { range } = this.parts.shapes;
    return [-reachOf(solids, scale(direction, -1), range), reachOf(solids, direction, range)];
  }

  private contact(document: KadrelDocument, { moving, fixed, towards }: Contact): number | null {
    const going = moving.flatMap((one) => this.bodies(document, one));
    const standing = fixed
      .flatMap((one) => this.bodies(document, one))
      .filter((body) => going.some((other) => areInLine(other.box, body.box, towards)))
      .map((body) => ({ ...body, overlaps: going.some((other) => this.doOverlap(other, body)) }));
    return contactWay(this.occt, { moving: going, fixed: standing }, towards);
  }

  private bodies(document: KadrelDocument, { part, shift }: Standing): (Body & { readonly box: Box })[] {
    const solids = this.parts.solidsOf(document, part).filter(({ measures }) => measures.solids > 0);
    return solids.map(({ named, measures, pose }) => {
      const there = { ...pose, shift: add(pose.shift, shift) };
      const own = measures.box;
      const chord = displayChord(Math.hypot(...boxSize(own)));
      return { shape: named.shape, chord, pose: there, box: carryBox(there, own) };
    });
  }

  /** Whether two solids have a common volume: first by their boxes, then by the volume itself. */
  private doOverlap(a: Body, b: Body): boolean {
    return scope((keep) => {
      const [first, second] = [a, b].map(({ shape, pose }) => keep(moved(this.occt, shape, pose)));
      const [p, q] = [exactBox(this.occt, first!), exactBox(this.occt, second!)];
      const deep = [0, 1, 2].map((i) => Math.min(p.max[i]!, q.max[i]!) - Math.max(p.min[i]!, q.min[i]!));
      if (deep.some((n) => n < OVERLAP_MM)) return false;
      const common = keep(
        new this.occt.BRepAlgoAPI_Common(first!, second!, progressRange({ occt: this.occt, keep })),
      );
      const properties = keep(new this.occt.GProp_GProps());
      this.occt.BRepGProp.VolumeProperties(keep(common.Shape()), properties, false, false, false);
      common.Clear();
      return properties.Mass() > OVERLAP_MM ** 3;
    });
  }

  /** The regions of profiles, in the frame of the first. Throws BuildError. */
  private regions(document: KadrelDocument, profiles: readonly ItemId[]): Replies['regions'] {
    const paths = pathsOnPlane(document, profiles);
    if (!paths) throw new BuildError(faultOf('outline.several-planes', {}));
    const areas = areasOf(paths);
    if (areas)
      return areas.map(({ curves, at, area, triangles }) => ({
        curves: [...curves],
        at: [at[0], at[1]],
        area,
        triangles,
      }));
    // Lines and circles are integrated exactly in one pass; other curves until the error is small.
    const isPlain = paths.every(({ curves }) =>
      curves.every(({ curve }) => curve.kind === 'line' || curve.kind === 'arc'),
    );
    return scope((keep) =>
      splitRegions({ occt: this.occt, keep }, paths).regions.map(({ face, curves, at, triangles }) => {
        const properties = keep(new this.occt.GProp_GProps());
        if (isPlain) this.occt.BRepGProp.SurfaceProperties(face, properties, false, false);
        else this.occt.BRepGProp.SurfaceProperties(face, properties, REGION_AREA, false);
        return { curves: [...curves], at: [...at] as [number, number], area: properties.Mass(), triangles };
      }),
    );
  }

  /** Outlines of the solids of a part where a plane meets them, or of their shadow on it. */
  private cut(
    document: KadrelDocument,
    { part, plane, how }: Extract<Question, { ask: 'cut' }>,
  ): Replies['cut'] {
    const there = inverse(plane);
    const solids = this.parts.solidsOf(document, part).filter(({ measures }) => measures.solids > 0);
    return scope((keep) => {
      const placed = solids.map(({ named, pose }) => ({
        shape: keep(moved(this.occt, named.shape, chain(there, pose))),
        faceNames: named.faceNames,
      }));
      const shapes = placed.map(({ shape }) => shape);
      if (how === 'cut') return shapes.flatMap((shape) => cutOutlines(this.occt, shape));
      if (how !== 'shadow')
        return faceOutline(this.occt, placed, (name) => nameFit(how.face, name, document) > 0);
      return shadowOutlines(this.occt, keep(compoundOf(this.occt, shapes)));
    });
  }
}

/** Whether something in one box that goes along an axis can meet what is in the other; any other way is left to the solids. */
function areInLine(a: Box, b: Box, towards: Vec3): boolean {
  const axis = towards.findIndex((n) => Math.abs(n) === 1);
  if (axis < 0) return true;
  return [0, 1, 2].every((i) => i === axis || (a.min[i]! < b.max[i]! && a.max[i]! > b.min[i]!));
}
