/** The headless runner’s commands: `kadrel run FILE.json [--measure] [--output FILE …]` and `kadrel verbs --json`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, extname, join } from 'node:path';
import { parseArgs } from 'node:util';
import {
  IMPORTERS,
  importerFor,
  VERBS,
  definitionOf,
  isFlatPart,
  FormatError,
  pathsOf,
  partNamed,
  readDocument,
  traverseOf,
  visibleGroups,
  visibleParts,
  type KadrelDocument,
  type Part,
} from '@kadrel/core';
import { BuildError, EXPORTERS, exporterFor, isFatal, type Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { docksJson, docksOf, isSound } from './docks.ts';
import { fitJson, fitOf } from './fit.ts';
import { makeOf } from './make.ts';
import { requireReportFile, writeReport } from './reports.ts';
import { isForSheets, requireSheet, writeSheets } from './sheets.ts';
import { UsageError } from './usage.ts';
import { LedgerError, runLedger, type Begin, type LedgerRun } from './ledger.ts';
import { verbListing } from './verbs.ts';

/** s that a statement may take unless --limit says otherwise: the slowest that is known to end takes four minutes. */
const DEFAULT_LIMIT_SECONDS = 600;
/** s in a week: timers take no more than some three. */
const MAX_LIMIT_SECONDS = 604_800;

/** “.step, .stl and .json” */
const ENDINGS = EXPORTERS.map(({ extensions }) => extensions.at(-1)!)
  .join(', ')
  .replace(/, ([^,]*)$/, ' and $1');

const USAGE = `kadrel run FILE.json [--measure] [--output FILE …] [--part NAME …] [--sheet NAME …] [--dpi N] [--chord MM] [--limit SECONDS]
kadrel convert FILE.kadrel.json --output FILE … [--part NAME …] [--sheet NAME …] [--dpi N] [--chord MM] [--limit SECONDS]
kadrel fit FILE [--part NAME …] [--within NAME …] [--bed X,Y,Z] [--reach MM] [--hair MM] [--output FILE …] [--limit SECONDS]
kadrel make FILE [--part NAME …] [--output FILE …] [--wall MM] [--gap MM] [--feature MM] [--cutter MM] [--overhang DEGREES] [--bed X,Y,Z] [--material NAME] [--limit SECONDS]
kadrel docks FILE [--limit SECONDS]
kadrel verbs [--json]

FILE.json is a ledger, or a Kadrel document as --output FILE.json writes it. Written are ${ENDINGS};
drawing sheets as .pdf, and with --sheet as .svg, .dxf and .png too (--dpi pixels in an inch, 300 where none is said).
Fit tells as JSON how parts stand to one another, make whether they can be printed, cut or milled,
docks what is joined and what is open; all three end with 2 where something is wrong. Fit and make write their
report as .csv and .pdf too.
A statement, or writing a file, may take ${DEFAULT_LIMIT_SECONDS} s unless --limit says otherwise.`;

/** Chord tolerance of STL files when none is asked for, mm: below what printers resolve. */
const STL_CHORD_MM = 0.01;

/** A piece of work that begins, and how long it may take. */
export interface Begun {
  readonly work: string;
  readonly limitSeconds: number;
}

/**
 * Returns the exit code. Standard output carries results only; words for people go to standard error. The kernel cannot be stopped from
 * within, so whoever hears what begins keeps the time.
 */
export async function main(
  args: readonly string[],
  onBegun: (begun: Begun) => void = () => {},
): Promise<number> {
  let at = 'Reading the file';
  const begin = (limit: string | undefined) =>
    beginWithin(limit, (begun) => {
      at = begun.work;
      onBegun(begun);
    });
  try {
    const { positionals, values } = read(args);
    const [command, file] = positionals;
    if (command === 'verbs')
      process.stdout.write(values.json ? `${JSON.stringify(verbListing(), null, 2)}\n` : verbLines());
    else if (command === 'run' && file) await run(file, values, begin(values.limit));
    else if (command === 'convert' && file) {
      if (!values.output?.length) throw new UsageError('Say what to convert to: --output FILE.');
      await run(file, values, begin(values.limit));
    } else if (command === 'fit' && file) return await fit(file, values, begin(values.limit));
    else if (command === 'make' && file) return await make(file, values, begin(values.limit));
    else if (command === 'docks' && file) return await docks(file, begin(values.limit));
    else throw new UsageError('Say what to do.');
    return 0;
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    if (error instanceof LedgerError || error instanceof BuildError || error instanceof FormatError)
      process.stderr.write(`${error.message}\n`);
    else if (error instanceof UsageError) process.stderr.write(`${error.message}\n${USAGE}\n`);
    else if (isFatal(error))
      process.stderr.write(
        `${at}: the kernel stopped over it; nothing more was written. Change one of its sizes or places a little, or leave it out.\n`,
      );
    else process.stderr.write(`Kadrel failed: ${error.stack ?? error.message}\n`);
    return 1;
  }
}

