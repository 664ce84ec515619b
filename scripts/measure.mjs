/**
 * `npm run measure`: how long and how wide the code is, beside the aims. Fails where a count is past its aim. Lines are lines of code: blank ones and comments do not count.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { ROOT } from './project.mjs';

const ROOMS = {
  core: 'packages/core/src',
  kernel: 'packages/kernel/src',
  web: 'apps/web/src',
  server: 'apps/server/src',
};
const isTest = (file) => /[.](test|fixture)[.]|\/testing[.]ts$/.test(file);

const filesIn = (folder) =>
  readdirSync(join(ROOT, folder), { recursive: true })
    .map((file) => join(folder, file))
    .filter((file) => /[.]tsx?$/.test(file) && !file.endsWith('.d.ts'));

/** Which lines of a file hold code. */
function linesOfCode(source) {
  const lines = new Set();
  const visit = (node) => {
    if (ts.isJSDoc(node)) return;
    if (node.getChildCount(source) === 0 && node.getWidth(source) > 0)
      for (let at = node.getStart(source); at < node.end; at = source.text.indexOf('\n', at) + 1 || node.end)
        lines.add(source.getLineAndCharacterOfPosition(at).line);
    for (const child of node.getChildren(source)) visit(child);
  };
  visit(source);
  return lines;
}

const lineOf = (source, at) => source.getLineAndCharacterOfPosition(at).line;

function nameOf(node) {
  if (node.name) return node.name.getText();
  const { parent } = node;
  return parent && 'name' in parent && parent.name ? parent.name.getText() : '(unnamed)';
}

const isBoolean = ({ type, initializer }) =>
  type?.kind === ts.SyntaxKind.BooleanKeyword ||
  [ts.SyntaxKind.TrueKeyword, ts.SyntaxKind.FalseKeyword].includes(initializer?.kind);

