/**
 * Drawings of solids that go through one another: where they meet a line is drawn, and what lies within is not. Random scenes are held
 * against an independent ray caster: on the two sides of a drawn visible line other faces are seen, and where other faces
 * are seen a line is drawn.
 */
import {
  carry,
  column,
  curveLength,
  distance2,
  frameOfView,
  left2,
  nearestOn,
  pointAt,
  sheetsOf,
  subtract2,
  unit2,
  type Curve,
  type DrawnView,
  type KadrelDocument,
  type Pose,
  type Vec2,
} from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, numbers, trials, type Statement } from '@kadrel/testing';
import { plainShape, rolledSolid } from './randomSolids.ts';
import { foremostOf, type PlainShape } from './rayCaster.ts';

const libraries = await sharedLibraries();

function drawnViews(statements: readonly Statement[]) {
  const kernel = new Evaluator(libraries);
  const document = builtBy(kernel, statements);
  const [sheet] = sheetsOf(document);
  return Object.entries(sheet!.views).map(([id, view]) => ({
    document,
    name: view.name,
    frame: frameOfView(document, view)!,
    drawn: kernel.answer(document, { ask: 'drawn', sheet: sheet!.id, view: id }) as DrawnView,
  }));
}

type Line = keyof DrawnView['lines'];
const curvesIn = (drawn: DrawnView, line: Line): Curve[] =>
  drawn.lines[line].flatMap(({ curves }) => [...curves]);
const isOn = (curves: readonly Curve[], place: Vec2, slack = 1e-4): boolean =>
  curves.some((curve) => nearestOn(curve, place).distance < slack);

/** A pipe along X with a branch upwards. */
const BRANCH: readonly Statement[] = [
  ['cylinder', { as: 'Pipe', diameter: 40, height: 100, at: [0, 0, 0] }],
  ['turn', { parts: ['Pipe'], angle: 90, about: 'y', centre: 'point', at: [0, 0, 0] }],
  ['cylinder', { as: 'Branch', diameter: 20, height: 60, at: [50, 0, 0] }],
  ['sheet', { as: 'Pipes', views: 'two', scale: '1:1' }],
];

// By formula: on the branch x = 50 + 10 cos a, y = 10 sin a, on the pipe y² + z² = 20², so that z² = 300 + (x − 50)².
test('where a branch goes into a pipe their common curve is drawn, and nothing of what lies within', () => {
  const front = drawnViews(BRANCH).find(({ name }) => name === 'Front')!;
  expect(front.drawn.fault).toBeUndefined();
  const visible = curvesIn(front.drawn, 'visible');
  // Places are told from where the origin is drawn.
  const at = (x: number, z: number): Vec2 => {
    const [u, v] = flatOf(front.frame, [x, 0, z]);
    return [u, v];
  };
  for (const x of [40.5, 43, 47, 50, 54, 59.5])
    expect(isOn(visible, at(x, Math.sqrt(300 + (x - 50) ** 2)))).toBe(true);
  // The sides of the branch begin where the pipe ends, and the top of the pipe is interrupted.
  expect(isOn(visible, at(40, 40))).toBe(true);
  expect(isOn(visible, at(40, 10))).toBe(false);
  expect(isOn(visible, at(30, 20))).toBe(true);
  expect(isOn(visible, at(45, 20))).toBe(false);
});

const flatOf = ({ turn, shift }: Pose, point: readonly [number, number, number]): Vec2 => {
  const away = point.map((n, i) => n - shift[i]!);
  const along = (k: 0 | 1) => column(turn, k).reduce((sum, n, i) => sum + n * away[i]!, 0);
  return [along(0), along(1)];
};

test('what lies within another part is drawn as hidden, and parts that touch stay as they are', () => {
  const peg = (z: number): Statement[] => [
    ['box', { as: 'Foot', size: [60, 40, 20] }],
    ['box', { as: 'Peg', size: [20, 20, 30], at: [20, 10, z] }],
    ['sheet', { as: 'S', views: 'front', scale: '1:1' }],
  ];
  const [stuck] = drawnViews(peg(10));
  const [x, y] = flatOf(stuck!.frame, [30, 0, 10]);
  expect(stuck!.drawn.fault).toBeUndefined();
  expect(isOn(curvesIn(stuck!.drawn, 'hidden'), [x, y])).toBe(true);
  expect(isOn(curvesIn(stuck!.drawn, 'visible'), [x, y])).toBe(false);
  const [standing] = drawnViews(peg(20));
  expect(standing!.drawn.fault).toBeUndefined();
  const [u, v] = flatOf(standing!.frame, [30, 0, 10]);
  expect(isOn(curvesIn(standing!.drawn, 'hidden'), [u, v])).toBe(false);
});

