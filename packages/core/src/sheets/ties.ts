/** What dimensions, notes and details are tied to: found again by names in the model as it is now. */
import type { KadrelDocument } from '../document/schema.ts';
import type { Sheet, SheetView, Tie } from '../document/sheet.ts';
import { buildName, type Placed } from '../patterns/placed.ts';
import type { TiesFound } from '../questions/question.ts';
import { isRefusal } from '../refusals/refusal.ts';
import { carryGeometry, locateFeature, type Geometry } from '../snapping/feature.ts';
import type { ShapeFeatures } from '../snapping/shape.ts';
import { solidNamed } from '../snapping/solidNamed.ts';

/** The features of a solid; undefined where it cannot be built. */
export type FeaturesOf = (solid: Placed) => ShapeFeatures | undefined;

/** In the world; null for what is not there any more. */
export function locateTie(document: KadrelDocument, { point, named }: Tie, of: FeaturesOf): Geometry | null {
  if (!named) return { kind: 'point', at: point };
  const part = document.items[named.part];
  if (!part) return null;
  const { at, snap, near, member } = named;
  const solid = solidNamed(document, part.id, { member, of: named.of });
  if (isRefusal(solid)) return null;
  const features = of(solid);
  if (!features) return null;
  const found = locateFeature(features, { on: part.name, at, snap, near }, document);
  return isRefusal(found) ? null : carryGeometry(solid.pose, found);
}

/** A detail where what it is about is now; any other view as it is. */
export function viewNow(document: KadrelDocument, view: SheetView, of: FeaturesOf): SheetView {
  const found = view.detail?.tie && locateTie(document, view.detail.tie, of);
  return found ? { ...view, anchor: [...found.at] } : view;
}

/** A sheet with its details where what they are about is now. */
export function sheetNow(sheet: Sheet, ties: TiesFound): Sheet {
  const moved = Object.entries(sheet.views).flatMap(([id, view]) => {
    const found = view.detail?.tie && ties[id]?.[0];
    return found ? [[id, { ...view, anchor: [...found.at] as SheetView['anchor'] }] as const] : [];
  });
  return moved.length === 0 ? sheet : { ...sheet, views: { ...sheet.views, ...Object.fromEntries(moved) } };
}

/** All ties of a sheet. */
export function tiesOfSheet(document: KadrelDocument, sheet: Sheet, of: FeaturesOf): TiesFound {
  const known = new Map<string, ShapeFeatures | undefined>();
  const features: FeaturesOf = (solid) => {
    const key = buildName(solid);
    if (!known.has(key)) known.set(key, of(solid));
    return known.get(key);
  };
  const locate = (tie: Tie) => locateTie(document, tie, features);
  const found: (readonly [string, readonly (Geometry | null)[]])[] = [
    ...Object.entries(sheet.dimensions).map(([id, { ties }]) => [id, ties.map(locate)] as const),
    ...Object.entries(sheet.views).flatMap(([id, { detail }]) =>
      detail?.tie ? [[id, [locate(detail.tie)]] as const] : [],
    ),
    ...Object.entries(sheet.notes).flatMap(([id, { leader }]) =>
      leader ? [[id, [locate(leader.tie)]] as const] : [],
    ),
  ];
  return Object.fromEntries(found);
}
