/** `npm run bench`: what Kadrel costs, as ratios to something in the same run. Prints; asserts nothing. */
import {
  cameraOf,
  castOnScene,
  isRefusal,
  partsInRegion,
  perform,
  placedOf,
  plainWorld,
  poseOf,
  project,
  rayThrough,
  resolveSnap,
  snapScene,
  snapShape,
  SNAP_KINDS,
  verbNamed,
  type Camera,
  type SnapInstance,
  type SnapScene,
  type Vec3,
} from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { built, idOf, numbers, type Statement } from '@kadrel/testing';
import { inTurn, line, median, ms, plateWithHoles, timed } from './bench.ts';
import { drawing } from './speedDrawing.ts';
import { fits } from './speedFit.ts';
import { many } from './speedMany.ts';
import { sections } from './speedSections.ts';
import { sheets } from './speedSheets.ts';
import { steps } from './speedSteps.ts';

const FRAME_MS = 1000 / 60;

async function evaluation(): Promise<void> {
  const libraries = await loadLibraries();
  const { occt } = libraries;
  const wasm = await Module();
  wasm.setup();
  const document = built(plateWithHoles(10, 10));
  const part = idOf(document, 'holed');

  /** The same solid by bare calls: one box, a hundred cylinders, one cut; nothing named, kept or measured. */
  const raw = () => {
    const made: { delete(): void }[] = [];
    const keep = <T extends { delete(): void }>(object: T): T => (made.push(object), object);
    const box = keep(keep(new occt.BRepPrimAPI_MakeBox(keep(new occt.gp_Pnt(0, 0, 0)), 100, 100, 8)).Shape());
    const up = keep(new occt.gp_Dir(0, 0, 1));
    const tools = Array.from({ length: 100 }, (_, i) => {
      const at = keep(new occt.gp_Pnt(10 * ((i % 10) + 0.5), 10 * (Math.floor(i / 10) + 0.5), -5));
      return keep(keep(new occt.BRepPrimAPI_MakeCylinder(keep(new occt.gp_Ax2(at, up)), 3, 18)).Shape());
    });
    const cut = keep(new occt.BRepAlgoAPI_Cut());
    cut.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([box])));
    cut.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(tools)));
    cut.SetRunParallel(false);
    cut.Build(keep(new occt.Message_ProgressRange()));
    cut.SimplifyResult(true, true, 1e-6);
    keep(cut.Shape());
    cut.Clear();
    for (const object of made.reverse()) object.delete();
  };
  // A fresh evaluator each time, so that nothing is found in its cache.
  const ours = () => {
    const problem = new Evaluator(libraries).problemOf(document, part);
    if (problem) throw new Error(problem.reason);
  };
  /** The same plate from facets within 0.01 mm of the true holes. */
  const facets = Math.ceil(Math.PI / Math.acos(1 - 0.01 / 3));
  const meshes = () => {
    const holes = Array.from({ length: 100 }, (_, i) =>
      wasm.Manifold.cylinder(18, 3, 3, facets).translate(
        10 * ((i % 10) + 0.5),
        10 * (Math.floor(i / 10) + 0.5),
        -5,
      ),
    );
    const all = wasm.Manifold.union(holes);
    const plate = wasm.Manifold.cube([100, 100, 8]);
    const result = plate.subtract(all);
    // The work is put off until a number is asked for.
    result.volume();
    for (const solid of [...holes, all, plate, result]) solid.delete();
  };
  // One tool more, which meets nothing, takes the same plate the general way.
  const far: Statement = ['box', { as: 'far', size: [1, 1, 1], at: [200, 0, 0] }];
  const { document: more, part: general } = withTool(far);
  const generally = () => {
    const problem = new Evaluator(libraries).problemOf(more, general);
    if (problem) throw new Error(problem.reason);
  };
  for (const warm of [raw, ours, meshes, generally]) warm();
  const [rawMs, oursMs, meshMs, generalMs] = inTurn(9, [raw, ours, meshes, generally]) as [
    number,
    number,
    number,
    number,
  ];
  line(
    'evaluate(plate with 100 holes) : the same raw kernel calls',
    oursMs / rawMs,
    '≤ 1.15',
    `${ms(oursMs)} : ${ms(rawMs)}`,
  );
  line(
    '  the general way, with names carried : the same raw kernel calls',
    generalMs / rawMs,
    '',
    ms(generalMs),
  );
  line(
    'evaluate(plate with 100 holes) : manifold-3d at chord 0.01 mm',
    oursMs / meshMs,
    '≤ 1',
    `${ms(oursMs)} : ${ms(meshMs)}`,
  );
}

