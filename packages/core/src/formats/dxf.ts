/**
 * DXF in and out: lines, polylines with bulges, circles, arcs, ellipses, splines, and blocks of them.
 * Long, since what is read stands beside what is written, entity by entity.
 */
import { reasonOf } from '../language/reason.ts';
import DxfParser, { type IDxf, type IEntity } from 'dxf-parser';
import { degrees } from '../space/angle.ts';
import { cleanDegrees } from '../space/matrix.ts';
import { chain2, distance2, type Affine2, type Vec2 } from '../space/vector2.ts';
import { carryCurve, circle, line, type Curve } from '../curves/curve.ts';
import { bezierPieces, rationalPieces, throughPoints } from '../curves/splines.ts';
import { arcOnChord } from '../profiles/traverse.ts';
import { joined } from '../curves/joined.ts';
import { boxOfPaths, type Drawing } from './drawing.ts';
import type { DrawnPath } from '../curves/curve.ts';
import { FormatError, requireText } from './fault.ts';

/** mm by $INSUNITS. Source: DXF reference, header variables. */
const UNITS: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

interface Point {
  readonly x: number;
  readonly y: number;
  readonly z?: number;
}
const at = ({ x, y }: Point): Vec2 => [x, y];

/** Throws FormatError with a sentence. Without a unit of its own the file is taken to be in mm. */
export function readDxf(text: string): Drawing {
  requireText(text, 'DXF');
  let file: IDxf | null;
  try {
    file = parsed(text);
  } catch (error) {
    throw new FormatError(
      reasonOf('file.dxf-broken', { why: error instanceof Error ? error.message : String(error) }),
    );
  }
  if (!file?.entities) throw new FormatError(reasonOf('file.no-dxf', {}));
  const unit = UNITS[Number(file.header?.$INSUNITS ?? 4)] ?? 1;
  const notes = new Set<string>();
  const curves: Curve[] = [];
  const scaled: Affine2 = { x: [unit, 0], y: [0, unit], shift: [0, 0] };
  collect(file.entities, scaled, { file, notes, curves, depth: 0 });
  const paths = joined(curves);
  const box = boxOfPaths(paths);
  if (!box) throw new FormatError(reasonOf('file.dxf-empty', {}));
  if (![...box.min, ...box.max].every(Number.isFinite))
    throw new FormatError(reasonOf('file.dxf-number', {}));
  return { paths, box, notes: [...notes] };
}

interface Group {
  readonly code: number;
  readonly value: unknown;
}
interface Scanner {
  next(): Group;
}
interface Handler {
  parseEntity(scanner: Scanner, current: Group): IEntity;
}

/** Codes of an entity that the parser passes over: weights of splines, spacing of rows, the way out of its plane. */
const PASSED_OVER: ReadonlySet<number> = new Set([41, 45, 210, 220, 230]);
interface WithCodes {
  readonly passedOver?: ReadonlyMap<number, readonly number[]>;
}

/** The parser's own reading, with what it passes over beside it, and without its chatter on the console. */
function parsed(text: string): IDxf | null {
  const parser = new DxfParser();
  const handlers = (parser as unknown as { readonly _entityHandlers: Record<string, Handler> })
    ._entityHandlers;
  for (const [name, handler] of Object.entries(handlers)) handlers[name] = keepingCodes(handler);
  const { log, warn, error } = console;
  const silent = () => undefined;
  Object.assign(console, { log: silent, warn: silent, error: silent });
  try {
    return parser.parseSync(text);
  } finally {
    Object.assign(console, { log, warn, error });
  }
}

const keepingCodes = (handler: Handler): Handler => ({
  parseEntity(scanner, current) {
    const codes = new Map<number, number[]>();
    const next = scanner.next.bind(scanner);
    scanner.next = () => {
      const group = next();
      if (PASSED_OVER.has(group.code))
        codes.set(group.code, [...(codes.get(group.code) ?? []), Number(group.value)]);
      return group;
    };
    try {
      return Object.assign(handler.parseEntity(scanner, current), { passedOver: codes });
    } finally {
      scanner.next = next;
    }
  },
});

