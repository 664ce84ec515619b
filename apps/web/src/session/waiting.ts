/** What a statement waits for: by typing, by a click on a part, or by a pick. */
import { CHOSEN_TYPES, entriesRead, verbNamed, type Blank } from '@kadrel/core';
import { isHandled, entriesOf, isFilled, isTriple, type Entry, type Statement } from './statement.ts';

/** The first blank that wants filling and is empty, in the order of the sentence. */
export function emptyBlank(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  isMeant: (id: string) => boolean = () => true,
): string | null {
  const { blanks } = verbNamed(verb)!;
  const isMissing = (id: string) => {
    const { neededUnless, type, excludes, rare } = blanks[id]!;
    // Of two that exclude one another one is needed, and what stands in for another while that is empty.
    const isRival = excludes !== undefined && !rare && !isFilled(typed[excludes]);
    const isNeeded = !blanks[id]!.optional || neededUnless !== undefined || isRival;
    const value = typed[id];
    const isBlank =
      !isFilled(value) ||
      (isTriple(blanks[id]!) && Array.isArray(value) && value.some((one) => !isFilled(one)));
    const isSpared = neededUnless !== undefined && isFilled(typed[neededUnless]);
    return isNeeded && type !== 'regions' && isBlank && !isSpared;
  };
  return entriesOf(verbNamed(verb)!).find(({ blank }) => isMeant(blank) && isMissing(blank))?.blank ?? null;
}

/** What a statement waits for, in a sentence for the bar. */
export function waitsFor(statement: Statement): string {
  const { name, blanks } = verbNamed(statement.verb)!;
  const empty = emptyBlank(statement);
  if (empty === null) return `${name} has all it needs: Enter carries it out, Esc leaves it.`;
  const { label, type } = blanks[empty]!;
  const how = type === 'parts' || type === 'part' ? 'click it, or choose it from the list' : 'type it';
  return `${name} waits for “${label}”: ${how}. Esc leaves it.`;
}

/** The first number that a verb asks for: what is typed goes there while a pick has the focus. */
export function firstNumber({ verb }: Pick<Statement, 'verb'>): Entry | null {
  const { blanks } = verbNamed(verb)!;
  return (
    entriesOf(verbNamed(verb)!).find(
      ({ blank }) => NUMBERS.has(blanks[blank]!.type) && !blanks[blank]!.rare,
    ) ?? null
  );
}
const NUMBERS = new Set(['length', 'angle', 'count', 'tally', 'vector', 'quantity', 'quantities']);

/** Types of blanks that the pointer fills. */
const PICKED = new Set<string>([
  'point',
  'feature',
  'target',
  'spot',
  'dock',
  'direction',
  'path',
  'plane',
  'rows',
  ...CHOSEN_TYPES,
]);

/** The blank for parts that clicks fill: the one in focus, or the first that is needed and empty. */
export function gatheringBlank(statement: Statement | null): string | null {
  if (statement?.phase !== 'open') return null;
  const { blanks } = verbNamed(statement.verb)!;
  const takesParts = (id: string | undefined) => id !== undefined && /^parts?$/.test(blanks[id]?.type ?? '');
  const { focus } = statement;
  if (takesParts(focus?.blank)) return focus!.blank;
  return emptyBlank(statement, (id) => takesParts(id));
}

/** A blank that the pointer fills: the one in focus, or the first that is needed and empty. */
export function pickedBlank(statement: Statement | null): string | null {
  if (!statement || statement.phase !== 'open') return null;
  const { blanks, gesture } = verbNamed(statement.verb)!;
  const inFocus = pickedInFocus(statement);
  if (inFocus !== null || gesture || statement.picking) return inFocus;
  if (gatheringBlank(statement) !== null) return null;
  return emptyBlank(statement, (id) => PICKED.has(blanks[id]!.type) && isPickable(blanks[id]!));
}

/** Rows are clicked where they are points. */
const isPickable = ({ type, columns }: Blank) => type !== 'rows' || columns?.x !== undefined;

function pickedInFocus(statement: Statement): string | null {
  if (statement.picking) return 'in';
  const { focus, typed, verb } = statement;
  const blank = focus && verbNamed(verb)?.blanks[focus.blank];
  // What a gesture draws is drawn, whichever of its blanks has the focus.
  if (focus && isDrawn(statement, focus.blank)) return null;
  if (blank && !isPickable(blank)) return null;
  if (blank && PICKED.has(blank.type)) {
    const { parts } = verbNamed(verb)!.blanks;
    const needsParts = parts !== undefined && !parts.optional;
    return needsParts && !(typed.parts as unknown[] | undefined)?.length ? null : focus.blank;
  }
  // With the field of an axis in focus the pick of a move goes on, locked to that axis.
  const isMoving = isHandled({ verb }, 'moves') && focus?.blank === 'by' && typed.from !== undefined;
  return isMoving && typed.to === undefined ? 'to' : null;
}

const isDrawn = ({ verb }: Statement, blank: string): boolean =>
  (verbNamed(verb)!.gesture?.steps ?? [])
    .flat()
    .flatMap(entriesRead)
    .some((key) => key.split('.')[0] === blank);
