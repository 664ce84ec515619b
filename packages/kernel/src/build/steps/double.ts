/** A solid and its mirror image as one. */
import { AT_ORIGIN, chain, faultOf, inverse, type Pose } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { integralsOf } from '../../facts/integrals.ts';
import { isTouching, touchingEdges } from '../../facts/measure.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  copied,
  moved,
  release,
  scope,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { buildMirrored } from './mirror.ts';

type Double = Extract<Content, { readonly kind: 'double' }>;

/** Volumes within this part of one another are the same. */
const SAME_VOLUME = 1e-9;

/** Faces of the image are called like their originals, with “mirrored.” before. Throws BuildError. */
export function buildDoubled(occt: Occt, of: NamedShape, { frame }: Double): NamedShape {
  return scope((keep) => {
    const image = mirrored({ occt, keep }, of, frame);
    const made = combineShapes(occt, 'union', [
      { ...of, tag: '' },
      { ...image, tag: 'mirrored' },
    ]);
    const [was, is] = [integralsOf(occt, of.shape).volume, integralsOf(occt, made.shape).volume];
    const isWithin = is >= was * (1 - SAME_VOLUME) && is <= 2 * was * (1 + SAME_VOLUME);
    const touches = touchesAnew(occt, of.shape, made.shape);
    if (!touches && isWithin && isSound(occt, made.shape)) return made;
    const touching = touches ? touchingEdges(occt, made.shape) : [];
    release(occt, made.shape);
    const fault = faultOf(touches ? 'mirrored.touching' : 'mirrored.not-joined', {});
    throw new BuildError(fault, touching.length > 0 ? touching : [frame.shift]);
  });
}

/** Halves that touch along mere edges or in points are not one solid: nobody can make that. */
const touchesAnew = (occt: Occt, before: TopoDS_Shape, after: TopoDS_Shape): boolean =>
  isTouching(occt, after) && !isTouching(occt, before);

/** Z of the frame is turned onto X, in whose plane the kernel mirrors. */
function mirrored({ occt, keep }: Scoped, of: NamedShape, frame: Pose): NamedShape {
  const toX = chain(Z_TO_X, inverse(frame));
  const there = keep(copied(occt, of.shape, toX));
  const image = buildMirrored(occt, { shape: there, faceNames: of.faceNames });
  const shape = keep(moved(occt, keep(image.shape), chain(frame, inverse(Z_TO_X))));
  return { shape, faceNames: image.faceNames };
}

/** Carries Z to X, X to Y and Y to Z: no rounding. */
const Z_TO_X: Pose = { ...AT_ORIGIN, turn: [0, 0, 1, 1, 0, 0, 0, 1, 0] };