const codesOf = (entity: object, code: number): readonly number[] =>
  (entity as WithCodes).passedOver?.get(code) ?? [];

interface Collecting {
  readonly file: IDxf;
  readonly notes: Set<string>;
  readonly curves: Curve[];
  readonly depth: number;
}
/** Blocks that hold each other deeper than this hold themselves. */
const MAX_DEPTH = 30;

function collect(entities: readonly IEntity[], map: Affine2, around: Collecting): void {
  if (around.depth > MAX_DEPTH) throw new FormatError(reasonOf('file.dxf-block', {}));
  for (const entity of entities) {
    const facing = facingOf(entity);
    if (facing === undefined) {
      around.notes.add('What does not lie in the plane of the drawing is left out.');
      continue;
    }
    const there = chain2(map, facing);
    if (entity.type === 'INSERT') {
      insert(entity as never, there, around);
      continue;
    }
    const curves = curvesOf(entity);
    if (curves) around.curves.push(...curves.map((curve) => carryCurve(there, curve)));
    else around.notes.add(`${entity.type.toLowerCase()} entities are left out.`);
  }
}

const UPRIGHT: Affine2 = { x: [1, 0], y: [0, 1], shift: [0, 0] };
const MIRRORED: Affine2 = { x: [-1, 0], y: [0, 1], shift: [0, 0] };
/** These are given in the plane that their way out belongs to; others in the drawing's own. */
const IN_OWN_PLANE: ReadonlySet<string> = new Set(['LWPOLYLINE', 'POLYLINE', 'CIRCLE', 'ARC', 'INSERT']);

/** Seen from behind, X runs the other way. Undefined for what lies askew. Source: DXF reference, object coordinate systems. */
function facingOf(entity: IEntity): Affine2 | undefined {
  const [x = 0, y = 0, z = 1] = [210, 220, 230].map((code) => codesOf(entity, code).at(-1));
  if (!IN_OWN_PLANE.has(entity.type)) return UPRIGHT;
  if (Math.abs(x) > 1e-6 || Math.abs(y) > 1e-6 || z === 0) return undefined;
  return z < 0 ? MIRRORED : UPRIGHT;
}

interface Insert {
  readonly name: string;
  readonly position: Point;
  readonly xScale?: number;
  readonly yScale?: number;
  readonly rotation?: number;
  readonly columnCount?: number;
  readonly rowCount?: number;
  readonly columnSpacing?: number;
}
/** More copies of a block than this are no drawing. */
const MAX_COPIES = 10_000;

function insert(entity: Insert, map: Affine2, around: Collecting): void {
  const block = around.file.blocks?.[entity.name];
  if (!block) {
    around.notes.add(`Block “${entity.name}” is used and is not in the file.`);
    return;
  }
  const [columns, rows] = [entity.columnCount || 1, entity.rowCount || 1];
  if (!(columns * rows <= MAX_COPIES))
    throw new FormatError(
      reasonOf('file.dxf-repeated', { name: String(entity.name), times: columns * rows }),
    );
  const angle = ((entity.rotation ?? 0) * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [sx, sy] = [entity.xScale ?? 1, entity.yScale ?? 1];
  const placed: Affine2 = { x: [c * sx, s * sx], y: [-s * sy, c * sy], shift: at(entity.position) };
  const base = block.position ?? { x: 0, y: 0 };
  const based: Affine2 = { x: [1, 0], y: [0, 1], shift: [-base.x, -base.y] };
  // Rows and columns turn with the block, and are not scaled with it.
  const turned: Affine2 = { x: [c, s], y: [-s, c], shift: [0, 0] };
  const inside = { ...around, depth: around.depth + 1 };
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [dx, dy] = [column * (entity.columnSpacing ?? 0), row * (codesOf(entity, 45).at(-1) ?? 0)];
      const aside: Affine2 = {
        ...UPRIGHT,
        shift: [turned.x[0] * dx + turned.y[0] * dy, turned.x[1] * dx + turned.y[1] * dy],
      };
      collect(block.entities ?? [], chain2(map, chain2(aside, chain2(placed, based))), inside);
    }
}

