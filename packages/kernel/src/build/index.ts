/** One builder for each kind of content; a new kind is a file beside this one and a line below. */
import { PLAIN_SOLIDS, scale, type Vec3 } from '@kadrel/core';
import type { Content, SolidContent, StepContent } from '../content/content.ts';
import { BuildError, type Occt } from '../occt/occt.ts';
import { buildDrawn, buildSheet } from './bodies/drawn.ts';
import { buildLoft } from './bodies/loft.ts';
import { buildRaise } from './bodies/raise.ts';
import { buildRevolve } from './bodies/revolve.ts';
import { buildSettled } from './bodies/settled.ts';
import { buildSweep } from './bodies/sweep.ts';
import { buildWall } from './bodies/wall.ts';
import type { NamedShape } from '../naming/named.ts';
import { onCopy } from './onCopy.ts';
import { buildBox } from './primitives/box.ts';
import { buildCap } from './primitives/cap.ts';
import { buildCone } from './primitives/cone.ts';
import { buildCylinder } from './primitives/cylinder.ts';
import { buildFrustum } from './primitives/frustum.ts';
import { buildPrism } from './primitives/prism.ts';
import { buildSphere } from './primitives/sphere.ts';
import { buildStretched } from './primitives/stretched.ts';
import { buildTiers } from './primitives/tiers.ts';
import { buildTorus } from './primitives/torus.ts';
import { buildTube } from './primitives/tube.ts';
import { buildWedge } from './primitives/wedge.ts';
import { requireSizes } from './sizes.ts';
import { buildChamfer } from './steps/chamfer.ts';
import { buildCut } from './steps/cut.ts';
import { buildCutAlong } from './steps/cutAlong.ts';
import { buildDoubled } from './steps/double.ts';
import { buildDrafted } from './steps/draft.ts';
import { buildEmbossed } from './steps/emboss.ts';
import { buildFillet } from './steps/fillet.ts';
import { buildOffset } from './steps/offset.ts';
import { buildPushed } from './steps/push.ts';
import { buildReshaped } from './steps/reshape.ts';
import { buildShell } from './steps/shell.ts';
import { buildSoftened } from './steps/soften.ts';
import { buildHull } from './steps/hull.ts';
import { buildMirrored, buildScaled } from './steps/mirror.ts';
import { buildTurnedOver } from './steps/turnedOver.ts';
import { buildClosed, buildFill, buildThickened } from './surfaces.ts';

type Kind = Content['kind'];
type ContentOf<K extends Kind> = Extract<Content, { readonly kind: K }>;

type BaseKind = Exclude<Kind, 'combine' | 'section' | 'sectioned' | StepContent['kind']>;
/** Throws BuildError. */
type BaseBuilder<K extends BaseKind> = (occt: Occt, content: ContentOf<K>) => NamedShape;

const BASES: { readonly [K in BaseKind]: BaseBuilder<K> } = {
  box: (occt, { size }) => buildBox(occt, size),
  sphere: (occt, { diameter }) => buildSphere(occt, diameter),
  cylinder: (occt, { diameter, height }) => buildCylinder(occt, diameter, height),
  cone: (occt, { diameter, top, height }) => buildCone(occt, { diameter, top, height }),
  tube: (occt, { diameter, bore, height }) => buildTube(occt, { diameter, bore, height }),
  torus: (occt, { diameter, thickness }) => buildTorus(occt, diameter, thickness),
  prism: (occt, { corners, height }) => buildPrism(occt, corners, height),
  stretched: (occt, { of, by }) => buildStretched(occt, of, by),
  wedge: buildWedge,
  cap: (occt, { diameter, height }) => buildCap(occt, diameter, height),
  frustum: buildFrustum,
  tiers: (occt, { levels }) => buildTiers(occt, levels),
  drawn: (occt, { paths }) => buildDrawn(occt, paths),
  sheet: (occt, { size, grid }) => buildSheet(occt, size, grid),
  raise: buildRaise,
  revolve: buildRevolve,
  loft: buildLoft,
  sweep: buildSweep,
  fill: (occt, { sections }) => buildFill(occt, sections),
  wall: buildWall,
  settled: buildSettled,
  fault: (_, { fault, places }) => {
    throw new BuildError(fault, places);
  },
};

interface StepBuilder<K extends StepContent['kind']> {
  /** Throws BuildError. @param of what it is done to; it stays the builder's */
  build(occt: Occt, of: NamedShape, content: ContentOf<K>): NamedShape;
  /** It does each of its tries to a copy of its own. */
  readonly copies?: true;
  /** Where a place of what it is done to comes to lie; where there is none, it stays. */
  place?(content: ContentOf<K>, place: Vec3): Vec3;
}

/** What is done to one solid by itself: all but what another solid is needed for. */
type OwnStep = Exclude<StepContent, { readonly tool: unknown }>;

const STEPS: { readonly [K in OwnStep['kind']]: StepBuilder<K> } = {
  fillet: { build: buildFillet, copies: true },
  chamfer: { build: buildChamfer, copies: true },
  shell: { build: buildShell, copies: true },
  push: { build: buildPushed },
  draft: { build: buildDrafted, copies: true },
  reshape: { build: buildReshaped },
  cut: { build: buildCut },
  cutAlong: { build: buildCutAlong },
  double: { build: buildDoubled },
  soften: { build: buildSoftened },
  hull: { build: buildHull },
  embossed: { build: buildEmbossed },
  offset: { build: buildOffset, copies: true },
  turnedOver: { build: buildTurnedOver },
  thickened: { build: buildThickened },
  closed: { build: (occt, of) => buildClosed(occt, of) },
  mirrored: { build: (occt, of) => buildMirrored(occt, of), place: (_, [x, y, z]) => [-x, y, z] },
  scaled: {
    build: (occt, of, { by }) => buildScaled(occt, of, by),
    place: ({ by }, place) => scale(place, by),
  },
};

/** What stands for itself. Throws BuildError. */
export function buildBase(occt: Occt, content: ContentOf<BaseKind>): NamedShape {
  const plain = content.kind === 'stretched' ? content.of : content;
  if (isPlain(plain)) requireSizes(plain);
  return (BASES[content.kind] as BaseBuilder<BaseKind>)(occt, content);
}

/** Throws BuildError. `of` stays as it is. */
export function buildStep(occt: Occt, of: NamedShape, content: OwnStep): NamedShape {
  const step = STEPS[content.kind] as StepBuilder<OwnStep['kind']>;
  return step.copies
    ? step.build(occt, of, content)
    : onCopy(occt, of, (own) => step.build(occt, own, content));
}

/** Where a place of what a step is done to comes to lie. */
export const placeAfter =
  (content: StepContent) =>
  (place: Vec3): Vec3 =>
    'tool' in content
      ? place
      : ((STEPS[content.kind] as StepBuilder<OwnStep['kind']>).place?.(content, place) ?? place);

const PLAIN: ReadonlySet<string> = new Set(PLAIN_SOLIDS.map(({ kind }) => kind));
/** Bounded by planes, cylinders, cones, balls and rings alone, so that formulas tell all of it. */
export const isPlain = (content: { readonly kind: string }): content is SolidContent =>
  PLAIN.has(content.kind);
