/** What is drawn: one mesh and one set of outlines for each visible part, sharing geometry by shape; grid, axes and ghosts. */
import {
  worldFromPart,
  type Affine,
  type Camera,
  type ItemId,
  type KadrelDocument,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import type { ShapeFacts } from '@kadrel/kernel';
import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  Matrix4,
  Mesh,
  OrthographicCamera,
  PerspectiveCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  Vector3,
  WebGLRenderer,
} from 'three';
import { FIELD_OF_VIEW, PARALLEL_BACK_MM, eyeDistance } from '@kadrel/core';
import { themeColour } from '../common/theme.ts';
import type { Preview } from '../session/preview.ts';
import { Ghost } from './ghost.ts';
import type { ShownItem } from './model.ts';
import { BroadLines } from './broadLines.ts';
import { Sketching } from './sketching.ts';
import { Solids, placesOf, type ShapeGeometry } from './solids.ts';

export type Display = 'edges' | 'shaded' | 'wire';

/** Part of the canvas, CSS pixels from its top left corner. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** How a view is drawn. */
export interface Manner {
  readonly display: Display;
  /** mm. */
  readonly gridStep: number;
  /** How far the scene reaches from where the view looks, mm. */
  readonly sceneRadius: number;
  readonly isMoving: boolean;
}

export interface Marks {
  readonly selected: ReadonlySet<ItemId>;
  readonly hovered: ReadonlySet<ItemId>;
  /** Outside the group that is open. */
  readonly dimmed: ReadonlySet<ItemId>;
}
const NOBODY: ReadonlySet<ItemId> = new Set();