interface Fields {
  readonly vertices?: readonly (Point & { readonly bulge?: number })[];
  readonly shape?: boolean;
  readonly center?: Point;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly majorAxisEndPoint?: Point;
  readonly axisRatio?: number;
  readonly controlPoints?: readonly Point[];
  readonly fitPoints?: readonly Point[];
  readonly knotValues?: readonly number[];
  readonly degreeOfSplineCurve?: number;
  readonly closed?: boolean;
}

/** Undefined for what is no curve of the plane. */
function curvesOf(entity: IEntity): Curve[] | undefined {
  const fields = entity as unknown as Fields;
  switch (entity.type) {
    case 'LINE':
      return polyline({ vertices: fields.vertices ?? [], closed: false });
    case 'LWPOLYLINE':
    case 'POLYLINE':
      return polyline({ vertices: fields.vertices ?? [], closed: fields.shape === true });
    case 'CIRCLE':
      return fields.center && fields.radius! > 0 ? [circle(at(fields.center), fields.radius!)] : [];
    case 'ARC': {
      if (!fields.center || !(fields.radius! > 0)) return [];
      const first = cleanDegrees(degrees(fields.startAngle!));
      const sweep = (((cleanDegrees(degrees(fields.endAngle!)) - first) % 360) + 360) % 360 || 360;
      return [{ kind: 'arc', centre: at(fields.center), radius: fields.radius!, first, sweep }];
    }
    case 'ELLIPSE':
      return ellipse(fields, { isBehind: (codesOf(entity, 230).at(-1) ?? 1) < 0 });
    case 'SPLINE':
      return spline(fields, codesOf(entity, 41));
    default:
      return undefined;
  }
}

/** A bulge is the tangent of a quarter of the angle that an arc sweeps. Source: DXF reference, LWPOLYLINE. */
function polyline({
  vertices,
  closed,
}: {
  readonly vertices: NonNullable<Fields['vertices']>;
  readonly closed: boolean;
}): Curve[] {
  const ends = closed ? [...vertices, vertices[0]!] : vertices;
  return ends.slice(1).flatMap((next, i): Curve[] => {
    const from = ends[i]!;
    if (distance2(at(from), at(next)) === 0) return [];
    return from.bulge
      ? [arcOnChord(at(from), at(next), degrees(4 * Math.atan(from.bulge)))]
      : [line(at(from), at(next))];
  });
}

type EllipseFields = Pick<Fields, 'center' | 'majorAxisEndPoint' | 'axisRatio' | 'startAngle' | 'endAngle'>;

/** Seen from behind it runs the other way round. */
function ellipse(
  { center, majorAxisEndPoint, axisRatio, startAngle, endAngle }: EllipseFields,
  { isBehind }: { readonly isBehind: boolean },
): Curve[] {
  if (!center || !majorAxisEndPoint) return [];
  const [x, y] = at(majorAxisEndPoint);
  const ratio = (isBehind ? -1 : 1) * (axisRatio ?? 1);
  const first = cleanDegrees(degrees(startAngle ?? 0));
  const turn = cleanDegrees(degrees((endAngle ?? 2 * Math.PI) - (startAngle ?? 0)));
  const sweep = ((turn % 360) + 360) % 360 || 360;
  const map: Affine2 = { x: [x, y], y: [-y * ratio, x * ratio], shift: at(center) };
  return [carryCurve(map, { kind: 'arc', centre: [0, 0], radius: 1, first, sweep })];
}

function spline(
  { controlPoints, fitPoints, knotValues, degreeOfSplineCurve, closed }: Fields,
  weights: readonly number[],
): Curve[] {
  const degree = degreeOfSplineCurve ?? 3;
  const isWhole = controlPoints && knotValues && knotValues.length === controlPoints.length + degree + 1;
  if (isWhole && weights.length === controlPoints.length && weights.some((w) => w !== weights[0])) {
    if (!weights.every((w) => w > 0)) throw new FormatError(reasonOf('file.dxf-weight', {}));
    return rationalPieces({ points: controlPoints.map(at), weights, knots: knotValues, degree });
  }
  if (isWhole) return bezierPieces(controlPoints.map(at), knotValues, degree);
  if (fitPoints && fitPoints.length > 1)
    return throughPoints({ points: fitPoints.map(at), closed: closed === true });
  throw new FormatError(reasonOf('file.dxf-spline', {}));
}

