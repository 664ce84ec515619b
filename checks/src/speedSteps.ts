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

function fillets(libraries: Libraries): void {
  const { occt } = libraries;
  const raw = () =>
    kept((keep) => {
      const corner = keep(new occt.gp_Pnt(0, 0, 0));
      const box = keep(keep(new occt.BRepPrimAPI_MakeBox(corner, 40, 30, 20)).Shape());
      const fillet = keep(new occt.BRepFilletAPI_MakeFillet(box, 'ChFi3d_Rational'));
      const explorer = keep(new occt.TopExp_Explorer(box, 'TopAbs_EDGE', 'TopAbs_SHAPE'));
      for (; explorer.More(); explorer.Next())
        fillet.Add(3, keep(occt.TopoDS.Edge(keep(explorer.Current()))));
      fillet.Build(keep(new occt.Message_ProgressRange()));
      keep(fillet.Shape());
    });
  const ours = anew(libraries, [block, ['fillet', { part: 'block', edges: 'all', radius: 3 }]]);
  for (const warm of [raw, ours]) warm();
  const [rawMs, oursMs] = inTurn(9, [raw, ours]) as [number, number];
  line(
    'a fillet of 12 edges, checked : the same raw kernel calls',
    oursMs / rawMs,
    '≤ 1.3',
    `${ms(oursMs)} : ${ms(rawMs)}`,
  );
}

/** Five steps, of which the third gets another number. */
function change(libraries: Libraries): void {
  const fiveSteps = (third: number): Statement[] => [
    block,
    ['fillet', { part: 'block', edges: 'along z', radius: 4 }],
    ['chamfer', { part: 'block', edges: 'around top', width: 1 }],
    ['offset-face', { part: 'block', faces: 'bottom', by: third }],
    ['trim-solid', { parts: ['block'], plane: 'side', at: '20', keep: 'behind' }],
    ['fillet', { part: 'block', edges: 'around bottom', radius: 1 }],
  ];
  const kernel = new Evaluator(libraries);
  const partly: number[] = [];
  const wholly: number[] = [];
  kernel.problemOf(builtBy(kernel, fiveSteps(1)), 'p1');
  for (let round = 0; round < 9; round++) {
    const statements = fiveSteps(1.5 + round / 10);
    wholly.push(timed(anew(libraries, statements)));
    const document = builtBy(new Evaluator(libraries), statements);
    partly.push(timed(() => kernel.problemOf(document, idOf(document, 'block'))));
  }
  const [part, whole] = [median(partly), median(wholly)];
  line(
    'another number in the third of five steps : building all five',
    part / whole,
    '≤ 0.7',
    `${ms(part)} : ${ms(whole)}`,
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