export class Picture {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly perspective = new PerspectiveCamera(FIELD_OF_VIEW);
  private readonly parallel = new OrthographicCamera();
  private readonly parts = new Map<ItemId, Solids>();
  private readonly shapes = new Map<string, ShapeGeometry>();
  private readonly light = new DirectionalLight(0xffffff, 1.9);
  private readonly ambient = new AmbientLight(0xffffff, 1.35);
  private readonly grid: Mesh<PlaneGeometry, ShaderMaterial>;
  readonly ghost = new Ghost();
  private marks: Marks = { selected: NOBODY, hovered: NOBODY, dimmed: NOBODY };
  private document: KadrelDocument | null = null;
  private display: Display = 'edges';
  private displaced = new Set<ItemId>();
  private readonly copies = new Solids();
  readonly sketching = new Sketching();
  readonly gathered = new BroadLines();
  /** The chosen faces. */
  readonly marking = new Sketching();
  private canvasHeight = 1;
  private colours = { plum: new Color(), chosen: new Color(), outline: new Color(), ground: new Color() };

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: false });
    // Reading compile logs back stalls the first frame; a broken shader shows in the tests' pictures all the same.
    this.renderer.debug.checkShaderErrors = false;
    // Each view is drawn into its part of the canvas.
    this.renderer.setScissorTest(true);
    this.renderer.setPixelRatio(window.devicePixelRatio);
    this.grid = makeGrid();
    // A ghost in the place of a part lies behind its faces.
    Object.assign(this.copies.surface, {
      transparent: true,
      opacity: 0.45,
      depthWrite: false,
      polygonOffsetFactor: 2,
      polygonOffsetUnits: 2,
    });
    this.copies.group.visible = false;
    this.scene.add(
      this.sketching.group,
      this.gathered.object,
      this.marking.group,
      this.copies.group,
      this.ambient,
      this.light,
      this.light.target,
      this.grid,
      this.ghost.group,
    );
    this.applyTheme();
  }

  applyTheme(): void {
    this.colours = {
      plum: new Color(themeColour('plum')),
      chosen: new Color(themeColour('chosen')),
      outline: new Color(themeColour('outline')),
      ground: new Color(themeColour('ground')),
    };
    this.scene.background = this.colours.ground;
    this.copies.surface.color.copy(this.colours.chosen);
    this.copies.ink.color.copy(this.colours.plum);
    this.sketching.paint(this.colours.plum);
    this.gathered.paint(this.colours.plum);
    this.marking.paint(this.colours.plum);
    const { uniforms } = this.grid.material;
    (uniforms.lineColour!.value as Color).set(themeColour('grid'));
    (uniforms.xColour!.value as Color).set(themeColour('x'));
    (uniforms.yColour!.value as Color).set(themeColour('y'));
    this.ghost.paint(this.colours.plum);
    this.paint();
  }

  resize(width: number, height: number): void {
    this.canvasHeight = height;
    this.renderer.setSize(width, height, false);
  }

  /** Shows the document's built items. Geometry is made once a shape and let go when nothing has it. */
  show(
    document: KadrelDocument,
    items: readonly ShownItem[],
    factsOf: (key: string) => ShapeFacts | undefined,
  ): void {
    this.document = document;
    const shown = new Set(items.map(({ part }) => part.id));
    for (const [id, solids] of this.parts)
      if (!shown.has(id)) {
        this.scene.remove(solids.group);
        solids.dispose();
        this.parts.delete(id);
      }
    for (const { part, pose, places } of items) {
      const solids = this.parts.get(part.id) ?? this.addPart(part.id);
      solids.show(places, (key) => this.geometryOf(key, factsOf));
      solids.group.matrix.copy(poseMatrix(pose));
      solids.group.matrixWorldNeedsUpdate = true;
    }
    this.forgetUnused();
    this.paint();
  }

  mark(marks: Marks): void {
    this.marks = marks;
    this.paint();
  }

  /** Shows parts where a statement would put them, and its copies, by their matrices alone. Returns whether anything changed. */
  place({ placed, copies }: Preview): boolean {
    if (!this.document) return false;
    let changed = false;
    for (const id of new Set([...this.displaced, ...placed.keys()])) {
      const objects = this.parts.get(id);
      const at = placed.get(id);
      if (!objects || !this.document.items[id]) continue;
      BEFORE.copy(objects.group.matrix);
      if (at) objects.group.matrix.copy(matrixOf(at.linear, at.shift));
      else objects.group.matrix.copy(poseMatrix(worldFromPart(this.document, id)));
      objects.group.matrixWorldNeedsUpdate = true;
      changed ||= !BEFORE.equals(objects.group.matrix);
    }
    this.displaced = new Set(placed.keys());
    return this.showCopies(copies) || changed;
  }

  private showCopies(copies: Preview['copies']): boolean {
    const known = copies.filter(({ key }) => this.shapes.has(key));
    const was = this.copies.group.visible;
    this.copies.group.visible = known.length > 0;
    if (known.length === 0) return was;
    this.copies.show(placesOf(known), (key) => this.shapes.get(key));
    this.copies.draw({ isSurface: true, isOutline: true });
    return true;
  }

  /** Draws a view into its part of the canvas; while it moves, without the outlines of many. Whether any were left out. */
  render(camera: Camera, area: Area, { display, gridStep, sceneRadius, isMoving }: Manner): boolean {
    const { eye, state } = camera;
    const bottom = this.canvasHeight - area.top - area.height;
    this.renderer.setViewport(area.left, bottom, area.width, area.height);
    this.renderer.setScissor(area.left, bottom, area.width, area.height);
    if (display !== this.display) {
      this.display = display;
      this.paint();
    }
    const three = state.projection === 'perspective' ? this.perspective : this.parallel;
    const far = eyeDistance(state);
    const reach = sceneRadius + far + state.height * 4;
    if (three instanceof PerspectiveCamera) {
      three.aspect = camera.width / camera.pixelHeight;
      three.near = Math.max(far / 500, Math.min(far / 4, far - sceneRadius * 2));
      three.far = far + reach * 2;
    } else {
      const [w, h] = [(state.height * camera.width) / camera.pixelHeight / 2, state.height / 2];
      [three.left, three.right, three.top, three.bottom] = [-w, w, h, -h];
      three.near = -Math.min(PARALLEL_BACK_MM, reach * 2);
      three.far = far + reach * 2;
    }
    three.matrixAutoUpdate = false;
    three.matrix
      .makeBasis(V1.set(...camera.right), V2.set(...camera.up), V3.set(...camera.toward))
      .setPosition(...eye);
    three.updateMatrixWorld(true);
    three.updateProjectionMatrix();
    // The light stands over the viewer's left shoulder, so that the three faces of a box are told apart in any view.
    this.light.position
      .set(...eye)
      .addScaledVector(V1, -far * 0.55)
      .addScaledVector(V2, far * 0.9);
    this.light.target.position.set(...state.target);
    this.light.target.updateMatrixWorld();
    this.placeGrid(camera, gridStep);
    let isThinned = false;
    for (const solids of this.parts.values()) isThinned = solids.thin(isMoving) || isThinned;
    this.renderer.render(this.scene, three);
    return isThinned;
  }

  /** The picture as a small PNG, for the project's card. Call right after `render`. */
  /** The upper left corner of what was drawn last, as a file. */
  thumbnail({ width, height }: { width: number; height: number }): Promise<Blob | null> {
    const source = this.renderer.domElement;
    const scale = this.renderer.getPixelRatio();
    const small = document.createElement('canvas');
    [small.width, small.height] = [width, height];
    small.getContext('2d')?.drawImage(source, 0, 0, width * scale, height * scale, 0, 0, width, height);
    return new Promise((resolve) => small.toBlob(resolve, 'image/png'));
  }

  dispose(): void {
    this.ghost.dispose();
    this.sketching.dispose();
    this.gathered.dispose();
    this.marking.dispose();
    for (const { surface, outline } of this.shapes.values()) {
      surface.dispose();
      outline.dispose();
    }
    this.renderer.dispose();
  }

  private addPart(id: ItemId): Solids {
    const solids = new Solids();
    this.scene.add(solids.group);
    this.parts.set(id, solids);
    return solids;
  }

  private geometryOf(
    key: string,
    factsOf: (key: string) => ShapeFacts | undefined,
  ): ShapeGeometry | undefined {
    const known = this.shapes.get(key);
    if (known) return known;
    const facts = factsOf(key);
    if (!facts) return undefined;
    const surface = new BufferGeometry();
    surface.setAttribute('position', new BufferAttribute(facts.snaps.positions, 3));
    surface.setAttribute('normal', new BufferAttribute(facts.normals, 3));
    surface.setIndex(new BufferAttribute(facts.snaps.triangles, 1));
    const outline = new BufferGeometry();
    outline.setAttribute('position', new BufferAttribute(facts.outline, 3));
    const made = { surface, outline };
    this.shapes.set(key, made);
    return made;
  }

  private forgetUnused(): void {
    const used = new Set([...this.parts.values()].flatMap((solids) => solids.keys()));
    for (const [key, { surface, outline }] of this.shapes)
      if (!used.has(key)) {
        surface.dispose();
        outline.dispose();
        this.shapes.delete(key);
      }
  }

  /** Colours and visibility by selection, pointer and display. */
  private paint(): void {
    for (const [id, solids] of this.parts) {
      const part = this.document?.items[id];
      const selected = this.marks.selected.has(id);
      const hovered = this.marks.hovered.has(id);
      const dimmed = this.marks.dimmed.has(id);
      const kind = part?.recipe.base.kind;
      solids.draw({
        isSurface: this.display !== 'wire',
        // Drawn things are nothing but outlines.
        isOutline: this.display !== 'shaded' || selected || hovered || kind === 'profile' || kind === 'plane',
      });
      Object.assign(solids.surface, kind === 'plane' ? SHEET : SOLID);
      const { color } = solids.surface;
      color.set(part?.colour ?? '#cccccc');
      if (dimmed) color.lerp(this.colours.ground, DIM);
      if (selected) color.lerp(this.colours.chosen, 0.72);
      else if (hovered) color.lerp(this.colours.chosen, 0.3);
      solids.ink.color.copy(selected || hovered ? this.colours.plum : this.colours.outline);
      Object.assign(solids.ink, kind === 'plane' ? QUIET_INK : INK);
      if (dimmed && !selected && !hovered) solids.ink.color.lerp(this.colours.ground, DIM);
    }
  }

  private placeGrid(camera: Camera, gridStep: number): void {
    const { uniforms } = this.grid.material;
    const { target, height } = camera.state;
    const extent = height * GRID_HEIGHTS;
    const step = shownGridStep(gridStep, height / camera.pixelHeight);
    uniforms.step!.value = step;
    uniforms.radius!.value = extent / 2;
    // The middle stands on a grid point, so that the pattern does not swim when the view moves.
    const centre = [Math.round(target[0] / step) * step, Math.round(target[1] / step) * step] as const;
    (uniforms.centre!.value as Vector3).set(centre[0], centre[1], 0);
    this.grid.matrix.makeScale(extent, extent, 1).setPosition(centre[0], centre[1], 0);
    this.grid.matrixWorldNeedsUpdate = true;
  }
}