/** What it costs to check solids, as a part of what evaluating them takes without. */
async function checking(): Promise<void> {
  const libraries = await loadLibraries();
  const blocks = Array.from({ length: 100 }, (_, i): Statement => [
    'box',
    { as: `block ${i}`, size: [10, 10, 10], at: [8 * (i % 10), 8 * Math.floor(i / 10), i % 3] },
  ]);
  const united: Statement = ['union', { as: 'made', parts: blocks.map(([, { as }]) => as) }];
  const bore: Statement[] = [
    ['box', { as: 'plate', size: [40, 30, 8] }],
    ['cylinder', { as: 'drill', diameter: 6, height: 20, at: [20, 15, -5] }],
    ['cone', { as: 'sink', diameter: 6, top: 12, height: 3, at: [20, 15, 5] }],
  ];
  const less = (...parts: string[]): Statement => ['subtract', { as: 'made', from: 'plate', parts }];
  for (const [what, document] of [
    ['a plate with 100 holes', built(plateWithHoles(10, 10))],
    ['a union of 100 blocks', built([...blocks, united])],
    ['one bore', built([...bore.slice(0, 2), less('drill')])],
    ['one bore with a countersink', built([...bore, less('drill', 'sink')])],
  ] as const) {
    const shares: number[] = [];
    const times: number[] = [];
    for (let round = 0; round < 9; round++) {
      const kernel = new Evaluator(libraries);
      const time = timed(() => kernel.evaluate(document));
      shares.push(kernel.checkMs / (time - kernel.checkMs));
      times.push(time);
    }
    line(`checking ${what} : evaluating it without`, median(shares), '≤ 0.3', ms(median(times)));
  }
}

/** A plate with 20 × 20 round holes from one pattern, whose pitch changes from time to time. */
async function holes(): Promise<void> {
  const libraries = await loadLibraries();
  const { occt } = libraries;
  const plate = (pitch: number) => {
    const document = built([
      ['box', { as: 'plate', size: [400, 400, 8] }],
      ['cylinder', { as: 'drill', diameter: 6, height: 20, at: [10, 10, -5] }],
      ['grid', { as: 'holes', parts: ['drill'], columns: 20, columnPitch: pitch, rows: 20, rowPitch: pitch }],
      ['subtract', { as: 'holed', from: 'plate', parts: ['holes'] }],
    ]);
    return { document, part: idOf(document, 'holed') };
  };
  const raw = () => {
    const made: { delete(): void }[] = [];
    const keep = <T extends { delete(): void }>(object: T): T => (made.push(object), object);
    const box = keep(keep(new occt.BRepPrimAPI_MakeBox(keep(new occt.gp_Pnt(0, 0, 0)), 400, 400, 8)).Shape());
    const up = keep(new occt.gp_Dir(0, 0, 1));
    const tools = Array.from({ length: 400 }, (_, i) => {
      const at = keep(new occt.gp_Pnt(10 + 19 * (i % 20), 10 + 19 * Math.floor(i / 20), -5));
      return keep(keep(new occt.BRepPrimAPI_MakeCylinder(keep(new occt.gp_Ax2(at, up)), 3, 20)).Shape());
    });
    const cut = keep(new occt.BRepAlgoAPI_Cut());
    cut.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([box])));
    cut.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(tools)));
    cut.SetRunParallel(false);
    cut.Build(keep(new occt.Message_ProgressRange()));
    keep(cut.Shape());
    cut.Clear();
    for (const object of made.reverse()) object.delete();
  };
  const plates = [18, 18.5, 19, 19.5].map(plate);
  const evaluator = new Evaluator(libraries);
  let turn = 0;
  const ours = () => {
    const { document, part } = plates[turn++ % plates.length]!;
    // Each pitch is new, so that nothing of the plate is found in the cache.
    const { items } = document;
    const fresh = { ...document, items: { ...items } };
    const layout = structuredClone(items[idOf(document, 'holes')]!);
    if (layout.recipe.base.kind === 'pattern' && layout.recipe.base.layout.kind === 'grid')
      layout.recipe.base.layout.rows[0].spacing = { pitch: 18 + turn / 1000 };
    fresh.items[layout.id] = layout;
    const problem = evaluator.problemOf(fresh, part);
    if (problem) throw new Error(problem.reason);
  };
  raw();
  ours();
  const [rawMs, oursMs] = inTurn(5, [raw, ours]) as [number, number];
  line(
    'plate with a pattern of 20 × 20 holes, new pitch : one raw boolean',
    oursMs / rawMs,
    '≤ 0.3',
    `${ms(oursMs)} : ${ms(rawMs)}`,
  );
}

