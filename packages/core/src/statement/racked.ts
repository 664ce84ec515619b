/** Parts of racks as said: by name, or whole; and their parameters. */
import type { KadrelDocument, Num } from '../document/schema.ts';
import { rackPartSchema, type RackPart } from '../document/rack.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { rackPartFault } from '../racks/made.ts';
import { labelled } from '../language/reason.ts';
import { isRefusal, refuse, refuseFor, type Refusal } from '../refusals/refusal.ts';
import { partNamed } from '../document/items.ts';

interface Racks {
  readonly document: KadrelDocument;
  readonly lookUp: (name: string) => RackPart | undefined;
}

/** A name of what is at hand or was taken before, or all of a rack part. */
export function readRackPart(given: unknown, { document, lookUp }: Racks): RackPart | Refusal {
  if (typeof given === 'string') {
    const name = given.trim();
    const own = Object.values(document.rackParts).find((one) => one.name === name);
    return lookUp(name) ?? own ?? refuse('unknown-rack-part', { name });
  }
  const read = rackPartSchema.safeParse(given);
  if (!read.success) {
    const [issue] = read.error.issues;
    return refuse('rack-part', { path: issue!.path.join('.') || 'its root', message: issue!.message });
  }
  return rackPartFault(read.data) ?? read.data;
}

/** The rack part that a blank names: itself, or what an item was taken from. */
export function rackPartMeant(given: unknown, racks: Racks): RackPart | Refusal {
  const name = Array.isArray(given) && given.length === 1 ? (given[0] as unknown) : given;
  const item = typeof name === 'string' ? partNamed(racks.document, name) : undefined;
  const kept = item?.taken && racks.document.rackParts[item.taken.from];
  if (kept) return kept;
  const found = readRackPart(name, racks);
  return isRefusal(found) && item ? refuse('not-taken.was-rack', { name: item.name }) : found;
}

type Reader = (text: string, kind: QuantityKind) => Num;

/** `{ length: 40 }`, or `length = 40, width = 2 in`: what is left empty is as the rack part has it. */
export function readParameters(given: unknown, part: RackPart, read: Reader): Record<string, Num> | Refusal {
  const texts = typeof given === 'string' ? textsOf(given) : given;
  if (typeof texts !== 'object' || texts === null || Array.isArray(texts))
    return refuse('type.parameters', {});
  const found: Record<string, Num> = {};
  for (const [name, value] of Object.entries(texts)) {
    if (value === undefined || value === null || value === '') continue;
    const parameter = part.parameters.find((one) => one.name === name || one.label === name);
    if (!parameter) {
      const names = part.parameters.map((one) => one.name).join(', ');
      return refuse('parameter', {
        name: part.name,
        name2: name,
        words: names === '' ? '' : `; it has ${names}`,
      });
    }
    const number = numberOr(parameter.label, () => read(String(value), parameter.kind));
    if (isRefusal(number)) return number;
    found[parameter.name] = number;
  }
  return found;
}

/** The number, or why there is none. */
function numberOr(label: string, read: () => Num): Num | Refusal {
  try {
    return read();
  } catch (error) {
    if (error instanceof QuantityError) return labelled(refuseFor(error), label);
    throw error;
  }
}

function textsOf(text: string): Record<string, string> | undefined {
  const pairs = text.split(',').map((one) => one.split('='));
  if (pairs.some(({ length }) => length !== 2)) return undefined;
  return Object.fromEntries(pairs.map(([name, value]) => [name!.trim(), value!.trim()]));
}