interface Seen {
  /** Which solid and which of its faces; '' is nothing. */
  readonly id: string;
}

/** What is seen at a place of a picture. */
function seenAt(shapes: readonly PlainShape[], frame: Pose, [u, v]: Vec2): Seen {
  const point = carry(frame, [u, v, 0]);
  const towards = column(frame.turn, 2);
  let best = { id: '', at: -Infinity };
  shapes.forEach((shape, i) => {
    const found = foremostOf(shape, { point, towards });
    if (found && found.at > best.at) best = { id: `${i}.${found.face}`, at: found.at };
  });
  return best;
}

/** How far beside a line it is looked, mm: one of these, since slivers may be narrower. */
const BESIDE = [0.004, 0.02, 0.06];
/** Pieces shorter than this are not judged: the kernel tells where a cylinder turns away to within a degree, mm. */
const SHORT_MM = 0.3;
/** How far a line may be off, for the same reason, mm. */
const OFF_MM = 0.04;
/** Places that are looked at in each view, and how far from each another one, mm. */
const PLACES = 1500;
const STEP_MM = 0.4;

function wrongIn(
  { drawn, frame, name }: ReturnType<typeof drawnViews>[number],
  shapes: readonly PlainShape[],
  random: () => number,
) {
  const words = (what: string, place: Vec2) =>
    `${name}: ${what} at ${place.map((n) => n.toFixed(4)).join(', ')}`;
  const isParting = (place: Vec2, side: Vec2) =>
    BESIDE.some((by) => {
      const [one, other] = [by, -by].map(
        (k) => seenAt(shapes, frame, [place[0] + k * side[0], place[1] + k * side[1]]).id,
      );
      return one !== other;
    });
  const visible = curvesIn(drawn, 'visible');
  const parted = visible
    .filter((curve) => curveLength(curve) > SHORT_MM)
    .flatMap((curve) =>
      [0.21, 0.5, 0.78].flatMap((part) => {
        const place = pointAt(curve, part);
        const side = left2(unit2(subtract2(pointAt(curve, part + 1e-4), pointAt(curve, part - 1e-4))));
        return isParting(place, side) ? [] : [words('a line parts nothing', place)];
      }),
    );
  const reach = Math.max(...visible.flatMap((curve) => pointAt(curve, 0).map(Math.abs)));
  const missing = Array.from({ length: PLACES }).flatMap(() => {
    const from: Vec2 = [reach * (2 * random() - 1), reach * (2 * random() - 1)];
    const turn = 2 * Math.PI * random();
    const border = borderBetween(shapes, frame, [
      from,
      [from[0] + STEP_MM * Math.cos(turn), from[1] + STEP_MM * Math.sin(turn)],
    ]);
    return !border || isOn(visible, border, OFF_MM) ? [] : [words('no line', border)];
  });
  return [...parted, ...missing];
}

/** Where something else begins to be seen between two places; undefined where the same is seen at both. */
function borderBetween(
  shapes: readonly PlainShape[],
  frame: Pose,
  [from, to]: readonly [Vec2, Vec2],
): Vec2 | undefined {
  const id = (place: Vec2) => seenAt(shapes, frame, place).id;
  const first = id(from);
  if (first === id(to)) return undefined;
  let [low, high] = [from, to];
  while (distance2(low, high) > 1e-9) {
    const middle: Vec2 = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
    if (id(middle) === first) low = middle;
    else high = middle;
  }
  return low;
}

test('random boxes and cylinders that go through one another', () => {
  const wrong = Array.from({ length: trials(40) }, (_, i) => {
    const random = numbers(7300 + i);
    const statements = Array.from(
      { length: 5 },
      (__, k) => rolledSolid(random, `s${k}`, 'turned').statements,
    );
    const views = drawnViews([...statements.flat(), ['sheet', { views: 'four', paper: 'a0', scale: '1:1' }]]);
    const { document } = views[0]!;
    const shapes = shapesOf(document);
    return views.flatMap((view) =>
      [
        ...(view.drawn.fault === undefined ? [] : [`${view.name}: ${view.drawn.fault}`]),
        ...wrongIn(view, shapes, random),
      ].map((words) => `seed ${7300 + i}, ${words}`),
    );
  });
  expect(wrong.flat()).toEqual([]);
});

const shapesOf = (document: KadrelDocument): PlainShape[] =>
  Object.values(document.items).map(({ id }) => plainShape(document, id));
