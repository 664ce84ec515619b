/**
 * SVG in and out: outlines only, at their true size. Source: SVG 1.1, W3C.
 * Long, since references, styles, units and viewports of the one format lean on each other.
 */
import { reasonOf } from '../language/reason.ts';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { degrees, radians } from '../space/angle.ts';
import { chain2, type Affine2, type Vec2 } from '../space/vector2.ts';
import { carryCurve, endOf, startOf, type Curve } from '../curves/curve.ts';
import { boxOfPaths, type Drawing } from './drawing.ts';
import type { DrawnPath } from '../curves/curve.ts';
import { closedLoop, overlapping, paintedBorders, type FillRule, type Painted } from './fill.ts';
import { FormatError, requireText } from './fault.ts';
import { PX_MM, lengthOf, numbersIn, numberOf, shapeOf } from './svgShapes.ts';

interface Node {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Node[];
  /** Of a style element. */
  readonly text?: string;
}

/** Throws FormatError with a sentence. The lower left corner of the page is the origin. */
export function readSvg(text: string): Drawing {
  requireText(text, 'SVG');
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(text)) throw new FormatError(reasonOf('file.svg-entities', {}));
  const valid = XMLValidator.validate(text);
  if (valid !== true)
    throw new FormatError(reasonOf('file.svg-broken-in', { line: valid.err.line, why: valid.err.msg }));
  const root = parse(text).find(({ tag }) => tag === 'svg');
  if (!root) throw new FormatError(reasonOf('file.no-svg', {}));
  const ids = new Map<string, Node>();
  index(root, ids);
  const notes = new Set<string>();
  const lines: DrawnPath[] = [];
  const painted = new Map<string, Painted[]>();
  const around = { ids, notes, lines, painted, rules: styleRules(root), left: { elements: MAX_ELEMENTS } };
  const style = styleOf(root, around.rules, FIRST_STYLE);
  collect(root.children, pageMap(root), { ...around, depth: 0, style, view: viewSize(root) });
  const found = [...lines, ...[...painted.values()].flatMap((shapes) => bordersOf(shapes, notes))];
  const box = boxOfPaths(found);
  if (!box) throw new FormatError(reasonOf('file.svg-empty', {}));
  return { paths: found, box, notes: [...notes] };
}

function bordersOf(shapes: readonly Painted[], notes: Set<string>): DrawnPath[] {
  return overlapping(shapes).flatMap((some) => {
    const borders = paintedBorders(some);
    if (borders) return borders;
    notes.add(
      'Some shapes that overlap are left as they are: they nearly lie on each other, or are too many.',
    );
    return some.flatMap(({ loops }) => loops);
  });
}

function parse(text: string): Node[] {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    processEntities: false,
    removeNSPrefix: true,
    parseTagValue: false,
    parseAttributeValue: false,
  });
  type Raw = Readonly<Record<string, unknown>>;
  const node = (raw: Raw): Node[] => {
    const tag = Object.keys(raw).find((key) => key !== ':@');
    if (tag === undefined || tag.startsWith('#') || tag.startsWith('?')) return [];
    const children = raw[tag];
    return [
      {
        tag,
        attributes: (raw[':@'] ?? {}) as Readonly<Record<string, string>>,
        children: Array.isArray(children) ? children.flatMap((child) => node(child as Raw)) : [],
        ...(tag === 'style' ? { text: textIn(children) } : {}),
      },
    ];
  };
  try {
    return (parser.parse(text) as Raw[]).flatMap(node);
  } catch (error) {
    throw new FormatError(
      reasonOf('file.svg-broken', { why: error instanceof Error ? error.message : String(error) }),
    );
  }
}

const textIn = (children: unknown): string =>
  Array.isArray(children)
    ? children.map((child) => String((child as { '#text'?: unknown })['#text'] ?? '')).join('')
    : '';

function index(node: Node, ids: Map<string, Node>): void {
  const { id } = node.attributes;
  if (id !== undefined && !ids.has(id)) ids.set(id, node);
  for (const child of node.children) index(child, ids);
}

/** User units across and down: what percentages are parts of. */
function viewSize({ attributes }: Node): Vec2 {
  const view = numbersIn(attributes.viewBox);
  if (view.length === 4) return [view[2]!, view[3]!];
  return [(lengthOf(attributes.width) ?? 0) / PX_MM, (lengthOf(attributes.height) ?? 0) / PX_MM];
}

