/** What a cut through the model costs, beside the bare calls of the kernel. */
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { built, idOf, type Statement } from '@kadrel/testing';
import { inTurn, kept, line, ms, plateWithHoles } from './bench.ts';

const ROUNDS = 9;
/** Each cut is at another height, so that none is found in the cache, mm. */
const HEIGHTS = Array.from({ length: 2 * ROUNDS }, (_, i) => 3 + 0.01 * i);

/** A level cut of the plate with 100 holes. */
export async function sections(): Promise<void> {
  const libraries = await loadLibraries();
  const { occt } = libraries;
  const kernel = new Evaluator(libraries);
  const cut = (offset: number): Statement => ['section', { as: 'cut', on: 'plan', offset }];
  const documents = HEIGHTS.map((height) => built([...plateWithHoles(10, 10), cut(height)]));
  const plate = kernel.shapeFor(documents[0]!, idOf(documents[0]!, 'holed'));
  const raw = (height: number) =>
    kept((keep) => {
      const [at, up] = [keep(new occt.gp_Pnt(0, 0, height)), keep(new occt.gp_Dir(0, 0, 1))];
      const plane = keep(new occt.gp_Pln(at, up));
      const sheet = keep(keep(new occt.BRepBuilderAPI_MakeFace(plane, -10, 110, -10, 110)).Face());
      const common = keep(new occt.BRepAlgoAPI_Common(sheet, plate, keep(new occt.Message_ProgressRange())));
      keep(common.Shape());
      common.Clear();
    });
  const ours = (document: (typeof documents)[number]) =>
    void kernel.answer(document, { ask: 'section', part: idOf(document, 'cut') });
  raw(2);
  ours(documents.pop()!);
  const [rawMs, oursMs] = inTurn(ROUNDS, [() => raw(HEIGHTS.pop()!), () => ours(documents.pop()!)]) as [
    number,
    number,
  ];
  line(
    'exact cut of the plate with 100 holes, checked and told : raw',
    oursMs / rawMs,
    '≤ 1.2',
    `${ms(oursMs)} : ${ms(rawMs)}`,
  );
}
