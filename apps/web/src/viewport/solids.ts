/** The drawn solids of one item: for each shape one draw call with the places of all its members. */
import type { Affine, CutFill } from '@kadrel/core';
import {
  AlwaysStencilFunc,
  BackSide,
  BufferGeometry,
  Color,
  DoubleSide,
  DynamicDrawUsage,
  FrontSide,
  Group,
  InstancedBufferAttribute,
  InstancedMesh,
  LineBasicMaterial,
  LineSegments,
  MeshLambertMaterial,
  NotEqualStencilFunc,
  ReplaceStencilOp,
} from 'three';

import { NEARER, ownCuts, ownFillOf, withCutFaces, withCuts, type CutUniforms } from './cutShader.ts';

export interface ShapeGeometry {
  readonly surface: BufferGeometry;
  readonly outline: BufferGeometry;
}

/** Line segments drawn once for each place: the renderer asks only whether an object says that it is instanced. */
class InstancedLines extends LineSegments<BufferGeometry, LineBasicMaterial> {
  readonly isInstancedMesh = true;
  readonly instanceColor = null;
  readonly morphTexture = null;
  constructor(
    geometry: BufferGeometry,
    material: LineBasicMaterial,
    readonly instanceMatrix: InstancedBufferAttribute,
    override readonly count: number,
  ) {
    super(geometry, material);
  }

  override dispose(): void {
    this.dispatchEvent({ type: 'dispose' } as never);
  }
}

interface SolidSet {
  readonly key: string;
  /** What its places were copied from. */
  from: Float32Array;
  readonly mesh: InstancedMesh<BufferGeometry, MeshLambertMaterial>;
  /** Its faces from behind: cut faces are drawn in their place. */
  readonly far: InstancedMesh<BufferGeometry, MeshLambertMaterial>;
  readonly lines: InstancedLines;
}

/** Where solids of one shape stand in the item's own frame: sixteen numbers each, column by column. */
export interface Places {
  readonly key: string;
  readonly matrices: Float32Array;
}

/** What the inside of surfaces is tinted with, in light and dark alike; the legend calls it teal. */
const INSIDE = { value: new Color('#1f7a78') };

interface Drawn {
  readonly isSurface: boolean;
  readonly isOutline: boolean;
  /** What is seen of faces from behind is tinted. */
  readonly isFacing?: boolean;
  /** It is closed, so that cuts lay faces open. */
  readonly isSolid?: boolean;
  /** Of its cut faces, radians. */
  readonly hatchTurn?: number;
  /** How they are drawn, where that is not left to the section plane. */
  readonly cutFill?: CutFill | undefined;
  /** It is the outline of a cut, and is drawn over cut faces. */
  readonly isCutOutline?: boolean;
}

/** What the stencil holds where a cut face is seen, and where another one is. */
const [CUT_FACE, NO_CUT_FACE] = [1, 0];
const MARKING = {
  stencilFunc: AlwaysStencilFunc,
  stencilZPass: ReplaceStencilOp,
} as const;
/** Lines are drawn once it is known what is seen of faces. */
const AFTER_FACES = 1;

export interface CutHow {
  /** A bit for each cut that it is subject to. */
  readonly mask: number;
  /** Some of it stays, so that one looks into it. */
  readonly isParted: boolean;
}

/** The sheet of a plane is looked through. */
export const SHEET = { transparent: true, opacity: 0.16, depthWrite: false };
/** And so are the lines of its grid. */
export const QUIET_INK = { transparent: true, opacity: 0.22 };

/** From so many members on, their outlines cost as much as a frame may. */
const MANY = 1000;

/** Solids of one shape, drawn at once. */
export class Solids {
  readonly group = new Group();
  readonly surface = new MeshLambertMaterial({
    ...MARKING,
    stencilRef: NO_CUT_FACE,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
    side: DoubleSide,
  });
  /** Of the far side, where a cut lets one look in. */
  private readonly cutFaces = new MeshLambertMaterial({
    ...MARKING,
    stencilWrite: true,
    stencilRef: CUT_FACE,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
    side: BackSide,
  });
  readonly ink = new LineBasicMaterial({ stencilFunc: NotEqualStencilFunc, stencilRef: CUT_FACE });
  private isParted = false;
  /** Read by the shader: 1 where the inside is tinted. */
  private readonly facing = { value: 0 };
  private sets: SolidSet[] = [];
  private drawn: Drawn = { isSurface: true, isOutline: true };

  private readonly cuts = ownCuts();

  constructor(all: CutUniforms) {
    this.group.matrixAutoUpdate = false;
    const { facing } = this;
    this.cutFaces.onBeforeCompile = (shader) => withCutFaces(shader, all, this.cuts);
    this.ink.onBeforeCompile = (shader) => withCuts(shader, all, this.cuts, this.cuts.nearer);
    this.surface.onBeforeCompile = (shader) => {
      shader.uniforms.facing = facing;
      shader.uniforms.insideColour = INSIDE;
      shader.fragmentShader = `uniform float facing;\nuniform vec3 insideColour;\n${shader.fragmentShader.replace(
        '#include <color_fragment>',
        '#include <color_fragment>\n  if (facing > 0.5 && !gl_FrontFacing) diffuseColor.rgb = insideColour;',
      )}`;
      withCuts(shader, all, this.cuts);
    };
  }

