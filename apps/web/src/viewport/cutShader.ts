/**
 * Section planes in shaders. What a cut takes away is not drawn; and where one then looks into a solid from within, its cut face is
 * drawn instead of the far side: the line of sight is followed back to where it left the cut. So cut faces are right at every pixel,
 * also while a plane is dragged, and nothing is built for them. They mark the stencil, so that edges on the far side are not drawn over
 * them.
 */
import { MAX_CUTS, type Cut, type CutFill } from '@kadrel/core';
import { Vector2, Vector3, Vector4 } from 'three';

/** Faces in a plane are not cut away by the rounding of shaders, mm. */
export const BESIDE_MM = 1e-3;
/** Outlines of cuts are drawn so much nearer than they are, as a part of the depth that is drawn: they lie on faces. */
export const NEARER = 4e-4;
/** Half spaces that take everything: where a cut has but one. */
const ALL = new Vector4(0, 0, 0, -1);

/** Of all materials of a picture, for the view that is drawn. */
export class CutUniforms {
  readonly cutCount = { value: 0 };
  readonly cutPlanes = { value: Array.from({ length: 2 * MAX_CUTS }, () => new Vector4()) };
  readonly cutAcross = { value: Array.from({ length: 2 * MAX_CUTS }, () => new Vector3(1, 0, 0)) };
  /** Whether it is hatched, and the spacing, mm. */
  readonly cutHatch = { value: Array.from({ length: MAX_CUTS }, () => new Vector2()) };
  /** Canvas pixels for a pixel of the screen. */
  readonly pixelRatio = { value: 1 };

  set(cuts: readonly Cut[]): void {
    this.cutCount.value = cuts.length;
    cuts.forEach(({ halves, isHatched, spacing }, i) => {
      this.cutHatch.value[i]!.set(isHatched ? 1 : 0, spacing);
      for (const k of [0, 1]) {
        const half = halves[k];
        const plane = this.cutPlanes.value[2 * i + k]!;
        if (half) plane.set(...half.normal, half.offset + BESIDE_MM);
        else plane.copy(ALL);
        if (half) this.cutAcross.value[2 * i + k]!.set(...half.across);
      }
    });
  }
}

/** Of one material. */
export interface OwnCuts {
  /** A bit for each cut that it is subject to. */
  readonly cutMask: { value: number };
  /** How far its hatch is turned, radians. */
  readonly hatchTurn: { value: number };
  /** Whether its cut faces are hatched: as the plane says, yes, or no. */
  readonly ownFill: { value: OwnFill };
  /** Lines are drawn so much nearer than they are, as a part of the depth that is drawn. */
  readonly nearer: { value: number };
}

/** Cuts of one material, none to begin with. */
export const ownCuts = (): OwnCuts => ({
  cutMask: { value: 0 },
  hatchTurn: { value: 0 },
  ownFill: { value: FILLS.plane },
  nearer: { value: 0 },
});

/** In shaders: what is left to the plane, hatched, and filled. */
const FILLS = { plane: 0, hatched: 1, plain: 2 } as const;
export type OwnFill = (typeof FILLS)[keyof typeof FILLS];
export const ownFillOf = (fill: CutFill | undefined): OwnFill => FILLS[fill ?? 'plane'];

interface Shader {
  uniforms: Record<string, { value: unknown }>;
  vertexShader: string;
  fragmentShader: string;
}

const VERTEX = `varying vec3 seenAt;\nuniform float nearer;\n`;
const PLACED = `#include <project_vertex>
  vec4 placedAt = vec4(transformed, 1.0);
  #ifdef USE_INSTANCING
    placedAt = instanceMatrix * placedAt;
  #endif
  seenAt = (modelMatrix * placedAt).xyz;
  gl_Position.z -= nearer * gl_Position.w;`;

const TAKEN = `
varying vec3 seenAt;
uniform int cutCount;
uniform int cutMask;
uniform vec4 cutPlanes[${2 * MAX_CUTS}];
float beforePlane(int i, vec3 at) { return dot(cutPlanes[i].xyz, at) - cutPlanes[i].w; }
bool isTaken(vec3 at) {
  for (int i = 0; i < ${MAX_CUTS}; i++) {
    if (i >= cutCount) break;
    if ((cutMask >> i & 1) == 1 && beforePlane(2 * i, at) > 0.0 && beforePlane(2 * i + 1, at) > 0.0) return true;
  }
  return false;
}
`;

