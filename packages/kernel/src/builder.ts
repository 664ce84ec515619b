/**
 * Content → verified solids. Every content has a key; a cache maps keys to what was built, and holds only what has passed its check.
 */
import { AT_ORIGIN, faultOf, type Vec3 } from '@kadrel/core';
import { buildCombined, type Combined, type Notice, type Site } from './combine/combination.ts';
import { buildCutBy } from './combine/cutBy.ts';
import { isStep, type Content, type OperandContent, type StepContent } from './content/content.ts';
import { keyOf } from './content/key.ts';
import { Measurer } from './facts/measurer.ts';
import type { Measures } from './facts/measure.ts';
import { displayChord, meshShape, type Mesh } from './facts/mesh.ts';
import { BuildWatch } from './buildWatch.ts';
import { BuildError, carryingPlaces, copied, translated, type Occt } from './occt/occt.ts';
import { buildCutFaces } from './combine/section.ts';
import { buildBase, buildStep, isPlain, placeAfter } from './build/index.ts';
import { buildJoined } from './build/steps/joined.ts';
import type { NamedShape } from './naming/named.ts';
import { unstretched } from './content/unstretched.ts';
import { SolidCache, type FailedStep, type Held } from './solidCache.ts';
import { requireBody } from './verify/body.ts';
import { bodyField } from './verify/bodyField.ts';
import type { Part } from './verify/claim.ts';
import { plainVolumeOf } from './facts/integrals.ts';
import { CheckClock } from './verify/clock.ts';
import { LOOSE_MM, looseWords, loosenessOf, widestGap } from './verify/looseness.ts';
import { FacetCache, plainVolume, type Facetter, type PlainMesh } from './verify/facets.ts';
import type { Field } from './verify/distance.ts';
import { fieldOf, placedField } from './verify/field.ts';
import { meshField } from './verify/meshField.ts';
import { plainSamples } from './verify/plainSamples.ts';
import { coarseSamples, samplesOf, type Sample } from './facts/samples.ts';

/** The libraries that the kernel rests on. */
export interface Libraries {
  readonly occt: Occt;
  readonly facetter: Facetter;
}

/** Builds content into solids, from what it has built before where it can. */
export class Builder {
  readonly cache: SolidCache;
  /** Exact boxes and extents of shapes, beside their measures. */
  readonly measurer: Measurer;
  private readonly facets: FacetCache;
  readonly occt: Occt;
  /** What checks have cost so far. */
  readonly clock = new CheckClock();

  constructor(
    { occt, facetter }: Libraries,
    private readonly watch = new BuildWatch(),
  ) {
    this.occt = occt;
    this.cache = new SolidCache(occt);
    this.measurer = new Measurer(occt, {
      built: (content) => this.shapeOf(content),
      measuresOf: (content) => this.measuresOf(content),
    });
    this.facets = new FacetCache(facetter, (content) => this.plainMesh(content));
  }

  /** The verified shape of a content; it stays the builder's. Throws BuildError. @param used gathers the keys that it rests on */
  shapeOf(content: Content, used = new Set<string>()): NamedShape {
    return this.held(content, used).named;
  }

  /** Throws BuildError. */
  measuresOf(content: Content): Measures {
    const held = this.held(content);
    return (held.measures ??= this.measurer.measure(held.named));
  }

  /** What should be known of how a content, or what it is made of, came about. */
  noticesOf(content: Content): readonly Notice[] {
    return this.held(content).notices;
  }

  /** Steps, of it or of what it is made of, that could not be done. */
  failedOf(content: Content): readonly FailedStep[] {
    return this.held(content).failed;
  }

  /** Facets for display; the caller may give their memory away. */
  takeMesh(content: Content): Mesh {
    const held = this.held(content);
    const mesh = held.mesh ?? this.meshOf(held);
    held.mesh = undefined;
    return mesh;
  }

  private readonly facetsOf = (held: Held): Mesh => (held.facets ??= this.meshOf(held));

  private meshOf({ named, content }: Held): Mesh {
    const { min, max } = this.measuresOf(content).box;
    const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
    return meshShape(this.occt, named.shape, displayChord(size));
  }

  private held(content: Content, used = new Set<string>()): Held {
    const key = keyOf(content);
    used.add(key);
    const known = this.cache.get(key);
    if (known) return known;
    const held = isStep(content)
      ? this.afterStep(content, used)
      : this.blaming(content, () => this.checked(content, used));
    this.cache.set(key, held);
    return held;
  }

