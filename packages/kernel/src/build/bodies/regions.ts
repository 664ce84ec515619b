/** The bounded areas that drawn curves enclose, as faces, with the curves round each. */
import {
  areClear,
  boxOfCurves,
  depthAt,
  faultOf,
  fillsPoint,
  insideOf,
  pathArea,
  pointAt,
  type Box2,
  type Path,
  type Region2,
  type Regions,
  type Vec2,
} from '@kadrel/core';
import {
  BuildError,
  ShapeMap,
  compoundOf,
  fromList,
  progressRange,
  uniqueShapes,
  type Scoped,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { meshShape } from '../../facts/mesh.ts';
import { edgesOfPath, wireOf, type NamedEdge } from '../../occt/edges.ts';

/** A face in the XY plane, facing +Z. */
export interface RegionFace {
  readonly face: TopoDS_Face;
  /** Names of the curves round it, each once. */
  readonly curves: readonly string[];
  /** Well inside. */
  readonly at: Vec2;
  /** Corners of triangles that fill it, x and y. */
  readonly triangles: Float64Array;
}

type EdgeNames = ShapeMap<Set<string>>;

export interface Planar {
  readonly faces: readonly TopoDS_Face[];
  /** The names of the curves that an edge of a face lies on. */
  readonly nameOf: (edge: TopoDS_Shape) => string;
}

/** The faces of the chosen regions; those side by side are one. Throws BuildError. */
export function planarFaces({ occt, keep }: Scoped, paths: readonly Path[], regions: Regions): Planar {
  if (regions === 'all' && areClear(paths)) return clearFaces({ occt, keep }, paths);
  const split = splitRegions({ occt, keep }, paths);
  const chosen =
    regions === 'all'
      ? split.regions.filter(({ at }) => depthAt(paths, at) % 2 === 1)
      : regions.map((region) => findRegion(split.regions, region));
  if (chosen.length === 0) throw nothingEnclosed();
  return merged(
    { occt, keep },
    [...new Set(chosen)].map(({ face }) => face),
    split.names,
  );
}

const nothingEnclosed = () => new BuildError(faultOf('regions.no-area', {}));

/** Loops that do not meet: each one at an even depth is the border of a face, those right inside it are its holes. */
function clearFaces({ occt, keep }: Scoped, paths: readonly Path[]): Planar {
  const names: EdgeNames = new ShapeMap(occt);
  const loops = paths
    .filter((path) => path.closed)
    .map((path) => {
      const { wire, edges } = wireOf({ occt, keep }, edgesOfPath({ occt, keep }, path));
      for (const { edge, name } of edges) names.ensure(edge, () => new Set([name]));
      const inside = pointAt(path.curves[0]!.curve, 0);
      const depth = depthAt(
        paths.filter((other) => other !== path),
        inside,
      );
      return { path, wire, depth, inside, isLeft: pathArea(path) > 0 };
    });
  const faces = loops
    .filter(({ depth }) => depth % 2 === 0)
    .map((outer) => {
      const turned = (loop: (typeof loops)[number], { wanted }: { readonly wanted: boolean }) =>
        loop.isLeft === wanted ? loop.wire : keep(occt.TopoDS.Wire(keep(loop.wire.Reversed())));
      const builder = keep(
        new occt.BRepBuilderAPI_MakeFace(plane({ occt, keep }), turned(outer, { wanted: true }), true),
      );
      for (const hole of loops)
        if (hole.depth === outer.depth + 1 && depthAt([outer.path], hole.inside) === 1)
          builder.Add(turned(hole, { wanted: false }));
      return keep(builder.Face());
    });
  if (faces.length === 0) throw nothingEnclosed();
  return { faces, nameOf: namer(names) };
}

/** A face between wires of edges end to end: the first is its outline, the others are holes. */
export function planarFromWires({ occt, keep }: Scoped, wires: readonly (readonly NamedEdge[])[]): Planar {
  const names: EdgeNames = new ShapeMap(occt);
  const made = wires.map((edges) => {
    const joined = wireOf({ occt, keep }, edges);
    for (const { edge, name } of joined.edges) names.ensure(edge, () => new Set([name]));
    return joined.wire;
  });
  return { faces: [flatFace({ occt, keep }, made)], nameOf: namer(names) };
}

/** Between wires: the first is its outline, the others are holes. */
export function flatFace({ occt, keep }: Scoped, [outline, ...holes]: readonly Wire[]): TopoDS_Face {
  const builder = keep(new occt.BRepBuilderAPI_MakeFace(outline!, true));
  for (const hole of holes) builder.Add(hole);
  const fix = keep(new occt.ShapeFix_Face(keep(builder.Face())));
  fix.FixOrientation();
  return keep(fix.Face());
}
type Wire = ReturnType<Scoped['occt']['TopoDS']['Wire']>;

const plane = ({ occt, keep }: Scoped) =>
  keep(new occt.gp_Pln(keep(new occt.gp_Pnt(0, 0, 0)), keep(new occt.gp_Dir(0, 0, 1))));

const namer =
  (names: EdgeNames) =>
  (edge: TopoDS_Shape): string =>
    [...(names.get(edge) ?? ['side'])].join('+');

/** All regions: a large face is split by every curve; pieces that reach its border are outside. Throws BuildError. */
export function splitRegions(
  { occt, keep }: Scoped,
  paths: readonly Path[],
): { regions: RegionFace[]; names: EdgeNames } {
  const names: EdgeNames = new ShapeMap(occt);
  const drawn = paths.flatMap((path) => edgesOfPath({ occt, keep }, path));
  const box = boxOfCurves(paths.flatMap(({ curves }) => curves.map(({ curve }) => curve)));
  if (!box || drawn.length === 0) return { regions: [], names };
  const sheet = sheetRound({ occt, keep }, box);
  const splitter = keep(new occt.BRepAlgoAPI_Splitter());
  try {
    splitter.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([sheet] as never)));
    splitter.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(drawn.map(({ edge }) => edge) as never)));
    splitter.SetRunParallel(false);
    splitter.Build(progressRange({ occt, keep }));
    if (splitter.HasErrors()) throw new BuildError(faultOf('regions.not-found', {}));
    nameImages({ occt, keep }, splitter, drawn, names);
    const faces = enclosedFaces({ occt, keep }, keep(splitter.Shape()), names);
    const filled = trianglesOf(
      { occt, keep },
      faces.map(({ face }) => face),
    );
    const regions = faces.map((region, n): RegionFace => {
      const triangles = filled[n]!;
      return { ...region, triangles, at: insideOf(triangles) };
    });
    return { regions, names };
  } finally {
    splitter.Clear();
  }
}

