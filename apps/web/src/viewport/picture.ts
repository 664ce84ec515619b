/**
 * What is drawn: one mesh and one set of outlines for each visible part, sharing geometry by shape; grid, axes and ghosts.
 * Long, since all that is drawn of the model shares one scene and one renderer.
 */
import {
  eyeDistance,
  isFlat,
  isSurface,
  worldFromPart,
  type Affine,
  type Cut,
  type Camera,
  type ItemId,
  type KadrelDocument,
  type Part,
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
  Matrix4,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import { themeColour } from '../common/theme.ts';
import type { Preview } from '../session/preview.ts';
import { Extras } from './extras.ts';
import { Grid } from './grid.ts';
import type { ShownItem } from './model.ts';
import { DrawnCamera } from './drawnCamera.ts';
import { encodePicture } from './encodePicture.ts';
import { CutUniforms } from './cutShader.ts';
import { ShadersAhead } from './shadersAhead.ts';
import { QUIET_INK, SHEET, Solids, placesOf, type ShapeGeometry } from './solids.ts';

/** `facing` tints the inside of surfaces. */
export type Display = 'edges' | 'shaded' | 'facing' | 'wire';

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
  /** What section planes take out of sight. */
  readonly cuts: readonly Cut[];
  /** Items that are parted by them: their cut faces are seen. */
  readonly parted: ReadonlySet<ItemId>;
}

/** What is drawn in another tone. */
export interface Marks {
  readonly selected: ReadonlySet<ItemId>;
  readonly hovered: ReadonlySet<ItemId>;
  /** Outside the group that is open. */
  readonly dimmed: ReadonlySet<ItemId>;
}
const NOBODY: ReadonlySet<ItemId> = new Set();

/** What is drawn on the canvas. */
export class Picture {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new DrawnCamera();
  private readonly parts = new Map<ItemId, Solids>();
  private readonly shapes = new Map<string, ShapeGeometry>();
  private readonly light = new DirectionalLight(0xffffff, 1.9);
  private readonly ambient = new AmbientLight(0xffffff, 1.35);
  private readonly grid = new Grid();
  readonly extras = new Extras();
  private marks: Marks = { selected: NOBODY, hovered: NOBODY, dimmed: NOBODY };
  private document: KadrelDocument | null = null;
  private display: Display = 'edges';
  private displaced = new Set<ItemId>();
  /** Of the view that is drawn. */
  private readonly cuts = new CutUniforms();
  private readonly copies = new Solids(this.cuts);
  private readonly shaders: ShadersAhead;
  private wasDrawn = false;
  /** Solids in the form that a statement would give them. */
  private readonly formed = new Map<ItemId, Solids>();
  /** Parts of which only outlines are seen meanwhile. */
  private veiled: ReadonlySet<ItemId> = NOBODY;
  private canvasHeight = 1;
  private colours = {
    plum: new Color(),
    chosen: new Color(),
    outline: new Color(),
    ground: new Color(),
    bad: new Color(),
  };

  constructor(canvas: HTMLCanvasElement) {
    const ratio = window.devicePixelRatio;
    // As large as it will be from the beginning: to change it has the page wait for the graphics.
    if (ratio === 1) [canvas.width, canvas.height] = [canvas.clientWidth, canvas.clientHeight];
    this.renderer = new WebGLRenderer({
      canvas,
      antialias: true,
      stencil: true,
      preserveDrawingBuffer: false,
    });
    // Reading compile logs back stalls the first frame; a broken shader shows in the tests' pictures all the same.
    this.renderer.debug.checkShaderErrors = false;
    // Each view is drawn into its part of the canvas.
    this.renderer.setScissorTest(true);
    if (ratio !== 1) this.renderer.setPixelRatio(ratio);
    // A ghost in the place of a part lies behind its faces.
    Object.assign(this.copies.surface, {
      transparent: true,
      opacity: 0.45,
      depthWrite: false,
      polygonOffsetFactor: 2,
      polygonOffsetUnits: 2,
    });
    this.copies.group.visible = false;
    this.extras.addTo(this.scene);
    this.scene.add(this.copies.group, this.ambient, this.light, this.light.target, this.grid.mesh);
    this.applyTheme();
    this.shaders = new ShadersAhead(this.renderer, this.scene, this.cuts);
  }

