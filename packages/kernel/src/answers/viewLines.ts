/**
 * The lines of a view: what is seen and what is hidden of its solids, kept for each solid by what it is and by what may stand
 * before it, so that after a change only what it concerns is drawn anew. Solids that go through one another are drawn as one,
 * with the lines where they meet.
 */
import {
  buriedPieces,
  carryBox,
  boxOfCrossing,
  boxOfShape,
  chain,
  doCross,
  grownBy,
  inverse,
  notDrawnYet,
  secondLook,
  type Box,
  type Curve,
  type DrawnLine,
  type DrawnPath,
  type ItemId,
  type Pose,
  type SnapInstance,
  type SnapShape,
} from '@kadrel/core';
import type { Content } from '../content/content.ts';
import { keyOf } from '../content/key.ts';
import type { NamedShape } from '../naming/named.ts';
import { boxPairs } from '../occt/boxGroups.ts';
import { curvesOfProjected, pathsOfCurves } from '../occt/curves.ts';
import { BuildError, moved, scope, type Occt } from '../occt/occt.ts';
import { Sets } from '../occt/sets.ts';
import { linesSeen } from './hiddenLines.ts';

/** Where built shapes come from. All throw BuildError. */
export interface LineShapes {
  shapeOf(content: Content): NamedShape;
  snapsOf(content: Content): SnapShape;
}

/** A solid of a view, in its frame. */
export interface Piece {
  readonly content: Content;
  readonly pose: Pose;
  readonly item: ItemId;
}

/** What is drawn of a view. */
export interface ViewLines {
  readonly lines: Readonly<Record<DrawnLine, readonly DrawnPath[]>>;
  /** Items that go through one another, and could not be drawn as one. */
  readonly crossing: readonly (readonly [ItemId, ItemId])[];
}

/** A solid as it is drawn: one piece, or several that go through one another. */
interface Solid {
  /** Stands for what it is and where. */
  readonly key: number;
  readonly content: Content;
  readonly instance: SnapInstance;
  readonly box: Box;
  /** More than one where they go through one another. */
  readonly of: readonly SnapInstance[];
}

interface OwnLines extends Readonly<Record<DrawnLine, readonly Curve[]>> {
  /** Seen for certain, though the kernel hides them. */
  readonly found: readonly Curve[];
}

/** A solid that reaches less far towards who looks than another one begins, by this, hides nothing of it, mm. */
const LEVEL_MM = 1e-6;
/** Solids whose lines are kept. */
const MAX_KEPT = 8000;
/** Pairs of which it is known whether they cross. */
const MAX_PAIRS = 40_000;
/** Keys of solids; then all is forgotten. */
const MAX_KEYS = 50_000;
/** So many that go through one another are drawn as one; a union of more could take minutes. */
const MAX_UNITED = 40;

/** Draws views, and keeps the lines of their solids. */
export class LineKeeper {
  private readonly kept = new Map<string, OwnLines>();
  private readonly crossings = new Map<string, boolean>();
  /** Short names of solids: thousands may stand before one another. */
  private readonly keys = new Map<string, number>();
  /** Unions that cannot be had. */
  private readonly failed = new Set<number>();

  constructor(
    private readonly occt: Occt,
    private readonly shapes: LineShapes,
  ) {}

  /** Throws BuildError where a piece cannot be built. */
  draw(pieces: readonly Piece[]): ViewLines {
    if (this.keys.size > MAX_KEYS) this.forget();
    const { solids, crossing } = this.united(
      pieces.map((piece) => this.solidOf(piece)),
      pieces,
    );
    const hiders = solids.map((): number[] => []);
    const mayHide = (hider: number, solid: number) => {
      if (solids[hider]!.box.max[2] > solids[solid]!.box.min[2] - LEVEL_MM) hiders[solid]!.push(hider);
    };
    for (const [i, k] of boxPairs(solids.map(({ box }) => flat(box)))) {
      mayHide(k, i);
      mayHide(i, k);
    }
    const keys = solids.map(({ key }, i) =>
      [key, ...hiders[i]!.map((k) => solids[k]!.key).sort((a, b) => a - b)].join(),
    );
    const missing = keys.flatMap((key, i) => (this.kept.has(key) ? [] : [i]));
    const drawn = this.drawnAnew(solids, missing, hiders);
    const own = keys.map((key, i) => drawn.get(i) ?? this.kept.get(key)!);
    keys.forEach((key, i) => keep(this.kept, [key, own[i]!], MAX_KEPT));
    return { lines: together(own), crossing };
  }

  private solidOf({ content, pose, item }: Piece): Solid {
    const instance = { part: item, pose, shape: this.shapes.snapsOf(content) };
    return this.solidFrom(content, instance, [instance]);
  }

  /** Those that go through one another as one. */
  private united(single: readonly Solid[], pieces: readonly Piece[]) {
    const sets = new Sets(single.length);
    const pairs = boxPairs(single.map(({ instance }) => boxOfCrossing(instance))).filter(([i, k]) =>
      this.doPass(single[i]!, single[k]!),
    );
    for (const [i, k] of pairs) sets.join(i, k);
    const crossing: (readonly [ItemId, ItemId])[] = [];
    const solids = sets.all().flatMap((set) => {
      const one = set.length === 1 ? single[set[0]!]! : this.unionOf(set.map((i) => pieces[i]!));
      if (one) return [one];
      const left = new Set(set);
      crossing.push(
        ...pairs.filter(([i]) => left.has(i)).map(([i, k]) => [pieces[i]!.item, pieces[k]!.item] as const),
      );
      return set.map((i) => single[i]!);
    });
    return { solids, crossing };
  }

