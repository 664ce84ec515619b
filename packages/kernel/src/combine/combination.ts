/** Combinations that hold: ways are tried in order, and the first whose result passes every check is taken. */
import { boxesMeet, boxSize, carry, faultOf, grownBy, type Box, type Fault, type Vec3 } from '@kadrel/core';
import type { CombineContent, Content, OperandContent } from '../content/content.ts';
import type { Measures } from '../facts/measure.ts';
import { displayChord, meshShape, type Mesh } from '../facts/mesh.ts';
import { boxGroups } from '../occt/boxGroups.ts';
import { BuildError, carryingPlaces, copied, release, translated, type Occt } from '../occt/occt.ts';
import { together } from '../build/compound.ts';
import { blocksOf, buildBlocks } from '../build/blocks.ts';
import { buildDrilled, drilledVolume, drillingOf } from '../build/drilled.ts';
import type { NamedShape } from '../naming/named.ts';
import { boxOfPart } from '../verify/bounds.ts';
import { isTrulyEmpty } from '../verify/byFacets.ts';
import type { Claim, ClaimFault, Part } from '../verify/claim.ts';
import type { CheckClock } from '../verify/clock.ts';
import { claimFault } from '../verify/combination.ts';
import { looseWords, loosenessOf, shortMm } from '../verify/looseness.ts';
import type { Field } from '../verify/distance.ts';
import { idleParts } from '../verify/effect.ts';
import type { FacetCache } from '../verify/facets.ts';
import { combinedField } from '../verify/field.ts';
import { nearCoincidence } from '../verify/near.ts';
import { samplesOf, type Sample } from '../facts/samples.ts';
import { NothingLeft, emptyFault, taggedNames } from '../booleans/operation.ts';
import { WAYS, type Way } from './ways.ts';

/** What a combination needs of whoever builds solids. All throw BuildError. */
export interface Site {
  readonly occt: Occt;
  readonly facets: FacetCache;
  readonly clock: CheckClock;
  /** A solid, verified, in its own frame; it stays the site's. */
  build(content: Content): NamedShape;
  /** An operand and all that is known of it. */
  partOf(operand: OperandContent): Omit<Part, 'id' | 'tag'>;
  measure(named: NamedShape, content: Content): Measures;
  /** All that a check needs of them, before `completed` adds what costs most. */
  measureFirst(named: NamedShape, content: Content): Measures;
  completed(named: NamedShape, measures: Measures): Measures;
}

/** Something worth knowing of a solid that holds. */
export type Notice =
  /** An operand that takes nothing out, or adds nothing: its tag, which is the id of an item. */
  | { readonly what: 'without effect'; readonly operand: string }
  /** `fuzzy`: parts that nearly touch were taken as touching. `loose`: edges are a little off their faces. */
  | { readonly what: 'fuzzy' | 'loose'; readonly words: string };

/** What a combination came to, and by which way. */
export interface Combined {
  readonly named: NamedShape;
  readonly measures: Measures;
  readonly mesh: Mesh;
  readonly samples: readonly Sample[];
  readonly notices: readonly Notice[];
}

/** A combination that no way builds so that it holds. */
export class CombineError extends BuildError {
  constructor(
    fault: Fault,
    places: readonly Vec3[],
    /** Tags of the operands to blame, which are ids of items. */
    readonly operands: readonly string[],
  ) {
    super(fault, places);
    this.name = 'CombineError';
  }

  protected override copiedAt(places: readonly Vec3[]): CombineError {
    return new CombineError(this.fault, places, this.operands);
  }
}

/** Throws BuildError: CombineError where no way holds, NothingLeft where nothing is left. */
export function buildCombined(site: Site, content: CombineContent): Combined {
  const operands = content.operands.map((one, i) => (i === 0 ? { ...one, tag: '' } : one));
  const parts = content.operands.map((operand, i) =>
    carryingPlaces(
      (place) => carry(operand.pose, place),
      () => ({ ...site.partOf(operand), id: operand.tag, tag: i === 0 ? '' : operand.tag }),
    ),
  );
  const boxes = parts.map(boxOfPart);
  if (content.how === 'intersect') {
    if (boxes.some((box) => boxes.some((other) => !areNear(box, other)))) throw emptyFault('intersect');
    return inOneGo(site, { ...content, operands }, parts);
  }
  return content.how === 'subtract'
    ? lessWhatIsNear(site, { ...content, operands }, { parts, boxes })
    : byGroups(site, { ...content, operands }, { parts, boxes });
}

