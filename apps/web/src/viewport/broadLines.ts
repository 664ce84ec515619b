/** Lines of a width in pixels over everything: what a statement has gathered, or the cage of a softened part. */
import type { Color } from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';

/** Lines that are drawn several pixels broad. */
export class BroadLines {
  private readonly ink: LineMaterial;
  readonly object: LineSegments2;

  constructor(widthPx: number) {
    this.ink = new LineMaterial({ linewidth: widthPx, depthTest: false });
    this.object = new LineSegments2(new LineSegmentsGeometry(), this.ink);
    this.object.visible = false;
    this.object.frustumCulled = false;
    this.object.renderOrder = 4;
  }

  paint(colour: Color): void {
    this.ink.color.copy(colour);
  }

  /** Ends of pieces in the world, mm; whether anything changed. */
  draw(lines: Float32Array): boolean {
    const was = this.object.visible;
    this.object.visible = lines.length > 0;
    if (lines.length > 0) {
      this.object.geometry.dispose();
      this.object.geometry = new LineSegmentsGeometry().setPositions(lines);
    }
    return was || this.object.visible;
  }

  dispose(): void {
    this.object.geometry.dispose();
    this.ink.dispose();
  }
}
