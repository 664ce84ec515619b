/**
 * Shaders of all that may come to be drawn, translated while the page has nothing else to do: the first frame that has a new one would
 * wait for it, and the page with that frame.
 */
import { BufferAttribute, BufferGeometry, Camera, Group, type Scene, type WebGLRenderer } from 'three';
import { whenIdle } from '../common/idle.ts';
import type { CutUniforms } from './cutShader.ts';
import { Sketching } from './sketching.ts';
import { QUIET_INK, SHEET, Solids } from './solids.ts';

/** Ways to draw solids that have shaders of their own. */
const LOOKS: readonly ((solids: Solids) => void)[] = [
  () => undefined,
  (solids) => {
    Object.assign(solids.surface, SHEET);
    Object.assign(solids.ink, QUIET_INK);
  },
  (solids) => {
    solids.draw({ isSurface: true, isOutline: true, isSolid: true });
    solids.cutBy({ mask: 0, isParted: true });
  },
];

/** Holds a sample of each, which is never seen: the renderer forgets a shader with the last material that has it. */
export class ShadersAhead {
  private readonly group = new Group();
  private readonly solids: readonly Solids[];
  private readonly regions = new Sketching();
  private readonly drawn = { surface: facetOf('position', 'normal'), outline: facetOf('position') };
  private stop = () => undefined as void;

  constructor(
    private readonly renderer: WebGLRenderer,
    private readonly scene: Scene,
    cuts: CutUniforms,
  ) {
    const places = [{ key: '', matrices: new Float32Array(16) }];
    this.solids = LOOKS.map((look) => {
      const solids = new Solids(cuts);
      solids.show(places, () => this.drawn);
      look(solids);
      return solids;
    });
    this.regions.fill([new Float32Array(9)]);
    this.group.visible = false;
    this.group.add(...this.solids.map(({ group }) => group), this.regions.group);
    scene.add(this.group);
  }

  /** Piece by piece: all at once would hold the page up. Call when a first frame was drawn, with the shaders that it needs. */
  translate(): void {
    const camera = new Camera();
    this.oneByOne(
      this.scene.children,
      (object) => void this.renderer.compile(object, camera, this.scene),
      () =>
        // The renderer asks a program for its variables as it is first used: asked now, it answers at once.
        this.oneByOne(this.renderer.info.programs ?? [], (program) => void program.getUniforms()),
    );
  }

  dispose(): void {
    this.stop();
    this.solids.forEach((solids) => solids.dispose());
    this.regions.dispose();
    for (const geometry of Object.values(this.drawn)) geometry.dispose();
  }

  private oneByOne<T>(all: readonly T[], work: (one: T) => void, then?: () => void): void {
    const [first, ...rest] = all;
    if (first === undefined) return then?.();
    this.stop = whenIdle(() => {
      work(first);
      this.oneByOne(rest, work, then);
    });
  }
}

/** With what the shapes of solids have, and no more: another attribute is another shader. */
function facetOf(...attributes: readonly string[]): BufferGeometry {
  const geometry = new BufferGeometry();
  for (const name of attributes) geometry.setAttribute(name, new BufferAttribute(new Float32Array(9), 3));
  return geometry;
}