/** Boxes farther apart than this (mm) have nothing to do with each other: ten times the kernel's tolerance. */
const NEAR_MM = 1e-6;
const areNear = (a: Box, b: Box): boolean => boxesMeet(a, grownBy(b, NEAR_MM));

/** What is far from the first operand takes nothing out of it. */
function lessWhatIsNear(
  site: Site,
  content: CombineContent,
  { parts, boxes }: { readonly parts: readonly Part[]; readonly boxes: readonly Box[] },
): Combined {
  const isKept = boxes.map((box, i) => i === 0 || areNear(boxes[0]!, box));
  const far = parts.filter((_, i) => !isKept[i]);
  const near = {
    ...content,
    operands: content.operands.filter((_, i) => isKept[i]),
  };
  const made =
    near.operands.length === 1
      ? asItIs(site, content.operands[0]!, parts[0]!)
      : inOneGo(
          site,
          near,
          parts.filter((_, i) => isKept[i]),
        );
  return { ...made, notices: [...made.notices, ...far.map(withoutEffect)] };
}

const withoutEffect = ({ id }: Part): Notice => ({ what: 'without effect', operand: id });

/** Operands that are far from one another become one part side by side; only those that meet are united. */
function byGroups(
  site: Site,
  content: CombineContent,
  { parts, boxes }: { readonly parts: readonly Part[]; readonly boxes: readonly Box[] },
): Combined {
  const groups = boxGroups(boxes, NEAR_MM);
  if (groups.length === 1 && parts.length > 1) return inOneGo(site, content, parts);
  const made = groups.map((members) =>
    members.length === 1
      ? asItIs(site, content.operands[members[0]!]!, parts[members[0]!]!)
      : inOneGo(
          site,
          { ...content, operands: members.map((i) => content.operands[i]!) },
          members.map((i) => parts[i]!),
        ),
  );
  if (made.length === 1) return made[0]!;
  const named = together(
    site.occt,
    made.map((one) => one.named),
  );
  return { ...finished(site, named, content), notices: made.flatMap(({ notices }) => notices) };
}

function asItIs(site: Site, operand: OperandContent, part: Part): Combined {
  const shape = copied(site.occt, site.build(operand.content).shape, operand.pose);
  const named: NamedShape = { shape, faceNames: taggedNames(part), isSound: true };
  return { ...finished(site, named, operand.content), notices: [] };
}

/** Facts of a result that needs no further check. */
function finished(site: Site, named: NamedShape, content: Content): Omit<Combined, 'notices'> {
  const measures = site.measure(named, content);
  const mesh = meshOf(site.occt, named, measures);
  return { named, measures, mesh, samples: samplesOf(site.occt, named.shape, mesh) };
}

const meshOf = (occt: Occt, { shape }: NamedShape, { box }: Measures): Mesh =>
  meshShape(occt, shape, displayChord(Math.hypot(...boxSize(box))));

/** Tries the ways. */
function inOneGo(site: Site, content: CombineContent, parts: readonly Part[]): Combined {
  const attempts = new Attempts(site, content, parts);
  for (const way of [...plainWays(site.occt, content), ...WAYS]) {
    const made = attempts.try(way);
    if (made) return made;
    if (attempts.isLooseForGood) break;
  }
  return attempts.lastResort();
}

/** By formula alone, where a combination is as simple as that. */
function* plainWays(occt: Occt, content: CombineContent): Generator<Way> {
  const drilling = drillingOf(content);
  if (drilling) yield { build: () => buildDrilled(occt, drilling), volumeMm3: drilledVolume(drilling) };
  const blocks = blocksOf(content);
  if (blocks) yield { build: () => buildBlocks(occt, blocks), volumeMm3: blocks.volume };
}

class Attempts {
  private readonly faults: ClaimFault[] = [];
  private readonly field: Field | undefined;
  private loose: { readonly made: Combined; readonly looseMm: number } | undefined;

