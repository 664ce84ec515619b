/** Blanks as typed → the values that a verb's `apply` receives, or the first reason why there are none. */
import { partNamed, valueOf } from '../document/items.ts';
import { regionsSchema, type Regions } from '../recipes/bodies/index.ts';
import { viewSchema, type ItemId, type KadrelDocument, type Num } from '../document/schema.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { FormatError } from '../formats/fault.ts';
import { IMPORTERS } from '../formats/importers.ts';
import {
  isRefusal,
  refuse,
  refuseFor,
  type BlankValues,
  type Blank,
  type Asked,
  type Refusal,
  type Verb,
} from './declare.ts';
import { readEdges, readFaces, readPlaces, type Naming } from './chosen.ts';
import { sentenceCase } from './letters.ts';
import { readDock, readSpot } from './docks.ts';
import { rackPartMeant, readParameters, readRackPart } from './racked.ts';
import { readPlane } from './planes.ts';
import { readRows } from './rows.ts';
import type { World } from './world.ts';
import {
  type Typed,
  quantityReader,
  isEmpty,
  type Resolving,
  asText,
  threeTexts,
  readNumber,
  readVector,
  withBlank,
  POINT_BLANK,
  findPart,
} from './resolving.ts';
import {
  readPoint,
  readPath,
  readFeature,
  dockReaders,
  readOnSheet,
  readTargetOf,
  readDirection,
  readFrame,
} from './readPlaces.ts';

/** Edges or faces of the part that the blank says more of. */
function readChosen(given: unknown, { blank, id }: Asked, around: Resolving) {
  const { document, world, typed } = around;
  const part = findPart(typed[blank.of!], blank.of!, document);
  if (isRefusal(part)) return part;
  const stranger = (Array.isArray(given) ? given : [given]).find(
    (one: unknown) => onOf(one) !== undefined && partNamed(document, onOf(one)!)?.id !== part,
  ) as unknown;
  const { name } = document.items[part]!;
  if (stranger !== undefined) return refuse('stranger', { type: blank.type.slice(0, -1), name }, id);
  const naming: Naming = {
    name,
    document,
    areFormer: blank.former === true,
    features() {
      const shape = world.shapeOf(part);
      return isRefusal(shape) ? shape : shape.snaps;
    },
  };
  const read = CHOSEN_READERS[blank.type as keyof typeof CHOSEN_READERS](given, naming);
  return isRefusal(read) ? { ...read, blank: id } : read;
}

const CHOSEN_READERS = { edges: readEdges, faces: readFaces, places: readPlaces };

const onOf = (one: unknown): string | undefined =>
  typeof one === 'object' && one !== null && 'on' in one ? String(one.on) : undefined;

/** The values of the blanks, or the first reason why there are none. */
export function resolveStatement(
  verb: Verb,
  typed: Typed,
  document: KadrelDocument,
  world: World,
): Record<string, unknown> | Refusal {
  const read = quantityReader(document);
  const values: Record<string, unknown> = {};
  for (const [id, blank] of Object.entries(verb.blanks)) {
    const given = isEmpty(typed[id]) ? blank.default : typed[id];
    if (isEmpty(given)) {
      if (!blank.optional || (blank.neededUnless !== undefined && isEmpty(typed[blank.neededUnless])))
        return refuse(
          'missing.still',
          { value: blank.about.charAt(0).toLowerCase(), about: blank.about.slice(1) },
          id,
        );
      continue;
    }
    const value = resolveBlank({ blank, id }, given, { typed, document, read, world });
    if (isRefusal(value)) return value;
    values[id] = value;
  }
  return values;
}

/** The value of one blank by itself, or why it has none; undefined while it is empty. */
export function resolveOne(
  verb: Verb,
  id: string,
  typed: Typed,
  { document, world }: { readonly document: KadrelDocument; readonly world: World },
): unknown {
  const blank = verb.blanks[id]!;
  const given = isEmpty(typed[id]) ? blank.default : typed[id];
  return isEmpty(given)
    ? undefined
    : resolveBlank({ blank, id }, given, { typed, document, read: quantityReader(document), world });
}

/** The text of a file by its format, as in `{ svg }`, and perhaps its name. */
function readDrawing(given: unknown, id: string): BlankValues['drawing'] | Refusal {
  const entries = (typeof given === 'object' && given !== null ? given : {}) as Record<string, unknown>;
  const { name } = entries;
  const named = typeof name === 'string' && name !== '' ? name.slice(0, MAX_NAME) : 'Outline';
  const importer = IMPORTERS.find(({ format }) => typeof entries[format] === 'string');
  if (!importer) {
    const formats = IMPORTERS.map(({ format }) => `{ "${format}": text }`).join(' or ');
    return refuse('type.outlines', { formats }, id);
  }
  try {
    return { ...importer.read(entries[importer.format] as string), name: named };
  } catch (error) {
    if (error instanceof FormatError) return refuseFor(error, id);
    throw error;
  }
}

/** `all`, or regions as they are stored. */
function readRegions(given: unknown, id: string): Regions | Refusal {
  const read = regionsSchema.safeParse(given);
  if (read.success) return read.data;
  return refuse('regions', {}, id);
}

function readView(given: unknown, id: string): unknown {
  const view = viewSchema.safeParse(given);
  return view.success ? view.data : refuse('type.view', {}, id);
}

/** `2, 3, 4`, or a list. */
function readNumbers(given: unknown, { blank, id }: Asked, around: Resolving): Num[] | Refusal {
  const list: unknown[] = typeof given === 'string' ? given.split(',') : [given].flat();
  const read = list.map((one) => readNumber(one, blank.kind ?? 'length', { blank, id }, around));
  return read.find(isRefusal) ?? (read as Num[]);
}

