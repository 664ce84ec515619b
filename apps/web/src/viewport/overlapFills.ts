/** Where parts overlap at a cut: filled in the warning tone, in the views that the section plane cuts in. */
import { dot, type Cut, type ItemId, type Vec3 } from '@kadrel/core';
import { Color, Group } from 'three';
import { BESIDE_MM } from './cutShader.ts';
import { Sketching } from './sketching.ts';

/** Filled overlaps of the section planes that have some. */
export class OverlapFills {
  readonly group = new Group();
  private readonly fills = new Map<ItemId, Sketching>();
  /** A corner of each. */
  private readonly corners = new Map<ItemId, Vec3>();
  private readonly colour = new Color();

  paint(colour: Color): void {
    this.colour.copy(colour);
    for (const fill of this.fills.values()) fill.paint(colour);
  }

  /** Corners of facets in the world, by section planes; those of all others go. Whether anything is, or was, filled. */
  show(overlaps: ReadonlyMap<ItemId, Float32Array>): boolean {
    const were = this.fills.size;
    for (const [section, fill] of this.fills) {
      if (overlaps.has(section)) continue;
      this.group.remove(fill.group);
      fill.dispose();
      this.fills.delete(section);
      this.corners.delete(section);
    }
    for (const [section, corners] of overlaps) {
      this.of(section).fill([corners]);
      this.corners.set(section, [corners[0]!, corners[1]!, corners[2]!]);
    }
    for (const fill of this.fills.values()) fill.shade(['chosen']);
    return were + this.fills.size > 0;
  }

  /** For the view that is drawn next. Those of a plane that is being dragged are out of date. */
  cutBy(cuts: readonly Cut[]): void {
    for (const [section, { group }] of this.fills)
      group.visible = cuts.some((cut) => cut.section === section && isOn(cut, this.corners.get(section)!));
  }

  dispose(): void {
    this.show(new Map());
  }

  private of(section: ItemId): Sketching {
    const known = this.fills.get(section);
    if (known) return known;
    const made = new Sketching();
    made.paint(this.colour);
    this.fills.set(section, made);
    this.group.add(made.group);
    return made;
  }
}

/** In single precision, and a little before the plane. */
const isOn = ({ halves }: Cut, corner: Vec3): boolean => {
  const near = NEAR * Math.hypot(...corner) + 3 * BESIDE_MM;
  return halves.some(({ normal, offset }) => Math.abs(dot(normal, corner) - offset) < near);
};
/** Far above the rounding of single precision, and less than is seen. */
const NEAR = 1e-5;