const CAP = `
uniform float hatchTurn;
uniform int ownFill;
uniform float pixelRatio;
uniform vec3 cutAcross[${2 * MAX_CUTS}];
uniform vec2 cutHatch[${MAX_CUTS}];

// Back along the line of sight to the cut that was left last: how far, and through which of its planes; -1 where there is none.
int lastPlane(vec3 at, vec3 back, out float way) {
  int found = -1;
  way = 1e20;
  for (int i = 0; i < ${MAX_CUTS}; i++) {
    if (i >= cutCount) break;
    if ((cutMask >> i & 1) == 0) continue;
    float enter = 0.0;
    float leave = 1e20;
    int through = -1;
    for (int k = 0; k < 2; k++) {
      float height = beforePlane(2 * i + k, at);
      float slope = dot(cutPlanes[2 * i + k].xyz, back);
      float crossing = slope == 0.0 ? 0.0 : -height / slope;
      if (slope > 0.0) {
        if (height <= 0.0 && crossing >= enter) { enter = crossing; through = 2 * i + k; }
      } else if (height <= 0.0) leave = -1.0;
      else if (slope < 0.0) leave = min(leave, crossing);
    }
    if (through >= 0 && enter < leave && enter < way) { way = enter; found = through; }
  }
  return found;
}

vec3 cutFace(vec3 plain, vec3 at, int plane) {
  vec2 hatch = cutHatch[plane / 2];
  vec3 paper = mix(plain, vec3(1.0), 0.3);
  if (ownFill == ${FILLS.plain} || (ownFill == ${FILLS.plane} && hatch.x < 0.5)) return paper;
  vec3 across = cutAcross[plane];
  vec3 upward = cross(cutPlanes[plane].xyz, across);
  vec3 turned = across * cos(hatchTurn) + upward * sin(hatchTurn);
  float along = dot(at, turned);
  float perPixel = max(fwidth(along), 1e-9);
  if (hatch.y <= 0.0) { along = dot(gl_FragCoord.xy, vec2(cos(hatchTurn), sin(hatchTurn))); perPixel = 1.0; }
  float spacing = hatch.y > 0.0 ? hatch.y : 7.0 * pixelRatio;
  float off = abs(fract(along / spacing) - 0.5) * spacing / perPixel;
  float line = 1.0 - smoothstep(0.35 * pixelRatio, 0.9 * pixelRatio, off);
  // Lines nearer than a few pixels are a tint.
  line = mix(0.3, line, clamp((spacing / perPixel - 2.0) / 2.0, 0.0, 1.0));
  return mix(paper, plain * 0.4, line);
}
`;

const AT_CUT = `
  if (cutCount > 0) {
    vec3 back = isOrthographic
      ? vec3(viewMatrix[0][2], viewMatrix[1][2], viewMatrix[2][2])
      : normalize(cameraPosition - seenAt);
    float way;
    int plane = lastPlane(seenAt, back, way);
    if (plane >= 0) outgoingLight = cutFace(diffuse, seenAt + back * way, plane);
  }
`;

const START = 'void main() {';

const NOT_NEARER = { value: 0 };

/** Nothing of what a cut takes away is drawn. @param nearer how much nearer it is drawn than it is */
export function withCuts(shader: Shader, all: CutUniforms, own: OwnCuts, nearer = NOT_NEARER): void {
  Object.assign(shader.uniforms, { cutCount: all.cutCount, cutPlanes: all.cutPlanes, cutMask: own.cutMask });
  shader.uniforms.nearer = nearer;
  shader.vertexShader = VERTEX + shader.vertexShader.replace('#include <project_vertex>', PLACED);
  shader.fragmentShader =
    TAKEN + shader.fragmentShader.replace(START, `${START}\n  if (cutCount > 0 && isTaken(seenAt)) discard;`);
}

/** Cut faces are drawn where one looks into a solid from within. */
export function withCutFaces(shader: Shader, all: CutUniforms, own: OwnCuts): void {
  withCuts(shader, all, own);
  const { cutAcross, cutHatch, pixelRatio } = all;
  const { hatchTurn, ownFill } = own;
  Object.assign(shader.uniforms, { cutAcross, cutHatch, pixelRatio, hatchTurn, ownFill });
  const withCap = shader.fragmentShader.replace(
    '#include <opaque_fragment>',
    `${AT_CUT}\n  #include <opaque_fragment>`,
  );
  shader.fragmentShader = withCap.replace(START, `${CAP}\n${START}`);
}