const KIND_OF_TYPE: Readonly<Partial<Record<Blank['type'], QuantityKind>>> = {
  angle: 'angle',
  count: 'count',
  tally: 'count',
};

/** Reads what stands in a blank. */
type BlankReader = (
  given: unknown,
  at: { readonly blank: Blank; readonly id: string; readonly around: Resolving },
) => unknown;

const numberRead: BlankReader = (given, { blank, id, around }) =>
  readNumber(given, blank.kind ?? KIND_OF_TYPE[blank.type] ?? 'length', { blank, id }, around);

const chosenRead: BlankReader = (given, { blank, id, around }) => readChosen(given, { blank, id }, around);

const onSheetRead: BlankReader = (given, { blank, id, around }) =>
  withBlank(readOnSheet(given, { blank, id }, around), id);

const joiningRead: BlankReader = (given, { blank, id, around }) =>
  withBlank(readJoining(given, { blank, id }, around), id);

const rackedRead: BlankReader = (given, { blank, id, around }) =>
  withBlank(readRacked(given, blank, around), id);

const textRead: BlankReader = (given, { blank, id }) => readText(given, blank, id);

const READERS: Readonly<Record<Blank['type'], BlankReader>> = {
  length: numberRead,
  angle: numberRead,
  tally: numberRead,
  count(given, at) {
    const count = numberRead(given, at) as Num | Refusal;
    return isRefusal(count) ? count : valueOf(count);
  },
  numbers: (given, { blank, id, around }) => readNumbers(given, { blank, id }, around),
  vector: (given, { blank, id, around }) => readVector(given, { blank, id }, around),
  point: (given, { blank, id, around }) => readPoint(given, { blank, id }, around),
  frame: (given, { id, around }) => readFrame(given, id, around),
  direction: (given, { id, around }) => readDirection(given, id, around),
  feature: (given, { id, around }) => readFeature(given, id, around),
  target: (given, { id, around }) => readTargetOf(given, id, around),
  spot: joiningRead,
  dock: joiningRead,
  rackPart: rackedRead,
  parameters: rackedRead,
  path: (given, { id, around }) => readPath(given, id, around),
  rows: (given, { blank, id, around }) =>
    readRows(given, { blank, id }, (cell, of, label) =>
      readNumber(cell, of, { blank: { ...POINT_BLANK, label }, id }, around),
    ),
  drawing: (given, { id }) => readDrawing(given, id),
  plane: (given, { id, around }) =>
    readPlane(given, id, {
      document: around.document,
      point: (point) => readPoint(point, { blank: POINT_BLANK, id }, around),
      feature: (feature) => readFeature(feature, id, around),
    }),
  regions: (given, { id }) => readRegions(given, id),
  edges: chosenRead,
  faces: chosenRead,
  places: chosenRead,
  view: (given, { id }) => readView(given, id),
  sheet: onSheetRead,
  entry: onSheetRead,
  ties: onSheetRead,
  quantity: (given, { id }) => asText(given) ?? refuse('type.number', {}, id),
  quantities: (given, { id }) => threeTexts(given) ?? refuse('type.three-numbers-belong', {}, id),
  part: (given, { id, around }) => findPart(given, id, around.document),
  parts: (given, { blank, id, around }) => findParts(given, { blank, id }, around.document),
  choice: (given, { blank, id }) => readChoice(given, blank, id),
  name: textRead,
  text: textRead,
  size: textRead,
};

const resolveBlank = ({ blank, id }: Asked, given: unknown, around: Resolving): unknown =>
  READERS[blank.type](given, { blank, id, around });

function readChoice(given: unknown, { choices = {} }: Blank, id: string): string | Refusal {
  const text = asText(given);
  if (text !== undefined && Object.hasOwn(choices, text)) return text;
  return refuse('choice.offered', { given: String(given), choices: Object.keys(choices).join(', ') }, id);
}

function readText(given: unknown, { type }: Blank, id: string): string | Refusal {
  // Several numbers may be given as a list.
  const list = type === 'text' && Array.isArray(given) ? given.map(asText) : [asText(given)];
  const text = list.includes(undefined) ? undefined : list.join(', ').trim();
  const max = type === 'name' ? MAX_NAME : MAX_TEXT;
  if (text !== undefined && text.length > 0 && text.length <= max) return text;
  return refuse('text.most-characters', { most: max }, id);
}

/** What the document holds of each. */
const MAX_NAME = 120;

const MAX_TEXT = 500;

/** Parts of racks, and their parameters. */
function readRacked(given: unknown, blank: Blank, around: Resolving) {
  const { document, world, typed } = around;
  const at = { document, lookUp: (name: string) => world.rackPart?.(name) };
  if (blank.type === 'rackPart') return readRackPart(given, at);
  const part = rackPartMeant(typed[blank.of!], at);
  return isRefusal(part) ? part : readParameters(given, part, around.read);
}

/** Docks, and places for them. */
function readJoining(given: unknown, { blank: { type }, id }: Asked, around: Resolving) {
  const readers = dockReaders(id, around);
  return type === 'dock' ? readDock(given, readers) : readSpot(given, readers);
}

function findParts(given: unknown, { blank, id }: Asked, document: KadrelDocument): ItemId[] | Refusal {
  const names: unknown[] = Array.isArray(given) ? given : [given];
  const found = names.map((name) => findPart(name, id, document));
  const fault = found.find(isRefusal);
  if (fault) return fault;
  const ids = [...new Set(found as ItemId[])];
  const min = blank.least ?? 1;
  if (ids.length < min) return refuse('too-few', { label: sentenceCase(blank.label), least: min }, id);
  return ids;
}