/** Ten thousand members of one source, from the statement to where snaps and selecting can search. */
async function members(): Promise<void> {
  const evaluator = new Evaluator(await loadLibraries());
  const before = built([['box', { as: 'block', size: [5, 5, 5] }]]);
  const { measures, snaps } = evaluator.facts(before, idOf(before, 'block'));
  const verb = verbNamed('grid')!;
  const typed = { parts: ['block'], columns: 100, columnPitch: 10, rows: 100, rowPitch: 10 };
  let scene: SnapScene | undefined;
  const create = () => {
    const done = perform(
      verb,
      typed,
      before,
      plainWorld(before, () => 'pattern'),
    );
    if (isRefusal(done)) throw new Error(done.message);
    evaluator.evaluate(done.document);
    scene = snapScene(
      placedOf(done.document, 'pattern').map(({ member, pose }) => ({
        part: 'pattern',
        member,
        pose,
        shape: snaps,
        box: measures.box,
      })),
    );
  };
  create();
  const time = median(Array.from({ length: 9 }, () => timed(create)));
  line('a grid of 10,000 members said, built and ready to snap : 300 ms', time / 300, '≤ 1', ms(time));
  const camera = viewOf([500, 500, 0], 900);
  const ask = (pointer: readonly [number, number]) =>
    resolveSnap({ pointer, camera, scene: scene!, settings: EVERY_SNAP });
  const { p95 } = queryTimes(pointersFrom(9), ask);
  line('snap query among 10,000 members, all in reach of some, p95 : a frame', p95 / FRAME_MS, '', ms(p95));
}

function withTool(tool: Statement) {
  const statements = plateWithHoles(10, 10);
  const [verb, typed] = statements.at(-1)!;
  const subtract: Statement = [verb, { ...typed, parts: [...(typed.parts as string[]), tool[1].as] }];
  const document = built([...statements.slice(0, -1), tool, subtract]);
  return { document, part: idOf(document, 'holed') };
}

/** All kinds on, as hard as it gets for a query. */
const EVERY_SNAP = {
  kinds: new Set(SNAP_KINDS),
  seeThrough: false,
  reachPx: 11,
  gridStep: 5,
  plane: { point: [0, 0, 0] as Vec3, normal: [0, 0, 1] as Vec3 },
};

/** The usual slanting view in a window of 1280 × 720. @param height of what is seen at the target, mm */
function viewOf(target: Vec3, height: number): Camera {
  return cameraOf({ target, bearing: 30, altitude: 35, height, projection: 'perspective' }, 1280, 720);
}

/** Pixels that the pointer may be on. */
function pointersFrom(seed: number): (readonly [number, number])[] {
  const random = numbers(seed);
  return Array.from({ length: 400 }, () => [random() * 1280, random() * 720] as const);
}

/** Each pointer three times: the middle one leaves out what the machine gave to others. */
function queryTimes(
  pointers: readonly (readonly [number, number])[],
  query: (pointer: readonly [number, number]) => unknown,
): { p95: number; middle: number } {
  const times = pointers
    .map((pointer) => median([0, 1, 2].map(() => timed(() => query(pointer)))))
    .sort((a, b) => a - b);
  return { p95: times[Math.floor(0.95 * times.length)]!, middle: median(times) };
}

/** One shape with `count` points and a quarter as many edges, spread over a slab of one metre. */
function manyFeatures(count: number): SnapInstance {
  const random = numbers(3);
  const points = Float64Array.from({ length: 3 * count }, (_, i) => random() * (i % 3 === 2 ? 50 : 1000));
  const edges = count / 4;
  const curves = new Float64Array(12 * edges);
  for (let e = 0; e < edges; e++)
    for (let k = 0; k < 6; k++) curves[12 * e + k] = points[12 * e + (k % 3)]! + (k > 2 ? 5 : 0);
  const triangles = count / 4;
  const shape = snapShape({
    points,
    pointKind: new Uint8Array(count),
    pointName: new Uint32Array(count),
    curveKind: new Uint8Array(edges),
    curves,
    curveName: new Uint32Array(edges),
    polyline: new Float64Array(0),
    faceKind: Uint8Array.of(2),
    faces: new Float64Array(7),
    faceName: new Uint32Array(1),
    names: [''],
    positions: Float32Array.from(
      { length: 9 * triangles },
      (_, i) => points[9 * Math.floor(i / 9) + (i % 3)]! + ((i * 7) % 11) / 3,
    ),
    triangles: Uint32Array.from({ length: 3 * triangles }, (_, i) => i),
    faceOfTriangle: new Uint32Array(triangles),
    chordMm: 0,
  });
  return { part: 'a', pose: poseOf([0, 0, 0], [0, 0, 0]), shape };
}

