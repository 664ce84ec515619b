/** What the steps of a recipe cost, beside the bare calls of the kernel and beside building all of them. */
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { builtBy, idOf, type Statement } from '@kadrel/testing';
import { inTurn, kept, line, median, ms, timed } from './bench.ts';

type Libraries = Awaited<ReturnType<typeof loadLibraries>>;

const block: Statement = ['box', { as: 'block', size: [40, 30, 20] }];

export async function steps(): Promise<void> {
  const libraries = await loadLibraries();
  fillets(libraries);
  change(libraries);
  softened(libraries);
}

/** Builds the part in a kernel that holds nothing. */
function anew(libraries: Libraries, statements: readonly Statement[]): () => void {
  const document = builtBy(new Evaluator(libraries), statements);
  const part = idOf(document, 'block');
  return () => {
    const problem = new Evaluator(libraries).problemOf(document, part);
    if (problem) throw new Error(problem.reason);
  };
}

/** The twelve edges of the block rounded by the bare kernel, to a shape that is the caller's. */
function rawFillet(libraries: Libraries, look: (shape: Shape, keep: Keep) => void): () => void {
  const { occt } = libraries;
  return () =>
    kept((keep) => {
      const corner = keep(new occt.gp_Pnt(0, 0, 0));
      const box = keep(keep(new occt.BRepPrimAPI_MakeBox(corner, 40, 30, 20)).Shape());
      const fillet = keep(new occt.BRepFilletAPI_MakeFillet(box, 'ChFi3d_Rational'));
      const explorer = keep(new occt.TopExp_Explorer(box, 'TopAbs_EDGE', 'TopAbs_SHAPE'));
      for (; explorer.More(); explorer.Next())
        fillet.Add(3, keep(occt.TopoDS.Edge(keep(explorer.Current()))));
      fillet.Build(keep(new occt.Message_ProgressRange()));
      look(keep(fillet.Shape()), keep);
    });
}
/** As fine as facets are that are shown: a 2000th of the diagonal. */
const CHORD_MM = Math.hypot(40, 30, 20) / 2000;
const TURN_RAD = 0.3;
type Shape = InstanceType<Libraries['occt']['TopoDS_Shape']>;
type Keep = Parameters<Parameters<typeof kept>[0]>[0];

function fillets(libraries: Libraries): void {
  const { occt } = libraries;
  const raw = rawFillet(libraries, () => undefined);
  /** With what is asked of the kernel about any solid that is shown: whether it is sound, how large it is, and its facets. */
  const rawAsked = rawFillet(libraries, (shape, keep) => {
    keep(new occt.BRepCheck_Analyzer(shape, true, false, false)).IsValid();
    const properties = keep(new occt.GProp_GProps());
    occt.BRepGProp.VolumeProperties(shape, properties, false, false, false);
    occt.BRepGProp.SurfaceProperties(shape, properties, false, false);
    keep(new occt.BRepMesh_IncrementalMesh(shape, CHORD_MM, false, TURN_RAD, false));
  });
  const ours = anew(libraries, [block, ['fillet', { part: 'block', edges: 'all', radius: 3 }]]);
  const works = [raw, rawAsked, ours];
  for (const warm of works) warm();
  const [rawMs, askedMs, oursMs] = inTurn(9, works) as [number, number, number];
  const told = (bare: number) => `${ms(oursMs)} : ${ms(bare)}`;
  line('a fillet of 12 edges, checked : the same raw kernel calls', oursMs / rawMs, '≤ 1.3', told(rawMs));
  line('  : the raw calls with check, measures and facets', oursMs / askedMs, '', told(askedMs));
}

/** Orders in which the five steps below can be done, each of which comes third in one: some cost ten times as much as others. */
const ORDERS = [
  [2, 3, 0, 1, 4],
  [0, 2, 1, 3, 4],
  [0, 1, 2, 3, 4],
  [0, 1, 3, 2, 4],
  [0, 2, 4, 1, 3],
] as const;
/** Of a step, mm. */
const SIZE = 1;

function recipe(order: readonly number[], third: number): Statement[] {
  const steps = (size: number): Statement[] => [
    ['fillet', { part: 'block', edges: 'along z', radius: 3 + size }],
    ['chamfer', { part: 'block', edges: 'around top', width: size }],
    ['offset-face', { part: 'block', faces: 'bottom', by: size }],
    ['trim-solid', { parts: ['block'], plane: 'side', at: String(20 + size), keep: 'behind' }],
    ['fillet', { part: 'block', edges: 'around bottom', radius: size }],
  ];
  return [block, ...order.map((step, i) => steps(i === 2 ? third : SIZE)[step]!)];
}

/** Five steps, of which the third gets another number. */
function change(libraries: Libraries): void {
  let [partly, wholly] = [0, 0];
  for (const order of ORDERS) {
    const kernel = new Evaluator(libraries);
    kernel.problemOf(builtBy(kernel, recipe(order, SIZE)), 'p1');
    const times = [0.5, 0.6, 0.7].map((third) => {
      const statements = recipe(order, third);
      const whole = timed(anew(libraries, statements));
      const document = builtBy(new Evaluator(libraries), statements);
      return { whole, part: timed(() => kernel.problemOf(document, idOf(document, 'block'))) };
    });
    partly += median(times.map(({ part }) => part));
    wholly += median(times.map(({ whole }) => whole));
  }
  line(
    'another number in the third of five steps : building all five',
    partly / wholly,
    '≤ 0.7',
    `${ms(partly / ORDERS.length)} : ${ms(wholly / ORDERS.length)}`,
  );
}

const SOFTEN_MS = 400;

function softened(libraries: Libraries): void {
  const cube: Statement = ['box', { as: 'block', size: [10, 10, 10] }];
  const ours = anew(libraries, [cube, ['soften', { part: 'block', level: 2 }]]);
  ours();
  const time = median(Array.from({ length: 5 }, () => timed(ours)));
  line('Soften into 96 patches, checked : 400 ms', time / SOFTEN_MS, '≤ 1', ms(time));
}