/** Curves one by one in mm, arcs as arcs. Source: DXF reference, AC1015. */
export function writeDxf(paths: readonly DrawnPath[]): string {
  if (paths.length === 0) throw new FormatError(reasonOf('file.nothing', {}));
  let handle = 0x100;
  const entity = (type: string, kind: string, ...pairs: (readonly [number, string | number])[]) =>
    [
      [0, type],
      [5, (handle++).toString(16).toUpperCase()],
      [100, 'AcDbEntity'],
      [8, '0'],
      [100, kind],
      ...pairs,
    ] as const;
  const records = paths.flatMap(({ curves }) => curves.flatMap((curve) => [...entityOf(curve, entity)]));
  const head = [
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1015'],
    [9, '$INSUNITS'],
    [70, 4],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
  ] as const;
  const all = [...head, ...records, [0, 'ENDSEC'] as const, [0, 'EOF'] as const];
  return all.map(([code, value]) => `${code}\n${value}\n`).join('');
}

/** Writes an entity: its type, its subclass, and its own pairs of code and value. */
export type Entity = (
  type: string,
  kind: string,
  ...pairs: (readonly [number, string | number])[]
) => readonly (readonly [number, string | number])[];

/** A curve as pairs of code and value. */
export function entityOf(curve: Curve, entity: Entity): readonly (readonly [number, string | number])[] {
  switch (curve.kind) {
    case 'line':
      return entity('LINE', 'AcDbLine', ...pointCodes(curve.from), ...pointCodes(curve.to, 11));
    case 'arc': {
      const round = [...pointCodes(curve.centre), [40, curve.radius] as const];
      if (Math.abs(curve.sweep) >= 360) return entity('CIRCLE', 'AcDbCircle', ...round);
      const [first, last] =
        curve.sweep > 0 ? [curve.first, curve.first + curve.sweep] : [curve.first + curve.sweep, curve.first];
      return entity('ARC', 'AcDbCircle', ...round, [100, 'AcDbArc'], [50, first], [51, last]);
    }
    case 'ellipse':
      return entity('ELLIPSE', 'AcDbEllipse', ...ellipseCodes(curve));
    case 'bezier':
      return entity('SPLINE', 'AcDbSpline', ...splineCodes(curve.points));
  }
}

type Code = readonly [number, string | number];

const pointCodes = ([x, y]: Vec2, code = 10): readonly Code[] => [
  [code, x],
  [code + 10, y],
  [code + 20, 0],
];

function ellipseCodes(curve: Extract<Curve, { kind: 'ellipse' }>): readonly Code[] {
  const isLeft = curve.x[0] * curve.y[1] - curve.x[1] * curve.y[0] > 0;
  const [first, last] = [curve.first, curve.first + curve.sweep].map(
    (n) => ((isLeft ? n : -n) * Math.PI) / 180,
  );
  return [
    ...pointCodes(curve.centre),
    ...pointCodes(curve.x, 11),
    [40, Math.hypot(...curve.y) / Math.hypot(...curve.x)],
    [41, Math.min(first!, last!)],
    [42, Math.max(first!, last!)],
  ];
}

/** One Bézier piece as a spline with its ends held. */
function splineCodes(points: readonly Vec2[]): readonly Code[] {
  const degree = points.length - 1;
  const knots = [...Array<number>(degree + 1).fill(0), ...Array<number>(degree + 1).fill(1)];
  return [
    [70, 8],
    [71, degree],
    [72, knots.length],
    [73, points.length],
    [74, 0],
    ...knots.map((knot) => [40, knot] as const),
    ...points.flatMap((pole) => pointCodes(pole)),
  ];
}
