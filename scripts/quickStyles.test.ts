/** Styles as the pages get them: nothing in them makes the browser look at the whole page at every change of it. */
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import tailwind from '@tailwindcss/postcss';
import postcss, { type AcceptedPlugin } from 'postcss';
import ts from 'typescript';
import { expect, it } from 'vitest';

const quickStyles = createRequire(import.meta.url)('./postcss-quick-styles.cjs') as () => AcceptedPlugin;
const through = async (css: string) => (await postcss([quickStyles()]).process(css, { from: undefined })).css;

it('a wrapper is not asked whether it holds a disabled field; the field itself still is', async () => {
  expect(await through('.input:has(> input[disabled]) > input[disabled] { color: red }')).toBe('');
  const left = await through('.input:has( > input[disabled]), .input:is(:disabled, [disabled]) { color: red }');
  expect(left.trim()).toBe('.input:is(:disabled, [disabled]) { color: red }');
  const other = '.alert:has(> :nth-child(2)) { color: red }';
  expect(await through(other)).toBe(other);
});

it('no style of what lies within hangs on what else lies there, but in a row of legs', async () => {
  const file = 'src/app/globals.css';
  const { root } = await postcss([
    tailwind({ base: process.cwd() }) as unknown as AcceptedPlugin,
    quickStyles(),
  ]).process(readFileSync(file, 'utf8'), {
    from: file,
  });
  /** A selector without what stands in brackets. */
  const bare = (selector: string): string => {
    const less = selector.replace(/\([^()]*\)/g, '');
    return less === selector ? selector.trim() : bare(less);
  };
  const asked: string[] = [];
  root.walkRules((rule) => {
    for (const s of rule.selectors) if (/:has\S*\s*[\s>+~]\s*\S/.test(bare(s))) asked.push(s);
  });
  expect(/:has\S*\s*[\s>+~]\s*\S/.test(bare('.input:has(> input:not([disabled])) > input'))).toBe(true);
  expect(asked.filter((s) => !s.includes('.timeline'))).toEqual([]);
  expect(root.toString()).toContain('.btn');
}, 60_000);

it('what a screen takes of the component library is in the list of what is taken in', () => {
  const list = /@plugin 'daisyui' \{[^}]*include:([^;]*);/.exec(readFileSync('src/app/globals.css', 'utf8'))![1]!;
  const included = new Set(list.split(',').map((s) => s.trim()));
  const folder = 'node_modules/daisyui/components';
  const components = readdirSync(folder).filter((f) => f.endsWith('.css'));
  // A component's own class is the first its file speaks of.
  const own = new Map(
    components.map((f) => [
      /\.([a-z][\w-]*)/.exec(readFileSync(`${folder}/${f}`, 'utf8').slice(50))![1]!,
      f.slice(0, -4),
    ]),
  );
  expect([...included].filter((name) => components.includes(`${name}.css`)).length).toBeGreaterThan(12);
  const missing = new Set<string>();
  for (const path of readdirSync('src', { recursive: true, encoding: 'utf8' })) {
    if (!path.endsWith('.tsx') || path.includes('.test.')) continue;
    const source = ts.createSourceFile(path, readFileSync(`src/${path}`, 'utf8'), ts.ScriptTarget.Latest, true);
    const words = (node: ts.Node): void => {
      if (ts.isStringLiteralLike(node) || ts.isTemplateLiteralToken(node))
        for (const word of node.text.split(/\s+/)) {
          const component = own.get(word);
          if (component !== undefined && !included.has(component)) missing.add(`${path}: ${word}`);
        }
      node.forEachChild(words);
    };
    const walk = (node: ts.Node): void => {
      if (ts.isJsxAttribute(node) && /class/i.test(node.name.getText())) words(node);
      if (ts.isCallExpression(node) && node.expression.getText() === 'clsx') node.arguments.forEach(words);
      node.forEachChild(walk);
    };
    walk(source);
  }
  expect([...missing]).toEqual([]);
});
