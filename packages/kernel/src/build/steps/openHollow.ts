/**
 * A hollow that is open beside inward edges, as where a post stands on an open plate: it goes on under the wall behind what stands
 * there, whose lower end is flat and lies in the plane of the open face.
 */
import { sharesName, type ChosenFace } from '@kadrel/core';
import { combineShapes } from '../../booleans/operation.ts';
import { isFlatFace } from '../../facts/surface.ts';
import type { NamedShape } from '../../naming/named.ts';
import { compoundOf, uniqueShapes, type Keep, type Occt, type TopoDS_Shape } from '../../occt/occt.ts';
import { meetingEdges, type FoundFace } from './chosen.ts';
import { offsetBy } from './offset.ts';
import { movedPlanes } from './planes.ts';
import { pushedBy } from './push.ts';
import { RIM, innerName } from './wallBehind.ts';

interface Opening {
  readonly open: readonly FoundFace[];
  /** mm. */
  readonly thickness: number;
  readonly keep: Keep;
}

/** A wall, which is the caller’s, who has to look whether it is one. */
export interface OpenWall {
  readonly wall: NamedShape;
  /** The inward edges beside what is open, over which walls end. */
  readonly ends: TopoDS_Shape;
}

/** Undefined where no flat face is opened beside an inward edge. Throws BuildError. */
export function openHollow(
  occt: Occt,
  of: NamedShape,
  { open, thickness, keep }: Opening,
): OpenWall | undefined {
  const isOpen = (name: string) => open.some((one) => sharesName(one.name, name));
  const inward = meetingEdges({ occt, keep }, of).filter(({ bend }) => bend === 'inward');
  const beside = inward.filter(({ names }) => names.some(isOpen));
  const areAll = of.faceNames.filter(isOpen).length === open.length;
  if (beside.length === 0 || !areAll || !open.every(({ face }) => isFlatFace(occt, face))) return undefined;
  const cores = [raised(occt, of, { open, thickness, keep })];
  // About the other inward edges the hollow is round.
  if (beside.length < inward.length) cores.push(offsetBy(occt, of, { by: -thickness, corners: 'round' }));
  cores.forEach(({ shape }) => keep(shape));
  const { shape, faceNames } = combineShapes(occt, 'subtract', [
    { ...of, tag: '' },
    { ...together(occt, cores, { isOpen, keep }), tag: '' },
  ]);
  const ends = compoundOf(
    occt,
    beside.map(({ edge }) => edge),
  );
  keep(ends);
  return { wall: { shape, faceNames: faceNames.map((name) => (isOpen(name) ? RIM : name)) }, ends };
}

/** The solid with its faces moved in, but for those that are opened. */
function raised(occt: Occt, of: NamedShape, { open, thickness, keep }: Opening): NamedShape {
  const all = uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE').map((one) => keep(occt.TopoDS.Face(one)));
  const others = all.filter((face) => !open.some((one) => one.face.IsSame(face)));
  if (all.every((face) => isFlatFace(occt, face)))
    return movedPlanes(occt, of, { faces: others, by: -thickness });
  const closed = offsetBy(occt, of, { by: -thickness, corners: 'square' });
  keep(closed.shape);
  const faces = [...new Set(open.map(({ name }) => name))].map((face): ChosenFace => ({ face }));
  return pushedBy(occt, closed, { faces, by: thickness, sides: 'follow' });
}

interface Naming {
  readonly isOpen: (name: string) => boolean;
  readonly keep: Keep;
}

/** Their faces are called as they are in the wall. */
function together(occt: Occt, cores: readonly NamedShape[], { isOpen, keep }: Naming): NamedShape {
  const [first, ...others] = cores.map(({ shape, faceNames }) => ({
    shape,
    faceNames: faceNames.map((name) => (isOpen(name) ? RIM : innerName(name))),
    tag: '',
  }));
  if (others.length === 0) return first!;
  const made = combineShapes(occt, 'union', [first!, ...others]);
  keep(made.shape);
  return made;
}