/** From user units, Y down, to mm, Y up. */
function pageMap({ attributes }: Node): Affine2 {
  const view = (attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const hasView = view.length === 4 && view.every(Number.isFinite) && view[2]! > 0 && view[3]! > 0;
  const [x, y, w, h] = hasView ? (view as [number, number, number, number]) : [0, 0, 0, 0];
  const [width, height] = [lengthOf(attributes.width), lengthOf(attributes.height)];
  if (!hasView) {
    const tall = height ?? 0;
    return { x: [PX_MM, 0], y: [0, -PX_MM], shift: [0, tall] };
  }
  const sx = width === undefined ? (height === undefined ? PX_MM : height / h) : width / w;
  const sy = height === undefined ? sx : height / h;
  if (attributes.preserveAspectRatio?.trim().startsWith('none'))
    return { x: [sx, 0], y: [0, -sy], shift: [-x * sx, (y + h) * sy] };
  // Kept in proportion and in the middle of its page, as is usual.
  const scale = Math.min(sx, sy);
  const aside: Vec2 = [((sx - scale) * w) / 2, ((sy - scale) * h) / 2];
  return { x: [scale, 0], y: [0, -scale], shift: [aside[0] - x * scale, aside[1] + (y + h) * scale] };
}

/** What is inherited from element to element. */
interface Style {
  /** `none`, or a colour as it is written: shapes of one colour are one area. */
  readonly fill: string;
  readonly rule: FillRule;
}

const FIRST_STYLE: Style = { fill: 'black', rule: 'nonzero' };

type Rules = ReadonlyMap<string, Readonly<Record<string, string>>>;

interface Collecting {
  readonly ids: ReadonlyMap<string, Node>;
  readonly notes: Set<string>;
  /** Of shapes that are not filled. */
  readonly lines: DrawnPath[];
  /** Filled shapes by their colour. */
  readonly painted: Map<string, Painted[]>;
  readonly rules: Rules;
  readonly left: { elements: number };
  readonly depth: number;
  readonly style: Style;
  /** User units across and down. */
  readonly view: Vec2;
}

/** What holds no outline of its own, or is drawn only where something refers to it. */
const HIDDEN = new Set([
  'defs',
  'clipPath',
  'mask',
  'symbol',
  'pattern',
  'marker',
  'linearGradient',
  'radialGradient',
  'filter',
]);

const QUIET = new Set(['title', 'desc', 'metadata', 'style', 'script', 'namedview', 'animate', 'set']);

/** Elements that refer to each other deeper than this refer to themselves. */
const MAX_DEPTH = 50;

/** More elements than this, counted as often as they are used, are no drawing: uses within uses multiply. */
const MAX_ELEMENTS = 50_000;

function collect(nodes: readonly Node[], map: Affine2, around: Collecting): void {
  if (around.depth > MAX_DEPTH) throw new FormatError(reasonOf('file.svg-circle', {}));
  for (const node of nodes) {
    if (HIDDEN.has(node.tag) || QUIET.has(node.tag) || isUnseen(node.attributes)) continue;
    around.left.elements -= 1;
    if (around.left.elements < 0) throw new FormatError(reasonOf('file.svg-elements', { max: MAX_ELEMENTS }));
    const own = chain2(map, transformOf(node.attributes.transform));
    const style = styleOf(node, around.rules, around.style);
    collectOne(node, own, { ...around, depth: around.depth + 1, style });
  }
}

function collectOne(node: Node, map: Affine2, around: Collecting): void {
  const { tag, attributes, children } = node;
  switch (tag) {
    case 'g':
    case 'a':
    case 'switch':
      return collect(children, map, around);
    case 'svg':
      return viewport(node, { map: chain2(map, shiftOf(attributes, around.view)), size: attributes }, around);
    case 'use':
      return useOf(attributes, map, around);
    case 'text':
      around.notes.add('Texts are left out: turn them into outlines first.');
      return;
    case 'image':
      around.notes.add('Pictures are left out.');
      return;
    default: {
      const shapes = shapeOf(tag, attributes, around.view);
      draw(
        shapes.map(({ closed, curves }) => ({
          closed,
          curves: curves.map((curve) => carryCurve(map, curve)),
        })),
        around,
      );
    }
  }
}

function draw(paths: readonly DrawnPath[], { style, lines, painted }: Collecting): void {
  if (paths.length === 0) return;
  if (style.fill === 'none') {
    lines.push(...paths);
    return;
  }
  // A fill closes what encloses something; a single straight line encloses nothing and is drawn as it is.
  const [flat, loops] = [paths.filter(isStraight), paths.filter((path) => !isStraight(path))];
  lines.push(...flat);
  if (loops.length === 0) return;
  const shapes = painted.get(style.fill) ?? [];
  shapes.push({ rule: style.rule, loops: loops.map(closedLoop) });
  painted.set(style.fill, shapes);
}

const isStraight = ({ closed, curves }: DrawnPath) =>
  !closed && curves.length === 1 && curves[0]!.kind === 'line';

function useOf(attributes: Node['attributes'], map: Affine2, around: Collecting): void {
  const name = (attributes.href ?? '').replace(/^#/, '');
  const target = around.ids.get(name);
  if (!target) {
    around.notes.add(`“${name}” is used in this SVG file and is not in it.`);
    return;
  }
  const shifted = chain2(map, shiftOf(attributes, around.view));
  if (target.tag !== 'symbol') return collect([target], shifted, around);
  const style = styleOf(target, around.rules, around.style);
  // A symbol is as large as it is used, if that is said.
  const size = { ...target.attributes };
  if (attributes.width !== undefined) size.width = attributes.width;
  if (attributes.height !== undefined) size.height = attributes.height;
  viewport(target, { map: shifted, size }, { ...around, style });
}

const shiftOf = (a: Node['attributes'], [w, h]: Vec2): Affine2 => ({
  x: [1, 0],
  y: [0, 1],
  shift: [numberOf(a.x, w), numberOf(a.y, h)],
});

/** An element with a view of its own: what is in it is fitted in, in the middle and in proportion unless it says otherwise. */
function viewport(
  node: Node,
  { map, size }: { readonly map: Affine2; readonly size: Node['attributes'] },
  around: Collecting,
): void {
  const view = numbersIn(node.attributes.viewBox);
  const isView = view.length === 4 && view[2]! > 0 && view[3]! > 0;
  if (!isView) return collect(node.children, map, around);
  const [x, y, w, h] = view as [number, number, number, number];
  const [width, height] = [sizeIn(size.width, around.view[0]), sizeIn(size.height, around.view[1])];
  const [sx, sy] = [width / w, height / h];
  const isFree = node.attributes.preserveAspectRatio?.trim().startsWith('none') === true;
  const even = Math.min(sx, sy);
  const [kx, ky] = isFree ? [sx, sy] : [even, even];
  const inner: Affine2 = {
    x: [kx, 0],
    y: [0, ky],
    shift: [(width - kx * w) / 2 - kx * x, (height - ky * h) / 2 - ky * y],
  };
  collect(node.children, chain2(map, inner), { ...around, view: [w, h] });
}

/** All of what is round it, unless it says a size. */
const sizeIn = (text: string | undefined, whole: number): number =>
  text === undefined || text === 'auto' ? whole : numberOf(text, whole);

const isUnseen = ({ display, visibility, style }: Readonly<Record<string, string>>) =>
  display === 'none' || visibility === 'hidden' || /display\s*:\s*none/.test(style ?? '');

/** Rules of style elements for classes, ids and tags by themselves; others are not understood. */
function styleRules(root: Node): Rules {
  const rules = new Map<string, Record<string, string>>();
  const visit = ({ tag, children, text }: Node): void => {
    if (tag === 'style')
      for (const [, selectors, body] of (text ?? '').matchAll(/([^{}]+)\{([^}]*)\}/g))
        for (const selector of selectors!.split(','))
          rules.set(selector.trim(), { ...rules.get(selector.trim()), ...declarations(body!) });
    children.forEach(visit);
  };
  visit(root);
  return rules;
}

const declarations = (text: string): Record<string, string> =>
  Object.fromEntries(
    text
      .split(';')
      .map((one) => one.split(':').map((part) => part.trim()))
      .filter((parts) => parts.length === 2) as [string, string][],
  );

function styleOf({ tag, attributes }: Node, rules: Rules, outer: Style): Style {
  const classes = (attributes.class ?? '').split(/\s+/).filter(Boolean);
  const values: Readonly<Record<string, string | undefined>> = {
    fill: attributes.fill,
    'fill-rule': attributes['fill-rule'],
    ...rules.get(tag),
    ...classes.reduce<Record<string, string>>((all, name) => ({ ...all, ...rules.get(`.${name}`) }), {}),
    ...rules.get(`#${attributes.id ?? ''}`),
    ...declarations(attributes.style ?? ''),
  };
  const rule = values['fill-rule'];
  const fill = values.fill === undefined || values.fill === 'inherit' ? outer.fill : values.fill;
  return { fill, rule: rule === 'evenodd' || rule === 'nonzero' ? rule : outer.rule };
}

/** Source: SVG 1.1, chapter 7.6, the transform attribute. */
function transformOf(text: string | undefined): Affine2 {
  let map: Affine2 = { x: [1, 0], y: [0, 1], shift: [0, 0] };
  for (const [, name, list] of (text ?? '').matchAll(/(\w+)\s*\(([^)]*)\)/g)) {
    const n = list!
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    if (!n.every(Number.isFinite)) throw new FormatError(reasonOf('file.svg-transform', { text: text! }));
    map = chain2(map, oneTransform(name!, n));
  }
  return map;
}