  /** A step that cannot be done leaves what it was to be done to. Throws BuildError where there is not even that. */
  private afterStep(content: StepContent, used: Set<string>): Held {
    const before = carryingPlaces(placeAfter(content), () => this.held(content.of, used));
    try {
      return this.blaming(content, () => this.checked(content, used));
    } catch (error) {
      if (!(error instanceof BuildError)) throw error;
      const named = { ...before.named, shape: copied(this.occt, before.named.shape, AT_ORIGIN) };
      const failed = [...before.failed, { key: keyOf(content), error: this.somewhere(error, before) }];
      return { ...before, content, named, mesh: undefined, failed };
    }
  }

  /** A failure that is at no single place is shown in the middle of what it is about. */
  private somewhere(error: BuildError, { content }: Held): BuildError {
    if (error.places.length > 0) return error;
    const { min, max } = this.measuresOf(content).box;
    return error.placedAt([[0, 1, 2].map((i) => (min[i]! + max[i]!) / 2) as unknown as Vec3]);
  }

  /** Built and verified. Throws BuildError. */
  private checked(content: Content, used: Set<string>): Held {
    // What is as simple as that stops no kernel, and there are thousands of them.
    return isPlain(content)
      ? this.builtAndVerified(content, used)
      : this.watch.over(keyOf(content), () => this.builtAndVerified(content, used));
  }

  private builtAndVerified(content: Content, used: Set<string>): Held {
    const made = this.clock.pause(() => this.make(content, used));
    const named: NamedShape = {
      ...made.named,
      unstretched: unstretched(content),
      drawn: content.kind === 'drawn' ? content.paths : made.named.drawn,
    };
    const held: Held = { ...made, named, content };
    // What is combined is checked while it is made.
    if (!CHECKED_AS_MADE.has(content.kind)) this.clock.time(() => this.verify(held));
    return held;
  }

  /** A failure of a step says which one it was. */
  private blaming<T>(content: Content, work: () => T): T {
    try {
      return work();
    } catch (thrown) {
      const error = translated(this.occt, thrown);
      if (isStep(content) && error instanceof BuildError) error.failedStep ??= keyOf(content);
      throw error;
    }
  }

  private make(content: Content, used: Set<string>): Omit<Held, 'content'> {
    if (content.kind === 'combine') {
      const made = this.combined(content, used);
      return { ...made, failed: content.operands.flatMap((one) => this.held(one.content, used).failed) };
    }
    if (content.kind === 'section' || content.kind === 'sectioned')
      return { named: this.cutFaces(content, used), notices: [], failed: [] };
    if (!isStep(content)) {
      const base = buildBase(this.occt, content);
      // What a settled solid was made of is gone: it is shown, and told, however it is.
      const allowedMm = () => (content.kind === 'settled' ? Infinity : 0);
      return { named: base, notices: isPlain(content) ? [] : this.looseness(base, allowedMm), failed: [] };
    }
    const { named, notices, failed } = this.held(content.of, used);
    if ('tool' in content) {
      const tool = this.held(content.tool.content, used);
      const made = content.kind === 'cutBy' ? this.cutBy(content, used) : this.joined(content, tool);
      return {
        ...made,
        notices: [...notices.filter(isOfAll), ...made.notices],
        failed: [...failed, ...tool.failed],
      };
    }
    const made = buildStep(this.occt, named, content);
    // Gaps that were to be closed stay in what comes after.
    const allowedMm = () => SAMPLED_ROOM * loosenessOf(this.occt, named.shape);
    return { named: made, notices: [...notices.filter(isOfAll), ...this.looseness(made, allowedMm)], failed };
  }

  /** Where faces can only be followed nearly. Throws BuildError where that is not near enough. */
  private looseness({ shape }: NamedShape, allowedMm: () => number): Notice[] {
    const { mm, at } = widestGap(this.occt, shape);
    if (mm > MAX_GAP_MM && mm > allowedMm())
      throw new BuildError(faultOf('body.loose', { mm: Number(mm.toPrecision(2)) }), at ? [at] : []);
    return mm > LOOSE_MM ? [{ what: 'loose', words: looseWords(mm) }] : [];
  }

  private cutBy(content: StepOf<'cutBy'>, used: Set<string>): Combined {
    return buildCutBy(this.site(used), content, this.measuresOf(content.of));
  }

  /** What gaps were closed by is reported. */
  private joined({ of, tool: { pose, tag }, gap }: StepOf<'joined'>, { named: other }: Held) {
    const named = buildJoined(this.occt, this.held(of).named, { other, pose, tag, gap });
    const looseMm = loosenessOf(this.occt, named.shape);
    const words = `Gaps of up to ${looseMm.toPrecision(2)} mm were closed: edges there are only that near to their faces.`;
    return { named, notices: looseMm > REPORTED_GAP_MM ? [{ what: 'fuzzy' as const, words }] : [] };
  }

