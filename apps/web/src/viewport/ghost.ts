/** The solid that is being drawn, before it is built. Its arrays are made once and filled anew at every move. */
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  type Color,
} from 'three';
import type { Pose } from '@kadrel/core';
import type { Stack } from './ghostShape.ts';

/** Room for triangles and for pieces of lines; what is larger is shown as far as it fits. */
const MAX_TRIANGLES = 60_000;
const MAX_LINES = 20_000;

/** An array of positions that grows to a limit. */
class Positions {
  readonly geometry = new BufferGeometry();
  private array: Float32Array;
  private length = 0;

  constructor(count: number) {
    this.array = new Float32Array(3 * count);
    this.geometry.setAttribute('position', new BufferAttribute(this.array, 3));
  }

  begin(): void {
    this.length = 0;
  }

  add(x: number, y: number, z: number): void {
    if (this.length + 3 > this.array.length) return;
    this.array[this.length++] = x;
    this.array[this.length++] = y;
    this.array[this.length++] = z;
  }

  end(): void {
    this.geometry.setDrawRange(0, this.length / 3);
    this.geometry.getAttribute('position').needsUpdate = true;
  }
}

/** A solid that is being drawn. */
export class Ghost {
  readonly group = new Group();
  private readonly faces = new Positions(3 * MAX_TRIANGLES);
  private readonly edges = new Positions(2 * MAX_LINES);
  private readonly surface = new MeshLambertMaterial({
    transparent: true,
    opacity: 0.3,
    side: DoubleSide,
    depthWrite: false,
    flatShading: true,
  });
  private readonly ink = new LineBasicMaterial();

  /** The one that is being filled in. */
  private stack: Stack = { rings: [], isEdged: false };

  constructor() {
    const solid = new Mesh(this.faces.geometry, this.surface);
    const lines = new LineSegments(this.edges.geometry, this.ink);
    for (const object of [solid, lines]) object.frustumCulled = false;
    this.group.add(solid, lines);
    this.group.matrixAutoUpdate = false;
    this.group.visible = false;
  }

  paint(colour: Color): void {
    this.surface.color.copy(colour);
    this.ink.color.copy(colour);
  }

  /** Returns whether the picture must be drawn anew. */
  show(stacks: readonly Stack[] | null, at?: Pose): boolean {
    const was = this.group.visible;
    this.group.visible = stacks !== null;
    if (!stacks || !at) return was;
    const [a, b, c, d, e, f, g, h, i] = at.turn;
    const [x, y, z] = at.shift;
    this.group.matrix.set(a, b, c, x, d, e, f, y, g, h, i, z, 0, 0, 0, 1);
    this.group.matrixWorldNeedsUpdate = true;
    this.faces.begin();
    this.edges.begin();
    for (const stack of stacks) this.fill(stack);
    this.faces.end();
    this.edges.end();
    return true;
  }

  private fill(stack: Stack): void {
    this.stack = stack;
    const { rings, isLoop } = stack;
    const count = rings[0]!.corners.length;
    const bands = isLoop ? rings.length : rings.length - 1;
    for (let ring = 0; ring < bands; ring++)
      for (let k = 0; k < count; k++) {
        this.addCorner(this.faces, ring, k);
        this.addCorner(this.faces, ring, k + 1);
        this.addCorner(this.faces, ring + 1, k + 1);
        this.addCorner(this.faces, ring, k);
        this.addCorner(this.faces, ring + 1, k + 1);
        this.addCorner(this.faces, ring + 1, k);
      }
    if (!isLoop) {
      this.fillLid(0);
      this.fillLid(rings.length - 1);
    }
    this.drawEdges();
  }

  private fillLid(ring: number): void {
    for (let k = 1; k + 1 < this.stack.rings[ring]!.corners.length; k++) {
      this.addCorner(this.faces, ring, 0);
      this.addCorner(this.faces, ring, k);
      this.addCorner(this.faces, ring, k + 1);
    }
  }

  /** Rings that show the form: all of a few, and of many every fourth. */
  private drawEdges(): void {
    const { rings, isEdged } = this.stack;
    const count = rings[0]!.corners.length;
    const every = rings.length > 4 ? 4 : 1;
    for (let ring = 0; ring < rings.length; ring += every)
      for (let k = 0; k < count; k++) {
        this.addCorner(this.edges, ring, k);
        this.addCorner(this.edges, ring, k + 1);
      }
    if (!isEdged && every === 1) return;
    for (let k = 0; k < count; k += isEdged ? 1 : count / 4)
      for (let ring = 0; ring + 1 < rings.length; ring++) {
        this.addCorner(this.edges, ring, k);
        this.addCorner(this.edges, ring + 1, k);
      }
  }

  /** A corner of a ring; after the last of them comes the first. */
  private addCorner(into: Positions, ring: number, corner: number): void {
    const { rings } = this.stack;
    const { corners, scale, z } = rings[ring % rings.length]!;
    const at = corners[corner % corners.length]!;
    into.add(scale * at[0], scale * at[1], z);
  }

  dispose(): void {
    for (const { geometry } of [this.faces, this.edges]) geometry.dispose();
    this.surface.dispose();
    this.ink.dispose();
  }
}
