/**
 * Changes the core one place at a time and runs the tests: what no test notices is not tested.
 *
 *   npx tsx scripts/mutate.ts [--seed N] [--count N] [--room NAME] [--only I,J] [--out FILE]
 *
 * Places are drawn by seed from every expression of src/core that a mutator can change: signs, comparisons, numbers,
 * units, logical operators, conditions. Equivalent mutants are listed in scripts/mutants-equivalent.json with a reason.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import ts from 'typescript';
import { seededRng } from '../src/core/units/rng';

interface Mutant {
  file: string;
  line: number;
  from: string;
  to: string;
  start: number;
  end: number;
}

const OPERATORS: Readonly<Record<string, string>> = {
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '===': '!==',
  '!==': '===',
  '&&': '||',
  '||': '&&',
};
const CALLS: Readonly<Record<string, string>> = {
  'Math.max': 'Math.min',
  'Math.min': 'Math.max',
  'Math.floor': 'Math.ceil',
  'Math.ceil': 'Math.floor',
};

const option = (name: string): string | undefined => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? undefined : process.argv[at + 1];
};
const seed = Number(option('seed') ?? 1);
const count = Number(option('count') ?? 200);
const room = option('room');
const root = join(import.meta.dirname, '..');

const walk = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? walk(join(folder, e.name)) : [join(folder, e.name)],
  );

/** Words on a screen and types are no arithmetic: what stands in them is left alone. */
function skipped(node: ts.Node): boolean {
  for (let n: ts.Node | undefined = node; n; n = n.parent) {
    if (ts.isTypeNode(n) || ts.isImportDeclaration(n) || ts.isTemplateSpan(n) || ts.isInterfaceDeclaration(n))
      return true;
    // Limits a schema sets on what may be typed, and digits shown.
    if (ts.isCallExpression(n) && /^(Type\.|.*\.toFixed|kit\.)/.test(n.expression.getText())) return true;
  }
  return false;
}

