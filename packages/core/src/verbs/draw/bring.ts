import { valueOf } from '../../document/items.ts';
import { carryCurve, type Curve } from '../../curves/curve.ts';
import { MAX_LEGS, type FigureOf } from '../../recipes/figures/index.ts';
import type { Affine2 } from '../../space/vector2.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';

/** More curves than this are a picture rather than an outline. */
const MAX_CURVES = 4 * MAX_LEGS;

/** Outlines from a file, as a profile. */
export const bring = declareVerb({
  id: 'bring',
  name: 'Bring in',
  group: 'draw',
  about: 'Outlines from an SVG or DXF file, at the size that the file says or that you say.',
  words: ['import', 'svg', 'dxf', 'file', 'outline', 'vector', 'open'],
  blanks: {
    drawing: needed('drawing', 'file', 'An SVG or a DXF file.'),
    width: optional('length', 'width', 'How wide it comes in; without one, as wide as the file says.', {
      positive: true,
    }),
    at: needed('point', 'at', 'Where the lower left corner of its outlines stands.', {
      default: ['0', '0', '0'],
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Bring in {drawing}[, {width} wide,] at {at} on {on}[ named {as}]',
  apply(draft, { drawing, width, at, on, as }, context) {
    const { min, max } = drawing.box;
    const wide = max[0] - min[0];
    if (width !== undefined && wide === 0) return refuse('width', {}, 'width');
    const count = drawing.paths.reduce((sum, { curves }) => sum + curves.length, 0);
    if (count > MAX_CURVES) return refuse('too-many.drawing', { count, maxCurves: MAX_CURVES }, 'drawing');
    const scale = width === undefined ? 1 : valueOf(width) / wide;
    const map: Affine2 = {
      x: [scale, 0],
      y: [0, scale],
      shift: [-min[0] * scale, -min[1] * scale],
    };
    const paths = drawing.paths.map(({ closed, curves }) => ({
      closed,
      curves: curves.map((curve) => carryCurve(map, curve)),
    }));
    return drawFigure(draft, context, {
      name: as ?? drawing.name,
      figure: { kind: 'paths', paths: plainPaths(paths) },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});

type Paths = FigureOf<'paths'>['paths'];
const plainPaths = (paths: readonly { closed: boolean; curves: readonly Curve[] }[]): Paths =>
  JSON.parse(JSON.stringify(paths)) as Paths;
