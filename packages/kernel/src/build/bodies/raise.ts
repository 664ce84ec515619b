/** Regions pulled up from their plane. */
import { faultOf, NO_TURN, type Pose, type Vec2 } from '@kadrel/core';
import {
  BuildError,
  fromList,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Face,
} from '../../occt/occt.ts';
import type { BodyContent } from '../../content/bodies.ts';
import { requireBodies, together } from '../compound.ts';
import { endsOfEdge, placedWire } from '../../occt/edges.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';
import { buildTurnedOver } from '../steps/turnedOver.ts';
import { planarFaces, type Planar } from './regions.ts';

type Raise = Extract<BodyContent, { kind: 'raise' }>;

/** Faces: bottom, top, and for each curve round the regions one of its name. Throws BuildError. */
export function buildRaise(occt: Occt, content: Raise): NamedShape {
  const { paths, regions, height, down, draft } = content;
  return scope((keep) => {
    if (!(height + down > 0)) throw new BuildError(faultOf('raise.no-height', {}));
    if (content.ends === 'open') return raisedSurface(occt, content);
    const planar = planarFaces({ occt, keep }, paths, regions);
    return together(
      occt,
      planar.faces.map((face) => {
        const straight = pulledFace({ occt, keep }, planar, face, { from: -down, to: height });
        if (draft === 0) return straight;
        keep(straight.shape);
        return drafted(occt, straight, draft);
      }),
    );
  });
}

/** The sides above every curve, open at both ends; they face to the right of it. Faces: one for each curve, of its name. */
function raisedSurface(occt: Occt, { paths, height, down }: Raise): NamedShape {
  return scope((keep) => {
    const up = keep(new occt.gp_Vec(0, 0, height + down));
    const foot: Pose = { turn: NO_TURN, shift: [0, 0, -down] };
    const made = together(
      occt,
      paths.map((path) => {
        const { wire, edges } = placedWire({ occt, keep }, path, foot);
        const prism = keep(new occt.BRepPrimAPI_MakePrism(wire, up, false, true));
        const sides = edges.flatMap(({ edge, name }) =>
          fromList({ occt, keep }, keep(prism.Generated(edge))).map((side) => ({
            face: keep(occt.TopoDS.Face(side)),
            name,
          })),
        );
        return nameFaces(occt, prism.Shape(), sides);
      }),
    );
    keep(made.shape);
    // The kernel lets them face to the left.
    return buildTurnedOver(occt, made);
  });
}

/** From one height to another, mm. */
interface Pull {
  readonly from: number;
  readonly to: number;
  /** Along X and Y for each mm of height. */
  readonly slant?: Vec2;
}

/** A face of the XY plane pulled from one height to another. */
export function pulledFace(
  { occt, keep }: Scoped,
  planar: Planar,
  face: TopoDS_Face,
  { from, to, slant: [u, v] = [0, 0] }: Pull,
): NamedShape {
  const lift = keep(new occt.gp_Trsf());
  lift.SetValues(1, 0, 0, u * from, 0, 1, 0, v * from, 0, 0, 1, from);
  const location = keep(new occt.TopLoc_Location(lift));
  const foot = from === 0 ? face : keep(occt.TopoDS.Face(keep(face.Moved(location, false))));
  const prism = keep(
    new occt.BRepPrimAPI_MakePrism(
      foot,
      keep(new occt.gp_Vec(u * (to - from), v * (to - from), to - from)),
      false,
      true,
    ),
  );
  const sides = occurrences({ occt, keep }, face, 'TopAbs_EDGE').flatMap((edge) => {
    const there = from === 0 ? edge : keep(edge.Moved(location, false));
    return fromList({ occt, keep }, keep(prism.Generated(there))).map((side) => ({
      face: keep(occt.TopoDS.Face(side)),
      name: planar.nameOf(edge),
    }));
  });
  const shape = requireBodies(occt, prism.Shape(), 'The raised region');
  return nameFaces(occt, shape, [
    { face: keep(occt.TopoDS.Face(keep(prism.FirstShape()))), name: 'bottom' },
    { face: keep(occt.TopoDS.Face(keep(prism.LastShape()))), name: 'top' },
    ...sides,
  ]);
}

/** All sides lean inward upward from the XY plane. @param draft degrees */
function drafted(occt: Occt, { shape, faceNames }: NamedShape, draft: number): NamedShape {
  return scope((keep) => {
    const up = keep(new occt.gp_Dir(0, 0, 1));
    const plane = keep(new occt.gp_Pln(keep(new occt.gp_Pnt(0, 0, 0)), up));
    const operation = keep(new occt.BRepOffsetAPI_DraftAngle(shape));
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    faces.forEach((face, i) => {
      if (faceNames[i] === 'top' || faceNames[i] === 'bottom') return;
      operation.Add(keep(occt.TopoDS.Face(face)), up, (draft * Math.PI) / 180, plane, true);
      if (operation.AddDone()) return;
      const [edge] = occurrences({ occt, keep }, face, 'TopAbs_EDGE');
      throw new BuildError(
        faultOf('raise.side-draft', { side: faceNames[i]!, draft }),
        endsOfEdge({ occt, keep }, keep(occt.TopoDS.Edge(edge!))),
      );
    });
    operation.Build(progressRange({ occt, keep }));
    if (!operation.IsDone()) throw new BuildError(faultOf('raise.draft', { draft }));
    const roles = faces.flatMap((face, i) => {
      const later = fromList({ occt, keep }, keep(operation.Modified(face)));
      return (later.length > 0 ? later : [face]).map((one) => ({
        face: keep(occt.TopoDS.Face(one)),
        name: faceNames[i]!,
      }));
    });
    return nameFaces(occt, requireBodies(occt, operation.Shape(), 'The leaning body'), roles);
  });
}
