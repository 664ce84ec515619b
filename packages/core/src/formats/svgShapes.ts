/** The shapes of an SVG file as curves: rectangles, ellipses, lines, and every command of the path language. */
import { reasonOf } from '../language/reason.ts';
import svgpath from 'svgpath';
import { degrees, radians } from '../space/angle.ts';
import { cleanDegrees } from '../space/matrix.ts';
import { distance2, type Affine2, type Vec2 } from '../space/vector2.ts';
import { SAME_POINT_MM, carryCurve, circle, line, type Curve } from '../curves/curve.ts';
import type { DrawnPath } from '../curves/curve.ts';
import { FormatError } from './fault.ts';

/** A CSS pixel. Source: CSS Values and Units 3, 96 px = 1 in. */
export const PX_MM = 25.4 / 96;

const UNITS: Readonly<Record<string, number>> = {
  '': PX_MM,
  px: PX_MM,
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
};

/** A length with its unit in mm; undefined for none, and for parts of an unknown whole. */
export function lengthOf(text: string | undefined): number | undefined {
  const found = /^\s*([-+]?[\d.]+(?:e[-+]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  const unit = found && UNITS[found[2]!.toLowerCase()];
  const value = found ? Number(found[1]) * (unit ?? NaN) : NaN;
  return Number.isFinite(value) ? value : undefined;
}

export const numbersIn = (text = ''): number[] => {
  const numbers = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return numbers.every(Number.isFinite) && text.trim() !== '' ? numbers : [];
};

/** In user units. @param whole what percentages are parts of */
export const numberOf = (text: string | undefined, whole = 0): number => {
  const found = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '0');
  const unit = found?.[2]!.toLowerCase();
  if (found && unit === '%') return (Number(found[1]) / 100) * whole;
  const factor = unit === '' ? 1 : unit === undefined ? undefined : UNITS[unit] && UNITS[unit] / PX_MM;
  if (!found || factor === undefined) throw new FormatError(reasonOf('file.svg-number', { text: text! }));
  return Number(found[1]) * factor;
};

export function shapeOf(tag: string, a: Readonly<Record<string, string>>, view: Vec2): DrawnPath[] {
  const [across, down] = [
    (key: string) => numberOf(a[key], view[0]),
    (key: string) => numberOf(a[key], view[1]),
  ];
  switch (tag) {
    case 'path':
      return pathOf(a.d ?? '');
    case 'line':
      return open([
        [across('x1'), down('y1')],
        [across('x2'), down('y2')],
      ]);
    case 'polyline':
      return open(pointsOf(a.points));
    case 'polygon': {
      const points = pointsOf(a.points);
      return points.length < 2 ? [] : [{ closed: true, curves: lines([...points, points[0]!]) }];
    }
    case 'circle': {
      const radius = numberOf(a.r, Math.hypot(...view) / Math.SQRT2);
      return radius > 0 ? [{ closed: true, curves: [circle([across('cx'), down('cy')], radius)] }] : [];
    }
    case 'ellipse':
      return ellipseOf([across('cx'), down('cy')], across('rx'), down('ry'));
    case 'rect':
      return rectOf(a, view);
    default:
      return [];
  }
}

export const lines = (points: readonly Vec2[]): Curve[] =>
  points.slice(1).flatMap((to, i) => (distance2(points[i]!, to) > 0 ? [line(points[i]!, to)] : []));

const open = (points: readonly Vec2[]): DrawnPath[] => {
  const curves = lines(points);
  return curves.length > 0 ? [{ closed: false, curves }] : [];
};

function pointsOf(text = ''): Vec2[] {
  const numbers = (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number);
  return Array.from({ length: Math.floor(numbers.length / 2) }, (_, i) => [
    numbers[2 * i]!,
    numbers[2 * i + 1]!,
  ]);
}

function ellipseOf(centre: Vec2, rx: number, ry: number): DrawnPath[] {
  if (!(rx > 0 && ry > 0)) return [];
  const unit: Affine2 = { x: [rx, 0], y: [0, ry], shift: centre };
  return [{ closed: true, curves: [carryCurve(unit, circle([0, 0], 1))] }];
}

function rectOf(a: Readonly<Record<string, string>>, view: Vec2): DrawnPath[] {
  const [x, y] = [numberOf(a.x, view[0]), numberOf(a.y, view[1])];
  const [w, h] = [numberOf(a.width, view[0]), numberOf(a.height, view[1])];
  if (!(w > 0 && h > 0)) return [];
  const rx = Math.min(numberOf(a.rx ?? a.ry, view[0]), w / 2);
  const ry = Math.min(numberOf(a.ry ?? a.rx, view[1]), h / 2);
  if (!(rx > 0 && ry > 0)) return pathOf(`M${x} ${y}h${w}v${h}h${-w}z`);
  const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  return pathOf(
    `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}z`,
  );
}

/** Every command of the path language. */
function pathOf(text: string): DrawnPath[] {
  const parsed = svgpath(text).abs().unshort() as ReturnType<typeof svgpath> & { readonly err?: string };
  if (parsed.err) throw new FormatError(reasonOf('file.svg-path', { why: parsed.err }));
  const pen = new Pen();
  parsed.iterate(([mark, ...numbers]) => pen.follow(mark, numbers));
  pen.finish('open');
  return pen.found;
}

/** Follows the commands of a path, one after another. */
class Pen {
  readonly found: DrawnPath[] = [];
  private curves: Curve[] = [];
  private start: Vec2 = [0, 0];
  private at: Vec2 = [0, 0];

  follow(mark: string, n: readonly number[]): void {
    const { at } = this;
    const to: Vec2 = [n.at(-2)!, n.at(-1)!];
    switch (mark) {
      case 'M':
        this.finish('open');
        this.start = this.at = to;
        return;
      case 'Z':
        this.finish('closed');
        this.at = this.start;
        return;
      case 'H':
        return this.goStraight([n[0]!, at[1]]);
      case 'V':
        return this.goStraight([at[0], n[0]!]);
      case 'L':
        return this.goStraight(to);
      case 'C':
        return this.go(to, { kind: 'bezier', points: [at, [n[0]!, n[1]!], [n[2]!, n[3]!], to] });
      case 'Q':
        return this.go(to, { kind: 'bezier', points: [at, [n[0]!, n[1]!], to] });
      case 'A':
        return this.go(to, arcTo(at, to, n as unknown as ArcNumbers));
    }
  }

  finish(ending: 'open' | 'closed'): void {
    const { curves, at, start } = this;
    const isBack = distance2(at, start) <= SAME_POINT_MM;
    if (ending === 'closed' && !isBack) curves.push(line(at, start));
    const closed = ending === 'closed' || (curves.length > 1 && isBack);
    if (curves.length > 0) this.found.push({ closed, curves });
    this.curves = [];
  }

  private goStraight(to: Vec2): void {
    this.go(to, distance2(this.at, to) === 0 ? undefined : line(this.at, to));
  }

  private go(to: Vec2, curve: Curve | undefined): void {
    if (curve) this.curves.push(curve);
    this.at = to;
  }
}

type ArcNumbers = readonly [
  rx: number,
  ry: number,
  turn: number,
  large: number,
  left: number,
  x: number,
  y: number,
];

/** An arc given by its ends. Source: SVG 1.1, appendix F.6.5 and F.6.6. */
function arcTo(from: Vec2, to: Vec2, [rx0, ry0, turn, large, sweeps]: ArcNumbers): Curve | undefined {
  if (distance2(from, to) === 0) return undefined;
  let [rx, ry] = [Math.abs(rx0), Math.abs(ry0)];
  if (rx === 0 || ry === 0) return line(from, to);
  const [c, s] = [Math.cos(radians(turn)), Math.sin(radians(turn))];
  const half: Vec2 = [(from[0] - to[0]) / 2, (from[1] - to[1]) / 2];
  const [u, v] = [c * half[0] + s * half[1], -s * half[0] + c * half[1]];
  const wide = (u / rx) ** 2 + (v / ry) ** 2;
  if (wide > 1) [rx, ry] = [rx * Math.sqrt(wide), ry * Math.sqrt(wide)];
  const rest = (rx * ry) ** 2 - (rx * v) ** 2 - (ry * u) ** 2;
  const size = Math.sqrt(Math.max(0, rest) / ((rx * v) ** 2 + (ry * u) ** 2)) * (large === sweeps ? -1 : 1);
  const [p, q] = [(size * rx * v) / ry, (-size * ry * u) / rx];
  const centre: Vec2 = [c * p - s * q + (from[0] + to[0]) / 2, s * p + c * q + (from[1] + to[1]) / 2];
  const angle = (x: number, y: number) => degrees(Math.atan2(y / ry, x / rx));
  const first = angle(u - p, v - q);
  let sweep = (angle(-u - p, -v - q) - first) % 360;
  if (sweeps && sweep < 0) sweep += 360;
  if (!sweeps && sweep > 0) sweep -= 360;
  const unit: Curve = {
    kind: 'arc',
    centre: [0, 0],
    radius: 1,
    first: cleanDegrees(first),
    sweep: cleanDegrees(sweep),
  };
  return carryCurve({ x: [c * rx, s * rx], y: [-s * ry, c * ry], shift: centre }, unit);
}
