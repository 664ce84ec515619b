/** Faces that lean. */
import { faultOf, radians, scale } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { facesChosen, type FoundFace } from './chosen.ts';
import { isFlatFace, outwardOf } from '../../facts/surface.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  progressRange,
  release,
  scope,
  translated,
  uniqueShapes,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { onCopy } from '../onCopy.ts';
import { buildOrTellLargest } from './largest.ts';

type Draft = Extract<Content, { readonly kind: 'draft' }>;

/** All faces keep their names. Throws BuildError, with the largest angle that fits. */
export const buildDrafted = (occt: Occt, of: NamedShape, draft: Draft): NamedShape =>
  buildOrTellLargest(
    Math.abs(draft.angle),
    (size) =>
      onCopy(occt, of, (own) => leaning(occt, own, { ...draft, angle: Math.sign(draft.angle) * size })),
    { what: 'angle', unit: '°', giveBack: ({ shape }) => release(occt, shape) },
  );

const cannotLean = () => new BuildError(faultOf('draft.angle', {}));

function leaning(occt: Occt, of: NamedShape, { faces: chosen, angle, foot: named }: Draft): NamedShape {
  return scope((keep) => {
    const faces = facesChosen(occt, of, { chosen, keep });
    const [{ face: foot }, ...others] = facesChosen(occt, of, { chosen: named, keep }) as [FoundFace];
    if (others.length > 0) throw new BuildError(faultOf('draft.foot-of-several', {}));
    if (!isFlatFace(occt, foot)) throw new BuildError(faultOf('draft.foot-not-flat', {}));
    const plane = keep(keep(new occt.BRepAdaptor_Surface(foot, true)).Plane());
    const up = keep(new occt.gp_Dir(...scale(outwardOf(occt, foot), -1)));
    const operation = keep(new occt.BRepOffsetAPI_DraftAngle(of.shape));
    let shape: TopoDS_Shape;
    try {
      for (const { face } of faces) operation.Add(face, up, radians(angle), plane, true);
      operation.Build(progressRange({ occt, keep }));
      if (!operation.IsDone()) throw cannotLean();
      shape = operation.Shape();
    } catch (error) {
      const failure = translated(occt, error);
      throw failure instanceof BuildError ? cannotLean() : failure;
    }
    const roles = uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE').map((face, i) => ({
      face: keep(occt.TopoDS.Face(keep(operation.ModifiedShape(face)))),
      name: of.faceNames[i]!,
    }));
    if (isSound(occt, shape)) return nameFaces(occt, shape, roles);
    release(occt, shape);
    throw cannotLean();
  });
}
