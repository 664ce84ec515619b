/** How solids stand to one another: apart, touching, in one another. Pairs are kept by what they are and how they stand. */
import {
  AT_ORIGIN,
  carry,
  chain,
  boxSize,
  inverse,
  isFlatPart,
  isWithinSolid,
  nearBoxes,
  placedOf,
  faultOf,
  type Box,
  type Fall,
  type ItemId,
  type KadrelDocument,
  type MadeFaces,
  type PairFacts,
  type Placed,
  type Play,
  type PlayAlong,
  type Question,
  type Replies,
  type SolidPair,
  type StandingSolid,
  type Vec3,
} from '@kadrel/core';
import { placedContent } from '../content/content.ts';
import { NothingLeft } from '../booleans/operation.ts';
import { keyOf } from '../content/key.ts';
import { nearestFaces, type FaceDistance, type PlacedSolid } from '../facts/apart.ts';
import { contactWay } from '../facts/contact.ts';
import { makeFacts, wallMap, type Made } from './making.ts';
import { measuredFacts } from './measured.ts';
import { displayChord, meshShape } from '../facts/mesh.ts';
import { contactOf } from '../facts/touch.ts';
import { BuildError, type Occt } from '../occt/occt.ts';
import {
  placedSolid,
  areApart,
  commonContent,
  pointOn,
  carriedFacts,
  type FitShapes,
  type Body,
} from './bodies.ts';

/** Solids nearer than this (mm) touch: the kernel's tolerance. */
const TOUCH_MM = 1e-7;
/** Pairs that are kept: some ten thousand at a few hundred bytes each. */
const MAX_KEPT = 20_000;

/** Of how solids stand, and of their sizes. */
const FIT_ASKS = ['measured', 'nearby', 'pairs', 'falls', 'play', 'common', 'making', 'walls'] as const;
export type FitQuestion = Extract<Question, { ask: (typeof FIT_ASKS)[number] }>;

export const isAboutFit = (question: Question): question is FitQuestion =>
  (FIT_ASKS as readonly string[]).includes(question.ask);

/** Pairs that were asked about are kept. */
export class FitAnswers {
  /** In the frame of the first solid; null where they are farther apart than the reach. */
  private readonly kept = new Map<string, PairFacts | null>();
  private latest:
    | {
        readonly document: KadrelDocument;
        readonly parts: readonly ItemId[];
        readonly solids: readonly StandingSolid[];
      }
    | undefined;
  private readonly solids = new WeakMap<KadrelDocument, ReadonlyMap<string, Placed>>();

  constructor(
    private readonly occt: Occt,
    private readonly shapes: FitShapes,
  ) {}

  /** Throws BuildError. */
  answer(document: KadrelDocument, question: FitQuestion): Replies[FitQuestion['ask']] {
    switch (question.ask) {
      case 'measured':
        return measuredFacts({ occt: this.occt, shapes: this.shapes }, document, question);
      case 'nearby':
        return this.nearby(document, question);
      case 'pairs':
        return this.pairs(document, question);
      case 'falls':
        return this.falls(document, question);
      case 'play':
        return this.play(document, question);
      case 'common':
        return this.common(document, question);
      case 'making':
        return makeFacts(this.occt, this.made(document, question.solid), question.overhang);
      case 'walls':
        return wallMap(this.made(document, question.solid));
    }
  }

  private nearby(
    document: KadrelDocument,
    { parts, reach }: Extract<Question, { ask: 'nearby' }>,
  ): Replies['nearby'] {
    const unbuilt: ItemId[] = [];
    const solids = parts.flatMap((part) => this.standing(document, part, unbuilt));
    const pairs = nearBoxes(
      solids.map(({ box }) => box),
      reach,
    ).map(([i, j]): SolidPair => [solids[i]!.tag, solids[j]!.tag]);
    return { solids, pairs, unbuilt };
  }

  private pairs(
    document: KadrelDocument,
    { pairs, reach }: Extract<Question, { ask: 'pairs' }>,
  ): Replies['pairs'] {
    return pairs.map(([a, b]) => {
      const bodies = [this.body(document, a), this.body(document, b)] as const;
      try {
        return this.pair(bodies, reach);
      } catch (error) {
        if (!(error instanceof BuildError)) throw error;
        return { gap: 0, from: bodies[0].pose.shift, to: bodies[1].pose.shift, doubt: error.reason };
      }
    });
  }

  private falls(document: KadrelDocument, { solids, among }: Extract<Question, { ask: 'falls' }>): Fall[] {
    const others = this.standingAmong(document, among);
    const own = new Map(others.map((one) => [one.tag, one]));
    return solids.map((tag) => this.fall(document, own.get(tag) ?? this.standingOf(document, tag), others));
  }