  constructor(
    private readonly site: Site,
    private readonly content: CombineContent,
    private readonly parts: readonly Part[],
  ) {
    const fields = parts.map(({ field }) => field);
    this.field = fields.includes(undefined)
      ? undefined
      : combinedField(
          content.how,
          fields.map((one) => one!),
        );
  }

  /** The result of a way, if it holds. Throws NothingLeft where truly nothing is left. */
  try(way: Way): Combined | undefined {
    const { occt, facets, clock } = this.site;
    const named = this.built(way);
    if (!named) return undefined;
    const { fuzzMm = 0, volumeMm3 } = way;
    const measures = this.site.measureFirst(named, this.content);
    const mesh = meshOf(occt, named, measures);
    const samples = clock.time(() => samplesOf(occt, named.shape, mesh));
    const claim = this.claim({ result: named, measures, mesh, samples, fuzzMm, volumeMm3 });
    const fault = clock.time(() => claimFault(occt, facets, claim));
    if (fault) this.faults.push(fault);
    if (fault && fault.what !== 'loose') {
      release(occt, named.shape);
      return undefined;
    }
    const notices = [...noticesOf(way), ...idleParts(facets, claim).map(withoutEffect)];
    const made = { named, measures: this.site.completed(named, measures), mesh, samples, notices };
    if (!fault) return made;
    this.keepIfTighter(made);
    return undefined;
  }

  /** Other ways seldom lay tighter edges than the first few did. */
  get isLooseForGood(): boolean {
    return this.loose !== undefined && this.faults.filter(({ what }) => what === 'loose').length >= MAX_LOOSE;
  }

  /** Of results that are right but for edges that are a little off their faces, the tightest is kept. */
  private keepIfTighter(made: Combined): void {
    const { occt } = this.site;
    const looseMm = loosenessOf(occt, made.named.shape);
    if (looseMm > LOOSEST_MM || (this.loose && this.loose.looseMm <= looseMm)) {
      release(occt, made.named.shape);
      return;
    }
    if (this.loose) release(occt, this.loose.made.named.shape);
    this.loose = { made, looseMm };
  }

  /** The tightest of the results that were not tight enough, and what to know of it. Throws CombineError where there is none. */
  lastResort(): Combined {
    if (!this.loose) throw this.refusal();
    const { made, looseMm } = this.loose;
    return { ...made, notices: [...made.notices, { what: 'loose', words: looseWords(looseMm) }] };
  }

  private claim(
    found: Pick<Claim, 'result' | 'measures' | 'mesh' | 'samples' | 'fuzzMm' | 'volumeMm3'>,
  ): Claim {
    return { how: this.content.how, parts: this.parts, field: this.field, ...found };
  }

  private built(way: Way): NamedShape | undefined {
    const { occt } = this.site;
    const context = {
      occt,
      content: this.content,
      field: this.field,
      build: (one: Content) => this.site.build(one),
    };
    try {
      return way.build(context);
    } catch (error) {
      // Whatever the kernel throws is one way that failed; a trap of its memory is not caught here.
      const failure = translated(occt, error);
      if (!(failure instanceof BuildError)) throw failure;
      if (
        failure instanceof NothingLeft &&
        isTrulyEmpty(this.site.facets, { how: this.content.how, parts: this.parts }, this.field)
      )
        throw failure;
      return undefined;
    }
  }

  /** Why no way holds. */
  refusal(): BuildError {
    const near = nearCoincidence(this.parts);
    if (near)
      return new CombineError(
        faultOf('combine.nearly-coincide', { gap: shortMm(near.gapMm) }),
        near.places,
        near.operands,
      );
    const places = this.faults.flatMap((fault) => fault.places).slice(0, MAX_PLACES);
    return new CombineError(
      faultOf('combine.no-way', {}),
      places,
      this.parts.map(({ id }) => id),
    );
  }
}
const MAX_PLACES = 12;
/** Edges farther off their faces than this (mm) are nowhere good enough. */
const LOOSEST_MM = 1e-4;
const MAX_LOOSE = 2;

const noticesOf = ({ words }: Way): Notice[] => (words === undefined ? [] : [{ what: 'fuzzy', words }]);
