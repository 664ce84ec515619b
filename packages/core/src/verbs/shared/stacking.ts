/** Layers of a stacked model, and the sheets that they are laid out on. */
import type { DrawnPath } from '../../curves/curve.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import type { Sheet } from '../../document/sheet.ts';
import { boxOfPaths } from '../../formats/drawing.ts';
import { filledArea } from '../../profiles/area.ts';
import { namedPaths } from '../../profiles/path.ts';
import { dowelHoles, type Dowels } from '../../sheets/dowels.ts';
import { unitedOutlines } from '../../sheets/layers.ts';
import type { PackedPiece } from '../../sheets/packing.ts';
import { formatScale } from '../../sheets/paper.ts';
import { NO_TURN, carry, chain, degreesOfTurn, type Pose } from '../../space/pose.ts';
import type { Vec3 } from '../../space/vector.ts';
import { isRefusal, refuse, type Refusal, type VerbContext } from '../../statement/declare.ts';
import { layersOf } from '../../statement/layers.ts';
import { addView, emptySheet, freeSheetName } from './sheets.ts';

/** A layer of a stacked model. */
export interface Layer {
  /** On paper, mm. */
  readonly width: number;
  readonly height: number;
  /** mm² of paper. */
  readonly area: number;
  /** In the frame of the plane: its middle, and its height over the plane. */
  readonly middle: readonly [number, number];
  readonly over: number;
  /** Of the layer above. */
  readonly next: number | null;
  /** In the frame of the plane, mm of the model. */
  readonly outlines: readonly DrawnPath[];
}

interface Cutting {
  readonly items: readonly ItemId[];
  readonly plane: Pose;
  readonly pitch: number;
  readonly scale: number;
}

/** Layers that something is cut of, from the lowest. */
export function layersIn({ items, plane, pitch, scale }: Cutting, context: VerbContext): Layer[] | Refusal {
  const { turn, shift } = plane;
  const heights = layersOf({ items, plane, pitch, count: undefined, at: 'middle' }, context);
  if (isRefusal(heights)) return { ...heights, blank: 'thickness' };
  const found = context.ask<'slices'>({ ask: 'slices', parts: items, plane: { turn, shift }, heights });
  const cut = found.flatMap((items, i) => {
    const paths = unitedOutlines(items);
    const box = boxOfPaths(paths);
    return box ? [{ paths, box, over: heights[i]! }] : [];
  });
  if (cut.length === 0) return refuse('nothing.layers', {}, 'parts');
  return cut.map(({ paths, box: { min, max }, over }, i) => ({
    width: (max[0] - min[0]) * scale,
    height: (max[1] - min[1]) * scale,
    area: filledArea(namedPaths(paths)) * scale ** 2,
    middle: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2],
    over,
    next: cut[i + 1]?.over ?? null,
    outlines: paths,
  }));
}

/** The refusal of a layer that is larger than a sheet. */
export function doesNotFit(
  { width, height }: Layer,
  room: { readonly width: number; readonly height: number },
): Refusal {
  const words = (size: typeof room) => `${size.width.toFixed(1)} × ${size.height.toFixed(1)} mm`;
  return refuse('too-large.layer', { value: words({ width, height }), room: words(room) }, 'scale');
}

interface Page {
  readonly page: readonly PackedPiece[];
  readonly layers: readonly Layer[];
  readonly name: string;
  readonly paper: Sheet['paper'];
  readonly scale: number;
  readonly plane: Pose;
  readonly parts: readonly ItemId[];
  readonly dowels: Dowels | undefined;
}

/** A dowel that goes through no layer, counted from 1; undefined where all go through some. */
export function idleDowel(layers: readonly Layer[], { at, diameter }: Dowels): number | undefined {
  const idle = at.findIndex((place) =>
    layers.every(({ outlines }) => dowelHoles(outlines, { at: [place], diameter }).length === 0),
  );
  return idle < 0 ? undefined : idle + 1;
}

/** Of a name, so that what follows it still fits into one. */
const MAX_NAMED = 80;

/** Its name says how much of it is left over. */
export function pageOf(draft: KadrelDocument, context: VerbContext, of: Page): ItemId {
  const { page, layers, paper, scale, plane, parts, dowels } = of;
  const used = page.reduce((sum, { piece }) => sum + layers[piece]!.area, 0);
  const waste = Math.round(100 * (1 - used / (paper.width * paper.height)));
  const sheet = emptySheet(draft, {
    id: context.newId(),
    name: freeSheetName(draft, `${of.name.slice(0, MAX_NAMED)} (${formatScale(scale)}, ${waste} % waste)`),
    paper,
    arrangement: 'first',
  });
  draft.sheets[sheet.id] = { ...sheet, border: 'none', lines: '0.25' };
  const frame = { origin: triple(plane.shift), turn: triple(degreesOfTurn(plane.turn)) };
  for (const { piece, at } of page) {
    const { over, next, middle } = layers[piece]!;
    const there = chain(plane, { turn: NO_TURN, shift: [0, 0, over] });
    addView(draft.sheets[sheet.id]!, context.newId(), {
      name: `Layer ${piece + 1}`,
      look: { kind: 'slice', frame, height: over, next, ...(dowels ? { dowels: keptDowels(dowels) } : {}) },
      scale,
      anchor: carry(there, [...middle, 0]),
      at,
      hidden: 'none',
      parts,
    });
  }
  return sheet.id;
}

const keptDowels = ({ at, diameter }: Dowels) => ({
  diameter,
  at: at.map(([x, y]): [number, number] => [x, y]),
});

const triple = ([x, y, z]: Vec3): [number, number, number] => [x, y, z];