/** The sheet of a plane is looked through. */
const SHEET = { transparent: true, opacity: 0.16, depthWrite: false };
/** And so are the lines of its grid. */
const QUIET_INK = { transparent: true, opacity: 0.22 };
const INK = { transparent: false, opacity: 1 };
const SOLID = { transparent: false, opacity: 1, depthWrite: true };

const [V1, V2, V3] = [new Vector3(), new Vector3(), new Vector3()];
const BEFORE = new Matrix4();
/** The grid reaches this many picture heights across, and fades out towards its rim. */
const GRID_HEIGHTS = 5;
/** How far what is outside the open group fades into the ground. */
const DIM = 0.75;
/** Grid lines stand at least this many pixels apart. */
const LEAST_GRID_PX = 8;

/** The grid step, or ten, a hundred, a thousand times it, so that lines do not run together. */
export function shownGridStep(step: number, mmPerPx: number): number {
  let shown = step;
  while (shown / mmPerPx < LEAST_GRID_PX) shown *= 10;
  return shown;
}

function matrixOf(t: Affine['linear'], s: Vec3): Matrix4 {
  return POSE.set(t[0], t[1], t[2], s[0], t[3], t[4], t[5], s[1], t[6], t[7], t[8], s[2], 0, 0, 0, 1);
}
const poseMatrix = ({ turn, shift }: Pose): Matrix4 => matrixOf(turn, shift);