  private doPass(a: Solid, b: Solid): boolean {
    const key = [a.key, b.key].join();
    const known = this.crossings.get(key);
    const found = known ?? doCross(a.instance, b.instance);
    keep(this.crossings, [key, found], MAX_PAIRS);
    return found;
  }

  /** Undefined where they cannot be united. */
  private unionOf(pieces: readonly Piece[]): Solid | undefined {
    if (pieces.length > MAX_UNITED) return undefined;
    const [{ pose, item }] = pieces as [Piece];
    const operands = pieces.map((piece, i) => ({
      tag: String(i),
      pose: chain(inverse(pose), piece.pose),
      content: piece.content,
    }));
    const content: Content = { kind: 'combine', how: 'union', operands };
    const key = this.numberOf(content, pose);
    if (this.failed.has(key)) return undefined;
    try {
      const of = pieces.map((piece) => this.solidOf(piece).instance);
      return this.solidFrom(content, { part: item, pose, shape: this.shapes.snapsOf(content) }, of);
    } catch (error) {
      if (!(error instanceof BuildError)) throw error;
      this.failed.add(key);
      return undefined;
    }
  }

  private solidFrom(content: Content, instance: SnapInstance, of: readonly SnapInstance[]): Solid {
    const { pose, shape } = instance;
    const box = grownBy(carryBox(pose, boxOfShape(shape)), shape.chordMm);
    return { key: this.numberOf(content, pose), content, instance, box, of };
  }

  private numberOf(content: Content, pose: Pose): number {
    const key = JSON.stringify([keyOf(content), pose]);
    const known = this.keys.get(key) ?? this.keys.size;
    this.keys.set(key, known);
    return known;
  }

  private forget(): void {
    for (const known of [this.keys, this.kept, this.crossings, this.failed]) known.clear();
  }

  /** By index, of those that are missing. */
  private drawnAnew(
    solids: readonly Solid[],
    missing: readonly number[],
    hiders: readonly (readonly number[])[],
  ): Map<number, OwnLines> {
    if (missing.length === 0) return new Map();
    const needed = [...new Set(missing.flatMap((i) => [i, ...hiders[i]!]))].sort((a, b) => a - b);
    const at = new Map(needed.map((i, place) => [i, place]));
    return scope((keepShape) => {
      const shapes = needed.map((i) => {
        const { content, instance } = solids[i]!;
        return keepShape(moved(this.occt, this.shapes.shapeOf(content).shape, instance.pose));
      });
      const asked = missing.map((i) => ({ shape: at.get(i)!, hiders: hiders[i]!.map((k) => at.get(k)!) }));
      const seen = linesSeen({ occt: this.occt, keep: keepShape }, shapes, asked);
      return new Map(
        missing.map((i, place) => {
          const { visible, smooth, hidden } = seen[place]!;
          const first = {
            visible: curvesOfProjected(this.occt, visible),
            smooth: curvesOfProjected(this.occt, smooth),
            hidden: curvesOfProjected(this.occt, hidden),
          };
          return [
            i,
            lookedAtAgain(
              first,
              solids[i]!,
              hiders[i]!.map((k) => solids[k]!),
            ),
          ] as const;
        }),
      );
    });
  }
}

/** As it is seen along Z. */
const flat = ({ min, max }: Box): Box => ({ min: [min[0], min[1], 0], max: [max[0], max[1], 0] });

function lookedAtAgain(first: Omit<OwnLines, 'found'>, solid: Solid, around: readonly Solid[]): OwnLines {
  const drawn = [...first.visible, ...first.smooth];
  const others = around.map(({ instance }) => instance);
  const found = secondLook({ drawn, hidden: first.hidden }, solid.instance, others);
  const buried = solid.of.length > 1 ? notDrawnYet(buriedPieces(solid.of), [...drawn, ...first.hidden]) : [];
  return { ...first, hidden: [...first.hidden, ...buried], found };
}

/** The lines of all solids; none is drawn anew over what is drawn already. */
function together(own: readonly OwnLines[]): ViewLines['lines'] {
  const all = (line: keyof OwnLines) => own.flatMap((one) => one[line]);
  const [visible, smooth] = [all('visible'), all('smooth')];
  const found = notDrawnYet(all('found'), [...visible, ...smooth]);
  return {
    visible: [...pathsOfCurves(visible), ...pathsOfCurves(found)],
    smooth: pathsOfCurves(smooth),
    hidden: pathsOfCurves(all('hidden')),
  };
}

/** Keeps the last ones that were used. */
function keep<T>(kept: Map<string, T>, [key, value]: readonly [string, T], max: number): void {
  kept.delete(key);
  kept.set(key, value);
  for (const oldest of kept.keys()) {
    if (kept.size <= max) return;
    kept.delete(oldest);
  }
}
