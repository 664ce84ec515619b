/** Blanks as typed → the values that a verb's `apply` receives, or the first reason why there are none. */
import { partNamed, pinNamed, valueOf, vectorOf } from '../document/items.ts';
import { regionsSchema, type Regions } from '../recipes/bodies/index.ts';
import type { WayCurve } from '../recipes/layouts/index.ts';
import {
  viewSchema,
  type ItemId,
  type KadrelDocument,
  type Num,
  type NumVector,
} from '../document/schema.ts';
import type { Target } from '../document/fit.ts';
import type { TieRead } from '../document/sheet.ts';
import { readQuantity, type Quantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { solveVariables } from '../quantity/variables.ts';
import type { Variant } from '../patterns/placed.ts';
import { carry, type Pose } from '../space/pose.ts';
import { cleanDirection, column } from '../space/matrix.ts';
import { length, unit, type Vec3 } from '../space/vector.ts';
import {
  carryGeometry,
  directionOf,
  locateFeature,
  type Feature,
  type Geometry,
} from '../snapping/feature.ts';
import { locatePoint, type NamedPoint } from '../snapping/locate.ts';
import { carryWay, locateWay } from '../snapping/locateWay.ts';
import type { ShapeFeatures } from '../snapping/shape.ts';
import { solidNamed } from '../snapping/solidNamed.ts';
import { readDxf } from '../formats/dxf.ts';
import { FormatError } from '../formats/fault.ts';
import { readSvg } from '../formats/svg.ts';
import {
  isRefusal,
  refuse,
  type BlankValues,
  type Blank,
  type Asked,
  type Direction,
  type Refusal,
  type Verb,
} from './declare.ts';
import { VIEW_FRAMES, WORLD_FRAME, featureFrame, threePointFrame, viewFrame, type Frame } from './frames.ts';
import { readEdges, readFaces, readPlaces, type Naming } from './chosen.ts';
import { sentenceCase } from './letters.ts';
import { readDock, readSpot } from './docks.ts';
import { rackPartMeant, readParameters, readRackPart } from './racked.ts';
import { readEntry, readSheet, readTies } from './onSheets.ts';
import { readTarget } from './targets.ts';
import { readPlane } from './planes.ts';
import { readRows } from './rows.ts';
import type { World } from './world.ts';

/** Edges or faces of the part that the blank says more of. */
function readChosen(given: unknown, { blank, id }: Asked, around: Resolving) {
  const { document, world, typed } = around;
  const part = findPart(typed[blank.of!], blank.of!, document);
  if (isRefusal(part)) return part;
  const stranger = (Array.isArray(given) ? given : [given]).find(
    (one: unknown) => onOf(one) !== undefined && partNamed(document, onOf(one)!)?.id !== part,
  ) as unknown;
  const { name } = document.items[part]!;
  if (stranger !== undefined)
    return refuse('stranger', `This ${blank.type.slice(0, -1)} is of another part than ${name}.`, id);
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

/** Blanks as typed: texts, lists of texts, part names or ids, `{ on, at, snap }` for points. */
export type Typed = Readonly<Record<string, unknown>>;

type Reader = (text: string, kind: QuantityKind, now?: number) => Num;

/** Reads texts in the document's units and variables; a text that uses variables keeps its formula. Throws QuantityError. */
export function quantityReader(document: KadrelDocument): Reader {
  let variables: ReadonlyMap<string, Quantity> | undefined;
  return (text, kind, now) => {
    variables ??= solveVariables(document.variables, document.scene.units).values;
    const context = { units: document.scene.units, variables, ...(now === undefined ? {} : { now }) };
    const { value, uses } = readQuantity(text, kind, context);
    return uses.length > 0 && !/\bnow\b/.test(text) ? { formula: text.trim(), value } : value;
  };
}

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
          'missing',
          `Still empty: ${blank.about.charAt(0).toLowerCase()}${blank.about.slice(1)}`,
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
  document: KadrelDocument,
  world: World,
): unknown {
  const blank = verb.blanks[id]!;
  const given = isEmpty(typed[id]) ? blank.default : typed[id];
  return isEmpty(given)
    ? undefined
    : resolveBlank({ blank, id }, given, { typed, document, read: quantityReader(document), world });
}

/** `{ svg }` or `{ dxf }`: the text of a file, and perhaps its name. */
function readDrawing(given: unknown, id: string): BlankValues['drawing'] | Refusal {
  const { svg, dxf, name } = (typeof given === 'object' && given !== null ? given : {}) as Record<
    string,
    unknown
  >;
  const named = typeof name === 'string' && name !== '' ? name.slice(0, MOST_NAME) : 'Outline';
  try {
    if (typeof svg === 'string') return { ...readSvg(svg), name: named };
    if (typeof dxf === 'string') return { ...readDxf(dxf), name: named };
  } catch (error) {
    if (error instanceof FormatError) return refuse('file', error.message, id);
    throw error;
  }
  return refuse(
    'type',
    'Outlines are { "svg": text } or { "dxf": text }; headless also { "file": name }.',
    id,
  );
}

/** `all`, or regions as they are stored. */
function readRegions(given: unknown, id: string): Regions | Refusal {
  const read = regionsSchema.safeParse(given);
  if (read.success) return read.data;
  return refuse(
    'regions',
    'Regions are “all”, or a list of { "at": [x, y], "curves": [names] }; picking one writes that.',
    id,
  );
}

export const isEmpty = (value: unknown) =>
  value === undefined ||
  value === null ||
  value === '' ||
  (Array.isArray(value) && (value.length === 0 || value.every((v) => v === '')));

function readView(given: unknown, id: string): unknown {
  const view = viewSchema.safeParse(given);
  return view.success
    ? view.data
    : refuse('type', 'A view is { target, bearing, altitude, height, projection }.', id);
}

/** `2, 3, 4`, or a list. */
function readLengths(given: unknown, { blank, id }: Asked, around: Resolving): Num[] | Refusal {
  const list: unknown[] = typeof given === 'string' ? given.split(',') : [given].flat();
  const read = list.map((one) => readNumber(one, 'length', { blank, id }, around));
  return read.find(isRefusal) ?? (read as Num[]);
}

interface Resolving {
  /** What stands in the other blanks. */
  readonly typed: Typed;
  readonly document: KadrelDocument;
  readonly read: Reader;
  readonly world: World;
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
  lengths: (given, { blank, id, around }) => readLengths(given, { blank, id }, around),
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
  quantity: (given, { id }) => asText(given) ?? refuse('type', 'A number or a text belongs here.', id),
  quantities: (given, { id }) => threeTexts(given) ?? refuse('type', 'Three numbers belong here.', id),
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
  return refuse(
    'choice',
    `“${String(given)}” is not offered; choose ${Object.keys(choices).join(', ')}.`,
    id,
  );
}

function readText(given: unknown, { type }: Blank, id: string): string | Refusal {
  // Several numbers may be told as a list.
  const list = type === 'text' && Array.isArray(given) ? given.map(asText) : [asText(given)];
  const text = list.includes(undefined) ? undefined : list.join(', ').trim();
  const most = type === 'name' ? MOST_NAME : MOST_TEXT;
  if (text !== undefined && text.length > 0 && text.length <= most) return text;
  return refuse('text', `A text of at most ${most} characters belongs here.`, id);
}

/** What the document holds of each. */
const MOST_NAME = 120;
const MOST_TEXT = 500;

const asText = (given: unknown) =>
  typeof given === 'number' ? String(given) : typeof given === 'string' ? given : undefined;

function threeTexts(given: unknown): [string, string, string] | undefined {
  if (!Array.isArray(given) || given.length !== 3) return undefined;
  const texts = given.map((value: unknown) => asText(value) ?? undefined);
  return texts.every((text) => text !== undefined) ? (texts as [string, string, string]) : undefined;
}

function readNumber(
  given: unknown,
  kind: QuantityKind,
  { blank, id }: Asked,
  { read: usual, document }: Resolving,
): Num | Refusal {
  const read = blank.paper ? quantityReader(inMillimetres(document)) : usual;
  const text = asText(given);
  if (text === undefined) return refuse('type', 'A number or a text belongs here.', id);
  try {
    const value = read(text, kind);
    if (blank.positive && !(valueOf(value) > 0))
      return refuse('not-positive', `${sentenceCase(blank.label)} must be more than zero.`, id);
    return value;
  } catch (error) {
    if (error instanceof QuantityError) return refuse(error.code, error.message, id, error.at);
    throw error;
  }
}

/** A document whose bare numbers are millimetres. */
const inMillimetres = (document: KadrelDocument): KadrelDocument => ({
  ...document,
  scene: { ...document.scene, units: 'mm' },
});

function readVector(given: unknown, { blank, id }: Asked, around: Resolving): NumVector | Refusal {
  const texts = threeTexts(given);
  if (!texts) return refuse('type', 'Three numbers belong here, for X, Y and Z.', id);
  const read = texts.map((text, axis) => {
    const value =
      text.trim() === ''
        ? refuse('empty', `${'XYZ'[axis]} is empty.`, id)
        : readNumber(text, 'length', { blank, id }, around);
    return isRefusal(value) ? { ...value, message: `${'XYZ'[axis]}: ${value.message}` } : value;
  });
  return read.find(isRefusal) ?? (read as NumVector);
}

function readPoint(given: unknown, { blank, id }: Asked, around: Resolving): NumVector | Refusal {
  if (Array.isArray(given)) return readVector(given, { blank, id }, around);
  const pin = pinOf(given, around.document);
  if (pin) return isRefusal(pin) ? { ...pin, blank: id } : [...pin.at];
  const dock = dockOf(given, id, around);
  if (dock) return isRefusal(dock) ? dock : [...dock.shift];
  const found = readNamed(given, { id, locate: locatePoint }, around);
  if (isRefusal(found)) return found;
  return [...carry(found.pose, found.found)];
}

/** `{ "pin": name }`; undefined for anything else. */
function pinOf(given: unknown, document: KadrelDocument) {
  const name = typeof given === 'object' && given !== null ? (given as { pin?: unknown }).pin : undefined;
  if (typeof name !== 'string') return undefined;
  return pinNamed(document, name) ?? refuse('unknown-pin', `There is no pin named ${name}.`);
}

/** `{ "on": part, "dock": name }`: where that stands in the world; undefined for anything else. */
function dockOf(given: unknown, id: string, around: Resolving): Pose | Refusal | undefined {
  if (typeof given !== 'object' || given === null || !('dock' in given)) return undefined;
  const said = readDock(given, dockReaders(id, around));
  if (isRefusal(said)) return { ...said, blank: id };
  return said.place?.pose ?? refuse('dock', 'Say which dock is meant.', id);
}

/** Looks up what `{ on, at }` names on a built part. */
function readNamed<T extends object>(
  given: unknown,
  {
    id,
    locate,
  }: {
    readonly id: string;
    readonly locate: (features: ShapeFeatures, named: NamedPoint, document: KadrelDocument) => T | Refusal;
  },
  { document, world }: Resolving,
): { part: ItemId; pose: Pose; found: T; features: ShapeFeatures } | Refusal {
  const named = (typeof given === 'object' && given !== null ? given : {}) as Partial<NamedPoint>;
  if (typeof named.on !== 'string' || typeof named.at !== 'string')
    return refuse(
      'type',
      'Three numbers belong here, or { "on": part, "at": face names joined by & }, { "on": part, "dock": name }, or { "pin": name }.',
      id,
    );
  const part = findPart(named.on, id, document);
  if (typeof part !== 'string') return part;
  const solid = solidNamed(document, part, named);
  if (isRefusal(solid)) return { ...solid, blank: id };
  const shape = world.shapeOf(solid.leaf, solid);
  if (isRefusal(shape)) return { ...shape, blank: id };
  const found = locate(shape.snaps, { ...(named as NamedPoint), on: document.items[part]!.name }, document);
  return isRefusal(found)
    ? { ...found, blank: id }
    : { part, pose: solid.pose, found, features: shape.snaps };
}

function readPath(given: unknown, id: string, around: Resolving): WayCurve | Refusal {
  // Typed into one field: 0, 0, 0; 100, 0, 0.
  const points = typeof given === 'string' ? given.split(';').map((point) => point.split(',')) : given;
  if (Array.isArray(points)) {
    const read = points.map((point) => readPoint(point, { blank: POINT_BLANK, id }, around));
    const fault = read.find(isRefusal);
    if (fault) return fault;
    if (read.length < 2) return refuse('too-few', 'A path goes through two points or more.', id);
    return {
      kind: 'points',
      points: (read as NumVector[]).map((p) => [...vectorOf(p)] as [number, number, number]),
    };
  }
  const found = readNamed(given, { id, locate: locateWay }, around);
  return isRefusal(found) ? found : carryWay(found.pose, found.found);
}

function readFeature(given: unknown, id: string, around: Resolving): Feature | Refusal {
  if (Array.isArray(given) || pinOf(given, around.document)) {
    const point = readPoint(given, { blank: POINT_BLANK, id }, around);
    return isRefusal(point) ? point : { kind: 'point', at: vectorOf(point) };
  }
  const dock = dockOf(given, id, around);
  if (dock) return isRefusal(dock) ? dock : { kind: 'plane', at: dock.shift, normal: column(dock.turn, 2) };
  const found = readNamed(given, { id, locate: locateFeature }, around);
  if (isRefusal(found)) return found;
  return { ...carryGeometry(found.pose, found.found), part: found.part };
}
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

function dockReaders(id: string, around: Resolving) {
  const { document, world } = around;
  return {
    document,
    shapeOf: (part: ItemId, variant?: Variant) => world.shapeOf(part, variant),
    point: (one: unknown) => readPoint(one, { blank: POINT_BLANK, id }, around),
  };
}

/** Sheets, and what stands on them. */
function readOnSheet(given: unknown, { blank, id }: Asked, around: Resolving) {
  const { document, typed } = around;
  if (blank.type === 'sheet') return readSheet(given, document);
  if (blank.type === 'ties') return readTiesOf(given, id, around);
  return readEntry(given, { sheet: typed[blank.of!], among: blank.among, document });
}

const readTargetOf = (given: unknown, id: string, around: Resolving): Target | Refusal =>
  withBlank(
    readTarget(given, {
      document: around.document,
      point(one) {
        const point = readPoint(one, { blank: POINT_BLANK, id }, around);
        return isRefusal(point) ? point : vectorOf(point);
      },
      named: (one) => readNamedTie(one, id, around),
      features(one) {
        const found = readNamed(one, { id, locate: (features) => features }, around);
        return isRefusal(found) ? undefined : found.features;
      },
    }),
    id,
  );

/** What dimensions are tied to: names, and where these are now. */
const readTiesOf = (given: unknown, id: string, around: Resolving): TieRead[] | Refusal =>
  readTies(given, {
    point(one) {
      const point = readPoint(one, { blank: POINT_BLANK, id }, around);
      return isRefusal(point) ? point : vectorOf(point);
    },
    named: (one) => readNamedTie(one as NamedPoint & { readonly point?: unknown }, id, around),
  });

/** Where there is no kernel to tell it, names are taken as they are, and to be where `point` says. */
function readNamedTie(
  given: NamedPoint & { readonly point?: unknown },
  id: string,
  around: Resolving,
): TieRead | Refusal {
  const { on, at, snap, near, member, of, point } = given;
  const part = findPart(on, id, around.document);
  if (isRefusal(part)) return part;
  const leaf = of === undefined ? undefined : partNamed(around.document, of)?.id;
  const told = {
    part,
    ...(snap === undefined ? {} : { snap }),
    ...(member === undefined || member === '' ? {} : { member: String(member) }),
    ...(leaf === undefined ? {} : { of: leaf }),
  };
  if (around.world.isBlind && point !== undefined) {
    const there = readPoint(point, { blank: POINT_BLANK, id }, around);
    if (isRefusal(there)) return there;
    return {
      tie: { point: vectorOf(there), named: { ...told, at } },
      geometry: { kind: 'point', at: vectorOf(there) },
    };
  }
  const found = readNamed(given, { id, locate: locateFeature }, around);
  if (isRefusal(found)) return found;
  const geometry = carryGeometry(found.pose, found.found);
  const kept = near ?? nearOf(found.found);
  const named = { ...told, at: nameKept(given, found.features, around), ...(kept ? { near: kept } : {}) };
  return { tie: { point: geometry.at, named }, geometry };
}

/** The name as the kernel gives it, which outlives that an operand is renamed. */
function nameKept({ on, at, near }: NamedPoint, features: ShapeFeatures, { document }: Resolving): string {
  const naming: Naming = { name: on, document, features: () => features };
  const read = readPlaces({ at, ...(near ? { near } : {}) }, naming);
  return isRefusal(read) ? at : read[0]!.at;
}

/** Of several of one name this one is meant from now on; the rim of a circle is not told by its centre. */
const nearOf = ({ kind, at }: Geometry): Vec3 | undefined =>
  kind === 'point' || kind === 'line' ? at : undefined;

const withBlank = <T>(read: T | Refusal, blank: string): T | Refusal =>
  isRefusal(read) ? { ...read, blank } : read;

const POINT_BLANK: Blank = { type: 'point', label: 'point', about: '', optional: false };

function readDirection(given: unknown, id: string, around: Resolving): Direction | Refusal {
  const text = asText(given)?.trim().toLowerCase();
  const named = text === undefined ? null : /^([+-]?)([xyz])$/.exec(text);
  if (named) return { axis: 'xyz'.indexOf(named[2]!) as 0 | 1 | 2, sign: named[1] === '-' ? -1 : 1 };
  if (Array.isArray(given)) {
    const numbers = given.map(Number);
    if (numbers.length !== 3 || !numbers.every(Number.isFinite) || length(numbers as unknown as Vec3) === 0)
      return refuse('direction', 'A direction is three numbers, not all zero.', id);
    return { vector: cleanDirection(unit(numbers as unknown as Vec3)) };
  }
  if (text !== undefined || typeof given !== 'object')
    return refuse(
      'direction',
      'A direction is X, Y or Z, with a minus for the other way, or a picked edge or face.',
      id,
    );
  const feature = readFeature(given, id, around);
  if (isRefusal(feature)) return feature;
  const direction = directionOf(feature);
  return direction
    ? { vector: cleanDirection(direction) }
    : refuse('direction', 'A point has no direction: pick an edge or a face.', id);
}

/** World, own, a view by name or by bearing and altitude, a feature, or three points. */
function readFrame(given: unknown, id: string, around: Resolving): Frame | Refusal {
  const text = asText(given)?.trim().toLowerCase();
  if (text === 'world') return WORLD_FRAME;
  if (text === 'own') return { own: true };
  if (text !== undefined && Object.hasOwn(VIEW_FRAMES, text)) return viewFrame(VIEW_FRAMES[text]!);
  const wrong = refuse(
    'frame',
    `A frame is world, own, ${Object.keys(VIEW_FRAMES).join(', ')}, a picked edge or face, or three points.`,
    id,
  );
  if (typeof given !== 'object' || given === null) return wrong;
  const { bearing, altitude, points } = given as { bearing?: unknown; altitude?: unknown; points?: unknown };
  if (typeof bearing === 'number' && typeof altitude === 'number') return viewFrame({ bearing, altitude });
  if (Array.isArray(points) && points.length === 3) {
    const read = points.map((point) => readPoint(point, { blank: POINT_BLANK, id }, around));
    const fault = read.find(isRefusal);
    if (fault) return fault;
    const [a, b, c] = (read as NumVector[]).map(vectorOf);
    return threePointFrame(a!, b!, c!) ?? refuse('frame', 'These three points stand in one line.', id);
  }
  const dock = dockOf(given, id, around);
  if (dock) return isRefusal(dock) ? dock : { own: false, turn: dock.turn };
  const feature = readFeature(given, id, around);
  if (isRefusal(feature)) return feature;
  return featureFrame(feature) ?? refuse('frame', 'A point has no axes: pick an edge or a face.', id);
}

function findPart(given: unknown, id: string, document: KadrelDocument): ItemId | Refusal {
  const name = Array.isArray(given) && given.length === 1 ? (given[0] as unknown) : given;
  if (typeof name !== 'string') return refuse('type', 'The name of one part belongs here.', id);
  return partNamed(document, name)?.id ?? refuse('unknown-part', `There is no part named ${name}.`, id);
}

function findParts(given: unknown, { blank, id }: Asked, document: KadrelDocument): ItemId[] | Refusal {
  const names: unknown[] = Array.isArray(given) ? given : [given];
  const found = names.map((name) => findPart(name, id, document));
  const fault = found.find(isRefusal);
  if (fault) return fault;
  const ids = [...new Set(found as ItemId[])];
  const least = blank.least ?? 1;
  if (ids.length < least)
    return refuse('too-few', `${sentenceCase(blank.label)}: choose at least ${least}.`, id);
  return ids;
}
