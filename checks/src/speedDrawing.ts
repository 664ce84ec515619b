/** What drawing costs, beside the bare calls of the kernel: regions of many curves, and a long outline from a file. */
import { isRefusal, perform, plainWorld, emptyDocument, readSvg, verbNamed, type Curve } from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { built, idOf, numbers, type Statement } from '@kadrel/testing';
import { inTurn, kept, line, ms } from './bench.ts';

type Occt = Awaited<ReturnType<typeof loadLibraries>>['occt'];
/** Fifty circles and fifty straight lines across one another. */
function overlapping(): Statement[] {
  const next = numbers(5);
  const within = (max: number) => Math.round(next() * max * 100) / 100;
  return [
    ...Array.from({ length: 50 }, (_, i): Statement => [
      'circle',
      { as: `c${i}`, diameter: 10 + within(30), at: [within(200), within(200), 0] },
    ]),
    ...Array.from({ length: 50 }, (_, i): Statement => [
      'line',
      { as: `l${i}`, from: [within(200), within(200), 0], to: [within(200), within(200), 0] },
    ]),
  ];
}

/** The same split by bare calls: nothing named, filled or measured. */
function rawSplit(occt: Occt, curves: readonly Statement[]): void {
  kept((keep) => {
    const point = (at: readonly number[]) => keep(new occt.gp_Pnt(at[0]!, at[1]!, 0));
    const up = keep(new occt.gp_Dir(0, 0, 1));
    const edges = curves.map(([verb, typed]) => {
      const made =
        verb === 'circle'
          ? new occt.BRepBuilderAPI_MakeEdge(
              keep(
                new occt.gp_Circ(
                  keep(new occt.gp_Ax2(point(typed.at as number[]), up)),
                  (typed.diameter as number) / 2,
                ),
              ),
            )
          : new occt.BRepBuilderAPI_MakeEdge(point(typed.from as number[]), point(typed.to as number[]));
      return keep(keep(made).Edge());
    });
    const plane = keep(new occt.gp_Pln(point([0, 0]), up));
    const sheet = keep(keep(new occt.BRepBuilderAPI_MakeFace(plane, -300, 500, -300, 500)).Face());
    const splitter = keep(new occt.BRepAlgoAPI_Splitter());
    splitter.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([sheet] as never)));
    splitter.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(edges as never)));
    splitter.SetRunParallel(false);
    splitter.Build(keep(new occt.Message_ProgressRange()));
    keep(splitter.Shape());
    splitter.Clear();
  });
}

/** An outline of so many curves, as a path of the SVG language. */
function longOutline(count: number): string {
  const at = (i: number, off: number) => {
    const angle = (2 * Math.PI * (i + off)) / count;
    const radius = 100 + 8 * Math.sin(9 * angle);
    return `${(120 + radius * Math.cos(angle)).toFixed(4)} ${(120 + radius * Math.sin(angle)).toFixed(4)}`;
  };
  const curves = Array.from({ length: count }, (_, i) => `Q${at(i, 0.5)} ${at(i + 1, 0)}`);
  return (
    '<svg xmlns="http://www.w3.org/2000/svg" width="240mm" height="240mm" viewBox="0 0 240 240">' +
    `<path d="M${at(0, 0)}${curves.join('')}Z"/></svg>`
  );
}

/** Edges of the curves and their polylines, by bare calls. */
function rawEdges(occt: Occt, curves: readonly Curve[]): void {
  kept((keep) => {
    const build = keep(new occt.TopoDS_Builder());
    const compound = keep(new occt.TopoDS_Compound());
    build.MakeCompound(compound);
    for (const curve of curves) {
      if (curve.kind !== 'bezier') continue;
      const poles = keep(new occt.NCollection_Array1_gp_Pnt(1, curve.points.length));
      curve.points.forEach(([x, y], i) => poles.SetValue(i + 1, keep(new occt.gp_Pnt(x, y, 0))));
      const edge = keep(new occt.BRepBuilderAPI_MakeEdge(keep(new occt.Geom_BezierCurve(poles))));
      build.Add(compound, keep(edge.Edge()));
    }
    keep(occt.ReplicadEdgeMeshExtractor.extract(compound, 0.1, 0.3));
  });
}

export async function drawing(): Promise<void> {
  const libraries = await loadLibraries();
  const { occt } = libraries;
  const statements = overlapping();
  const document = built(statements);
  const profiles = statements.map(([, { as }]) => idOf(document, as as string));
  const [ours, raw] = inTurn(5, [
    () => void new Evaluator(libraries).answer(document, { ask: 'regions', profiles }),
    () => rawSplit(occt, statements),
  ]);
  line(
    'regions of 100 overlapping curves : one raw split',
    ours! / raw!,
    '≤ 2',
    `${ms(ours!)} : ${ms(raw!)}, aim < 300 ms`,
  );

  const svg = longOutline(2000);
  const curves = readSvg(svg).paths.flatMap((path) => path.curves);
  const empty = emptyDocument();
  const bring = () => {
    const done = perform(
      verbNamed('bring')!,
      { drawing: { svg } },
      empty,
      plainWorld(empty, () => 'p1'),
    );
    if (isRefusal(done)) throw new Error(done.message);
    new Evaluator(libraries).facts(done.document, 'p1');
  };
  const [brought, bare] = inTurn(5, [bring, () => rawEdges(occt, curves)]);
  line(
    'SVG of 2,000 curves, read to ready for snaps : raw edges',
    brought! / bare!,
    'none',
    `${ms(brought!)} : ${ms(bare!)}, aim < 500 ms`,
  );
}