  applyTheme(): void {
    this.colours = {
      plum: new Color(themeColour('plum')),
      chosen: new Color(themeColour('chosen')),
      outline: new Color(themeColour('outline')),
      ground: new Color(themeColour('ground')),
      bad: new Color(themeColour('bad')),
    };
    this.scene.background = this.colours.ground;
    this.copies.surface.color.copy(this.colours.chosen);
    this.copies.ink.color.copy(this.colours.plum);
    this.extras.paint(this.colours);
    this.grid.paint();
    this.paint();
  }

  resize(width: number, height: number): void {
    this.canvasHeight = height;
    const { x, y } = this.renderer.getSize(SIZE);
    if (x !== width || y !== height) this.renderer.setSize(width, height, false);
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
        this.leave(solids);
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

  /** Shows solids in another form, instead of those that they come from. Returns whether anything changed. */
  showFormed(
    items: readonly ShownItem[],
    veiled: ReadonlySet<ItemId>,
    factsOf: (key: string) => ShapeFacts | undefined,
  ): boolean {
    if (items.length === 0 && veiled.size === 0 && this.formed.size === 0 && this.veiled.size === 0)
      return false;
    for (const solids of this.formed.values()) this.leave(solids);
    this.formed.clear();
    this.veiled = veiled;
    for (const { part, pose, places } of items) {
      const solids = new Solids(this.cuts);
      solids.show(places, (key) => this.geometryOf(key, factsOf));
      solids.group.matrix.copy(poseMatrix(pose));
      solids.group.matrixWorldNeedsUpdate = true;
      solids.draw({
        isSurface: this.display !== 'wire' && part.recipe.base.kind !== 'section',
        isOutline: true,
        isSolid: isSolid(part),
      });
      solids.surface.color.set(part.colour).lerp(this.colours.chosen, FORMED);
      solids.ink.color.copy(this.colours.plum);
      this.scene.add(solids.group);
      this.formed.set(part.id, solids);
    }
    this.forgetUnused();
    this.paint();
    return true;
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
  render(
    camera: Camera,
    area: Area,
    { display, gridStep, sceneRadius, isMoving, cuts, parted }: Manner,
  ): boolean {
    const { eye, state } = camera;
    const bottom = this.canvasHeight - area.top - area.height;
    this.renderer.setViewport(area.left, bottom, area.width, area.height);
    this.renderer.setScissor(area.left, bottom, area.width, area.height);
    if (display !== this.display) {
      this.display = display;
      this.paint();
    }
    const three = this.camera.aimed(camera, sceneRadius);
    const far = eyeDistance(state);
    V1.set(...camera.right);
    V2.set(...camera.up);
    // The light stands over the viewer's left shoulder, so that the three faces of a box can be distinguished in any view.
    this.light.position
      .set(...eye)
      .addScaledVector(V1, -far * 0.55)
      .addScaledVector(V2, far * 0.9);
    this.light.target.position.set(...state.target);
    this.light.target.updateMatrixWorld();
    this.grid.place(camera, gridStep);
    this.cut(cuts, parted);
    let isThinned = false;
    for (const solids of this.parts.values()) isThinned = solids.thin({ isMoving }) || isThinned;
    this.renderer.render(this.scene, three);
    if (!this.wasDrawn) this.shaders.translate();
    this.wasDrawn = true;
    return isThinned;
  }

  /** Takes solids out of what is drawn. */
  private leave(solids: Solids): void {
    this.scene.remove(solids.group);
    solids.dispose();
  }

  /** Each item is cut by what does not leave it whole. */
  private cut(cuts: readonly Cut[], parted: ReadonlySet<ItemId>): void {
    this.cuts.set(cuts);
    this.extras.overlaps.cutBy(cuts);
    this.cuts.pixelRatio.value = this.renderer.getPixelRatio();
    const maskOf = (id: ItemId) =>
      cuts.reduce((mask, { whole }, i) => (whole.has(id) ? mask : mask | (1 << i)), 0);
    for (const [id, solids] of this.parts) solids.cutBy({ mask: maskOf(id), isParted: parted.has(id) });
    // What a statement would give them is seen for a moment: all of it is taken to be parted.
    for (const [id, solids] of this.formed) solids.cutBy({ mask: maskOf(id), isParted: cuts.length > 0 });
  }

  /** The upper left corner of what was drawn last, as a small PNG. Call right after `render`. */
  thumbnail(to: { readonly width: number; readonly height: number }): Promise<Blob | null> {
    const scale = this.renderer.getPixelRatio();
    const from = { width: to.width * scale, height: to.height * scale };
    return encodePicture(this.renderer.domElement, { from, to });
  }

  dispose(): void {
    this.extras.dispose();
    this.shaders.dispose();
    for (const { surface, outline } of this.shapes.values()) {
      surface.dispose();
      outline.dispose();
    }
    this.renderer.dispose();
  }

  private addPart(id: ItemId): Solids {
    const solids = new Solids(this.cuts);
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
    const drawn = [...this.parts.values(), ...this.formed.values()];
    const used = new Set(drawn.flatMap((solids) => solids.keys()));
    for (const [key, { surface, outline }] of this.shapes)
      if (!used.has(key)) {
        surface.dispose();
        outline.dispose();
        this.shapes.delete(key);
      }
  }

  /** Colours and visibility by selection, pointer and display. */
  private paint(): void {
    let index = 0;
    for (const [id, solids] of this.parts) {
      const part = this.document?.items[id];
      const selected = this.marks.selected.has(id);
      const hovered = this.marks.hovered.has(id);
      const dimmed = this.marks.dimmed.has(id);
      const kind = part?.recipe.base.kind;
      const isVeiled = this.veiled.has(id);
      solids.draw({
        // The cut faces of a section are drawn with the solids that are cut.
        isSurface: this.display !== 'wire' && !isVeiled && kind !== 'section',
        isFacing: this.display === 'facing' && kind !== 'plane' && kind !== 'section',
        // Drawn things are nothing but outlines.
        isOutline: this.display !== 'shaded' || selected || hovered || isVeiled || FLAT.has(kind ?? ''),
        isSolid: part !== undefined && isSolid(part),
        hatchTurn: HATCH_TURNS[index++ % HATCH_TURNS.length]!,
        cutFill: part?.cutFill,
        isCutOutline: kind === 'section',
      });
      Object.assign(solids.surface, kind === 'plane' ? SHEET : SOLID);
      const { color } = solids.surface;
      color.set(part?.colour ?? '#cccccc');
      if (dimmed) color.lerp(this.colours.ground, DIM);
      if (selected) color.lerp(this.colours.chosen, 0.72);
      else if (hovered) color.lerp(this.colours.chosen, 0.3);
      solids.ink.color.copy((selected || hovered) && !isVeiled ? this.colours.plum : this.colours.outline);
      const ink = kind === 'plane' || isVeiled ? QUIET_INK : INK;
      // What is opaque is so by its shader.
      if (solids.ink.transparent !== ink.transparent) solids.ink.needsUpdate = true;
      Object.assign(solids.ink, ink);
      if (dimmed && !selected && !hovered) solids.ink.color.lerp(this.colours.ground, DIM);
    }
  }
}

const isSolid = (part: Part): boolean => !isFlat(part.recipe.base) && !isSurface(part);

/** Nothing but outlines. */
const FLAT: ReadonlySet<string> = new Set(['profile', 'plane', 'section']);
/** Neighbours are hatched at different angles, radians. */
const HATCH_TURNS = [45, 135, 20, 110, 70, 160].map((degrees) => (degrees * Math.PI) / 180);

const INK = { transparent: false, opacity: 1 };
const SOLID = { transparent: false, opacity: 1, depthWrite: true };

const [V1, V2] = [new Vector3(), new Vector3()];
const BEFORE = new Matrix4();
const SIZE = new Vector2();
/** How much of the colour of what is chosen is in a form that is only shown so far. */
const FORMED = 0.35;
/** How far what is outside the open group fades into the ground. */
const DIM = 0.75;
function matrixOf(t: Affine['linear'], s: Vec3): Matrix4 {
  return POSE.set(t[0], t[1], t[2], s[0], t[3], t[4], t[5], s[1], t[6], t[7], t[8], s[2], 0, 0, 0, 1);
}
const poseMatrix = ({ turn, shift }: Pose): Matrix4 => matrixOf(turn, shift);

const POSE = new Matrix4();
