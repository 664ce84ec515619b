/**
 * Guide rays: rest on a point, an edge or a face and it is touched; from then on lines through it are offered to snap to.
 */
import { column } from '../space/matrix.ts';
import { turnVector, type Turn } from '../space/pose.ts';
import { cross, dot, length, subtract, unit, type Vec3 } from '../space/vector.ts';
import { MEETING } from '../document/naming.ts';
import { directionAlong, nearestToPoint, worldCurve } from './curves.ts';
import { landingNormal } from './landing.ts';
import type { SnapInstance } from './scene.ts';
import { CURVE_LINE, FACE_PLANE, FACE_STRIDE } from './shape.ts';
export type { Guide } from './guide.ts';
import type { Guide } from './guide.ts';
import type { Snap } from './snap.ts';

/** Something that the pointer has rested on. */
export interface Touched {
  readonly snap: Snap;
  readonly guides: readonly Guide[];
}

/** More than this many touched things drop the oldest. */
export const MAX_TOUCHED = 6;
const AXIS_WORDS = ['X', 'Y', 'Z'] as const;
/** Guides closer to parallel than this (sine) are one. */
const SAME_SINE = 1e-9;
/** An edge passes through a touched point when it is nearer than this, mm. */
const THROUGH_MM = 1e-6;

/**
 * The lines that a touched snap offers: along the axes of the frame; along the edge, or the edges that meet in the
 * corner; square to a touched edge in each of its flat faces; along the normal of a face.
 */
export function guidesFrom(snap: Snap, instance: SnapInstance | undefined, axes: Turn): Guide[] {
  const guides: Guide[] = [];
  const offer = (direction: Vec3, words: string) => {
    const isNew = guides.every((guide) => length(cross(guide.direction, direction)) > SAME_SINE);
    if (isNew) guides.push({ from: snap.point, direction, words });
  };
  ([0, 1, 2] as const).forEach((axis) => offer(column(axes, axis), AXIS_WORDS[axis]));
  if (!instance || snap.feature === undefined) return guides;
  if (snap.kind === 'on face' || snap.kind === 'face centre') {
    const landing = landingNormal(instance, snap);
    if (landing) offer(landing.normal, 'normal');
    return guides;
  }
  for (const direction of edgesThrough(instance, snap.point)) {
    offer(direction, 'edge');
    if (snap.kind !== 'on edge' && snap.kind !== 'midpoint') continue;
    for (const normal of flatFacesAt(instance, snap.feature))
      if (Math.abs(dot(normal, direction)) < SAME_SINE)
        offer(unit(cross(normal, direction)), 'square to the edge');
  }
  return guides;
}

/** Lines through the from-point, parallel to the edges that were touched. */
export function parallelsThrough(from: Vec3, touched: readonly Touched[]): Guide[] {
  const found: Guide[] = [];
  for (const { guides } of touched)
    for (const { direction, words } of guides)
      if (words === 'edge' && found.every((other) => length(cross(other.direction, direction)) > SAME_SINE))
        found.push({ from, direction, words: 'edge', isParallel: true });
  return found;
}

/** With one more touched; what was touched before at the same place is replaced. */
export function touch(all: readonly Touched[], next: Touched): readonly Touched[] {
  return [...withoutTouch(all, next.snap.point), next].slice(-MAX_TOUCHED);
}

/** Without what was touched at a place. */
export const withoutTouch = (all: readonly Touched[], place: Vec3): readonly Touched[] =>
  all.filter(({ snap }) => length(subtract(snap.point, place)) > THROUGH_MM);

/** Directions of the straight edges that pass through a point. */
function edgesThrough(instance: SnapInstance, point: Vec3): Vec3[] {
  const found: Vec3[] = [];
  const { curveKind } = instance.shape;
  for (let c = 0; c < curveKind.length; c++) {
    if (curveKind[c] !== CURVE_LINE) continue;
    const curve = worldCurve(instance, c);
    const nearest = curve.at(nearestToPoint(curve, point));
    if (length(subtract(nearest, point)) < THROUGH_MM) found.push(directionAlong(curve, 0));
  }
  return found;
}

/** Outward normals of the flat faces that a feature's name tells of. */
function flatFacesAt({ shape, pose }: SnapInstance, feature: string): Vec3[] {
  const names = feature.split(MEETING);
  const found: Vec3[] = [];
  shape.faceKind.forEach((kind, face) => {
    if (kind !== FACE_PLANE || !names.includes(shape.names[shape.faceName[face]!]!)) return;
    const data = FACE_STRIDE * face + 3;
    found.push(turnVector(pose.turn, [shape.faces[data]!, shape.faces[data + 1]!, shape.faces[data + 2]!]));
  });
  return found;
}

/** How far along a guide a point of it is, mm: what a typed number takes the place of. */
export const alongGuide = ({ from, direction }: Guide, point: Vec3): number =>
  dot(subtract(point, from), direction);