function functionsOf(source, file) {
  const code = linesOfCode(source);
  const found = [];
  const visit = (node) => {
    if (ts.isFunctionLike(node) && node.body) {
      const [first, last] = [lineOf(source, node.getStart(source)), lineOf(source, node.end)];
      const lines = [...code].filter((line) => line >= first && line <= last).length;
      const name = nameOf(node);
      const isInjected = ts.isConstructorDeclaration(node) && node.parameters.some((one) => one.modifiers);
      found.push({
        file,
        name,
        lines,
        isComponent: file.endsWith('.tsx') && /^[A-Z]/.test(name),
        parameters: isInjected ? 0 : node.parameters.filter((one) => nameOf(one) !== 'this').length,
        booleans: node.parameters.filter(isBoolean).length,
      });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return { code: code.size, found };
}

const isExported = (node) => node.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);
const isPublic = (member) =>
  !member.modifiers?.some(
    ({ kind }) => kind === ts.SyntaxKind.PrivateKeyword || kind === ts.SyntaxKind.StaticKeyword,
  ) && !ts.isConstructorDeclaration(member);

function measureFile(file) {
  const text = readFileSync(join(ROOT, file), 'utf8');
  const kind = file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true, kind);
  const exported = source.statements.filter((node) => isExported(node) && !ts.isExportDeclaration(node));
  const classes = source.statements.filter(ts.isClassDeclaration);
  return {
    file,
    ...functionsOf(source, file),
    lines: text.split('\n').length,
    isReasoned: /^[^]{0,600}Long, since/.test(text),
    exports: exported.length,
    commented: exported.filter((node) => ts.getJSDocCommentsAndTags(node).length > 0 || isPlainType(node))
      .length,
    wide: classes.filter(({ members }) => members.filter(isPublic).length > 10).map((one) => nameOf(one)),
    verbs: file.startsWith('apps/web') ? (text.match(/verb(\?\.id|\.id)? (===|!==) '/g) ?? []).length : 0,
  };
}

/** What a name says by itself: the properties of a component, a type that follows from a schema. */
const isPlainType = (node) =>
  ts.isTypeAliasDeclaration(node) && /^z\.infer|^ReturnType|^Parameters/.test(node.type.getText());

/** What a component draws is read from top to bottom. */
const limit = (one) => (one.isComponent ? 80 : 40);

function measureRoom(folder) {
  const files = filesIn(folder)
    .filter((file) => !isTest(file))
    .map(measureFile);
  const functions = files.flatMap(({ found }) => found);
  const share = (part, whole) => Math.round((1000 * part.length) / whole.length) / 10;
  return {
    files,
    functions,
    row: {
      'functions under 20 lines, %': share(
        functions.filter(({ lines }) => lines < 20),
        functions,
      ),
      'functions over 40 lines, components over 80': functions.filter((one) => one.lines > limit(one)).length,
      'functions with more than 3 parameters, %': share(
        functions.filter(({ parameters }) => parameters > 3),
        functions,
      ),
      'boolean parameters': functions.reduce((sum, { booleans }) => sum + booleans, 0),
      'files over 300 lines that say not why': files.filter(
        ({ code, isReasoned }) => code > 300 && !isReasoned,
      ).length,
      'files over 400 lines of code': files.filter(({ code }) => code > 400).length,
      'classes with more than 10 public members': files.flatMap(({ wide }) => wide).length,
      'exports with a comment, %':
        Math.round(
          (1000 * files.reduce((sum, one) => sum + one.commented, 0)) /
            files.reduce((sum, one) => sum + one.exports, 0),
        ) / 10,
      'comparisons with a verb’s name': files.reduce((sum, { verbs }) => sum + verbs, 0),
    },
  };
}

/** For these more is better. */
const isShare = (what) => what.startsWith('functions under') || what.startsWith('exports');
const AIMS = {
  'functions under 20 lines, %': 90,
  'functions over 40 lines, components over 80': 0,
  'functions with more than 3 parameters, %': 2,
  'boolean parameters': 0,
  'files over 300 lines that say not why': 0,
  'files over 400 lines of code': 0,
  'classes with more than 10 public members': 0,
  'exports with a comment, %': 85,
  'comparisons with a verb’s name': 0,
};

const rooms = Object.fromEntries(Object.entries(ROOMS).map(([name, folder]) => [name, measureRoom(folder)]));
const print = (cells) =>
  process.stdout.write(
    `${cells[0].padEnd(46)}${cells
      .slice(1)
      .map((cell) => String(cell).padStart(9))
      .join('')}\n`,
  );

print(['', ...Object.keys(rooms), 'aim']);
const past = [];
for (const [what, aim] of Object.entries(AIMS)) {
  const values = Object.entries(rooms).map(([room, { row }]) => [room, row[what]]);
  print([what, ...values.map(([, value]) => value), `${isShare(what) ? '≥' : '≤'} ${aim}`]);
  for (const [room, value] of values) {
    if (isShare(what) ? value < aim : value > aim) past.push(`${room}, ${what}: ${value}, not ${aim}`);
  }
}
const code = (select) =>
  Object.values(ROOMS)
    .concat('packages/cli/src', 'packages/testing/src', 'checks/src', 'e2e')
    .flatMap(filesIn)
    .filter(select)
    .reduce((sum, file) => sum + readFileSync(join(ROOT, file), 'utf8').split('\n').length, 0);
const isTesting = (file) => isTest(file) || /^(checks|e2e|packages\/testing)/.test(file);
print([
  'tests, % of all lines',
  Math.round((100 * code(isTesting)) / code(() => true)),
  '',
  '',
  '',
  '25 to 33',
]);

if (process.argv.includes('--worst'))
  for (const { functions } of Object.values(rooms)) {
    const told = (one) => one.lines > limit(one) || one.parameters > 3 || one.booleans > 0;
    for (const one of functions.filter(told).sort((a, b) => b.lines - a.lines))
      print([`${one.name} ${one.lines}/${one.parameters}/${one.booleans}`, relative('.', one.file)]);
  }
for (const words of past) process.stderr.write(`${words}\n`);
if (past.length > 0) process.exitCode = 1;
