import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { ROOT } from './setup.mjs';

/**
 * Counts what makes a house hard to live in, and holds each figure under its ceiling (house.json). A ceiling may only fall: `--lower` writes the
 * present figures where they are better. `npm run house`, and a part of `npm run lint`.
 */

const CEILINGS = path.join(ROOT, 'scripts/house.json');
const LONG_FUNCTION = 100;
const MANY_TERNARIES = 6;

const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', '*.ts', '*.tsx'], {
  cwd: ROOT,
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => file !== '' && !file.endsWith('.d.ts'));
const isTest = (file) => /\.test\.tsx?$/.test(file) || file.startsWith('e2e/') || /\/(testing|judgement)\//.test(file);
const text = new Map(files.map((file) => [file, readFileSync(path.join(ROOT, file), 'utf8')]));
const known = new Set(files);

function resolve(from, name) {
  const base = name.startsWith('.')
    ? path.posix.normalize(path.posix.join(path.posix.dirname(from), name))
    : name
        .replace(/^@\//, 'apps/app/src/')
        .replace(/^@yosoku\/core\//, 'packages/core/src/')
        .replace(/^@yosoku\/server\//, 'apps/server/src/');
  return [base, `${base}.ts`, `${base}.tsx`].find((file) => known.has(file)) ?? null;
}

const source = (file) =>
  ts.createSourceFile(
    file,
    text.get(file),
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
const lineOf = (node, at) => node.getSourceFile().getLineAndCharacterOfPosition(at).line + 1;
const lines = (file) => text.get(file).split('\n').length - 1;

const imports = new Map();
const functions = [];
let methodBranches = 0;
let prose = 0;

/** What a function is called: its own name, or that of what it is given to. */
function nameOf(node) {
  if (node.name) return node.name.getText();
  const { parent } = node;
  return parent && 'name' in parent && parent.name ? parent.name.getText() : '(unnamed)';
}

for (const file of files) {
  const own = new Set();
  imports.set(file, own);
  const test = isTest(file);
  const stack = [];
  const visit = (node) => {
    if ((ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) && node.moduleSpecifier) {
      const to = resolve(file, node.moduleSpecifier.text);
      if (to && to !== file) own.add(to);
    }
    const isFunction =
      ts.isFunctionDeclaration(node) ||
      ts.isFunctionExpression(node) ||
      ts.isArrowFunction(node) ||
      ts.isMethodDeclaration(node);
    if (isFunction && !test) {
      const found = {
        file,
        name: nameOf(node),
        length: lineOf(node, node.getEnd()) - lineOf(node, node.getStart()) + 1,
        ternaries: 0,
      };
      functions.push(found);
      stack.push(found);
    }
    if (ts.isConditionalExpression(node)) for (const each of stack.slice(-1)) each.ternaries += 1;
    if (
      !test &&
      ts.isBinaryExpression(node) &&
      [ts.SyntaxKind.EqualsEqualsEqualsToken, ts.SyntaxKind.ExclamationEqualsEqualsToken].includes(
        node.operatorToken.kind,
      ) &&
      /(^|(?<!\breq)\.)method$/.test(node.left.getText()) &&
      ts.isStringLiteral(node.right) &&
      !/\/(methods|tdc|measure)\//.test(file)
    )
      methodBranches += 1;
    if (
      !test &&
      ts.isCallExpression(node) &&
      /\b(headline|sentence|title|action|words|remedy|message)\.(replace|match|startsWith|endsWith|includes|split)$/.test(
        node.expression.getText(),
      )
    )
      prose += 1;
    ts.forEachChild(node, visit);
    if (isFunction && !test) stack.pop();
  };
  visit(source(file));
}

/** Groups that reach each other: Tarjan's algorithm. @returns those of more than one. */
function circles(graph) {
  const found = [];
  const state = new Map();
  const open = [];
  let count = 0;
  const go = (at) => {
    const own = { index: count, low: count, here: true };
    count += 1;
    state.set(at, own);
    open.push(at);
    for (const next of graph.get(at) ?? []) {
      if (!graph.has(next)) continue;
      const seen = state.get(next);
      if (!seen) own.low = Math.min(own.low, go(next).low);
      else if (seen.here) own.low = Math.min(own.low, seen.index);
    }
    if (own.low === own.index) {
      const group = open.splice(open.indexOf(at));
      for (const each of group) state.get(each).here = false;
      if (group.length > 1) found.push(group);
    }
    return own;
  };
  for (const at of graph.keys()) if (!state.has(at)) go(at);
  return found;
}

const inside = new Map([...imports].filter(([file]) => !isTest(file)));
const folders = new Map();
for (const [file, to] of inside) {
  const from = path.posix.dirname(file);
  if (!folders.has(from)) folders.set(from, new Set());
  for (const other of to) if (path.posix.dirname(other) !== from) folders.get(from).add(path.posix.dirname(other));
}
const fileCircles = circles(inside);
const folderCircles = circles(folders);
const long = functions.filter(({ length }) => length > LONG_FUNCTION).sort((a, b) => b.length - a.length);
const forked = functions
  .filter(({ ternaries }) => ternaries > MANY_TERNARIES)
  .sort((a, b) => b.ternaries - a.ternaries);
const all = files.reduce((sum, file) => sum + lines(file), 0);
const tests = files.filter(isTest).reduce((sum, file) => sum + lines(file), 0);

const figures = {
  'circles of files': fileCircles.length,
  'circles of folders': folderCircles.length,
  'functions of more than 100 lines': long.length,
  'lines of the longest function': long[0]?.length ?? 0,
  'functions of more than 6 ternaries': forked.length,
  'branches on a method by its name': methodBranches,
  'sentences read back or patched': prose,
  'percent of the lines that are no test': Math.ceil((1000 * (all - tests)) / all) / 10,
};
const ceilings = JSON.parse(readFileSync(CEILINGS, 'utf8'));
let over = false;
for (const [name, figure] of Object.entries(figures)) {
  const ceiling = ceilings[name];
  const broken = ceiling === undefined || figure > ceiling;
  over ||= broken;
  console.log(`${broken ? '✗' : ' '} ${String(figure).padStart(6)}  ${name} (at most ${ceiling})`);
}
const show = (what, list) => {
  if (list.length > 0 && process.argv.includes('--list')) console.log(`${what}:\n  ${list.join('\n  ')}`);
};
show(
  'circles',
  [...fileCircles, ...folderCircles].map((group) => group.join(' ')),
);
show(
  'long functions',
  long.map(({ file, name, length }) => `${length} ${name} ${file}`),
);
show(
  'many ternaries',
  forked.map(({ file, name, ternaries }) => `${ternaries} ${name} ${file}`),
);
if (process.argv.includes('--lower')) {
  const lowered = Object.fromEntries(
    Object.entries(figures).map(([name, figure]) => [name, Math.min(figure, ceilings[name] ?? figure)]),
  );
  writeFileSync(CEILINGS, `${JSON.stringify(lowered, null, 2)}\n`);
} else if (over) {
  console.error('A figure of the house is over its ceiling. Make it better; a ceiling may only fall.');
  process.exit(1);
}
