/** Hidden lines of random scenes against an independent ray caster: what is drawn is seen, and what is seen is drawn. */
import {
  carryBack,
  column,
  curveLength,
  distance2,
  frameOfView,
  nearestOn,
  pointAt,
  sheetsOf,
  type Curve,
  type DrawnPath,
  type DrawnView,
  type KadrelDocument,
  type Pose,
  type Vec2,
  type Vec3,
} from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, numbers, trials } from '@kadrel/testing';
import { plainShape, rolledSolid, type Placing, type Rolled } from './randomSolids.ts';
import { edgesOfShape, lengthWithin, type EdgeWay, type PlainShape } from './rayCaster.ts';

const libraries = await sharedLibraries();

/** Lines of sight that go through less than this of a solid graze it (mm): such points are left out. */
const GRAZE_MM = 0.05;
const NOTHING_MM = 1e-6;
/** How far a drawn line may be off an edge by formula, mm on the model. */
const SAME_MM = 1e-5;
/** The kernel tells where a cylinder turns away to within a degree: shorter pieces of rims beside it are not judged, mm. */
const LIMB_MM = 0.3;
/** Points along a drawn line, and along an edge. */
const ALONG = [0.17, 0.52, 0.83];
const SAMPLES = 192;

interface Scene {
  readonly shapes: readonly PlainShape[];
  readonly document: KadrelDocument;
}

/** Solids that do not overlap, and may touch. */
function randomScene(seed: number, placing: Placing): Scene {
  const random = numbers(seed);
  const kept: Rolled[] = [];
  for (let i = 0; i < 12; i++) {
    const next = rolledSolid(random, `s${i}`, placing);
    const isFree = kept.every(({ box }) =>
      [0, 1, 2].some((k) => box.min[k]! >= next.box.max[k]! || next.box.min[k]! >= box.max[k]!),
    );
    if (isFree) kept.push(next);
  }
  const statements = kept.flatMap((one) => one.statements);
  const document = builtBy(new Evaluator(libraries), [
    ...statements,
    ['sheet', { views: 'four', paper: 'a0', scale: '1:1' }],
  ]);
  return { document, shapes: Object.values(document.items).map(({ id }) => plainShape(document, id)) };
}

interface Edge {
  readonly own: number;
  readonly way: EdgeWay;
  /** Points along it on the picture. */
  readonly flat: readonly Vec2[];
}