/** A sheet that reaches beyond all that is drawn. */
function sheetRound({ occt, keep }: Scoped, { min, max }: Box2): TopoDS_Face {
  const margin = 1 + Math.max(max[0] - min[0], max[1] - min[1]);
  const made = new occt.BRepBuilderAPI_MakeFace(
    plane({ occt, keep }),
    min[0] - margin,
    max[0] + margin,
    min[1] - margin,
    max[1] + margin,
  );
  return keep(keep(made).Face());
}

/** Pieces of the sheet that have curves all round, and these curves. */
function enclosedFaces({ occt, keep }: Scoped, split: TopoDS_Shape, names: EdgeNames) {
  return uniqueShapes({ occt, keep }, split, 'TopAbs_FACE').flatMap((piece) => {
    // A curve that ends inside a region is no border of it.
    occt.BRepTools.RemoveInternals(piece, false);
    const edges = uniqueShapes({ occt, keep }, piece, 'TopAbs_EDGE');
    // Only the border of the sheet has no name.
    if (edges.some((edge) => !names.get(edge))) return [];
    const curves = [...new Set(edges.flatMap((edge) => [...names.get(edge)!]))].sort();
    return [{ face: keep(occt.TopoDS.Face(piece)), curves }];
  });
}

interface WithHistory {
  Modified(shape: TopoDS_Shape): { IsEmpty(): boolean; delete(): void };
  IsDeleted(shape: TopoDS_Shape): boolean;
}

