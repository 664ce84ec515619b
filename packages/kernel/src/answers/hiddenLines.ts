/** What is seen of shapes along Z, from above, laid into the XY plane: the kernel's own exact hidden-line removal. */
import { occurrences, type Scoped, type TopoDS_Shape } from '../occt/occt.ts';

/** Edges in the XY plane. Those between faces that go on into each other are smooth. */
export interface LinesSeen {
  readonly visible: readonly TopoDS_Shape[];
  readonly smooth: readonly TopoDS_Shape[];
  readonly hidden: readonly TopoDS_Shape[];
}

/** A shape whose lines are wanted, and what may hide them: indices of shapes. */
export interface Asked {
  readonly shape: number;
  readonly hiders: readonly number[];
}

/** Of each shape that is asked for: sharp edges and where round faces turn away, those behind others apart. */
export function linesSeen(
  { occt, keep }: Scoped,
  shapes: readonly TopoDS_Shape[],
  asked: readonly Asked[],
): LinesSeen[] {
  const lines = keep(new occt.HLRBRep_Algo());
  for (const shape of shapes) lines.Add(shape, 0);
  const origin = keep(new occt.gp_Pnt(0, 0, 0));
  const frame = keep(new occt.gp_Ax2(origin, keep(new occt.gp_Dir(0, 0, 1)), keep(new occt.gp_Dir(1, 0, 0))));
  lines.Projector(keep(new occt.HLRAlgo_Projector(frame)));
  lines.Update();
  // The kernel counts from 1.
  for (const { shape } of asked) lines.Hide(shape + 1);
  for (const { shape, hiders } of asked) for (const hider of hiders) lines.Hide(shape + 1, hider + 1);
  lines.Select();
  const shown = keep(new occt.HLRBRep_HLRToShape(lines));
  const edges = (...compounds: readonly TopoDS_Shape[]) =>
    compounds.flatMap((one) => edgesIn({ occt, keep }, one));
  return asked.map(({ shape }) => {
    const one = shapes[shape]!;
    return {
      visible: edges(shown.VCompound(one), shown.OutLineVCompound(one)),
      smooth: edges(shown.Rg1LineVCompound(one)),
      hidden: edges(shown.HCompound(one), shown.OutLineHCompound(one)),
    };
  });
}

function edgesIn({ occt, keep }: Scoped, compound: TopoDS_Shape | null): TopoDS_Shape[] {
  if (!compound || compound.IsNull()) return [];
  keep(compound);
  occt.BRepLib.BuildCurves3d(compound);
  return occurrences({ occt, keep }, compound, 'TopAbs_EDGE');
}