function oneTransform(name: string, n: readonly number[]): Affine2 {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = n;
  const [cosine, sine] = [Math.cos(radians(a)), Math.sin(radians(a))];
  switch (name) {
    case 'matrix':
      return { x: [a, b], y: [c, d], shift: [e, f] };
    case 'translate':
      return { x: [1, 0], y: [0, 1], shift: [a, b] };
    case 'scale':
      return { x: [a, 0], y: [0, n.length > 1 ? b : a], shift: [0, 0] };
    case 'rotate': {
      const turned: Affine2 = { x: [cosine, sine], y: [-sine, cosine], shift: [0, 0] };
      const back: Affine2 = { x: [1, 0], y: [0, 1], shift: [-b, -c] };
      return chain2({ x: [1, 0], y: [0, 1], shift: [b, c] }, chain2(turned, back));
    }
    case 'skewX':
      return { x: [1, 0], y: [Math.tan(radians(a)), 1], shift: [0, 0] };
    case 'skewY':
      return { x: [1, Math.tan(radians(a))], y: [0, 1], shift: [0, 0] };
    default:
      throw new FormatError(reasonOf('file.svg-transform', { text: name }));
  }
}

/** Outlines at their true size: the page is their box, in mm, Y turned down as SVG has it. */
export function writeSvg(paths: readonly DrawnPath[]): string {
  const box = boxOfPaths(paths);
  if (!box) throw new FormatError(reasonOf('file.nothing', {}));
  const [w, h] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
  const turned: Affine2 = { x: [1, 0], y: [0, -1], shift: [-box.min[0], box.max[1]] };
  const drawn = paths.map((path) => {
    const curves = path.curves.map((curve) => carryCurve(turned, curve));
    return `  <path d="${pathText({ curves, closed: path.closed })}"/>\n`;
  });
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n` +
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}" ` +
    `fill="none" stroke="black" stroke-width="0.1">\n${drawn.join('')}</svg>\n`
  );
}

