/** The grid on the ground, with its axes. */
import type { Camera } from '@kadrel/core';
import { Color, DoubleSide, Mesh, PlaneGeometry, ShaderMaterial, Vector3 } from 'three';
import { themeColour } from '../common/theme.ts';

/** The grid reaches this many picture heights across, and fades out towards its rim. */
const GRID_HEIGHTS = 5;

/** The lines of the ground. */
export class Grid {
  readonly mesh = makeGrid();

  /** Takes the colours of the theme. */
  paint(): void {
    const { uniforms } = this.mesh.material;
    (uniforms.lineColour!.value as Color).set(themeColour('grid'));
    (uniforms.xColour!.value as Color).set(themeColour('x'));
    (uniforms.yColour!.value as Color).set(themeColour('y'));
  }

  /** Lays it where a view looks. @param gridStep mm */
  place(camera: Camera, gridStep: number): void {
    const { uniforms } = this.mesh.material;
    const { target, height } = camera.state;
    const extent = height * GRID_HEIGHTS;
    const step = shownGridStep(gridStep, height / camera.pixelHeight);
    uniforms.step!.value = step;
    uniforms.radius!.value = extent / 2;
    // The middle stands on a grid point, so that the pattern does not swim when the view moves.
    const centre = [Math.round(target[0] / step) * step, Math.round(target[1] / step) * step] as const;
    (uniforms.centre!.value as Vector3).set(centre[0], centre[1], 0);
    this.mesh.matrix.makeScale(extent, extent, 1).setPosition(centre[0], centre[1], 0);
    this.mesh.matrixWorldNeedsUpdate = true;
  }
}

/** Grid lines stand at least this many pixels apart. */
const MIN_GRID_PX = 8;

/** The grid step, or ten, a hundred, a thousand times it, so that lines do not run together. */
export function shownGridStep(step: number, mmPerPx: number): number {
  let shown = step;
  while (shown / mmPerPx < MIN_GRID_PX) shown *= 10;
  return shown;
}

const VERTEX = `
      uniform vec3 centre;
      varying vec2 local;
      void main() {
        vec4 world = modelMatrix * vec4(position, 1.0);
        local = world.xy - centre.xy;
        gl_Position = projectionMatrix * viewMatrix * world;
      }`;

const FRAGMENT = `
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
      }`;

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
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
  });
  const grid = new Mesh(new PlaneGeometry(1, 1), material);
  grid.matrixAutoUpdate = false;
  grid.frustumCulled = false;
  grid.renderOrder = 1;
  // Edges that lie in the ground stand before its lines.
  Object.assign(grid.material, { polygonOffset: true, polygonOffsetFactor: 2, polygonOffsetUnits: 4 });
  return grid;
}
