/** Bodies made from profiles, as there is to build of them: plain data without ids, in the frame of the first profile. */
import {
  arcOnChord,
  AT_ORIGIN,
  BODIES,
  carry,
  carryCurve,
  chain,
  datumInPart,
  definitionOf,
  drawnOf,
  faultOf,
  inverse,
  line,
  loftWays,
  pathsOf,
  pathsOnPlane,
  referencesIn,
  sectionsOf,
  traverseOf,
  valued,
  valueOf,
  worldFromPart,
  type Affine2,
  type BodyBase,
  type BodyOf,
  type Curve,
  type Fault,
  type ItemId,
  type KadrelDocument,
  type Opening,
  type Part,
  type Path,
  type Pose,
  type Regions,
  type Section,
  type Tier,
  type Valued,
  type Vec2,
  type Vec3,
} from '@kadrel/core';

/** An opening of a wall as plain numbers. */
export type OpeningContent = Valued<Opening>;
/** A level of tiers as plain numbers. */
export type TierContent = Valued<Tier>;

/** Whether the ends of a body are closed. */
export type Ends = 'capped' | 'open';

/** Bodies that follow others, so that what there is to build is not in their own recipe. */
type Referring = Extract<BodyBase, { profiles: readonly string[] }>['kind'] | 'profile' | 'plane' | 'section';

/** A body from profiles as plain data. */
export type BodyContent =
  | { readonly kind: 'drawn'; readonly paths: readonly Path[] }
  /** With lines at every `grid` mm from its middle. */
  | { readonly kind: 'sheet'; readonly size: number; readonly grid: number }
  | {
      readonly kind: 'raise';
      readonly paths: readonly Path[];
      readonly regions: Regions;
      readonly height: number;
      readonly down: number;
      readonly draft: number;
      readonly ends: Ends;
    }
  | {
      readonly kind: 'revolve';
      readonly paths: readonly Path[];
      readonly regions: Regions;
      readonly point: Vec2;
      /** Degrees from X towards Y. */
      readonly direction: number;
      readonly angle: number;
      readonly half: 'whole' | 'left' | 'right';
      readonly ends: Ends;
    }
  | {
      readonly kind: 'loft';
      readonly sections: readonly Section[];
      /** Curves from the first section to the last. */
      readonly guides: readonly Section[];
      readonly flanks: 'ruled' | 'smooth';
      readonly closed: boolean;
      /** How far each start is moved along its outline, mm. */
      readonly starts: readonly number[];
      readonly ends: Ends;
    }
  | {
      readonly kind: 'sweep';
      /** The path. */
      readonly paths: readonly Path[];
      readonly section: readonly Path[];
      readonly corners: 'square' | 'round';
      readonly up: Vec3;
      /** Degrees, from the start to the end. */
      readonly twist: number;
      readonly scale: number;
      readonly ends: Ends;
    }
  /** Curves in space that run round a surface. */
  | { readonly kind: 'fill'; readonly sections: readonly Section[] }
  | {
      readonly kind: 'wall';
      readonly paths: readonly Path[];
      /** From start to end, as they were given: what openings are measured along. */
      readonly legs: readonly Curve[];
      readonly thickness: number;
      readonly height: number;
      readonly side: BodyOf<'wall'>['side'];
      readonly openings: readonly OpeningContent[];
    }
  /** What refers to nothing: its numbers as they are. */
  | Valued<Exclude<BodyBase, { kind: Referring }>>
  /** It cannot be built, and this is why. */
  | {
      readonly kind: 'fault';
      readonly fault: Fault;
      readonly places: readonly Vec3[];
    };

const KINDS: ReadonlySet<string> = new Set([...BODIES.map(({ kind }) => kind), 'drawn', 'sheet', 'fault']);
/** Whether content is of a body from profiles. */
export const isBodyContent = (content: { readonly kind: string }): content is BodyContent =>
  KINDS.has(content.kind);

type OwnBase = Exclude<BodyBase, { kind: 'section' }>;

const sweepContent = (document: KadrelDocument, base: Extract<OwnBase, { kind: 'sweep' }>): BodyContent => {
  const [path, section] = base.profiles;
  return {
    kind: 'sweep',
    paths: pathsOf(document, path),
    section: onDatum(document, section),
    corners: base.corners,
    up: base.up === undefined || base.up === 'plane' ? [0, 0, 1] : base.up,
    twist: valueOf(base.twist ?? 0),
    scale: base.scale ?? 1,
    ends: base.ends ?? 'capped',
  };
};

const wallContent = (document: KadrelDocument, base: Extract<OwnBase, { kind: 'wall' }>): BodyContent => ({
  kind: 'wall',
  paths: pathsOf(document, base.profiles[0]),
  legs: legsOf(document, base.profiles[0]),
  thickness: valueOf(base.thickness),
  height: valueOf(base.height),
  side: base.side,
  openings: valued(base.openings),
});

