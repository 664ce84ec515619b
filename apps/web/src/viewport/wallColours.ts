/** How thick a solid is, in colours over its faces. */
import { BufferAttribute, BufferGeometry, Color, DoubleSide, Mesh, MeshBasicMaterial } from 'three';
import type { ShownWalls } from '../session/fitState.ts';
import { bandOf, BANDS } from '../session/wallBands.ts';

/** Walls tinted by how thick they are. */
export class WallColours {
  private readonly material = new MeshBasicMaterial({
    vertexColors: true,
    side: DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -2,
  });
  readonly mesh = new Mesh(new BufferGeometry(), this.material);

  constructor() {
    this.mesh.frustumCulled = false;
    this.mesh.visible = false;
    this.mesh.renderOrder = 1;
  }

  show(walls: ShownWalls | null): void {
    this.mesh.visible = walls !== null;
    if (!walls) return;
    const { corners, sizes } = walls.map;
    const colours = new Float32Array(corners.length);
    const inks = BANDS.map(({ colour }) => new Color(colour));
    sizes.forEach((size, piece) => {
      const { r, g, b } = inks[bandOf(size, walls.limit)]!;
      for (let corner = 0; corner < 3; corner++) colours.set([r, g, b], 9 * piece + 3 * corner);
    });
    this.mesh.geometry.setAttribute('position', new BufferAttribute(corners, 3));
    this.mesh.geometry.setAttribute('color', new BufferAttribute(colours, 3));
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    this.material.dispose();
  }
}