function mutantsOf(file: string): Mutant[] {
  const text = readFileSync(file, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const list: Mutant[] = [];
  const add = (node: ts.Node, to: string) => {
    const start = node.getStart();
    list.push({
      file: file.replace(`${root}/`, ''),
      line: source.getLineAndCharacterOfPosition(start).line + 1,
      from: node.getText(),
      to,
      start,
      end: node.getEnd(),
    });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isBinaryExpression(node) && !skipped(node)) {
      const to = OPERATORS[node.operatorToken.getText()];
      const text =
        ts.isStringLiteralLike(node.left) || ts.isStringLiteralLike(node.right) || ts.isTemplateExpression(node.right);
      if (to && !(text && /[+]/.test(node.operatorToken.getText()))) add(node.operatorToken, to);
    } else if (ts.isNumericLiteral(node) && !skipped(node)) {
      const x = Number(node.text.replaceAll('_', ''));
      // An index of a tuple or of an array is no figure.
      if (!ts.isElementAccessExpression(node.parent) && Number.isFinite(x))
        add(node, x === 0 ? '1' : `(${node.text} * 1.5)`);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.MinusToken && !skipped(node)) {
      if (!ts.isNumericLiteral(node.operand)) add(node, `(${node.operand.getText()})`);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken && !skipped(node)) {
      add(node, `(${node.operand.getText()})`);
    } else if (ts.isCallExpression(node) && !skipped(node)) {
      const to = CALLS[node.expression.getText()];
      if (to) add(node.expression, to);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return list;
}

/** The tests that are asked: those beside the file and its room, and those elsewhere that are known to use it. */
const ALSO: Readonly<Record<string, readonly string[]>> = {
  circuit: ['src/core/operate', 'tests/reference/ngspice'],
  compile: ['src/core/operate', 'src/core/rules', 'tests/reference/tow'],
  control: ['src/core/parts', 'src/core/operate', 'src/core/simulate', 'tests/reference/time'],
  parts: [
    'src/core/control',
    'src/core/operate',
    'src/core/diagnose',
    'src/core/rules',
    'src/core/size',
    'tests/reference/tradeFacts',
  ],
  rig: ['src/core/operate', 'src/core/job', 'src/core/plan'],
  operate: ['src/core/probe', 'tests/reference/tow', 'tests/reference/ngspice'],
  simulate: ['src/core/plan', 'tests/reference/time', 'tests/reference/tradeFactsTime', 'tests/reference/transient'],
  size: ['src/core/rules', 'src/core/plan'],
  rules: ['tests/reference/tow'],
  price: ['src/core/plan', 'src/core/parts'],
  job: ['src/core/openFormats', 'src/core/jobAnswers'],
  jobAnswers: ['src/core/documents'],
  recorderLog: ['tests/reference/logEstimates'],
  units: ['src/core/size', 'src/core/rig', 'src/core/prove', 'src/core/plan'],
};

const files = walk(join(root, 'src/core')).filter(
  (f) => /\.ts$/.test(f) && !/\.test\.ts$|\.d\.ts$/.test(f) && (room === undefined || f.includes(`/core/${room}/`)),
);
const all = files.flatMap(mutantsOf);
const rng = seededRng(seed);
for (let i = all.length - 1; i > 0; i--) {
  const j = Math.floor(rng.uniform() * (i + 1));
  [all[i], all[j]] = [all[j]!, all[i]!];
}
const listed = join(root, 'scripts/mutants-equivalent.json');
const equivalent = existsSync(listed) ? (JSON.parse(readFileSync(listed, 'utf8')) as { mutant: string }[]) : [];
const nameOf = (m: Mutant) =>
  `${m.file}: ${m.from} → ${m.to} in ${readFileSync(join(root, m.file), 'utf8').split('\n')[m.line - 1]!.trim()}`;
const only = option('only')?.split(',').map(Number);
const drawn = all
  .slice(0, count)
  .map((m, i) => ({ m, i }))
  .filter(({ i }) => !only || only.includes(i));

const vitest = (asked: readonly string[], bail = true) =>
  spawnSync('node_modules/.bin/vitest', ['run', ...asked, ...(bail ? ['--bail=1'] : []), '--reporter=dot'], {
    cwd: root,
    encoding: 'utf8',
    timeout: 240_000,
  });

const out = option('out') ?? '.build/mutants.json';
const results: { i: number; name: string; place: string; result: string }[] = [];
for (const { m, i } of drawn) {
  const path = join(root, m.file);
  const original = readFileSync(path, 'utf8');
  const name = nameOf(m);
  let result: string;
  if (equivalent.some((e) => e.mutant === name)) result = 'equivalent';
  else {
    writeFileSync(path, original.slice(0, m.start) + m.to + original.slice(m.end));
    try {
      const folder = m.file.split('/')[2]!;
      const beside = path.replace(/\.ts$/, '.test.ts');
      // The nearest tests first: most mutants never reach the rest.
      const rounds = [
        ...(existsSync(beside) ? [[beside]] : []),
        ['tests/reference/answers'],
        [dirname(path), `src/core/${folder}/`],
        [...(ALSO[folder] ?? [])],
      ].filter((r) => r.length > 0);
      result = 'survived';
      for (const asked of rounds) {
        const run = vitest(asked);
        if (run.error) result = 'caught (it never ends)';
        else if (run.status !== 0 && !/No test files found/.test(run.stdout + run.stderr))
          result = `caught by ${asked.map((a) => basename(a)).join(', ')}`;
        if (result !== 'survived') break;
      }
    } finally {
      writeFileSync(path, original);
    }
  }
  results.push({ i, name, place: `${m.file}:${m.line}`, result });
  console.log(`${i} ${result === 'survived' ? 'SURVIVED' : result}  ${m.file}:${m.line}  ${m.from} → ${m.to}`);
  writeFileSync(join(root, out), JSON.stringify(results, null, 2));
}
const caught = results.filter((r) => r.result.startsWith('caught')).length;
const judged = results.filter((r) => r.result !== 'equivalent').length;
console.log(
  `${all.length} places; seed ${seed}: ${caught} of ${judged} caught ` +
    `(${((100 * caught) / Math.max(1, judged)).toFixed(1)} %), ${results.length - judged} equivalent`,
);
execFileSync('git', ['diff', '--stat', '--', 'src/core'], { cwd: root, stdio: 'inherit' });
