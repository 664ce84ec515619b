import { isFlatPart, standingOf, valueOf, visibleParts } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { wayAt, wayDirection, wayLength } from '../../patterns/way.ts';
import { cleanDirection, column, fromColumns } from '../../space/matrix.ts';
import type { Pose } from '../../space/pose.ts';
import { cross, dot, length, scale, subtract, unit, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
} from '../../statement/declare.ts';
import { wrapParts } from '../shared/combine.ts';
import { cutKeeping } from '../shared/cutKeeping.ts';
import { squareTo } from '../shared/laidPlane.ts';
import { drawPaths } from '../shared/outlines.ts';
import { addSectionPlane, notSolid } from '../shared/sectionPlane.ts';

/** More cuts at once are more than anybody looks through. */
const MAX_CUTS = 200;
/** A line is straight where it turns by less than this, as the sine of the angle. */
const STRAIGHT = 1e-9;
/** Places on a path are given to this, mm. */
const END_SLACK_MM = 1e-6;

const blanks = {
  parts: optional('parts', 'through', 'The solids; all that are seen where none is said.'),
  on: needed('plane', 'in', 'The plane that cuts; or the plane that the line is looked at in.', {
    default: 'plan',
    once: true,
  }),
  line: optional('path', 'by', 'A line or a path: drawn, an edge, or points one after another.', {
    catches: 'edges',
  }),
  way: needed('choice', 'way', 'Whether the line is cut along, or across at places on it.', {
    default: 'along',
    choices: { along: 'lengthwise', across: 'crosswise' },
  }),
  count: optional(
    'tally',
    'in all',
    'How many cuts there are across the line; without a pitch they share out all of it.',
  ),
  pitch: optional('length', 'every', 'From one cut across the line to the next.', {
    positive: true,
  }),
  keeps: cutKeeping,
  as: optional('name', 'name', 'What the group of curves is called.'),
} as const;
type Given = Values<typeof blanks>;

/** Curves where planes cut solids: in a plane, along a line as one looks at it, or across a path. */
export const sectionCurve = declareVerb({
  id: 'section-curve',
  name: 'Section curve',
  group: 'cut',
  about: 'The curves in which solids are cut: in a plane, along a line, or across a path at places on it.',
  words: ['section', 'profile', 'outline', 'contour', 'intersection', 'cross-section', 'stations', 'line'],
  blanks,
  sentence:
    'Section curve[ through {parts}] in {on}[, by {line} {way}][, {count} in all][, every {pitch}], {keeps}[ named {as}]',
  apply(draft, given, context) {
    const items = solidsOf(draft, given.parts);
    if (isRefusal(items)) return items;
    const planes = planesOf(given);
    if (isRefusal(planes)) return planes;
    const made: ItemId[] = [];
    for (const plane of planes) {
      const drawn = drawnCut(draft, { plane, items, keeps: given.keeps }, context);
      if (isRefusal(drawn)) return drawn;
      made.push(...drawn);
    }
    if (made.length === 0) return refuse('nothing.curves', {}, given.line ? 'line' : 'on');
    const group = wrapParts({ draft, context }, made, {
      name: given.as ?? 'Section curves',
      base: { kind: 'group', members: [] },
    });
    return { result: group, select: [group] };
  },
});

function solidsOf(draft: KadrelDocument, parts: readonly ItemId[] | undefined): ItemId[] | Refusal {
  const fault = notSolid(draft, parts);
  if (fault) return fault;
  const all = parts
    ? [...standingOf(draft, parts)]
    : visibleParts(draft)
        .filter((part) => !isFlatPart(draft, part))
        .map(({ id }) => id);
  return all.length > 0 ? all : refuse('nothing.to-cut', {}, 'parts');
}

/** The planes that cut, each with its X along the line where that is cut along. */
function planesOf({ on, line, way, count, pitch }: Given): Pose[] | Refusal {
  if (!line) return [{ turn: on.turn, shift: on.shift }];
  if (way === 'along') {
    const plane = lengthwise(line, column(on.turn, 2));
    return isRefusal(plane) ? plane : [plane];
  }
  const places = placesOn(wayLength(line), {
    count: count && valueOf(count),
    pitch: pitch && valueOf(pitch),
  });
  if (isRefusal(places)) return places;
  return places.map((at) => squareTo(wayAt(line, at).point, wayDirection(line, at)));
}

