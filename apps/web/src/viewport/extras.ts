/** What is drawn in the scene besides the model: sketches, gathered edges, chosen faces, a cage, overlaps at cuts, walls in colours, and the ghost. */
import type { Color, Scene } from 'three';
import { BroadLines } from './broadLines.ts';
import { Ghost } from './ghost.ts';
import { OverlapFills } from './overlapFills.ts';
import { Sketching } from './sketching.ts';
import { WallColours } from './wallColours.ts';

/** Gathered edges are seen over the thin outlines of what is selected; a cage is thinner than those. */
const GATHERED_PX = 4;
const CAGE_PX = 1;

/** Each is shown and hidden by whoever it belongs to. */
export class Extras {
  /** What a Draw statement would leave, and regions to pick from. */
  readonly sketching = new Sketching();
  readonly gathered = new BroadLines(GATHERED_PX);
  /** The cage of a softened part. */
  readonly cage = new BroadLines(CAGE_PX);
  /** The chosen faces. */
  readonly marking = new Sketching();
  /** Where parts overlap at a cut, by section planes. */
  readonly overlaps = new OverlapFills();
  readonly walls = new WallColours();
  /** What is being made by the pointer. */
  readonly ghost = new Ghost();

  addTo(scene: Scene): void {
    scene.add(
      this.sketching.group,
      this.gathered.object,
      this.cage.object,
      this.marking.group,
      this.overlaps.group,
      this.walls.mesh,
      this.ghost.group,
    );
  }

  /** Takes on the colours of the theme. */
  paint({ plum, outline, bad }: Readonly<Record<'plum' | 'outline' | 'bad', Color>>): void {
    for (const one of [this.sketching, this.gathered, this.marking, this.ghost]) one.paint(plum);
    this.cage.paint(outline);
    this.overlaps.paint(bad);
  }

  dispose(): void {
    for (const one of [
      this.sketching,
      this.gathered,
      this.cage,
      this.marking,
      this.overlaps,
      this.walls,
      this.ghost,
    ])
      one.dispose();
  }
}
