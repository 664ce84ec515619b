/** A part of a document as a rack part: its recipe with all that it is made from, the variables that it needs, its docks. */
import { valueOf } from '../recipes/numbers.ts';
import { placementAt } from '../document/items.ts';
import { withAllNeeded } from '../document/needed.ts';
import type { Parameter, RackPart } from '../document/rack.ts';
import type { ItemId, KadrelDocument, Part } from '../document/schema.ts';
import { dimensionWord } from '../quantity/units.ts';
import { solveVariables } from '../quantity/variables.ts';

/** What is said of a part that is put on a rack. */
export interface Gathering {
  readonly id: ItemId;
  readonly version: number;
  readonly name: string;
  readonly about: string;
  readonly words: readonly string[];
  /** An earlier version: labels and sizes are as they were there, but for parameters that are gone. */
  readonly before?: Pick<RackPart, 'sizes' | 'parameters'> | undefined;
}

/** Its parameters are the variables that its numbers use. */
export function gatheredPart(
  document: KadrelDocument,
  part: ItemId,
  { before, ...rest }: Gathering,
): RackPart {
  const all = withAllNeeded(document, part);
  const items = Object.fromEntries(all.map((item) => [item.id, atOrigin(item, part)]));
  const variables = variablesIn(document, items);
  const parameters = parametersOf(variables).map((one) => {
    const was = before?.parameters.find(({ name }) => name === one.name);
    return was ? { ...was, kind: one.kind } : one;
  });
  return {
    ...rest,
    words: [...rest.words],
    parameters,
    sizes: sizesFor(before?.sizes ?? [], parameters),
    variables,
    items,
  };
}

const sizesFor = (sizes: RackPart['sizes'], parameters: readonly Parameter[]): RackPart['sizes'] =>
  sizes.map(({ name, values }) => ({
    name,
    values: Object.fromEntries(
      Object.entries(values).filter(([parameter]) => parameters.some((one) => one.name === parameter)),
    ),
  }));

/** The part itself stands at the origin of a rack; what it refers to stands aside, out of sight. */
function atOrigin(item: Part, part: ItemId): Part {
  const { taken: _, ...rest } = item;
  if (item.id === part)
    return { ...rest, parent: null, placement: placementAt([0, 0, 0]), visible: true, locked: false };
  return rest;
}

const WORD = /[\p{L}_][\p{L}\p{Nd}_]*/gu;

/** The variables that formulas use, and those that they use in turn. */
function variablesIn(
  document: KadrelDocument,
  items: Readonly<Record<ItemId, Part>>,
): Record<string, string> {
  const found: Record<string, string> = {};
  const use = (text: string): void => {
    for (const word of text.match(WORD) ?? []) {
      const value = Object.hasOwn(document.variables, word) ? document.variables[word] : undefined;
      if (value === undefined || Object.hasOwn(found, word)) continue;
      found[word] = value;
      use(value);
    }
  };
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    if ('formula' in value && typeof value.formula === 'string') use(value.formula);
    else Object.values(value).forEach(visit);
  };
  visit(items);
  return inMillimetres(document, found);
}

/** On a rack bare lengths are millimetres: those of other scenes are written with their unit. */
function inMillimetres({ scene }: KadrelDocument, variables: Record<string, string>): Record<string, string> {
  if (scene.units === 'mm') return variables;
  const { values } = solveVariables(variables, scene.units);
  return Object.fromEntries(
    Object.entries(variables).map(([name, text]) => {
      const value = values.get(name);
      const isLength = value && dimensionWord(value.dimension) === 'a length';
      return [name, isLength ? `${valueOf(value.value)} mm` : text];
    }),
  );
}

/** Variables that are numbers of their own; those that follow from others are worked out. */
function parametersOf(variables: Readonly<Record<string, string>>): Parameter[] {
  const { values } = solveVariables(variables, 'mm');
  return Object.entries(variables).flatMap(([name, text]): Parameter[] => {
    const follows = (text.match(WORD) ?? []).some((word) => Object.hasOwn(variables, word));
    const value = values.get(name);
    if (follows || !value) return [];
    const { length, angle } = value.dimension;
    return [{ name, label: labelOf(name), kind: length === 1 ? 'length' : angle === 1 ? 'angle' : 'count' }];
  });
}

const labelOf = (name: string): string => {
  const words = name.replaceAll('_', ' ').trim();
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
};