  /** Faces that a plane cuts, of one solid or of all. */
  private cutFaces(content: KindOf<'section' | 'sectioned'>, used: Set<string>): NamedShape {
    return buildCutFaces(content, {
      occt: this.occt,
      build: (inner) => this.shapeOf(inner, used),
      measure: (inner) => this.measuresOf(inner),
      mesh: (inner) => this.facetsOf(this.held(inner, used)),
    });
  }

  private combined(content: Extract<Content, { kind: 'combine' }>, used: Set<string>): Combined {
    return buildCombined(this.site(used), content);
  }

  private site(used: Set<string>): Site {
    return {
      occt: this.occt,
      facets: this.facets,
      clock: this.clock,
      build: (inner) => this.shapeOf(inner, used),
      partOf: (operand) => this.partOf(operand, used),
      measure: (named, of) => this.measurer.measure({ ...named, unstretched: unstretched(of) }),
      measureFirst: (named, of) => this.measurer.measureFirst({ ...named, unstretched: unstretched(of) }),
      completed: (named, measures) => this.measurer.completed(named, measures),
    };
  }

  /** Throws BuildError where what was built is not what was said. Surfaces enclose nothing that could be checked. */
  private verify(held: Held): void {
    const { content, named } = held;
    if (isPlain(content)) {
      if (!(Math.abs(plainVolumeOf(this.occt, named.shape) / plainVolume(content) - 1) < PLAIN_VOLUME))
        throw notWhatItSays();
      return;
    }
    const measures = (held.measures = this.measurer.measure(named));
    if (measures.solids === 0) return;
    const mesh = (held.mesh = meshShape(this.occt, named.shape, displayChord(diagonal(measures))));
    const field = bodyField(content);
    // Points are held against a formula; where there is none, nothing asks for them yet.
    const samples = field ? (held.samples = samplesOf(this.occt, named.shape, mesh)) : [];
    requireBody(this.occt, { named, measures, mesh, samples, field });
  }

  private partOf({ content, pose }: OperandContent, used: Set<string>): Omit<Part, 'id' | 'tag'> {
    const held = this.held(content, used);
    const measures = this.measuresOf(content);
    const { facets, clock } = this;
    const { field, samples } = clock.time(() => ({
      field: fieldOf(content, (other) => this.fieldByFacets(other)),
      samples: this.samplesOf(held),
    }));
    return {
      pose,
      field: field && placedField(field, pose),
      measures,
      faceNames: held.named.faceNames,
      samples,
      facets: () => clock.time(() => facets.of(content)),
    };
  }

  private samplesOf(held: Held): readonly Sample[] {
    const { named, content } = held;
    return (held.samples ??= isPlain(content)
      ? plainSamples(content, named.faceNames)
      : coarseSamples(this.occt, named.shape, diagonal(this.measuresOf(content))));
  }

  private fieldByFacets(content: Content): Field | undefined {
    const held = this.held(content);
    if (this.measuresOf(content).solids === 0) return undefined;
    return (held.field ??= meshField(this.meshOf(held)));
  }

  /** The kernel's own facets of a solid that no formula lays out. */
  private plainMesh(content: Content): PlainMesh {
    const held = this.held(content);
    const { positions, triangles, chordMm } = this.meshOf(held);
    const { area, volume } = this.measuresOf(content);
    return { positions, triangles, chordMm, area, volume };
  }
}

/** Relative error of the volume of a plain solid. */
const PLAIN_VOLUME = 1e-9;

/** Edges farther off their faces than this (mm) bound no solid: the kernel calls sound whatever it has allowed itself. */
const MAX_GAP_MM = 1e-3;
/** A shortened edge is looked at in other points, where the same gap may be wider. */
const SAMPLED_ROOM = 2;

/** Gaps wider than this (mm) are reported: ten times what the kernel allows anyway. */
const REPORTED_GAP_MM = 1e-6;

/** What still holds after a step: how loose its edges are is told anew. */
const isOfAll = ({ what }: Notice): boolean => what !== 'loose';

/** What is checked while it is made. */
const CHECKED_AS_MADE: ReadonlySet<string> = new Set(['combine', 'cutBy', 'section', 'sectioned']);

type KindOf<K extends Content['kind']> = Extract<Content, { readonly kind: K }>;
type StepOf<K extends StepContent['kind']> = Extract<StepContent, { readonly kind: K }>;

const notWhatItSays = () => new BuildError(faultOf('kernel.other-volume', {}));

const diagonal = ({ box: { min, max } }: Measures) =>
  Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
