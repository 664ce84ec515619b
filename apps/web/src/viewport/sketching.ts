/** What is being drawn: lines before they are a profile, and the regions that can be picked. */
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  Points,
  PointsMaterial,
  type Color,
} from 'three';
import type { Vec3 } from '@kadrel/core';

/** How strongly a region is shaded. */
const SHADES = { idle: 0.1, hovered: 0.3, chosen: 0.5 } as const;
export type Shade = keyof typeof SHADES;

export class Sketching {
  readonly group = new Group();
  private readonly ink = new LineBasicMaterial({ depthTest: false });
  private readonly ends = new PointsMaterial({ size: 8, sizeAttenuation: false, depthTest: false });
  private readonly lines = new LineSegments(new BufferGeometry(), this.ink);
  private readonly points = new Points(new BufferGeometry(), this.ends);
  private fills: Mesh<BufferGeometry, MeshBasicMaterial>[] = [];
  private colour: Color | null = null;

  constructor() {
    this.group.add(this.lines, this.points);
    for (const object of [this.lines, this.points]) {
      object.frustumCulled = false;
      object.renderOrder = 3;
      object.visible = false;
    }
  }

  paint(colour: Color): void {
    this.colour = colour;
    this.ink.color.copy(colour);
    this.ends.color.copy(colour);
    for (const { material } of this.fills) material.color.copy(colour);
  }

  /** Ends of line pieces in the world, and loose ends; whether anything changed. */
  draw(lines: Float32Array, loose: readonly Vec3[]): boolean {
    const was = this.lines.visible;
    this.lines.visible = lines.length > 0;
    this.points.visible = loose.length > 0;
    if (lines.length > 0) replace(this.lines.geometry, lines);
    if (loose.length > 0) replace(this.points.geometry, Float32Array.from(loose.flat()));
    return was || this.lines.visible;
  }

  /** Corners of triangles in the world, one list for each region; `through` shows them behind what hides them too. */
  fill(regions: readonly Float32Array[], seen: 'as it is' | 'through' = 'as it is'): void {
    for (const fill of this.fills) {
      this.group.remove(fill);
      fill.geometry.dispose();
      fill.material.dispose();
    }
    this.fills = regions.map((corners) => {
      const material = new MeshBasicMaterial({
        transparent: true,
        opacity: SHADES.idle,
        depthWrite: false,
        depthTest: seen === 'as it is',
        side: DoubleSide,
        polygonOffset: true,
        polygonOffsetFactor: -2,
        polygonOffsetUnits: -2,
      });
      if (this.colour) material.color.copy(this.colour);
      const mesh = new Mesh(new BufferGeometry(), material);
      replace(mesh.geometry, corners);
      mesh.frustumCulled = false;
      mesh.renderOrder = 2;
      this.group.add(mesh);
      return mesh;
    });
  }

  shade(shades: readonly Shade[]): void {
    this.fills.forEach(({ material }, i) => (material.opacity = SHADES[shades[i] ?? 'idle']));
  }

  dispose(): void {
    this.fill([]);
    this.lines.geometry.dispose();
    this.points.geometry.dispose();
    this.ink.dispose();
    this.ends.dispose();
  }
}

const replace = (geometry: BufferGeometry, positions: Float32Array) =>
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
