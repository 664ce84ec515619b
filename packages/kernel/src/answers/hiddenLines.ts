/** What is seen of shapes along Z, from above, laid into the XY plane: the kernel's own exact hidden-line removal. */
import { occurrences, type Scoped, type TopoDS_Shape } from '../occt/occt.ts';

/** Edges in the XY plane. Those between faces that go on into each other are smooth. */
export interface LinesSeen {
  readonly visible: readonly TopoDS_Shape[];
  readonly smooth: readonly TopoDS_Shape[];
  readonly hidden: readonly TopoDS_Shape[];
}

/** Sharp edges and where round faces turn away, those behind others apart. */
export function linesSeen({ occt, keep }: Scoped, shapes: readonly TopoDS_Shape[]): LinesSeen {
  const lines = keep(new occt.HLRBRep_Algo());
  for (const shape of shapes) lines.Add(shape, 0);
  const origin = keep(new occt.gp_Pnt(0, 0, 0));
  const frame = keep(new occt.gp_Ax2(origin, keep(new occt.gp_Dir(0, 0, 1)), keep(new occt.gp_Dir(1, 0, 0))));
  lines.Projector(keep(new occt.HLRAlgo_Projector(frame)));
  lines.Update();
  lines.Hide();
  const shown = keep(new occt.HLRBRep_HLRToShape(lines));
  const edges = (...compounds: readonly TopoDS_Shape[]) =>
    compounds.flatMap((one) => edgesIn({ occt, keep }, one));
  return {
    visible: edges(shown.VCompound(), shown.OutLineVCompound()),
    smooth: edges(shown.Rg1LineVCompound()),
    hidden: edges(shown.HCompound(), shown.OutLineHCompound()),
  };
}

function edgesIn({ occt, keep }: Scoped, compound: TopoDS_Shape | null): TopoDS_Shape[] {
  if (!compound || compound.IsNull()) return [];
  keep(compound);
  occt.BRepLib.BuildCurves3d(compound);
  return occurrences({ occt, keep }, compound, 'TopAbs_EDGE');
}