  private play(document: KadrelDocument, { solids, among }: Extract<Question, { ask: 'play' }>): Play[] {
    const others = this.standingAmong(document, among);
    const own = new Map(others.map((one) => [one.tag, one]));
    return solids.map((tag) => {
      const solid = own.get(tag) ?? this.standingOf(document, tag);
      const along = (axis: number): PlayAlong => {
        const [back, forth] = [-1, 1].map((sign) => {
          const towards = [0, 1, 2].map((i) => (i === axis ? sign : 0)) as unknown as Vec3;
          return this.wayOf(document, { own: solid, others }, towards).by;
        });
        return [back!, forth!];
      };
      return [along(0), along(1), along(2)];
    });
  }

  /** Its facets, for showing it. Throws BuildError. */
  private common(
    document: KadrelDocument,
    { pair: [a, b] }: Extract<Question, { ask: 'common' }>,
  ): MadeFaces {
    const [first, second] = [this.body(document, a), this.body(document, b)];
    const named = this.shapes.shapeOf(commonContent(first, second));
    const chord = displayChord(Math.hypot(...boxSize(this.shapes.measuresOf(first.content).box)));
    const { positions, triangles } = meshShape(this.occt, named.shape, chord);
    const corners = [...triangles].flatMap((i) =>
      carry(first.pose, [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!]),
    );
    return { faces: [...new Set(named.faceNames)], corners };
  }

  /** Asked again for each solid that may fall. */
  private standingAmong(document: KadrelDocument, parts: readonly ItemId[]): readonly StandingSolid[] {
    const { latest } = this;
    if (latest?.document === document && latest.parts.join() === parts.join()) return latest.solids;
    const solids = parts.flatMap((part) => this.standing(document, part));
    this.latest = { document, parts, solids };
    return solids;
  }

  /** @param unbuilt gathers what cannot be built */
  private standing(document: KadrelDocument, part: ItemId, unbuilt: ItemId[] = []): StandingSolid[] {
    const solids = placedOf(document, part).filter(
      ({ leaf }) => !isFlatPart(document, document.items[leaf]!),
    );
    try {
      return solids.flatMap((one) => this.standingAs(document, one));
    } catch (error) {
      if (!(error instanceof BuildError)) throw error;
      unbuilt.push(part);
      return [];
    }
  }

  private standingAs(document: KadrelDocument, one: Placed): StandingSolid[] {
    const content = placedContent(document, one);
    const { solids, volume, centroid } = this.shapes.measuresOf(content);
    if (solids === 0) return [];
    const box = this.shapes.boxAt(content, one.pose);
    const { tag, item, member } = one;
    return [{ tag, item, member, volume, box, centroid: carry(one.pose, centroid) }];
  }

  private standingOf(document: KadrelDocument, tag: string): StandingSolid {
    const { item } = this.placed(document, tag);
    return this.standing(document, item).find((one) => one.tag === tag)!;
  }

  /** Throws BuildError where there is no such solid. */
  private placed(document: KadrelDocument, tag: string): Placed {
    let known = this.solids.get(document);
    if (!known) {
      const all = Object.values(document.items).flatMap(({ id, parent }) =>
        parent === null ? placedOf(document, id, { withHidden: true }) : [],
      );
      known = new Map(all.map((one) => [one.tag, one]));
      this.solids.set(document, known);
    }
    const found = known.get(tag);
    if (!found) throw new BuildError(faultOf('fit.no-solid', {}));
    return found;
  }

  private body(document: KadrelDocument, tag: string): Body {
    const placed = this.placed(document, tag);
    const content = placedContent(document, placed);
    return { content, named: this.shapes.shapeOf(content), pose: placed.pose };
  }

  private made(document: KadrelDocument, tag: string): Made {
    const { content, named, pose } = this.body(document, tag);
    const { shapes } = this;
    const [shape, measures] = [shapes.snapsOf(content), shapes.measuresOf(content)];
    return { shape, named, measures, pose, box: shapes.boxAt(content, pose) };
  }

  /** How far a solid falls by itself, onto what. */
  private fall(document: KadrelDocument, own: StandingSolid, others: readonly StandingSolid[]): Fall {
    return this.wayOf(document, { own, others }, [0, 0, -1]);
  }

  /** How far a solid goes along an axis before another one is in its way, and which. */
  private wayOf(document: KadrelDocument, { own, others }: Moving, towards: Vec3): Fall {
    const ahead = others.filter((other) => other.tag !== own.tag && isAhead(own.box, other.box, towards));
    const moving = this.falling(document, own.tag, own.box);
    let best: Fall = { by: null };
    // What is stuck in another solid is not asked about: nothing that is behind is in the way.
    for (const one of ahead) {
      const fixed = this.falling(document, one.tag, one.box);
      const way = contactWay(this.occt, { moving: [moving], fixed: [fixed] }, towards);
      if (way !== null && (best.by === null || way < best.by)) best = { by: Math.max(0, way), onto: one.tag };
    }
    return best;
  }

  private falling(document: KadrelDocument, tag: string, box: Box) {
    const { named, pose } = this.body(document, tag);
    return { shape: named.shape, pose, chord: displayChord(Math.hypot(...boxSize(box))) };
  }

