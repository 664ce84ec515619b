/** What a profile is drawn as: figures that keep the numbers they were given by, in the profile's own XY plane. */
import { z } from 'zod';
import { schemasOf } from '../declare.ts';
import { arc } from './arc.ts';
import { circle } from './circle.ts';
import { curve } from './curve.ts';
import { ellipse } from './ellipse.ts';
import { paths } from './paths.ts';
import { polygon } from './polygon.ts';
import { rectangle } from './rectangle.ts';
import { text } from './text.ts';
import { traverse } from './traverse.ts';

export { CLOSINGS, MAX_LEGS, type Leg } from './traverse.ts';

export const FIGURES = [traverse, rectangle, circle, ellipse, polygon, arc, curve, text, paths] as const;

export const figureSchema = z.discriminatedUnion('kind', schemasOf(FIGURES));
export type Figure = z.infer<typeof figureSchema>;
export type FigureOf<K extends Figure['kind']> = Extract<Figure, { kind: K }>;
