/**
 * A parsed quantity → its value, with the dimensions checked.
 * Long, since all operators and functions of the number language stand in one table.
 */
import { roundLength } from '../space/rounding.ts';
import { cosDegrees, sinDegrees, tanDegrees } from '../space/angle.ts';
import { quantityError } from './lexer.ts';
import { parseQuantity, type Tree } from './parse.ts';
import {
  ANGLE,
  AREA,
  LENGTH,
  PLAIN,
  VOLUME,
  dimensionWord,
  mmPerSceneUnit,
  type Dimension,
  type LengthUnit,
  type QuantityKind,
} from './units.ts';

/** A number in mm to the power `dimension.length` and degrees to the power `dimension.angle`. */
export interface Quantity {
  readonly value: number;
  readonly dimension: Dimension;
}

/** What numbers are read with: units, variables, and the present value. */
export interface QuantityContext {
  readonly units: LengthUnit;
  /** Values of the variables, as `solveVariables` gives them. */
  readonly variables?: ReadonlyMap<string, Quantity>;
  /** What `now` stands for, in mm, degrees or as a plain number, by the field's kind. */
  readonly now?: number;
}

/** A number, and the variables that its text uses. */
export interface ReadQuantity {
  /** mm for a length, degrees for an angle. */
  readonly value: number;
  /** Names of the variables that the text refers to, each once. */
  readonly uses: readonly string[];
}

/**
 * Reads the text of a field. Throws QuantityError, which points at the character.
 * @param kind length → mm, area → mm², volume → mm³, angle → degrees, number and count → plain
 */
export function readQuantity(text: string, kind: QuantityKind, context: QuantityContext): ReadQuantity {
  const uses = new Set<string>();
  const tree = parseQuantity(text, kind);
  const result = valueOf(tree, { ...context, kind, uses });
  const whole = { at: 0, length: Math.max(1, text.length) };
  return { value: fitKind(result, kind, { units: context.units, place: whole }), uses: [...uses] };
}

/** The value of a variable's text: the kind is whatever the text says. Throws QuantityError. */
export function readVariable(
  text: string,
  context: QuantityContext,
): Quantity & { readonly uses: readonly string[] } {
  const uses = new Set<string>();
  const result = valueOf(parseQuantity(text, 'length'), { ...context, kind: 'length', uses });
  finite(result.value, { at: 0, length: Math.max(1, text.length) });
  return { ...result, uses: [...uses] };
}

interface Scope extends QuantityContext {
  readonly kind: QuantityKind;
  readonly uses: Set<string>;
}
type Place = Pick<Tree, 'at' | 'length'>;

function fitKind(
  { value, dimension }: Quantity,
  kind: QuantityKind,
  { units, place }: { readonly units: LengthUnit; readonly place: Place },
): number {
  finite(value, place);
  const plain = same(dimension, PLAIN);
  if (kind === 'length' && (plain || same(dimension, LENGTH)))
    return roundLength(withinReach(plain ? value * mmPerSceneUnit(units) : value, kind, place));
  if (kind === 'angle' && (plain || same(dimension, ANGLE)))
    return value === 0 ? 0 : withinReach(value, kind, place);
  if (kind === 'count' && plain) {
    if (!Number.isInteger(value)) throw quantityError('not-whole', {}, place);
    return value;
  }
  if (kind === 'number' && plain) return value;
  if (kind === 'area' && (plain || same(dimension, AREA)))
    return plain ? value * mmPerSceneUnit(units) ** 2 : value;
  if (kind === 'volume' && (plain || same(dimension, VOLUME)))
    return plain ? value * mmPerSceneUnit(units) ** 3 : value;
  throw quantityError(
    'dimension.belongs',
    { word: dimensionWord(dimension), wanted: KIND_WORDS[kind] },
    place,
  );
}

const KIND_WORDS: Readonly<Record<QuantityKind, string>> = {
  length: 'a length',
  area: 'an area',
  volume: 'a volume',
  angle: 'an angle',
  number: 'a plain number',
  count: 'a whole number',
};

/** Farther than this (mm, degrees) doubles no longer tell a ten-thousandth of a millimetre, or of a degree, apart. */
const MOST = { length: 1e9, angle: 1e9 } as const;

function withinReach(value: number, kind: 'length' | 'angle', place: Place): number {
  if (Math.abs(value) <= MOST[kind]) return value;
  const limit = kind === 'length' ? '1,000 km' : '1,000,000,000°';
  throw quantityError('too-large.more', { limit }, place);
}

function finite(value: number, place: Place): void {
  if (Number.isNaN(value)) throw quantityError('undefined', {}, place);
  if (!Number.isFinite(value)) throw quantityError('too-large', {}, place);
}