  private pair([a, b]: readonly [Body, Body], reach: number): PairFacts | null {
    const there = chain(inverse(a.pose), b.pose);
    const key = JSON.stringify([keyOf(a.content), keyOf(b.content), there, reach]);
    let own = this.kept.get(key);
    if (own === undefined) {
      own = this.between({ ...a, pose: AT_ORIGIN }, { ...b, pose: there }, reach);
      this.keep(key, own);
    }
    return own && carriedFacts(own, a.pose);
  }

  private keep(key: string, facts: PairFacts | null): void {
    this.kept.set(key, facts);
    for (const oldest of this.kept.keys()) {
      if (this.kept.size <= MAX_KEPT) return;
      this.kept.delete(oldest);
    }
  }

  private between(a: Body, b: Body, reach: number): PairFacts | null {
    const two = [placedSolid(this.occt, this.shapes, a), placedSolid(this.occt, this.shapes, b)] as const;
    const within = withinOf(two);
    const nearest = nearestFaces(this.occt, two, within ? Infinity : reach);
    if (!nearest || nearest.found.length === 0) return null;
    const [first] = nearest.found as [FaceDistance];
    const { distance, onA: from, onB: to } = first;
    if (distance > reach && !within) return null;
    const crosses = nearest.near.least <= TOUCH_MM;
    const common = distance <= TOUCH_MM || crosses ? this.commonOf(two, [a, b], nearest.found) : undefined;
    if (common?.overlap)
      return { gap: 0, from, to, overlap: common.overlap, ...this.wholly(common.overlap.volume, [a, b]) };
    if (within && distance > TOUCH_MM) return this.inside(within, [a, b], first);
    const gap = distance <= TOUCH_MM ? 0 : distance;
    const doubt = common?.doubt === undefined ? {} : { doubt: common.doubt };
    return { gap, from, to, ...this.contact(two, nearest.found), ...doubt };
  }

  /** Of solids that touch but for a hair. */
  private contact(two: readonly [PlacedSolid, PlacedSolid], found: readonly FaceDistance[]) {
    if (found[0]!.distance > CONTACT_MM) return {};
    return { contact: contactOf(this.occt, two, found) };
  }

  private inside(which: 'first' | 'second', [a, b]: readonly [Body, Body], nearest: FaceDistance): PairFacts {
    const inner = which === 'first' ? a : b;
    const { volume, centroid } = this.shapes.measuresOf(inner.content);
    const box = this.shapes.boxAt(inner.content, inner.pose);
    const { onA: from, onB: to } = nearest;
    return { gap: 0, from, to, within: which, overlap: { volume, box, at: carry(inner.pose, centroid) } };
  }

  private wholly(volume: number, [a, b]: readonly [Body, Body]): Partial<Pick<PairFacts, 'within'>> {
    const isAll = ({ content }: Body) => volume > this.shapes.measuresOf(content).volume * (1 - WHOLE);
    if (isAll(a)) return { within: isAll(b) ? 'both' : 'first' };
    return isAll(b) ? { within: 'second' } : {};
  }

  /** What solids whose surfaces meet have in common; neither where they only touch. */
  private commonOf(
    two: readonly [PlacedSolid, PlacedSolid],
    [a, b]: readonly [Body, Body],
    found: readonly FaceDistance[],
  ): Partial<Pick<PairFacts, 'overlap' | 'doubt'>> {
    if (areApart(two, found)) return {};
    const content = commonContent(a, b);
    try {
      this.shapes.shapeOf(content);
      const { volume, box, centroid } = this.shapes.measuresOf(content);
      return { overlap: { volume, box, at: centroid } };
    } catch (error) {
      if (error instanceof NothingLeft) return {};
      if (error instanceof BuildError) return { doubt: error.reason };
      throw error;
    }
  }
}

/** A solid that goes, and what may be in its way. */
interface Moving {
  readonly own: StandingSolid;
  readonly others: readonly StandingSolid[];
}

/** Whether a box may be run into: it lies ahead along an axis, and overlaps across it. */
const isAhead = (own: Box, other: Box, towards: Vec3): boolean =>
  [0, 1, 2].every((i) => {
    if (towards[i] === 0) return other.min[i]! < own.max[i]! && other.max[i]! > own.min[i]!;
    return towards[i]! < 0 ? other.min[i]! < own.max[i]! : other.max[i]! > own.min[i]!;
  });

/** Which one lies within the other, where their surfaces do not meet: by one of its points. */
function withinOf([p, q]: readonly [PlacedSolid, PlacedSolid]): 'first' | 'second' | undefined {
  if (isWithinSolid(q, pointOn(p))) return 'first';
  return isWithinSolid(p, pointOn(q)) ? 'second' : undefined;
}

/** Solids that are nearer than this (mm) are looked at for where they touch. */
const CONTACT_MM = 1e-6;
/** What is left of a solid that is wholly within another, in parts of it. */
const WHOLE = 1e-9;
