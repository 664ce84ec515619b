/** What the verbs of sheets share. */
import {
  ENTRY_KINDS,
  inOrder,
  sheetsOf,
  type Look,
  type Sheet,
  type SheetView,
  type Tie,
  type TieRead,
} from '../../document/sheet.ts';
import { stemOf } from '../../document/itemIndex.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { partsShown } from '../../sheets/titleBlock.ts';
import { MARGINS, TITLE_BLOCK, readScale, type Paper } from '../../sheets/paper.ts';
import { boxPoint, unionBoxes, type Box } from '../../space/box.ts';
import type { Vec3 } from '../../space/vector.ts';
import { distance2, type Vec2 } from '../../space/vector2.ts';
import { readSheet } from '../../statement/onSheets.ts';
import { isRefusal, optional, refuse, type Refusal, type VerbContext } from '../../statement/declare.ts';

/** Letters on a sheet are no higher than this, mm. */
export const MAX_LETTER_MM = 100;

/** The blank that names a sheet; left empty, it is the last one made. */
export const sheetBlank = optional('sheet', 'sheet', 'Which one; the last one made where none is said.');

/** The sheet of a draft that a statement is about. */
export function sheetIn(draft: KadrelDocument, sheet: Sheet | undefined): Sheet | Refusal {
  const found = sheet ?? readSheet(undefined, draft);
  return isRefusal(found) ? { ...found, blank: 'sheet' } : draft.sheets[found.id]!;
}

const namesOn = (sheet: Sheet): string[] =>
  ENTRY_KINDS.flatMap((kind) =>
    Object.values<{ readonly name: string }>(sheet[kind]).map(({ name }) => name),
  );

/** `Front`, `Front 2`… whatever is free on the sheet. */
export function freeOnSheet(sheet: Sheet, wanted: string): string {
  const taken = new Set(namesOn(sheet));
  if (!taken.has(wanted)) return wanted;
  const stem = wanted.slice(0, MAX_STEM);
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`;
}
/** Letters of a name, so that a number still fits in. */
const MAX_STEM = 110;

/** `D1`, `D2`… the next one after all that are there. */
export function nextNumbered(sheet: Sheet, letter: string): string {
  const numbers = namesOn(sheet).map((name) => Number(new RegExp(`^${letter}(\\d+)$`).exec(name)?.[1] ?? 0));
  return `${letter}${Math.max(0, ...numbers) + 1}`;
}

export const nextOrderOn = (sheet: Sheet, kind: (typeof ENTRY_KINDS)[number]): number =>
  (inOrder<{ order: number }>(sheet[kind]).at(-1)?.[1].order ?? 0) + 1;

/** `1:50` → mm on paper for one of the model; undefined where nothing is said. */
export function scaleFrom(text: string | undefined): number | undefined | Refusal {
  if (text === undefined) return undefined;
  return readScale(text) ?? refuse('scale', { text }, 'scale');
}

/** The exact box of what views show. */
export function boxShown(
  document: KadrelDocument,
  parts: readonly ItemId[] | undefined,
  context: VerbContext,
): Box | Refusal {
  const shown = [...partsShown(document, parts)];
  if (shown.length === 0) return refuse('nothing.only', {}, 'only');
  return unionBoxes(shown.map((id) => context.worldBox(id)))!;
}

/** The middle of that. */
export function middleShown(
  document: KadrelDocument,
  parts: readonly ItemId[] | undefined,
  context: VerbContext,
): Vec3 | Refusal {
  const box = boxShown(document, parts, context);
  return isRefusal(box) ? box : boxPoint(box, [0, 0, 0]);
}

/** A sheet to begin with. */
interface Begun {
  readonly id: ItemId;
  readonly name: string | undefined;
  readonly paper: Paper;
  readonly arrangement: Sheet['arrangement'];
}

/** The name itself, or with the next number that is free. */
export function freeSheetName(document: KadrelDocument, wanted: string): string {
  const taken = new Set(sheetsOf(document).map(({ name }) => name));
  if (!taken.has(wanted)) return wanted;
  const stem = stemOf(wanted);
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`;
}

/** With nothing on it; where no name is said, `Sheet 1`, `Sheet 2`… */
export function emptySheet(document: KadrelDocument, { id, name, paper, arrangement }: Begun): Sheet {
  const others = sheetsOf(document);
  const free = name ?? freeSheetName(document, 'Sheet 1');
  return {
    id,
    name: free,
    order: (others.at(-1)?.order ?? 0) + 1,
    paper: { width: paper.width, height: paper.height },
    arrangement,
    lines: '0.35',
    title: { title: '', number: '', author: '', date: '', remarks: '' },
    partsList: false,
    border: 'titled',
    views: {},
    dimensions: {},
    notes: {},
  };
}

/** Of places spread over the sheet, the one that is farthest from the views that are there. */
export function freePlace({ paper, views }: Sheet): Vec2 {
  const shares = [0.2, 0.35, 0.5, 0.65, 0.8];
  const low = MARGINS.other + TITLE_BLOCK.height;
  const spots = shares.flatMap((u) =>
    shares.map((v): Vec2 => [Math.round(u * paper.width), Math.round(low + v * (paper.height - low))]),
  );
  const middle: Vec2 = [paper.width / 2, (low + paper.height) / 2];
  const room = (spot: Vec2) => {
    const taken = Object.values(views).map(({ at }) => distance2(at, spot));
    return taken.length === 0 ? -distance2(spot, middle) : Math.min(...taken);
  };
  return spots.reduce((best, spot) => (room(spot) > room(best) ? spot : best));
}

export interface NewView {
  readonly name: string;
  readonly look: Look;
  readonly scale: number;
  /** Of the world, mm: drawn at `at`. */
  readonly anchor: readonly [number, number, number];
  readonly at: readonly [number, number];
  readonly hidden: SheetView['hidden'];
  readonly parts?: readonly ItemId[] | undefined;
  readonly detail?: SheetView['detail'];
}

/** Puts a view on a sheet of a draft. */
export function addView(
  sheet: Sheet,
  id: ItemId,
  { name, parts, detail, anchor, at, ...view }: NewView,
): void {
  sheet.views[id] = {
    ...view,
    name: freeOnSheet(sheet, name),
    order: nextOrderOn(sheet, 'views'),
    anchor: [...anchor],
    at: [...at],
    smooth: 'thin',
    centres: 'marked',
    ...(parts ? { parts: [...parts] } : {}),
    ...(detail ? { detail } : {}),
  };
}

/** As a sheet keeps it. */
export function tieKept({ tie: { point, named } }: TieRead): Sheet['dimensions'][string]['ties'][number] {
  const { near, ...rest } = (named ?? {}) as NonNullable<Tie['named']>;
  return {
    point: [...point],
    ...(named ? { named: { ...rest, ...(near ? { near: [...near] } : {}) } } : {}),
  };
}