/** Of all but section planes, which follow what they cut. */
export function bodyContent(document: KadrelDocument, { id, recipe }: Part, base: OwnBase): BodyContent {
  // Only profiles have edits that can fail; what is made from one whose edits do says so.
  const failed = referencesIn({ base, steps: recipe.steps }).find((one) => drawnOf(document, one).fault);
  if (failed !== undefined) {
    const frame = inverse(worldFromPart(document, id));
    return profileFault(document, failed, chain(frame, worldFromPart(document, failed)));
  }
  switch (base.kind) {
    case 'profile': {
      const { paths, fault } = drawnOf(document, id);
      return fault ? profileFault(document, id, AT_ORIGIN) : { kind: 'drawn', paths };
    }
    case 'plane':
      return { kind: 'sheet', size: valueOf(base.size), grid: document.scene.grid };
    case 'raise':
      return onPlane(document, base.profiles, (paths) => raiseContent(base, paths));
    case 'revolve':
      return onPlane(document, base.profiles, (paths) => revolveContent(base, paths));
    case 'loft':
      return loftContent(document, base);
    case 'sweep':
      return sweepContent(document, base);
    case 'fill':
      return { kind: 'fill', sections: sectionsOf(document, base.profiles) };
    case 'wall':
      return wallContent(document, base);
    default:
      return valued(base);
  }
}

const raiseContent = (base: BodyOf<'raise'>, paths: readonly Path[]): BodyContent => ({
  kind: 'raise',
  paths,
  regions: base.regions,
  height: valueOf(base.height),
  down: valueOf(base.down),
  draft: valueOf(base.draft),
  ends: base.ends ?? 'capped',
});

const revolveContent = (base: BodyOf<'revolve'>, paths: readonly Path[]): BodyContent => ({
  kind: 'revolve',
  paths,
  regions: base.regions,
  point: [valueOf(base.axis.point[0]), valueOf(base.axis.point[1])],
  direction: valueOf(base.axis.angle),
  angle: valueOf(base.angle),
  half: base.half,
  ends: base.ends ?? 'capped',
});

function loftContent(document: KadrelDocument, base: BodyOf<'loft'>): BodyContent {
  const all = sectionsOf(document, base.profiles);
  const { sections, starts, closed } = loftWays(base);
  return {
    kind: 'loft',
    sections: all.slice(0, sections.length),
    guides: all.slice(sections.length),
    flanks: base.flanks,
    closed,
    starts: starts.map(valueOf),
    ends: base.ends ?? 'capped',
  };
}

/** @param pose of the profile in the frame of what is built */
function profileFault(document: KadrelDocument, id: ItemId, pose: Pose): BodyContent {
  const { fault } = drawnOf(document, id);
  return {
    kind: 'fault',
    fault: faultOf('profile.step', {
      step: fault!.step + 1,
      name: document.items[id]!.name,
      why: fault!.why.message,
    }),
    places: fault!.at ? [carry(pose, [...fault!.at, 0])] : [],
  };
}

/** Curves of a profile, shifted so that its datum is the origin. */
function onDatum(document: KadrelDocument, id: ItemId): Path[] {
  const part = document.items[id]!;
  const [x, y] = datumInPart(part, () => undefined, definitionOf(document, part).recipe.base) ?? [0, 0];
  const shifted: Affine2 = { x: [1, 0], y: [0, 1], shift: [-x, -y] };
  return pathsOf(document, id).map(({ closed, curves }) => ({
    closed,
    curves: curves.map(({ name, curve }) => ({ name, curve: carryCurve(shifted, curve) })),
  }));
}

/** The legs of a traverse, closing ones too; of other figures their straight curves, or all where none is straight. */
function legsOf(document: KadrelDocument, id: ItemId): Curve[] {
  const { base, steps } = definitionOf(document, document.items[id]!).recipe;
  if (base.kind !== 'profile') return [];
  if (base.figure.kind === 'traverse' && steps.length === 0) {
    const { legs, closing } = traverseOf(base.figure);
    return [...legs, ...closing].map(({ from, to, sweep }) =>
      sweep === 0 ? line(from, to) : arcOnChord(from, to, sweep),
    );
  }
  const curves = pathsOf(document, id).flatMap((path) => path.curves.map(({ curve }) => curve));
  const straight = curves.filter(({ kind }) => kind === 'line');
  return straight.length > 0 ? straight : curves;
}

function onPlane(
  document: KadrelDocument,
  ids: readonly ItemId[],
  make: (paths: readonly Path[]) => BodyContent,
): BodyContent {
  const paths = pathsOnPlane(document, ids);
  if (paths) return make(paths);
  const names = ids.map((id) => document.items[id]!.name).join(', ');
  return {
    kind: 'fault',
    fault: faultOf('profile.several-planes', { names }),
    places: [],
  };
}