function valueOf(tree: Tree, scope: Scope): Quantity {
  switch (tree.node) {
    case 'number':
      return { value: tree.value, dimension: PLAIN };
    case 'measure': {
      const { dimension, factor } = tree.unit;
      const scaled = { length: dimension.length * tree.power, angle: dimension.angle * tree.power };
      return { value: tree.value * factor ** tree.power, dimension: scaled };
    }
    case 'percent': {
      const part = plainValue(valueOf(tree.of, scope), tree.of, 'A percentage') / 100;
      if (scope.kind === 'length') throw quantityError('percent-place', {}, tree);
      return scope.kind === 'angle'
        ? { value: atanDegrees(part), dimension: ANGLE }
        : { value: part, dimension: PLAIN };
    }
    case 'negative': {
      const inner = valueOf(tree.of, scope);
      return { ...inner, value: -inner.value };
    }
    case 'name':
      return named(tree.name, tree, scope);
    case 'call':
      return call(tree, scope);
    case 'binary':
      return tree.op === ':' ? slope(tree, scope) : binary(tree, scope);
  }
}

function named(name: string, place: Place, scope: Scope): Quantity {
  if (name === 'pi' || name === 'π') return { value: Math.PI, dimension: PLAIN };
  if (name === 'now') {
    if (scope.now === undefined) throw quantityError('no-now', {}, place);
    const dimension = scope.kind === 'length' ? LENGTH : scope.kind === 'angle' ? ANGLE : PLAIN;
    return { value: scope.now, dimension };
  }
  const variable = scope.variables?.get(name);
  if (!variable) throw quantityError('unknown-name', { name }, place);
  scope.uses.add(name);
  return variable;
}

function slope(tree: Extract<Tree, { node: 'binary' }>, scope: Scope): Quantity {
  if (scope.kind !== 'angle') throw quantityError('slope-place.such-belongs', {}, tree);
  const rise = valueOf(tree.left, scope);
  const run = valueOf(tree.right, scope);
  requireSame(rise, run, tree);
  return { value: atan2Degrees(rise.value, run.value), dimension: ANGLE };
}

function binary(tree: Extract<Tree, { node: 'binary' }>, scope: Scope): Quantity {
  const left = valueOf(tree.left, scope);
  const right = valueOf(tree.right, scope);
  switch (tree.op) {
    case '+':
    case '-': {
      const [a, b] = matched(left, right, { place: tree, scope });
      return { value: tree.op === '+' ? a.value + b.value : a.value - b.value, dimension: a.dimension };
    }
    case '*':
      return { value: left.value * right.value, dimension: combine(left.dimension, right.dimension, 1) };
    case '/':
      if (right.value === 0) throw quantityError('division-by-zero', {}, tree.right);
      return { value: left.value / right.value, dimension: combine(left.dimension, right.dimension, -1) };
    default: {
      const power = plainValue(right, tree.right, 'A power');
      const dimension = { length: left.dimension.length * power, angle: left.dimension.angle * power };
      const value = left.value ** power;
      finite(value, tree);
      return { value, dimension };
    }
  }
}

type Rule = (args: readonly Quantity[], places: readonly Tree[], scope: Scope) => Quantity;

const trig =
  (of: (degrees: number) => number): Rule =>
  ([x], [place]) => {
    if (!same(x!.dimension, ANGLE) && !same(x!.dimension, PLAIN))
      throw quantityError('dimension.angle', { dimension: dimensionWord(x!.dimension) }, place!);
    return { value: of(x!.value), dimension: PLAIN };
  };

const extreme =
  (pick: (...values: number[]) => number): Rule =>
  (args, places, scope) => {
    const level = args.map(
      (arg, i) =>
        matched(arg, args.find((a) => !same(a.dimension, PLAIN)) ?? arg, { place: places[i]!, scope })[0],
    );
    return { value: pick(...level.map((arg) => arg.value)), dimension: level[0]!.dimension };
  };

/** `round(x)` to whole scene units or degrees; `round(x, step)` to a multiple of the step. */
const toStep =
  (round: (x: number) => number): Rule =>
  ([x, step], [, place], scope) => {
    const own = same(x!.dimension, LENGTH) ? mmPerSceneUnit(scope.units) : 1;
    const [, by] = step ? matched(x!, step, { place: place!, scope }) : [x!, { value: own }];
    if (!(by.value > 0)) throw quantityError('step', {}, place!);
    return { value: round(x!.value / by.value) * by.value, dimension: x!.dimension };
  };

const inverse =
  (of: (x: number) => number): Rule =>
  ([x], [place]) => ({ value: of(plainValue(x!, place!, 'The ratio')) * (180 / Math.PI), dimension: ANGLE });

const FUNCTIONS: Readonly<
  Record<string, { readonly least: number; readonly most: number; readonly rule: Rule }>
