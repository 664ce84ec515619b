/**
 * Icons of three sets, none of them marks of brands, held against an independent rasteriser: the area that comes in must be what is
 * painted, and a body raised from it must have that area times its height.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { filledArea, readSvg, type Path } from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { Resvg } from '@resvg/resvg-wasm';
import { built, idOf, measured } from '@kadrel/testing';

export interface Icon {
  readonly name: string;
  readonly svg: string;
}

const SETS: readonly { of: string; folder: string; brands?: RegExp }[] = [
  { of: 'heroicons', folder: '24/solid' },
  { of: '@phosphor-icons/core', folder: 'assets/fill', brands: /-logo/ },
  { of: 'remixicon', folder: 'icons', brands: /Logos|-line\.svg$/ },
];

/** The same every time: so many of each set, evenly spread over it. */
export function icons(ofEachSet: number): Icon[] {
  return SETS.flatMap(({ of, folder, brands }) => {
    const root = join(folderOf(of), folder);
    const all = readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('.svg') && !brands?.test(file))
      .sort();
    const count = Math.min(ofEachSet, all.length);
    return Array.from({ length: count }, (_, i): Icon => {
      const file = all[Math.floor((i * all.length) / count)]!;
      return { name: `${of}/${file}`, svg: readFileSync(join(root, file), 'utf8') };
    });
  });
}

/** One of a set. @param file as it lies in its folder, without its ending */
export function iconNamed(of: string, file: string): Icon {
  const { folder } = SETS.find((set) => set.of === of)!;
  const svg = readFileSync(join(folderOf(of), folder, `${file}.svg`), 'utf8');
  return { name: `${of}/${file}`, svg };
}

/** Where a package lies: sets of pictures have nothing that could be imported. */
function folderOf(name: string): string {
  for (let at = dirname(import.meta.filename); ; at = dirname(at)) {
    const folder = join(at, 'node_modules', name);
    try {
      readdirSync(folder);
      return folder;
    } catch (error) {
      if (dirname(at) === at) throw error;
    }
  }
}

/** Pixels across. */
const PIXELS = 600;
/** How far one pixel on a border may be off, as a part of it: the rasteriser takes a few samples of each, and leans on slanting ones. */
const OF_A_PIXEL = 0.13;

export interface Painted {
  /** In the icon's own units, squared. */
  readonly area: number;
  readonly error: number;
}

export function paintedArea({ svg }: Icon): Painted {
  const picture = new Resvg(svg, { fitTo: { mode: 'width', value: PIXELS } });
  const image = picture.render();
  const unit = picture.width / image.width;
  const { pixels } = image;
  let [sum, partly] = [0, 0];
  for (let i = 3; i < pixels.length; i += 4) {
    sum += pixels[i]! / 255;
    if (pixels[i]! > 0 && pixels[i]! < 255) partly += 1;
  }
  image.free();
  picture.free();
  return { area: sum * unit * unit, error: (1 + OF_A_PIXEL * partly) * unit * unit };
}

export interface Verdict {
  readonly name: string;
  readonly outcome: 'right' | 'refused' | 'wrong';
  readonly words: string;
}

/** Units of a picture in millimetres. Source: CSS, 96 px are 25.4 mm. */
const PX_MM = 25.4 / 96;

/** As it comes in, mm². */
function areaOf({ svg }: Icon): number {
  const paths = readSvg(svg).paths.map(({ closed, curves }): Path => ({
    closed,
    curves: curves.map((curve) => ({ name: '', curve })),
  }));
  return filledArea(paths);
}

export function areaVerdict(icon: Icon): Verdict {
  const { name } = icon;
  const found = areaOf(icon) / sizeOf(icon.svg) ** 2;
  const { area, error } = paintedArea(icon);
  return Math.abs(found - area) <= error
    ? { name, outcome: 'right', words: '' }
    : { name, outcome: 'wrong', words: `area ${found} instead of ${area} ± ${error}` };
}

/** Millimetres for each unit of the view box. */
function sizeOf(svg: string): number {
  const box = /viewBox="([^"]+)"/
    .exec(svg)![1]!
    .split(/[\s,]+/)
    .map(Number);
  const [, size = '', unit = ''] = /<svg[^>]*\swidth="([\d.]+)([a-z%]*)"/.exec(svg) ?? [];
  const wide = size === '' || unit !== '' ? box[2]! : Number(size);
  return (wide * PX_MM) / box[2]!;
}

const HEIGHT = 3;

/** The raised body against the area of its own profile, to nine digits. */
export function volumeVerdict(kernel: Evaluator, { name, svg }: Icon): Verdict {
  const area = areaOf({ name, svg });
  const document = built([
    ['bring', { as: 'icon', drawing: { svg, name: 'icon' } }],
    ['raise', { as: 'body', profiles: ['icon'], height: HEIGHT }],
  ]);
  const problem = kernel.problemOf(document, idOf(document, 'body'));
  if (problem) return { name, outcome: 'refused', words: problem.reason };
  const { volume } = measured(kernel, document, 'body');
  return Math.abs(volume / (area * HEIGHT) - 1) <= SAME
    ? { name, outcome: 'right', words: '' }
    : { name, outcome: 'wrong', words: `volume ${volume} instead of ${area * HEIGHT}` };
}
const SAME = 1e-7;