  /** Cuts it, in the view that is drawn next. */
  cutBy({ mask, isParted }: CutHow): void {
    this.cuts.cutMask.value = mask;
    this.cutFaces.color.copy(this.surface.color);
    if (this.isParted === isParted) return;
    this.isParted = isParted;
    this.showFarSides();
  }

  /** Of a solid that is parted what is seen from behind are its cut faces; they hide the edges behind them. */
  private showFarSides(): void {
    const { isSolid = false } = this.drawn;
    const areShown = this.isParted && isSolid;
    this.surface.side = areShown ? FrontSide : DoubleSide;
    this.surface.stencilWrite = areShown;
    // Outlines of cuts, and what is drawn, are seen over cut faces.
    this.ink.stencilWrite = areShown;
    for (const { mesh, far } of this.sets) far.visible = areShown && mesh.visible;
  }

  /** The shapes that are drawn. */
  keys(): string[] {
    return this.sets.map(({ key }) => key);
  }

  /** Draws these solids; what is drawn already in the same places stays. */
  show(places: readonly Places[], geometryOf: (key: string) => ShapeGeometry | undefined): void {
    const isAlike =
      places.length === this.sets.length &&
      places.every(
        ({ key, matrices }, i) => this.sets[i]!.key === key && this.sets[i]!.from.length === matrices.length,
      );
    if (isAlike) {
      places.forEach(({ matrices }, i) => place(this.sets[i]!, matrices));
      return;
    }
    this.clear();
    for (const { key, matrices } of places) {
      const geometry = geometryOf(key);
      if (!geometry) continue;
      const count = matrices.length / 16;
      const mesh = new InstancedMesh(geometry.surface, this.surface, 0);
      mesh.instanceMatrix = new InstancedBufferAttribute(matrices.slice(), 16);
      mesh.instanceMatrix.setUsage(DynamicDrawUsage);
      mesh.count = count;
      const far = new InstancedMesh(geometry.surface, this.cutFaces, 0);
      far.instanceMatrix = mesh.instanceMatrix;
      far.count = count;
      far.visible = false;
      far.frustumCulled = false;
      const lines = new InstancedLines(geometry.outline, this.ink, mesh.instanceMatrix, count);
      // The item is in sight or a little beside it: asking for every member would cost more than it saves.
      mesh.frustumCulled = false;
      lines.frustumCulled = false;
      lines.visible = this.drawn.isOutline;
      lines.renderOrder = AFTER_FACES;
      this.group.add(mesh, far, lines);
      this.sets.push({ key, from: matrices, mesh, far, lines });
    }
    this.showFarSides();
  }

  draw(drawn: Drawn): void {
    this.drawn = drawn;
    this.facing.value = drawn.isFacing ? 1 : 0;
    this.cuts.hatchTurn.value = drawn.hatchTurn ?? 0;
    this.cuts.ownFill.value = ownFillOf(drawn.cutFill);
    this.cuts.nearer.value = drawn.isCutOutline ? NEARER : 0;
    for (const { mesh, lines } of this.sets) {
      mesh.visible = drawn.isSurface;
      lines.visible = drawn.isOutline;
    }
    this.showFarSides();
  }

  /** While the view moves, the outlines of many members are left out, where faces tell enough; whether any are. */
  thin({ isMoving }: { readonly isMoving: boolean }): boolean {
    let isThinned = false;
    const { isOutline } = this.drawn;
    for (const { mesh, lines } of this.sets) {
      const isLeft = isMoving && isOutline && mesh.visible && lines.count > MANY;
      lines.visible = isOutline && !isLeft;
      isThinned ||= isLeft;
    }
    return isThinned;
  }

  /** Lets go of what is drawn, but not of its materials. */
  clear(): void {
    for (const { mesh, far, lines } of this.sets) {
      this.group.remove(mesh, far, lines);
      mesh.dispose();
      far.dispose();
      lines.dispose();
    }
    this.sets = [];
  }

  dispose(): void {
    this.clear();
    this.surface.dispose();
    this.cutFaces.dispose();
    this.ink.dispose();
  }
}

function place(set: SolidSet, matrices: Float32Array): void {
  if (set.from === matrices) return;
  set.from = matrices;
  const { instanceMatrix } = set.mesh;
  (instanceMatrix.array as Float32Array).set(matrices);
  instanceMatrix.needsUpdate = true;
}

/** Writes an affine map into sixteen numbers, column by column. */
export function writeMatrix(into: Float32Array, at: number, { linear: t, shift: s }: Affine): void {
  into.set([t[0], t[3], t[6], 0, t[1], t[4], t[7], 0, t[2], t[5], t[8], 0, s[0], s[1], s[2], 1], at);
}

/** Maps in groups of one shape. */
export function placesOf(solids: readonly { readonly key: string; readonly at: Affine }[]): Places[] {
  const byKey = new Map<string, Affine[]>();
  for (const { key, at } of solids) {
    const list = byKey.get(key);
    if (list) list.push(at);
    else byKey.set(key, [at]);
  }
  return [...byKey].map(([key, list]) => {
    const matrices = new Float32Array(16 * list.length);
    list.forEach((at, i) => writeMatrix(matrices, 16 * i, at));
    return { key, matrices };
  });
}