> = {
  sqrt: {
    least: 1,
    most: 1,
    rule: ([x], [place]) => {
      if (x!.value < 0) throw quantityError('root-of-negative', {}, place!);
      const { length, angle } = x!.dimension;
      return { value: Math.sqrt(x!.value), dimension: { length: length / 2, angle: angle / 2 } };
    },
  },
  sin: { least: 1, most: 1, rule: trig(sinDegrees) },
  cos: { least: 1, most: 1, rule: trig(cosDegrees) },
  tan: { least: 1, most: 1, rule: trig(tanDegrees) },
  asin: { least: 1, most: 1, rule: inverse(Math.asin) },
  acos: { least: 1, most: 1, rule: inverse(Math.acos) },
  atan: {
    least: 1,
    most: 1,
    rule: ([x], [place]) => ({ value: atanDegrees(plainValue(x!, place!, 'The ratio')), dimension: ANGLE }),
  },
  atan2: {
    least: 2,
    most: 2,
    rule: ([y, x], [place], scope) => {
      const [rise, run] = matched(y!, x!, { place: place!, scope });
      return { value: atan2Degrees(rise.value, run.value), dimension: ANGLE };
    },
  },
  min: { least: 1, most: 99, rule: extreme(Math.min) },
  max: { least: 1, most: 99, rule: extreme(Math.max) },
  abs: { least: 1, most: 1, rule: ([x]) => ({ ...x!, value: Math.abs(x!.value) }) },
  round: { least: 1, most: 2, rule: toStep((x) => Math.sign(x) * Math.round(Math.abs(x))) },
  floor: { least: 1, most: 2, rule: toStep(Math.floor) },
  ceil: { least: 1, most: 2, rule: toStep(Math.ceil) },
};

/** Names that a variable may not take. */
export function isReservedName(name: string): boolean {
  return Object.hasOwn(FUNCTIONS, name) || name === 'pi' || name === 'π' || name === 'now';
}

function call(tree: Extract<Tree, { node: 'call' }>, scope: Scope): Quantity {
  const found = Object.hasOwn(FUNCTIONS, tree.name) ? FUNCTIONS[tree.name] : undefined;
  if (!found)
    throw quantityError('unknown-function', { name: tree.name }, { at: tree.at, length: tree.name.length });
  const { least, most, rule } = found;
  if (tree.args.length < least || tree.args.length > most) {
    const wanted = least === most ? `${least}` : `${least} to ${most}`;
    throw quantityError('arguments', { name: tree.name, wanted, words: most === 1 ? '' : 's' }, tree);
  }
  return rule(
    tree.args.map((arg) => valueOf(arg, scope)),
    tree.args,
    scope,
  );
}

function plainValue({ value, dimension }: Quantity, place: Place, what: string): number {
  if (same(dimension, PLAIN)) return value;
  throw quantityError('dimension.plain', { what, dimension: dimensionWord(dimension) }, place);
}

/** Two values that may be added: a bare number beside a length counts in scene units, beside an angle in degrees. */
function matched(
  left: Quantity,
  right: Quantity,
  { place, scope }: { readonly place: Place; readonly scope: Scope },
): [Quantity, Quantity] {
  if (same(left.dimension, right.dimension)) return [left, right];
  const like = (plain: Quantity, other: Quantity): Quantity | undefined => {
    if (!same(plain.dimension, PLAIN)) return undefined;
    if (same(other.dimension, LENGTH))
      return { value: plain.value * mmPerSceneUnit(scope.units), dimension: LENGTH };
    return same(other.dimension, ANGLE) ? { value: plain.value, dimension: ANGLE } : undefined;
  };
  const asRight = like(left, right);
  if (asRight) return [asRight, right];
  const asLeft = like(right, left);
  if (asLeft) return [left, asLeft];
  return requireSame(left, right, place);
}

function requireSame(left: Quantity, right: Quantity, place: Place): [Quantity, Quantity] {
  if (same(left.dimension, right.dimension)) return [left, right];
  const words = `${dimensionWord(left.dimension)} and ${dimensionWord(right.dimension)}`;
  throw quantityError('dimension.these', { words }, place);
}

const same = (a: Dimension, b: Dimension) => a.length === b.length && a.angle === b.angle;
const combine = (a: Dimension, b: Dimension, sign: 1 | -1): Dimension => ({
  length: a.length + sign * b.length,
  angle: a.angle + sign * b.angle,
});
const atanDegrees = (x: number) => (Math.abs(x) === 1 ? 45 * x : Math.atan(x) * (180 / Math.PI));
const atan2Degrees = (y: number, x: number) =>
  Math.abs(y) === Math.abs(x) && y !== 0
    ? Math.sign(y) * (x > 0 ? 45 : 135)
    : Math.atan2(y, x) * (180 / Math.PI);
