/** What the kernel makes of a content, and what is known of it: facts for the page, snaps, measures, boxes. All throw BuildError. */
import { add, carryBox, isQuarterTurn, snapShape, type Box, type Pose, type SnapShape } from '@kadrel/core';
import type { BuildWatch } from './buildWatch.ts';
import { Builder, type Libraries } from './builder.ts';
import type { Notice } from './combine/combination.ts';
import type { Content } from './content/content.ts';
import { keyOf } from './content/key.ts';
import { featuresOf } from './facts/features.ts';
import type { Measures } from './facts/measure.ts';
import type { RangeOf } from './facts/wholes.ts';
import type { NamedShape } from './naming/named.ts';
import { translated, type Occt } from './occt/occt.ts';

/** Everything the page knows of a shape: measures, and packed arrays for drawing, picking and snapping. */
export interface ShapeFacts {
  readonly key: string;
  readonly measures: Measures;
  readonly snaps: SnapShape;
  /** 3·V, outward, beside `snaps.positions`. */
  readonly normals: Float32Array;
  /** 6·L: ends of the pieces of all outlines. */
  readonly outline: Float32Array;
  /** What should be known of how it came about. */
  readonly notices: readonly Notice[];
  /** How many of its steps, or of those of what it is made of, could not be done. */
  readonly failedSteps: number;
}

/** The builder, with its errors translated, and what is derived from what it builds. */
export class Shapes {
  readonly builder: Builder;
  private readonly occt: Occt;
  private readonly snaps = new WeakMap<NamedShape, SnapShape>();

  constructor(libraries: Libraries, watch?: BuildWatch) {
    this.builder = new Builder(libraries, watch);
    this.occt = libraries.occt;
  }

  /** The verified shape of a content. @param used gathers the keys that it rests on */
  shapeOf(content: Content, used?: Set<string>): NamedShape {
    return this.guarded(() => this.builder.shapeOf(content, used));
  }

  measuresOf(content: Content): Measures {
    return this.guarded(() => this.builder.measuresOf(content));
  }

  /** Points, edges, faces and facets of a content; those of sheets and of fit are asked for again and again. */
  snapsOf(content: Content): SnapShape {
    const named = this.shapeOf(content);
    const known = this.snaps.get(named) ?? this.factsOf(content).snaps;
    this.snaps.set(named, known);
    return known;
  }

  /** Everything the page knows of a content. */
  factsOf(content: Content): ShapeFacts {
    return this.guarded(() => {
      const named = this.builder.shapeOf(content);
      const measures = this.builder.measuresOf(content);
      const mesh = this.builder.takeMesh(content);
      const { outline, ...features } = featuresOf(this.occt, named, mesh);
      const key = keyOf(content);
      return {
        key,
        measures,
        snaps: snapShape(features),
        normals: mesh.normals,
        outline,
        notices: this.builder.noticesOf(content),
        failedSteps: this.builder.failedOf(content).length,
      };
    });
  }

  /** The exact box of a content in the world. */
  boxAt(content: Content, pose: Pose): Box {
    const own = this.measuresOf(content).box;
    if (isQuarterTurn(pose.turn)) return carryBox(pose, own);
    const { min, max } = this.builder.measurer.boxOf(this.shapeOf(content), pose.turn);
    return { min: add(min, pose.shift), max: add(max, pose.shift) };
  }

  /** Least and greatest coordinate along a direction, as the measures of wholes ask for it. */
  readonly range: RangeOf = (named, direction) => this.builder.measurer.rangeOf(named, direction);

  /** Errors of the kernel as errors that say something. */
  guarded<T>(work: () => T): T {
    try {
      return work();
    } catch (error) {
      throw translated(this.occt, error);
    }
  }
}
