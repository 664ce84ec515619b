import { numbers } from '@kadrel/testing';
import { sharedLibraries } from '../node.ts';
import { occurrences, scope, type Occt, type Scoped, type TopoDS_Shape } from './occt.ts';
import { isSound, isSoundAtOnce } from './sound.ts';

let occt: Occt;
beforeAll(async () => {
  ({ occt } = await sharedLibraries());
});

interface Hole {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** Ten rows of ten holes ⌀6, 10 mm apart, with others in the place of some. */
const grid = (others: Readonly<Record<number, Hole>> = {}): Hole[] =>
  Array.from(
    { length: 100 },
    (_, i) => others[i] ?? { x: 15 + 10 * (i % 10), y: 15 + 10 * Math.floor(i / 10), radius: 3 },
  );

/** A plate 120 × 120 × 8 with holes, as a face that is pulled up, whether or not the holes are where they may be. */
function plateWith({ occt: kernel, keep }: Scoped, holes: readonly Hole[], way: 'hole' | 'island') {
  const point = (x: number, y: number) => keep(new kernel.gp_Pnt(x, y, 0));
  const corners = [point(0, 0), point(120, 0), point(120, 120), point(0, 120)];
  const outline = keep(new kernel.BRepBuilderAPI_MakeWire());
  corners.forEach((from, i) =>
    outline.Add(keep(keep(new kernel.BRepBuilderAPI_MakeEdge(from, corners[(i + 1) % 4]!)).Edge())),
  );
  const face = keep(new kernel.BRepBuilderAPI_MakeFace(keep(outline.Wire()), true));
  for (const { x, y, radius } of holes) {
    const axes = keep(new kernel.gp_Ax2(point(x, y), keep(new kernel.gp_Dir(0, 0, 1))));
    const circle = keep(new kernel.BRepBuilderAPI_MakeEdge(keep(new kernel.gp_Circ(axes, radius))));
    const wire = keep(keep(new kernel.BRepBuilderAPI_MakeWire(keep(circle.Edge()))).Wire());
    face.Add(way === 'island' ? wire : keep(kernel.TopoDS.Wire(keep(wire.Reversed()))));
  }
  const up = keep(new kernel.gp_Vec(0, 0, 8));
  return keep(keep(new kernel.BRepPrimAPI_MakePrism(keep(face.Face()), up, false, true)).Shape());
}

const told = (shape: TopoDS_Shape) => ({
  inPieces: isSound(occt, shape),
  atOnce: isSoundAtOnce(occt, shape),
});
const checked = (holes: readonly Hole[], way: 'hole' | 'island' = 'hole') =>
  scope((keep) => told(plateWith({ occt, keep }, holes, way)));

/** A solid of all faces of a shape but the last. */
function openedSolid({ keep }: Scoped, shape: TopoDS_Shape) {
  const build = keep(new occt.TopoDS_Builder());
  const [shell, solid] = [keep(new occt.TopoDS_Shell()), keep(new occt.TopoDS_Solid())];
  build.MakeShell(shell);
  build.MakeSolid(solid);
  for (const face of occurrences({ occt, keep }, shape, 'TopAbs_FACE').slice(0, -1)) build.Add(shell, face);
  build.Add(solid, shell);
  return solid;
}

test('a plate with a hundred holes is sound', () => {
  expect(checked(grid())).toEqual({ inPieces: true, atOnce: true });
});

test.each([
  ['runs through another', { 55: { x: 70, y: 65, radius: 3 } }],
  ['runs over the border', { 9: { x: 119, y: 15, radius: 3 } }],
  ['lies outside', { 9: { x: 140, y: 15, radius: 3 } }],
  ['lies within another', { 55: { x: 75, y: 65, radius: 1 } }],
  ['holds all others', { 55: { x: 60, y: 60, radius: 59 } }],
])('a plate with a hole that %s is not', (_, others: Record<number, Hole>) => {
  expect(checked(grid(others))).toEqual({ inPieces: false, atOnce: false });
});

test('holes whose borders run the wrong way are found', () => {
  expect(checked(grid(), 'island')).toEqual({ inPieces: false, atOnce: false });
});

test('pieces tell what the whole tells, wherever holes lie', () => {
  const next = numbers(2027);
  const found = Array.from({ length: 12 }, () => {
    const others = Object.fromEntries(
      Array.from({ length: 2 }, () => [
        Math.floor(100 * next()),
        { x: 5 + 110 * next(), y: 5 + 110 * next(), radius: 0.5 + 3 * next() },
      ]),
    );
    const { inPieces, atOnce } = checked(grid(others));
    expect(inPieces).toBe(atOnce);
    return atOnce;
  });
  expect(new Set(found).size).toBe(2);
});

test('a solid that is open is told as the kernel tells it', () => {
  scope((keep) => {
    const { inPieces, atOnce } = told(openedSolid({ occt, keep }, plateWith({ occt, keep }, grid(), 'hole')));
    expect(inPieces).toBe(atOnce);
  });
});
