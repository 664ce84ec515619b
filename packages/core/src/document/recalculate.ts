/** Formulas follow their variables. */
import { isBody } from './bodies.ts';
import { readQuantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { solveVariables } from '../quantity/variables.ts';
import type { Layout, Spacing } from './layout.ts';
import { MOST_MEMBERS } from './numbers.ts';
import type { KadrelDocument, Num, NumVector } from './schema.ts';

/** Recomputes every number with a formula, in place. Returns sentences about those that no longer have a value. */
export function recalculate(draft: KadrelDocument): string[] {
  const { values, faults } = solveVariables(draft.variables, draft.scene.units);
  const problems = faults.map((fault) => `${fault.name}: ${fault.message}`);
  for (const part of Object.values(draft.items)) {
    const update = (n: Num, kind: QuantityKind, least: number): Num => {
      if (typeof n === 'number') return n;
      try {
        const { value } = readQuantity(n.formula, kind, { units: draft.scene.units, variables: values });
        if (kind === 'count' && value > MOST_MEMBERS)
          problems.push(
            `${part.name}: “${n.formula}” is ${value} now; a pattern has at most ${MOST_MEMBERS}.`,
          );
        if (value < least)
          problems.push(`${part.name}: “${n.formula}” must be more than zero, and is ${value} now.`);
        // What stays is left alone: an edit says only what it changes.
        return value === n.value ? n : { formula: n.formula, value };
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        problems.push(`${part.name}: “${n.formula}”: ${error.message}`);
        return n;
      }
    };
    const each = (v: NumVector, kind: QuantityKind, least: number) =>
      mapVector(v, (n) => update(n, kind, least));
    part.placement.origin = each(part.placement.origin, 'length', -Infinity);
    part.placement.turn = each(part.placement.turn, 'angle', -Infinity);
    const { base } = part.recipe;
    for (const step of part.recipe.steps) mapNumbers(step, (n, kind) => update(n, kind, -Infinity));
    if (base.kind === 'box') base.size = each(base.size, 'length', Number.MIN_VALUE);
    if (isBody(base)) {
      mapNumbers(base, (n, kind) => update(n, kind, -Infinity));
      continue;
    }
    const size = (n: Num) => update(n, 'length', Number.MIN_VALUE);
    if ('diameter' in base) base.diameter = size(base.diameter);
    if ('height' in base) base.height = size(base.height);
    if (base.kind === 'cone') base.top = update(base.top, 'length', 0);
    if (base.kind === 'tube') base.bore = size(base.bore);
    if (base.kind === 'torus') base.thickness = size(base.thickness);
    if (base.kind === 'prism') base.size = size(base.size);
    if (base.kind === 'pattern')
      mapLayoutNumbers(base.layout, (n, kind) => update(n, kind, kind === 'count' ? 1 : -Infinity));
  }
  return problems;
}

/** The vector itself where nothing in it changes. */
function mapVector(v: NumVector, map: (n: Num) => Num): NumVector {
  const mapped = v.map(map) as NumVector;
  return mapped.every((n, i) => n === v[i]) ? v : mapped;
}

/** Numbers of bodies that are told in degrees; all others are lengths. */
const ANGLES: ReadonlySet<string> = new Set(['bearing', 'turn', 'sweep', 'first', 'angle', 'draft', 'twist']);

/** Replaces every number that has a formula, however deep, in place. */
function mapNumbers(held: object, map: (n: Num, kind: QuantityKind) => Num): void {
  for (const [key, value] of Object.entries(held)) {
    if (typeof value !== 'object' || value === null) continue;
    if ('formula' in value && 'value' in value)
      (held as Record<string, unknown>)[key] = map(value as Num, ANGLES.has(key) ? 'angle' : 'length');
    else mapNumbers(value as object, map);
  }
}

/** Replaces every number of a layout that may have a formula, in place. */
function mapLayoutNumbers(layout: Layout, map: (n: Num, kind: QuantityKind) => Num): void {
  const spaced = (spacing: Spacing, kind: QuantityKind): Spacing => {
    if ('pitch' in spacing) spacing.pitch = map(spacing.pitch, kind);
    else spacing.span = map(spacing.span, kind);
    return spacing;
  };
  if ('count' in layout) layout.count = map(layout.count, 'count');
  switch (layout.kind) {
    case 'along': {
      layout.spacing = spaced(layout.spacing, 'length');
      const { growth, fit } = layout;
      if (fit) fit.gap = map(fit.gap, 'length');
      if (growth && 'gap' in growth) growth.gap = map(growth.gap, 'length');
      if (growth && 'turn' in growth) growth.turn = map(growth.turn, 'angle');
      if (growth && 'size' in growth) growth.size = mapVector(growth.size, (n) => map(n, 'length'));
      return;
    }
    case 'around':
      layout.spacing = spaced(layout.spacing, 'angle');
      layout.rise = map(layout.rise, 'length');
      return;
    case 'grid':
      for (const row of layout.rows) {
        row.count = map(row.count, 'count');
        row.spacing = spaced(row.spacing, 'length');
      }
      return;
    case 'path':
      if (layout.spacing) layout.spacing = spaced(layout.spacing, 'length');
      return;
    case 'reflection':
  }
}