/** A path’s data, as SVG writes it. Throws FormatError for curves that it has no words for. */
export function pathText({
  curves,
  closed,
}: {
  readonly curves: readonly Curve[];
  readonly closed: boolean;
}): string {
  const point = ([x, y]: Vec2) => `${x} ${y}`;
  const marks = curves.map((curve) => {
    const end = endOf(curve);
    if (curve.kind === 'line') return `L${point(end)}`;
    if (curve.kind === 'bezier') {
      const [, ...rest] = curve.points;
      if (rest.length > 3) throw new FormatError(reasonOf('file.svg-degree', {}));
      return `${rest.length === 2 ? 'Q' : 'C'}${rest.map(point).join(' ')}`;
    }
    const [rx, ry] =
      curve.kind === 'arc' ? [curve.radius, curve.radius] : [Math.hypot(...curve.x), Math.hypot(...curve.y)];
    const turn = curve.kind === 'arc' ? 0 : degrees(Math.atan2(curve.x[1], curve.x[0]));
    const isLeft = curve.kind === 'arc' || curve.x[0] * curve.y[1] - curve.x[1] * curve.y[0] > 0;
    const way = curve.sweep > 0 === isLeft ? 1 : 0;
    // A whole turn has no ends to be given by: it is written as two halves.
    const halves = Math.abs(curve.sweep) > 359 ? [0.5, 1] : [1];
    return halves
      .map((part) => {
        const to = part === 1 ? end : endOf({ ...curve, sweep: curve.sweep * part });
        const large = halves.length === 1 && Math.abs(curve.sweep) > 180 ? 1 : 0;
        return `A${rx} ${ry} ${turn} ${large} ${way} ${point(to)}`;
      })
      .join('');
  });
  return `M${point(startOf(curves[0]!))}${marks.join('')}${closed ? 'Z' : ''}`;
}