/** Through a straight line, square to the plane that it is looked at in. */
function lengthwise(line: NonNullable<Given['line']>, normal: Vec3): Pose | Refusal {
  if (line.kind !== 'points') return refuse('line.bent', {}, 'line');
  const [from, to] = [line.points[0]!, line.points.at(-1)!];
  const whole = subtract(to, from);
  if (length(whole) < END_SLACK_MM) return refuse('line.bent', {}, 'line');
  const x = cleanDirection(unit(whole));
  const isBent = line.points.some((at) => length(cross(subtract(at, from), x)) > STRAIGHT * length(whole));
  if (isBent) return refuse('line.bent', {}, 'line');
  const up = subtract(normal, scale(x, dot(normal, x)));
  if (length(up) < STRAIGHT) return refuse('line.looked-along', {}, 'on');
  const y = cleanDirection(unit(up));
  return { turn: fromColumns(x, y, cleanDirection(cross(x, y))), shift: from };
}

/** Lengths along the path at which it is cut across, mm. */
function placesOn(
  whole: number,
  { count, pitch }: { readonly count: number | undefined; readonly pitch: number | undefined },
): number[] | Refusal {
  if (count === undefined && pitch === undefined) return refuse('missing.how-many-how', {}, 'count');
  const all = count ?? Math.floor((whole + END_SLACK_MM) / pitch!) + 1;
  if (!(all >= 1 && all <= MAX_CUTS))
    return refuse(
      'too-many.cuts',
      { count: all, maxCuts: MAX_CUTS },
      count === undefined ? 'pitch' : 'count',
    );
  const step = pitch ?? (all === 1 ? 0 : whole / (all - 1));
  if ((all - 1) * step > whole + END_SLACK_MM)
    return refuse('too-long.count', { length: whole, reach: (all - 1) * step }, 'count');
  return Array.from({ length: all }, (_, i) => (all === 1 && pitch === undefined ? whole / 2 : i * step));
}

/** One cut: a profile for each solid, and where they follow the model a section plane that cuts in no view. */
function drawnCut(
  draft: KadrelDocument,
  {
    plane,
    items,
    keeps,
  }: { readonly plane: Pose; readonly items: readonly ItemId[]; readonly keeps: string },
  context: VerbContext,
): ItemId[] | Refusal {
  const { turn, shift } = plane;
  const found = context
    .ask<'slices'>({ ask: 'slices', parts: items, plane: { turn, shift }, heights: [0] })[0]!
    .filter(({ paths }) => paths.length > 0);
  if (found.length === 0) return [];
  const section = keeps === 'following' ? hiddenPlane(draft, plane, context) : undefined;
  const made: ItemId[] = section === undefined ? [] : [section];
  for (const { item, paths } of found) {
    const name = `Curve through ${draft.items[item]!.name}`;
    const drawn = drawPaths(draft, context, { name, paths, plane });
    if (isRefusal(drawn)) return drawn;
    if (section !== undefined) draft.items[drawn.result!]!.traced = { by: 'section', section, through: item };
    made.push(drawn.result!);
  }
  return made;
}

/** A section plane that cuts in no view: it only says where the curves are cut, and may be moved for that. */
function hiddenPlane(draft: KadrelDocument, pose: Pose, context: VerbContext): ItemId {
  const id = addSectionPlane(draft, context, {
    name: 'Plane of the curves',
    pose,
    shows: 'behind',
    form: 'half',
    depth: PLANE_DEPTH_MM,
    size: PLANE_SIZE_MM,
    cutsIn: () => false,
  });
  draft.items[id]!.visible = false;
  return id;
}
/** Of a plane that is not seen: any will do. */
const [PLANE_DEPTH_MM, PLANE_SIZE_MM] = [100, 500];