/** Names the images of edges in the result of an operation. */
function nameImages(
  { occt, keep }: Scoped,
  operation: WithHistory,
  edges: readonly { readonly edge: TopoDS_Shape; readonly name: string }[],
  names: EdgeNames,
): void {
  for (const { edge, name } of edges) {
    const images = fromList({ occt, keep }, keep(operation.Modified(edge)));
    for (const image of images.length > 0 ? images : [edge]) names.ensure(image, () => new Set()).add(name);
  }
}

/** The deviation of the triangles that fill a region, mm: they are for pictures and for finding a point inside. */
const FILL_CHORD_MM = 0.2;

/** For each face corners of its triangles, x and y; all are faceted in one go, which costs a tenth. */
function trianglesOf({ occt, keep }: Scoped, faces: readonly TopoDS_Face[]): Float64Array[] {
  const compound = keep(compoundOf(occt, faces));
  const { positions, triangles, faceOfTriangle } = meshShape(occt, compound, FILL_CHORD_MM);
  const corners = faces.map((): number[] => []);
  faceOfTriangle.forEach((face, t) => {
    for (let k = 0; k < 3; k++) {
      const at = 3 * triangles[3 * t + k]!;
      corners[face]!.push(positions[at]!, positions[at + 1]!);
    }
  });
  return corners.map((list) => Float64Array.from(list));
}

/** The region with the same curves round it; else the one that shares most of them. The point decides between equals. */
function findRegion(regions: readonly RegionFace[], wanted: Region2): RegionFace {
  const share = ({ curves }: RegionFace) => {
    const common = curves.filter((name) => wanted.curves.includes(name)).length;
    return common / (curves.length + wanted.curves.length - common);
  };
  const off = ({ at, triangles }: RegionFace) =>
    fillsPoint(triangles, wanted.at) ? 0 : 1 + Math.hypot(at[0] - wanted.at[0], at[1] - wanted.at[1]);
  const [best] = regions
    .map((region) => ({ region, share: share(region), off: off(region) }))
    .sort((a, b) => b.share - a.share || a.off - b.off);
  if (!best || (best.share < MIN_SHARE && best.off > 0))
    throw new BuildError(faultOf('regions.gone', {}), [[...wanted.at, 0]]);
  return best.region;
}
/** A region that shares fewer of its curves than this is another one. */
const MIN_SHARE = 0.5;

/** Faces side by side become one; edges keep the names of the curves they lie on. */
export function merged({ occt, keep }: Scoped, faces: readonly TopoDS_Face[], names: EdgeNames): Planar {
  if (!doMeet({ occt, keep }, faces)) return { faces, nameOf: namer(names) };
  const fuse = keep(new occt.BRepAlgoAPI_Fuse());
  try {
    fuse.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([faces[0]] as never)));
    fuse.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(faces.slice(1) as never)));
    fuse.SetRunParallel(false);
    fuse.Build(progressRange({ occt, keep }));
    if (fuse.HasErrors()) throw new BuildError(faultOf('regions.not-joined', {}));
    fuse.SimplifyResult(true, true, 1e-6);
    const after: EdgeNames = new ShapeMap(occt);
    for (const face of faces)
      for (const edge of uniqueShapes({ occt, keep }, face, 'TopAbs_EDGE'))
        nameImages(
          { occt, keep },
          fuse,
          [...(names.get(edge) ?? [])].map((name) => ({ edge, name })),
          after,
        );
    const made = uniqueShapes({ occt, keep }, keep(fuse.Shape()), 'TopAbs_FACE').map((face) =>
      keep(occt.TopoDS.Face(face)),
    );
    return { faces: made, nameOf: namer(after) };
  } finally {
    fuse.Clear();
  }
}

function doMeet({ occt, keep }: Scoped, faces: readonly TopoDS_Face[]): boolean {
  const seen = new ShapeMap<true>(occt);
  for (const face of faces)
    for (const edge of uniqueShapes({ occt, keep }, face, 'TopAbs_EDGE')) {
      let isNew = false;
      seen.ensure(edge, () => (isNew = true));
      if (!isNew) return true;
    }
  return false;
}
