/** Statements after which a wanted fit that is missed is met. */
import type { Fit } from '../document/fit.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import type { MeasuredFacts } from '../questions/fitFacts.ts';
import type { Geometry } from '../space/geometry.ts';
import { distance, dot, length, scale, subtract, type Vec3 } from '../space/vector.ts';
import type { Remedy } from './finding.ts';
import { isoFit } from './iso286.ts';
import { isAxis, isTilted, nominalOf } from './judge.ts';

/** Most move the second; sizes are mended by a face that is named. */
export function fitRemedies(document: KadrelDocument, fit: Fit, facts: MeasuredFacts): Remedy[] {
  switch (fit.kind) {
    case 'clearance':
    case 'contact':
      return clearanceRemedies(document, fit, facts);
    case 'coaxial':
      return coaxialRemedies(document, fit, facts);
    case 'flush':
      return flushRemedies(document, fit, facts);
    case 'iso':
      return isoRemedies(fit, facts);
    default:
      return [];
  }
}

function moveRemedy(document: KadrelDocument, { to }: Fit, by: Vec3): Remedy[] {
  const part = 'part' in to ? document.items[to.part] : undefined;
  if (!part || length(by) === 0) return [];
  const typed = { parts: [part.id], by: by.map((mm) => `${mm} mm`) };
  return [{ label: 'Move the second', verb: 'move', typed }];
}

/** In the middle of what a clearance may be, mm; where it has no greatest, the least. */
export const middleClearance = ({ least = 0, greatest }: Pick<Fit, 'least' | 'greatest'>): number =>
  greatest === undefined ? least : (least + greatest) / 2;

/** Cuts one part out of another, with a clearance all round, mm; both stay. */
export const cutOut = (label: string, { of, what }: CutOut, clearance = 0): Remedy => ({
  label,
  verb: 'cut-by',
  typed: {
    parts: [of],
    by: what,
    keep: 'behind',
    ...(clearance > 0 && { clearance: `${clearance} mm` }),
  },
});

interface CutOut {
  readonly of: ItemId;
  readonly what: ItemId;
}

/** Parts that go into one another, or stand too near: one is cut back until it keeps clear. */
function cutRemedies(fit: Fit): Remedy[] {
  const wanted = middleClearance(fit);
  const [of, what] = [fit.to, fit.from].map((side) =>
    'part' in side && side.at === undefined ? side.part : undefined,
  );
  if (fit.kind !== 'clearance' || of === undefined || what === undefined || wanted === 0) return [];
  return [
    cutOut('Cut the second back', { of, what }, wanted),
    cutOut('Cut the first back', { of: what, what: of }, wanted),
  ];
}

/** The second goes straight to where the distance is right; a face of it that is named is offset instead. */
function clearanceRemedies(document: KadrelDocument, fit: Fit, { from, to }: MeasuredFacts): Remedy[] {
  const { kind, least = 0, greatest } = fit;
  if (!from || !to) return cutRemedies(fit);
  const now = distance(from, to);
  const aim = now < least ? least : (greatest ?? least);
  const wanted = kind === 'contact' ? 0 : greatest === undefined ? aim : middleClearance(fit);
  const face = faceOf(fit.to);
  if (face) return [offsetRemedy('Offset the face', face, now - wanted)];
  const moved = now === 0 ? [] : moveRemedy(document, fit, scale(subtract(to, from), (wanted - now) / now));
  return now < least ? [...moved, ...cutRemedies(fit)] : moved;
}

interface NamedFace {
  readonly part: string;
  readonly at: string;
}

const faceOf = (side: Fit['to']): NamedFace | undefined =>
  'part' in side && side.at !== undefined && !side.at.includes('&')
    ? { part: side.part, at: side.at }
    : undefined;

const offsetRemedy = (label: string, { part, at }: NamedFace, mm: number): Remedy => ({
  label,
  verb: 'offset-face',
  typed: { part, faces: [at], by: `${mm} mm` },
});

/** Axes that lean are not brought together by a move. */
function coaxialRemedies(
  document: KadrelDocument,
  fit: Fit,
  { geometries: [a, b] }: MeasuredFacts,
): Remedy[] {
  if (!isAxis(a) || !isAxis(b) || isTilted(a.direction, b.direction)) return [];
  const off = subtract(a.at, b.at);
  return moveRemedy(document, fit, subtract(off, scale(a.direction, dot(off, a.direction))));
}

function flushRemedies(document: KadrelDocument, fit: Fit, { geometries: [a, b] }: MeasuredFacts): Remedy[] {
  if (a?.kind !== 'plane' || b?.kind !== 'plane' || isTilted(a.normal, b.normal)) return [];
  return moveRemedy(document, fit, scale(a.normal, dot(subtract(a.at, b.at), a.normal)));
}

/** Bore and shaft get the middle of what their grades allow. */
function isoRemedies({ from, to, grades = '' }: Fit, { geometries: [a, b] }: MeasuredFacts): Remedy[] {
  const radiusOf = (one: Geometry | null | undefined) => (one?.kind === 'axis' ? one.radius : undefined);
  const [bore, shaft] = [radiusOf(a), radiusOf(b)];
  if (bore === undefined || shaft === undefined) return [];
  const nominal = nominalOf(2 * bore);
  const found = isoFit(nominal, grades);
  const [boreFace, shaftFace] = [faceOf(from), faceOf(to)];
  if (!found || !boreFace || !shaftFace) return [];
  const wanted = (limits: { readonly lower: number; readonly upper: number }) =>
    (nominal + (limits.lower + limits.upper) / 2) / 2;
  const isOff = (radius: number, limits: { readonly lower: number; readonly upper: number }) =>
    2 * radius < nominal + limits.lower || 2 * radius > nominal + limits.upper;
  return [
    // Out of the material a bore grows narrower.
    ...(isOff(bore, found.hole)
      ? [offsetRemedy('Bring the bore to size', boreFace, bore - wanted(found.hole))]
      : []),
    ...(isOff(shaft, found.shaft)
      ? [offsetRemedy('Bring the shaft to size', shaftFace, wanted(found.shaft) - shaft)]
      : []),
  ];
}