/** A thousand parts of a hundred features each, standing in a field of 40 × 25, every third one turned. */
function manyParts(count: number): SnapScene {
  const { shape } = manyFeatures(80);
  return snapScene(
    Array.from({ length: count }, (_, i) => ({
      part: `p${i}`,
      pose: poseOf([(i % 40) * 1100, Math.floor(i / 40) * 1100, 0], [0, 0, i % 3 === 0 ? 30 : 0]),
      shape,
      box: { min: [0, 0, 0] as Vec3, max: [1000, 1000, 50] as Vec3 },
      datum: [0, 0, 0] as Vec3,
    })),
  );
}

function snapping(): void {
  const features = 100_000;
  const everyone = manyFeatures(80_000);
  const near = viewOf([500, 500, 25], 900);
  const far = viewOf([22000, 14000, 0], 24000);
  const settings = {
    ...EVERY_SNAP,
    divide: { into: 3 },
  };
  const pointers = pointersFrom(5);
  const guides = [0, 1, 2, 3, 4, 5].map((i) => ({
    from: [1000 * i, 500, 0] as Vec3,
    direction: [0, 1, 0] as Vec3,
    words: 'Y',
  }));
  const ask = (scene: SnapScene, camera: Camera) => (pointer: readonly [number, number]) =>
    resolveSnap({ pointer, camera, scene, settings, from: [0, 0, 0], guides });
  const { points } = everyone.shape;
  const scan = () => {
    let nearest = Infinity;
    for (let i = 0; i < points.length; i += 3) {
      const [x, y] = project(near, [points[i]!, points[i + 1]!, points[i + 2]!]);
      nearest = Math.min(nearest, Math.hypot(x - 640, y - 360));
    }
    if (!Number.isFinite(nearest)) throw new Error('nothing is near');
  };
  scan();
  const plain = median(Array.from({ length: 9 }, () => timed(scan)));
  const parts = manyParts(1000);
  for (const [what, scene, camera] of [
    [`snap query, all kinds, among ${features} features of one part`, snapScene([everyone]), near],
    [`snap query, all kinds, among ${features} features of 1000 parts`, parts, far],
  ] as const) {
    const query = ask(scene, camera);
    pointers.forEach(query);
    const { p95, middle } = queryTimes(pointers, query);
    line(`${what}, p95 : a frame`, p95 / FRAME_MS, '≤ 0.12', `${ms(p95)}, median ${ms(middle)}`);
  }
  line('  a plain scan of all points, without curves and hiding : a frame', plain / FRAME_MS, '', ms(plain));
  const hover = pointers.map((pointer) => timed(() => castOnScene(parts, rayThrough(far, ...pointer))));
  const hoverP95 = hover.sort((a, b) => a - b)[Math.floor(0.95 * hover.length)]!;
  line('hover among 1000 parts, p95 : a frame', hoverP95 / FRAME_MS, '≤ 0.12', ms(hoverP95));
  const fence = { kind: 'polygon' as const, corners: ringOf(640, 360, 300, 40) };
  for (const [what, region, onlySeen] of [
    ['a rectangle', { kind: 'rectangle' as const, left: 300, top: 150, right: 980, bottom: 600 }, false],
    ['a lasso of 40 corners', fence, false],
    ['a lasso, only what is seen', fence, true],
  ] as const) {
    const select = () => partsInRegion({ scene: parts, camera: far, region, rule: 'touching', onlySeen });
    const taken = select().length;
    const time = median(Array.from({ length: 9 }, () => timed(select)));
    line(`${what} takes ${taken} of 1000 parts : a frame`, time / FRAME_MS, '≤ 1.8', ms(time));
  }
}

const ringOf = (x: number, y: number, radius: number, corners: number) =>
  Array.from({ length: corners }, (_, i) => {
    const angle = (2 * Math.PI * i) / corners;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)] as const;
  });

await evaluation();
await checking();
await holes();
await members();
snapping();
await drawing();
await steps();
await sections();
await sheets();
await fits();
await many();