const POSE = new Matrix4();

/** A plane whose lines are computed for every pixel: no geometry changes when the view does. */
function makeGrid(): Mesh<PlaneGeometry, ShaderMaterial> {
  const material = new ShaderMaterial({
    transparent: true,
    depthWrite: false,
    side: DoubleSide,
    uniforms: {
      step: { value: 10 },
      radius: { value: 1000 },
      centre: { value: new Vector3() },
      lineColour: { value: new Color() },
      xColour: { value: new Color() },
      yColour: { value: new Color() },
    },
    vertexShader: `
      uniform vec3 centre;
      varying vec2 local;
      void main() {
        vec4 world = modelMatrix * vec4(position, 1.0);
        local = world.xy - centre.xy;
        gl_Position = projectionMatrix * viewMatrix * world;
      }`,
    fragmentShader: `
      uniform float step; uniform float radius; uniform vec3 centre;
      uniform vec3 lineColour; uniform vec3 xColour; uniform vec3 yColour;
      varying vec2 local;
      float lines(float every) {
        vec2 at = local / every + fract(centre.xy / every);
        vec2 off = abs(fract(at - 0.5) - 0.5) / max(fwidth(at), vec2(1e-9));
        float dense = max(fwidth(at).x, fwidth(at).y);
        return (1.0 - min(min(off.x, off.y), 1.0)) * (1.0 - smoothstep(0.15, 0.5, dense));
      }
      float axis(float distance) { return 1.0 - min(abs(distance) / max(fwidth(distance), 1e-9) / 1.2, 1.0); }
      void main() {
        float fade = 1.0 - smoothstep(0.35, 1.0, length(local) / radius);
        float strength = max(lines(step) * 0.45, lines(step * 10.0) * 0.95);
        vec2 world = local + centre.xy;
        float x = axis(world.y), y = axis(world.x);
        vec3 colour = mix(mix(lineColour, yColour, y), xColour, x);
        float alpha = max(strength, max(x, y) * 0.9) * fade;
        if (alpha < 0.01) discard;
        gl_FragColor = vec4(colour, alpha);
        #include <colorspace_fragment>
      }`,
  });
  const grid = new Mesh(new PlaneGeometry(1, 1), material);
  grid.matrixAutoUpdate = false;
  grid.frustumCulled = false;
  grid.renderOrder = 1;
  // Edges that lie in the ground stand before its lines.
  Object.assign(grid.material, { polygonOffset: true, polygonOffsetFactor: 2, polygonOffsetUnits: 4 });
  return grid;
}
