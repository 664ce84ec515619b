import { section } from '../shared/section.ts';
import { traverse } from './traverse.ts';
import { line } from './line.ts';
import { rectangle } from './rectangle.ts';
import { circle } from './circle.ts';
import { polygon } from './polygon.ts';
import { arc } from './arc.ts';
import { ellipse } from './ellipse.ts';
import { curve } from './curve.ts';
import { text } from './text.ts';
import { bring } from './bring.ts';
import { offset } from './offset.ts';
import { join } from './join.ts';
import { joinSurfaces } from './join-surfaces.ts';
import { blend } from './blend.ts';
import { corner } from './corner.ts';
import { trim } from './trim.ts';
import { extend } from './extend.ts';
import { split } from './split.ts';
import { reverse } from './reverse.ts';
import { resample } from './resample.ts';
import { outline } from './outline.ts';
import { raise } from './raise.ts';
import { revolve } from './revolve.ts';
import { loft } from './loft.ts';
import { sweep } from './sweep.ts';
import { fill } from './fill.ts';
import { thicken } from './thicken.ts';
import { close } from './close.ts';
import { turnOver } from './turn-over.ts';
import { wall } from './wall.ts';
import { wallOutline } from './band.ts';
import { plane } from './plane.ts';

/** In the order in which people see them, under heads. */
export const DRAW_SECTIONS = [
  section('Figures', [traverse, line, rectangle, circle, polygon, arc, ellipse, curve, text, bring]),
  section('Change', [offset, join, blend, corner, trim, extend, split, reverse, resample, outline]),
  section('Bodies and surfaces', [raise, revolve, loft, sweep, fill, thicken, joinSurfaces, close, turnOver]),
  // Wall before its outline: while one types, the first that fits stays chosen.
  section('Walls and planes', [wall, wallOutline, plane]),
] as const;
