/** Files against readers that are not ours. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { built, idOf, measured } from '@kadrel/testing';
import { plateWithHoles } from './bench.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const bracket = () =>
  built([
    ['box', { as: 'plate', size: [100, 60, 8] }],
    ['cylinder', { as: 'drill', diameter: 8, height: 20, at: [15, 15, -5] }],
    ['subtract', { as: 'bracket', from: 'plate', parts: ['drill'] }],
    ['move', { parts: ['bracket'], by: [5, 6, 7] }],
  ]);

describe('STL', () => {
  // Source of the layout: de-facto STL description. Readers: three.js STLLoader, manifold-3d.
  test.each([0.1, 0.01, 0.001])(
    'with a chord of %d mm is watertight, and its volume is a little off the exact one',
    async (chord) => {
      const document = bracket();
      const bytes = kernel.exported('stl', {
        document,
        parts: [idOf(document, 'bracket')],
        chordMm: chord,
        time: '',
      }) as Uint8Array;
      const geometry = new STLLoader().parse(bytes.slice().buffer);
      const soup = geometry.getAttribute('position').array as Float32Array;
      const wasm = await Module();
      wasm.setup();
      const mesh = new wasm.Mesh({
        numProp: 3,
        vertProperties: soup,
        triVerts: Uint32Array.from({ length: soup.length / 3 }, (_, i) => i),
      });
      mesh.merge();
      const solid = wasm.Manifold.ofMesh(mesh);
      expect(solid.status()).toBe('NoError');
      const exact = measured(kernel, document, 'bracket');
      // Facets of a bore cut into it less than the true hole does: the volume is above the exact one by at most the bore's
      // side times the chord, and never below it by more than single precision loses.
      const off = solid.volume() - exact.volume;
      expect(off).toBeGreaterThan(-1e-2);
      expect(off).toBeLessThan(Math.PI * 8 * 8 * chord + 1e-2);
      const { min, max } = solid.boundingBox();
      expect([...min, ...max].map((n) => Math.round(n * 1e4) / 1e4)).toEqual([5, 6, 7, 105, 66, 15]);
      solid.delete();
    },
  );

  test('of a round part lies below and close to the exact volume, the closer the finer', async () => {
    const document = built([['cylinder', { as: 'peg', diameter: 40, height: 30 }]]);
    const exact = Math.PI * 400 * 30;
    const wasm = await Module();
    wasm.setup();
    const volumes = [1, 0.1, 0.01].map((chord) => {
      const soup = new STLLoader()
        .parse(
          (
            kernel.exported('stl', {
              document,
              parts: [idOf(document, 'peg')],
              chordMm: chord,
              time: '',
            }) as Uint8Array
          ).slice().buffer,
        )
        .getAttribute('position').array as Float32Array;
      const mesh = new wasm.Mesh({
        numProp: 3,
        vertProperties: soup,
        triVerts: Uint32Array.from({ length: soup.length / 3 }, (_, i) => i),
      });
      mesh.merge();
      return wasm.Manifold.ofMesh(mesh).volume();
    });
    expect(volumes[0]).toBeLessThan(volumes[1]!);
    expect(volumes[1]).toBeLessThan(volumes[2]!);
    expect(volumes[2]).toBeLessThan(exact);
    expect(1 - volumes[2]! / exact).toBeLessThan(1e-3);
  });
});

interface StepReader {
  ReadStepFile(
    bytes: Uint8Array,
    options: object,
  ): {
    success: boolean;
    root: StepNode;
    meshes: { name: string; attributes: { position: { array: number[] } }; index: { array: number[] } }[];
  };
}
interface StepNode {
  name: string;
  children: StepNode[];
}

describe('STEP', () => {
  // Reader: occt-import-js, a build of its own. Source of the frame of the file: ISO 10303-21.
  const reader = async (): Promise<StepReader> => {
    const path = createRequire(import.meta.url).resolve('occt-import-js');
    const load = createRequire(import.meta.url)(path) as (options: object) => Promise<StepReader>;
    return load({ wasmBinary: readFileSync(path.replace(/\.js$/, '.wasm')) });
  };
  const volumeOf = (positions: readonly number[], index: readonly number[]) => {
    let sum = 0;
    for (let t = 0; t < index.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => positions.slice(3 * index[t + k]!, 3 * index[t + k]! + 3)) as [
        number[],
        number[],
        number[],
      ];
      sum +=
        a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) -
        a[1]! * (b[0]! * c[2]! - b[2]! * c[0]!) +
        a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);
    }
    return sum / 6;
  };

  test('is read by another reader with its names, its place and its volume', async () => {
    const document = bracket();
    const text = kernel.exported('step', {
      document,
      parts: [idOf(document, 'bracket')],
      chordMm: 1,
      time: '2026-01-05T09:00:00',
    }) as string;
    const result = (await reader()).ReadStepFile(new TextEncoder().encode(text), {
      linearUnit: 'millimeter',
      linearDeflectionType: 'absolute_value',
      linearDeflection: 0.001,
      angularDeflection: 0.05,
    });
    expect(result.success).toBe(true);
    const names: string[] = [];
    const visit = (node: StepNode) => {
      names.push(node.name);
      node.children.forEach(visit);
    };
    visit(result.root);
    expect([...names, ...result.meshes.map((mesh) => mesh.name)]).toContain('bracket');
    const [mesh] = result.meshes;
    const { array } = mesh!.attributes.position;
    expect(
      Math.abs(volumeOf(array, mesh!.index.array) / measured(kernel, document, 'bracket').volume - 1),
    ).toBeLessThan(1e-4);
    const min = [0, 1, 2].map((axis) =>
      array.filter((_, i) => i % 3 === axis).reduce((a, b) => Math.min(a, b)),
    );
    min.forEach((n, axis) => expect(n).toBeCloseTo([5, 6, 7][axis]!, 6));
  });

  test('keeps the round faces of a plate with 100 holes as cylinders', () => {
    const document = built(plateWithHoles(10, 10));
    const text = kernel.exported('step', {
      document,
      parts: [idOf(document, 'holed')],
      chordMm: 1,
      time: '2026-01-05T09:00:00',
    }) as string;
    expect(text.match(/CYLINDRICAL_SURFACE\(/g)).toHaveLength(100);
    expect(text).toMatch(/FILE_SCHEMA\(\('(AUTOMOTIVE_DESIGN|AP242)/);
  });
});
