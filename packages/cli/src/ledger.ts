/** Runs a ledger file: the same verbs as on screen, one after another. */
import {
  LENGTH_UNITS,
  blankToBlame,
  emptyDocument,
  hadStep,
  isRefusal,
  perform,
  solveVariables,
  topOf,
  variableNameFault,
  verbNamed,
  type ItemId,
  type KadrelDocument,
  type Refusal,
  type Typed,
} from '@kadrel/core';
import { worldOf, type Evaluator } from '@kadrel/kernel';
import { z } from 'zod';

const text = z.union([z.string(), z.number()]);
const ledgerFileSchema = z.looseObject({
  kadrel: z.literal(1),
  units: z.looseObject({ length: z.enum(LENGTH_UNITS) }).optional(),
  variables: z.record(z.string(), text).optional(),
  ledger: z.array(z.looseObject({ verb: z.string() })),
});

/** A fault of the file or of one of its statements, in a sentence. */
export class LedgerError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'LedgerError';
  }
}

export interface LedgerRun {
  readonly document: KadrelDocument;
  /** Sentences about keys that mean nothing here. */
  readonly warnings: readonly string[];
}

/** Called with what is begun, in the words that begin a refusal: “Statement 3 (union)”. */
export type Begin = (work: string) => void;

/** Throws LedgerError, which names the statement, the verb and the blank. */
export function runLedger(json: unknown, kernel: Evaluator, begin: Begin = () => {}): LedgerRun {
  const parsed = ledgerFileSchema.safeParse(json);
  if (!parsed.success) throw new LedgerError(fileFault(parsed.error.issues[0]!));
  const file = parsed.data;
  const warnings: string[] = unknownKeys('The file', file, FILE_KEYS);
  if (file.units) warnings.push(...unknownKeys('units', file.units, ['length']));
  let document: KadrelDocument = {
    ...emptyDocument(file.units ? { units: file.units.length } : {}),
    variables: readVariables(file.variables ?? {}),
  };
  requireVariables(document);
  let ids = 0;
  const newId = (): ItemId => `p${++ids}`;
  file.ledger.forEach((statement, i) => {
    const where = `Statement ${i + 1} (${statement.verb})`;
    begin(where);
    const done = carriedOut(document, statement, { where, kernel, newId });
    warnings.push(...done.warnings);
    document = done.document;
  });
  return { document, warnings };
}

const FILE_KEYS = ['kadrel', 'units', 'variables', 'ledger', 'name', 'note'] as const;

const unknownKeys = (where: string, given: object, known: readonly string[]): string[] =>
  Object.keys(given)
    .filter((key) => !known.includes(key))
    .map((key) => `${where}: “${key}” means nothing here and is left out.`);

interface Running {
  /** The words that begin a refusal. */
  readonly where: string;
  readonly kernel: Evaluator;
  readonly newId: () => ItemId;
}

/** One statement, built. Throws LedgerError. */
function carriedOut(
  document: KadrelDocument,
  statement: Readonly<Record<string, unknown>> & { readonly verb: string },
  { where, kernel, newId }: Running,
): LedgerRun {
  const verb = verbNamed(statement.verb);
  if (!verb) throw new LedgerError(`${where}: there is no verb “${statement.verb}”.`);
  const { verb: _, note, ...given } = statement;
  const warnings = unknownKeys(where, given, Object.keys(verb.blanks));
  if (note !== undefined && typeof note !== 'string') warnings.push(`${where}: “note” is not a text.`);
  const typed = Object.fromEntries(Object.entries(given).filter(([id]) => verb.blanks[id])) as Typed;
  const done = perform(verb, typed, document, worldOf(document, kernel, newId));
  if (isRefusal(done)) throw new LedgerError(`${where}${placeOf(done)}: ${done.message}`);
  warnings.push(...done.notes.map((words) => `${where}: ${words}`));
  const changed = changedTops(document, done.document);
  const place = { where, blank: blankToBlame(verb), before: document };
  warnings.push(...requireBuilt(changed, done.document, kernel, place));
  for (const id of changed)
    for (const { part, words } of kernel.noticesFor(done.document, id))
      warnings.push(`${where}: ${done.document.items[part]!.name}: ${words}`);
  return { document: done.document, warnings };
}

/** The blank and the character that a refusal is about. */
const placeOf = ({ blank, at }: Refusal): string =>
  blank === undefined ? '' : `, blank “${blank}”${at === undefined ? '' : `, character ${at + 1}`}`;

function fileFault(issue: z.core.$ZodIssue): string {
  const where = issue.path.join('.') || 'the file';
  return issue.path[0] === 'kadrel'
    ? 'This is not a Kadrel ledger file: it must say "kadrel": 1.'
    : `The ledger file is wrong at ${where}: ${issue.message}.`;
}

const readVariables = (given: Readonly<Record<string, string | number>>) =>
  Object.fromEntries(Object.entries(given).map(([name, value]) => [name, String(value)]));

function requireVariables({ variables, scene }: KadrelDocument): void {
  for (const name of Object.keys(variables)) {
    const fault = variableNameFault(name);
    if (fault) throw new LedgerError(`Variables: ${fault.message}`);
  }
  const [fault] = solveVariables(variables, scene.units).faults;
  if (fault)
    throw new LedgerError(
      `Variable “${fault.name}”${fault.why.at === undefined ? '' : `, character ${fault.why.at + 1}`}: ${fault.why.message}`,
    );
}

function changedTops(before: KadrelDocument, after: KadrelDocument): Set<ItemId> {
  const changed = new Set<ItemId>();
  for (const id of Object.keys(after.items))
    if (after.items[id] !== before.items[id]) changed.add(topOf(after, id));
  return changed;
}

interface Place {
  readonly where: string;
  readonly blank: string;
  /** The document before the statement. */
  readonly before: KadrelDocument;
}

/** A statement whose parts cannot be built is refused, as it would be on screen; a step that it only made impossible is reported. */
function requireBuilt(
  changed: ReadonlySet<ItemId>,
  after: KadrelDocument,
  kernel: Evaluator,
  { where, blank, before }: Place,
): string[] {
  const messages: string[] = [];
  for (const id of changed) {
    const problem = kernel.problemOf(after, id);
    if (!problem) continue;
    const { reason, remedy, places } = problem;
    const points = places.map((place) => `(${place.map((n) => Number(n.toFixed(6))).join(', ')})`);
    const at = points.length > 0 ? ` Place: ${points.join(', ')} mm.` : '';
    const { part, step } = problem;
    if (hadStep(before, after, problem)) {
      const name = after.items[part]!.name;
      messages.push(`${where}: ${name}: step ${step! + 1} can no longer be done. ${reason} ${remedy}${at}`);
      continue;
    }
    throw new LedgerError(`${where}, blank “${blank}”: ${after.items[id]!.name}: ${reason} ${remedy}${at}`);
  }
  return messages;
}
