/** A sheet as DXF: lines on layers by what they are, with line types and widths, in mm of the paper. */
import {
  STROKES,
  entityOf,
  type Entity,
  type Mark,
  type SheetPicture,
  type Stroke,
  type Vec2,
} from '@kadrel/core';
import type { SheetExporter } from './declare.ts';

/** Drawing exchange: lines on layers. */
export const sheetDxf: SheetExporter = {
  format: 'sheet-dxf',
  name: 'DXF',
  about: 'One sheet, with layers and line types, at its true size.',
  extension: '.dxf',
  mime: 'image/vnd.dxf',
  holdsMany: false,
  write: ([picture]) => Promise.resolve(dxfOfSheet(picture!)),
};

type Pair = readonly [code: number, value: string | number];

/** Handles below these are of the tables. */
const FIRST_HANDLE = 0x200;
const TEXT_LAYER = 'text';
const FILL_LAYER = 'fill';

/** In mm of the paper, from its lower left corner. */
export function dxfOfSheet(picture: SheetPicture): string {
  let handle = FIRST_HANDLE;
  const entityOn =
    (layer: string): Entity =>
    (type, kind, ...pairs) => [
      [0, type],
      [5, (handle++).toString(16).toUpperCase()],
      [100, 'AcDbEntity'],
      [8, layer],
      [100, kind],
      ...pairs,
    ];
  const pairs: Pair[] = [
    ...head(picture),
    ...tables(picture),
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...picture.marks.flatMap((mark) => entitiesOf(mark, entityOn)),
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return pairs.map(([code, value]) => `${code}\n${value}\n`).join('');
}

function head({ paper }: SheetPicture): Pair[] {
  return [
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1015'],
    [9, '$INSUNITS'],
    [70, 4],
    [9, '$EXTMIN'],
    [10, 0],
    [20, 0],
    [9, '$EXTMAX'],
    [10, paper.width],
    [20, paper.height],
    [0, 'ENDSEC'],
  ];
}

function entitiesOf(mark: Mark, entityOn: (layer: string) => Entity): readonly Pair[] {
  if (mark.kind === 'path')
    return mark.curves.flatMap((curve) => [...entityOf(curve, entityOn(mark.stroke))]);
  if (mark.kind === 'text') return textEntity(mark, entityOn(TEXT_LAYER));
  // Light fills are given by their outlines alone.
  return mark.shade === 'dark' ? mark.loops.flatMap((loop) => solidEntity(loop, entityOn(FILL_LAYER))) : [];
}

const point = ([x, y]: Vec2, code: number): Pair[] => [
  [code, x],
  [code + 10, y],
  [code + 20, 0],
];

const ALIGN = { start: 0, middle: 1, end: 2 } as const;

function textEntity(mark: Extract<Mark, { kind: 'text' }>, entity: Entity): Pair[] {
  const { at, text, height, turn, align } = mark;
  return [
    ...entity(
      'TEXT',
      'AcDbText',
      ...point(at, 10),
      [40, height],
      [1, asciiText(text)],
      [50, turn],
      [72, ALIGN[align]],
      ...point(at, 11),
    ),
    [100, 'AcDbText'],
  ];
}

/** Letters beyond ASCII as the format tells them, so that no code page matters. */
const asciiText = (text: string) =>
  text.replace(
    /[^\x20-\x7e]/g,
    (letter) => `\\U+${letter.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`,
  );

/** A filled triangle: its last corner is given twice. */
function solidEntity(loop: readonly Vec2[], entity: Entity): Pair[] {
  const [a, b, c] = loop;
  return [
    ...entity('SOLID', 'AcDbTrace', ...point(a!, 10), ...point(b!, 11), ...point(c!, 12), ...point(c!, 13)),
  ];
}

const LINE_TYPES = [...new Set(Object.values(STROKES).map(({ dashes }) => dashes.join()))];
const typeName = (dashes: readonly number[]) =>
  dashes.length === 0 ? 'CONTINUOUS' : dashes.length === 2 ? 'DASHED' : 'CENTER';

function tables({ lineWidth }: SheetPicture): Pair[] {
  const strokes = Object.entries(STROKES) as [Stroke, (typeof STROKES)[Stroke]][];
  const types = LINE_TYPES.map((key) => (key === '' ? [] : key.split(',').map(Number)));
  const layers = [
    ...strokes.map(([name, { width, dashes }]) => ({
      name: name,
      width,
      dashes: dashes,
    })),
    ...[TEXT_LAYER, FILL_LAYER].map((name) => ({ name, width: 0.5, dashes: [] as readonly number[] })),
  ];
  return [
    [0, 'SECTION'],
    [2, 'TABLES'],
    ...table(
      'LTYPE',
      '5',
      types.flatMap((dashes, i) => lineType(dashes, 0x10 + i, lineWidth)),
    ),
    ...table(
      'LAYER',
      '2',
      layers.flatMap(({ name, width, dashes }, i) =>
        layerOf(name, 0x40 + i, { width: width * lineWidth, dashes }),
      ),
    ),
    [0, 'ENDSEC'],
  ];
}

const table = (name: string, handle: string, records: Pair[]): Pair[] => [
  [0, 'TABLE'],
  [2, name],
  [5, handle],
  [100, 'AcDbSymbolTable'],
  [70, records.filter(([code]) => code === 0).length],
  ...records,
  [0, 'ENDTAB'],
];

function lineType(dashes: readonly number[], handle: number, lineWidth: number): Pair[] {
  // Dashes and gaps of thin lines, in mm: gaps have a minus.
  const lengths = dashes.map((n, i) => (i % 2 === 0 ? 1 : -1) * n * 0.5 * lineWidth);
  return [
    [0, 'LTYPE'],
    [5, handle.toString(16).toUpperCase()],
    [100, 'AcDbSymbolTableRecord'],
    [100, 'AcDbLinetypeTableRecord'],
    [2, typeName(dashes)],
    [70, 0],
    [3, ''],
    [72, 65],
    [73, lengths.length],
    [40, lengths.reduce((sum, n) => sum + Math.abs(n), 0)],
    ...lengths.flatMap((n): Pair[] => [
      [49, n],
      [74, 0],
    ]),
  ];
}

interface Look {
  /** mm */
  readonly width: number;
  readonly dashes: readonly number[];
}

const layerOf = (name: string, handle: number, { width, dashes }: Look): Pair[] => [
  [0, 'LAYER'],
  [5, handle.toString(16).toUpperCase()],
  [100, 'AcDbSymbolTableRecord'],
  [100, 'AcDbLayerTableRecord'],
  [2, name],
  [70, 0],
  [62, 7],
  [6, typeName(dashes)],
  [370, nearestWidth(width)],
];

/** Widths that the format knows, in hundredths of a mm. */
const WIDTHS = [
  0, 5, 9, 13, 15, 18, 20, 25, 30, 35, 40, 50, 53, 60, 70, 80, 90, 100, 106, 120, 140, 158, 200, 211,
];
const nearestWidth = (mm: number) =>
  WIDTHS.reduce((best, one) => (Math.abs(one - 100 * mm) < Math.abs(best - 100 * mm) ? one : best));