function beginWithin(limit: string | undefined, onBegun: (begun: Begun) => void): Begin {
  const limitSeconds = limit === undefined ? DEFAULT_LIMIT_SECONDS : Number(limit);
  if (!(limitSeconds > 0 && limitSeconds <= MAX_LIMIT_SECONDS))
    throw new UsageError(`--limit takes seconds, more than 0 and at most ${MAX_LIMIT_SECONDS}.`);
  return (work) => onBegun({ work, limitSeconds });
}

function read(args: readonly string[]) {
  const options = {
    measure: { type: 'boolean' },
    output: { type: 'string', multiple: true, short: 'o' },
    part: { type: 'string', multiple: true },
    sheet: { type: 'string', multiple: true },
    chord: { type: 'string' },
    dpi: { type: 'string' },
    limit: { type: 'string' },
    json: { type: 'boolean' },
    within: { type: 'string', multiple: true },
    reach: { type: 'string' },
    hair: { type: 'string' },
    wall: { type: 'string' },
    gap: { type: 'string' },
    feature: { type: 'string' },
    overhang: { type: 'string' },
    cutter: { type: 'string' },
    bed: { type: 'string' },
    material: { type: 'string' },
  } as const;
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options });
  } catch (error) {
    throw new UsageError(error instanceof Error ? error.message : String(error));
  }
}

type Options = ReturnType<typeof read>['values'];

/** A ledger carried out, or a document read; what should be known of it goes to standard error. */
function opened(file: string, kernel: Evaluator, begin: Begin): KadrelDocument {
  const json = readJson(file);
  const { document, warnings } = isDocument(json)
    ? openDocument(json, file, { kernel, begin })
    : runLedger(withFiles(json, dirname(file)), kernel, begin);
  for (const warning of warnings) process.stderr.write(`Warning: ${warning}\n`);
  return document;
}

/** The exit code where the report finds a fault. */
const FAULTS_CODE = 2;

async function fit(
  file: string,
  { part = [], within = [], output = [], reach, hair, bed }: Options,
  begin: Begin,
): Promise<number> {
  const kernel = await loadKernel();
  const document = opened(file, kernel, begin);
  const parts = part.map((name) => requirePart(document, name).id);
  begin('Looking how parts stand');
  const inside = within.map((name) => requirePart(document, name).id);
  output.forEach(requireReportFile);
  const report = await fitOf(document, kernel, { reach, hair, parts, within: inside, bed });
  await writeReport(output, { title: `${basename(file)}: fit report`, findings: report.findings });
  process.stdout.write(`${JSON.stringify(fitJson(document, report))}\n`);
  return report.faults > 0 ? FAULTS_CODE : 0;
}

async function make(
  file: string,
  { part = [], output = [], ...options }: Options,
  begin: Begin,
): Promise<number> {
  const kernel = await loadKernel();
  const document = opened(file, kernel, begin);
  const parts = part.map((name) => requirePart(document, name).id);
  begin('Looking whether parts can be made');
  output.forEach(requireReportFile);
  const report = await makeOf(document, kernel, { ...options, parts });
  await writeReport(output, { title: `${basename(file)}: make report`, findings: report.findings });
  process.stdout.write(`${JSON.stringify(fitJson(document, report))}\n`);
  return report.faults > 0 ? FAULTS_CODE : 0;
}

async function docks(file: string, begin: Begin): Promise<number> {
  const kernel = await loadKernel();
  const document = opened(file, kernel, begin);
  begin('Looking at the docks');
  const report = docksOf(document, kernel);
  process.stdout.write(`${JSON.stringify(docksJson(document, report))}\n`);
  return isSound(report) ? 0 : FAULTS_CODE;
}

async function run(
  file: string,
  { measure, output = [], part = [], sheet = [], chord, dpi }: Options,
  begin: Begin,
): Promise<void> {
  const kernel = await loadKernel();
  const document = opened(file, kernel, begin);
  const named = part.map((name) => requirePart(document, name));
  const chosen = part.length === 0 ? visibleParts(document) : named;
  const measured = part.length === 0 ? [...visibleGroups(document), ...chosen] : named;
  const sheets = sheet.map((name) => requireSheet(document, name));
  const pixelsPerInch = readResolution(dpi);
  const writing = { document, parts: chosen, kernel, chordMm: readChord(chord) };
  for (const path of output) {
    begin(`Writing ${path}`);
    if (isForSheets(path, sheets)) await writeSheets(path, { document, kernel, sheets, pixelsPerInch });
    else writeOutput(path, writing);
  }
  if (measure) begin('Measuring');
  if (measure) process.stdout.write(`${JSON.stringify(measures(document, measured, kernel))}\n`);
}

/** A document, as it is written, rather than a ledger. */
const isDocument = (json: unknown): boolean => typeof json === 'object' && json !== null && 'items' in json;

