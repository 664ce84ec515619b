/** Lines that are a few pixels broad: what a statement has gathered, over the thin outlines of what is selected. */
import type { Color } from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';

const WIDTH_PX = 4;

export class BroadLines {
  private readonly ink = new LineMaterial({ linewidth: WIDTH_PX, depthTest: false });
  readonly object = new LineSegments2(new LineSegmentsGeometry(), this.ink);

  constructor() {
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
