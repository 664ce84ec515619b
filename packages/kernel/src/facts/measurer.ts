/** Measures, boxes and ranges of built solids. Those of stretched solids are taken from the unstretched ones, exactly. */
import {
  NO_TURN,
  applyMatrix,
  determinant,
  length,
  scale,
  transposed,
  turnBack,
  type Box,
  type Turn,
  type Vec3,
} from '@kadrel/core';
import type { Content } from '../content/content.ts';
import { moved, type Occt } from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';
import { exactBox, reachesOf, type Range } from './extent.ts';
import { drawnMeasures, measureShape, withTouching, type Measures } from './measure.ts';
import { AXIS_DIRECTIONS } from './wholes.ts';

/** Where the solids come from that stretched ones are images of. Throws BuildError. */
interface Solids {
  built(content: Content): NamedShape;
  measuresOf(content: Content): Measures;
}

/** Measures shapes, and keeps what it has measured. */
export class Measurer {
  constructor(
    private readonly occt: Occt,
    private readonly solids: Solids,
  ) {}

  /** In the solid's own frame. */
  measure(named: NamedShape): Measures {
    return this.completed(named, this.measureFirst(named));
  }

  /** What a check needs: it must not wait for whether solids touch, which no wrong result is worth. */
  measureFirst({ shape, unstretched: image, drawn }: NamedShape): Measures {
    if (drawn) return drawnMeasures(drawn);
    const own = measureShape(this.occt, shape);
    if (!image) return own;
    const plain = this.solids.measuresOf(image.content);
    return {
      ...own,
      volume: plain.volume * determinant(image.map),
      centroid: applyMatrix(image.map, plain.centroid),
      box: this.boxOf({ shape, faceNames: [], unstretched: image }, NO_TURN),
    };
  }

  completed({ shape }: NamedShape, measures: Measures): Measures {
    return withTouching(this.occt, shape, measures);
  }

  /** The exact box of a shape under a turn. */
  boxOf(named: NamedShape, turn: Turn): Box {
    if (!named.unstretched) {
      const turned = moved(this.occt, named.shape, { turn, shift: [0, 0, 0] });
      try {
        return exactBox(this.occt, turned);
      } finally {
        turned.delete();
      }
    }
    const ranges = AXIS_DIRECTIONS.map((axis) => this.rangeOf(named, turnBack(turn, axis)));
    return {
      min: ranges.map(([least]) => least) as unknown as Vec3,
      max: ranges.map(([, most]) => most) as unknown as Vec3,
    };
  }

  /** Least and greatest coordinate of a shape along a direction, in its own frame. */
  rangeOf(named: NamedShape, direction: Vec3): Range {
    const image = named.unstretched;
    if (!image) return reachesOf(this.occt, named.shape, [direction])[0]!;
    // What a map carries reaches as far along d as what it carries reaches along the transposed map's image of d.
    const back = applyMatrix(transposed(image.map), direction);
    const size = length(back);
    const [least, most] = this.rangeOf(this.solids.built(image.content), scale(back, 1 / size));
    return [least * size, most * size];
  }
}