/** Throws LedgerError where it is damaged, or holds a part that cannot be built. */
function openDocument(
  json: unknown,
  file: string,
  { kernel, begin }: { readonly kernel: Evaluator; readonly begin: Begin },
): LedgerRun {
  const document = documentIn(json, file);
  const warnings = visibleParts(document).flatMap(({ id, name }) => {
    begin(`${file}: ${name}`);
    const problem = kernel.problemOf(document, id);
    const words = problem && `${name}: ${problem.reason} ${problem.remedy}`;
    if (words !== undefined && problem?.step === null) throw new LedgerError(`${file}: ${words}`);
    if (words !== undefined) return [`${words} It is taken without step ${problem!.step! + 1}.`];
    return kernel.noticesFor(document, id).map(({ words }) => `${name}: ${words}`);
  });
  return { document, warnings };
}

function documentIn(json: unknown, file: string): KadrelDocument {
  try {
    return readDocument(json);
  } catch (error) {
    throw new LedgerError(
      `${file} is no Kadrel document: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

function readText(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch (error) {
    throw new UsageError(`${file} cannot be read: ${error instanceof Error ? error.message : String(error)}`);
  }
}

function readJson(file: string): unknown {
  const text = readText(file);
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new LedgerError(`${file} is not JSON: ${error instanceof Error ? error.message : String(error)}`);
  }
}

/** `{ "file": name }` in a statement stands for the text of a drawing beside the ledger. */
function withFiles(json: unknown, folder: string): unknown {
  const { ledger } = (typeof json === 'object' && json !== null ? json : {}) as { ledger?: unknown };
  if (!Array.isArray(ledger)) return json;
  const statements = (ledger as unknown[]).map((statement) => {
    const drawing = (statement as { drawing?: { file?: unknown } } | null)?.drawing;
    if (typeof drawing?.file !== 'string') return statement;
    const path = join(folder, drawing.file);
    const name = basename(drawing.file, extname(drawing.file));
    const importer = importerFor(drawing.file);
    if (!importer) {
      const all = IMPORTERS.flatMap(({ extensions }) => extensions).join(' and ');
      throw new LedgerError(`${drawing.file} is no drawing: Kadrel reads ${all}.`);
    }
    return { ...(statement as object), drawing: { [importer.format]: readText(path), name } };
  });
  return { ...(json as object), ledger: statements };
}

function requirePart(document: KadrelDocument, name: string): Part {
  const part = partNamed(document, name);
  if (!part) throw new UsageError(`There is no part named ${name}.`);
  return part;
}

/** Throws UsageError. */
function readResolution(text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const dpi = Number(text);
  if (!(dpi >= 1 && dpi <= MAX_DPI))
    throw new UsageError(`--dpi takes pixels in an inch, from 1 to ${MAX_DPI}.`);
  return dpi;
}
/** Finer than any printer. */
const MAX_DPI = 4800;

function readChord(text: string | undefined): number {
  const chord = text === undefined ? STL_CHORD_MM : Number(text);
  if (!(chord > 0 && chord <= 1000))
    throw new UsageError('--chord takes millimetres, more than 0 and at most 1000.');
  return chord;
}

function measures(document: KadrelDocument, parts: readonly Part[], kernel: Evaluator) {
  const solids = parts.filter((part) => !isFlatPart(document, part));
  const profiles = parts.filter((part) => definitionOf(document, part).recipe.base.kind === 'profile');
  return {
    parts: Object.fromEntries(solids.map(({ id, name }) => [name, kernel.measure(document, id)])),
    ...(profiles.length === 0
      ? {}
      : {
          profiles: Object.fromEntries(
            profiles.map((part) => [part.name, profileMeasure(document, part, kernel)]),
          ),
        }),
  };
}

/** Area that the even-odd rule fills (mm²), length of its curves (mm), and how far a traverse misses its start. */
function profileMeasure(document: KadrelDocument, part: Part, kernel: Evaluator) {
  const { area, length, box } = kernel.measure(document, part.id);
  const { base } = definitionOf(document, part).recipe;
  if (base.kind !== 'profile') throw new Error(`${part.name} is no profile.`);
  const closed = pathsOf(document, part.id).every((path) => path.closed);
  const { kind } = base.figure;
  return {
    area,
    length,
    box,
    closed,
    ...(kind === 'traverse' ? { error: traverseOf(base.figure).error } : {}),
  };
}

interface Output {
  readonly document: KadrelDocument;
  readonly parts: readonly Part[];
  readonly kernel: Evaluator;
  readonly chordMm: number;
}

function writeOutput(path: string, { document, parts, kernel, chordMm }: Output): void {
  const exporter = exporterFor(path);
  if (!exporter) throw new UsageError(`${path}: Kadrel writes ${ENDINGS}.`);
  const chosen = exporter.holds === 'solids' ? parts.filter((part) => !isFlatPart(document, part)) : parts;
  if (exporter.holds === 'solids' && chosen.length === 0)
    throw new LedgerError('There is no visible part to write.');
  const time = new Date().toISOString().slice(0, 19);
  const ids = chosen.map(({ id }) => id);
  writeFileSync(path, kernel.exported(exporter.format, { document, parts: ids, chordMm, time }));
}

const verbLines = () => VERBS.map(({ id, about }) => `${id.padEnd(10)} ${about}\n`).join('');