const BESIDE = [
  [0, 0],
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;

/** Seen, hidden, or too near to a rim to be decided. */
type Sight = 'seen' | 'hidden' | 'unsure';

class Caster {
  readonly edges: readonly Edge[];
  private readonly towards: Vec3;

  constructor(
    private readonly shapes: readonly PlainShape[],
    private readonly frame: Pose,
  ) {
    this.towards = column(frame.turn, 2);
    this.edges = shapes.flatMap((shape, own) =>
      edgesOfShape(shape, this.towards).map((way) => ({
        own,
        way,
        flat: Array.from({ length: SAMPLES + 1 }, (_, i) => this.flat(way(i / SAMPLES))),
      })),
    );
  }

  /** On the picture. */
  flat(point: Vec3): Vec2 {
    const [x, y] = carryBack(this.frame, point);
    return [x, y];
  }

  sight(point: Vec3, own: number): Sight {
    const within = (shape: PlainShape, at: Vec3, surface: 'in' | 'out') =>
      lengthWithin(shape, { point: at, towards: this.towards, surface });
    const self = this.shapes[own]!;
    if (within(self, point, 'out') > GRAZE_MM) return 'hidden';
    const others = this.shapes.filter((_, i) => i !== own);
    const beside = BESIDE.map(([u, v]) => this.shifted(point, u, v));
    if (others.some((shape) => beside.every((at) => within(shape, at, 'out') > GRAZE_MM))) return 'hidden';
    const isClear = others.every((shape) => beside.every((at) => within(shape, at, 'in') <= NOTHING_MM));
    return isClear && within(self, point, 'in') <= NOTHING_MM ? 'seen' : 'unsure';
  }

  private shifted(point: Vec3, u: number, v: number): Vec3 {
    const [x, y] = [column(this.frame.turn, 0), column(this.frame.turn, 1)];
    return point.map((n, i) => n + 1e-4 * (u * x[i]! + v * y[i]!)) as unknown as Vec3;
  }

  /** What the edges that pass through a point of the picture are there. */
  sightsAt(place: Vec2): Sight[] {
    return this.edges.flatMap((edge) =>
      this.nearest(edge, place).map((t) =>
        this.isTurning(edge, t) ? 'unsure' : this.sight(edge.way(t), edge.own),
      ),
    );
  }

  /** Where a circle that is seen from its edge turns back, its near and its far side are not distinguished. */
  private isTurning({ flat }: Edge, t: number): boolean {
    const pitch = flat.slice(1).map((at, i) => distance2(at, flat[i]!));
    const here = pitch[Math.min(SAMPLES - 1, Math.floor(t * SAMPLES))]!;
    return here < 0.4 * Math.max(...pitch);
  }

  /** Parameters at which an edge passes through a point of the picture. */
  private nearest({ way, flat }: Edge, place: Vec2): number[] {
    const off = (t: number) => distance2(this.flat(way(t)), place);
    const steps = flat.map((at) => distance2(at, place));
    const found: number[] = [];
    steps.forEach((here, i) => {
      if (here > (steps[i - 1] ?? Infinity) || here > (steps[i + 1] ?? Infinity)) return;
      // An edge that comes no nearer than its samples are apart does not pass here.
      const pitch = Math.max(
        distance2(flat[i]!, flat[i - 1] ?? flat[i]!),
        distance2(flat[i]!, flat[i + 1] ?? flat[i]!),
      );
      if (here > pitch + SAME_MM) return;
      const t = min(off, Math.max(0, (i - 1) / SAMPLES), Math.min(1, (i + 1) / SAMPLES));
      if (off(t) < SAME_MM) found.push(t);
    });
    return found;
  }
}

/** Source: search by the golden section, from memory. */
function min(of: (t: number) => number, from: number, to: number): number {
  const golden = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [from, to];
  for (let i = 0; i < 60; i++) {
    const [c, d] = [b - golden * (b - a), a + golden * (b - a)];
    if (of(c) < of(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}

interface Verdict {
  readonly looked: number;
  readonly wrong: readonly string[];
}

const curvesOf = (paths: readonly DrawnPath[]): Curve[] => paths.flatMap(({ curves }) => [...curves]);

function compare(drawn: DrawnView, caster: Caster): Verdict {
  const wrong: string[] = [];
  let looked = 0;
  const placeWords = (place: Vec2) => `(${place.map((n) => n.toFixed(4)).join(', ')})`;
  for (const role of ['visible', 'hidden'] as const)
    for (const curve of curvesOf(drawn.lines[role]).filter((one) => curveLength(one) > LIMB_MM))
      for (const part of ALONG) {
        const place = pointAt(curve, part);
        const sights = caster.sightsAt(place);
        looked += 1;
        const fits = sights.some(
          (sight) => sight === 'unsure' || sight === (role === 'visible' ? 'seen' : 'hidden'),
        );
        if (!fits) wrong.push(`${role} at ${placeWords(place)} is ${sights.join() || 'no edge'}`);
      }
  const visible = curvesOf(drawn.lines.visible);
  for (const { own, way } of caster.edges)
    for (const part of ALONG) {
      const point = way(part);
      if (caster.sight(point, own) !== 'seen') continue;
      looked += 1;
      const place = caster.flat(point);
      const off = Math.min(...visible.map((curve) => distanceTo(curve, place)));
      if (off > SAME_MM) wrong.push(`an edge seen at ${placeWords(place)} is not drawn`);
    }
  return { looked, wrong };
}

const distanceTo = (curve: Curve, place: Vec2): number => nearestOn(curve, place).distance;

function tryScene(seed: number, placing: Placing): Verdict {
  const { document, shapes } = randomScene(seed, placing);
  const [sheet] = sheetsOf(document);
  const kernel = new Evaluator(libraries);
  const verdicts = Object.entries(sheet!.views).map(([id, view]) => {
    const drawn = kernel.answer(document, { ask: 'drawn', sheet: sheet!.id, view: id }) as DrawnView;
    const { looked, wrong } = compare(drawn, new Caster(shapes, frameOfView(document, view)!));
    return { looked, wrong: wrong.map((words) => `seed ${seed}, ${view.name}: ${words}`) };
  });
  return {
    looked: verdicts.reduce((sum, { looked }) => sum + looked, 0),
    wrong: verdicts.flatMap(({ wrong }) => wrong),
  };
}

test.each<Placing>(['turned', 'along the axes'])('scenes of boxes and cylinders %s', (placing) => {
  const verdicts = Array.from({ length: trials(25) }, (_, i) => tryScene(4000 + i, placing));
  const looked = verdicts.reduce((sum, verdict) => sum + verdict.looked, 0);
  expect(looked).toBeGreaterThan(trials(5000));
  expect(verdicts.flatMap(({ wrong }) => wrong)).toEqual([]);
});
