import next from 'eslint-config-next';
import tseslint from 'typescript-eslint';

const corePurity = {
  files: ['src/core/**/*.ts'],
  ignores: ['**/*.test.ts', 'src/core/openFormats/*alidators.js'],
  rules: {
    '@typescript-eslint/no-explicit-any': 'error',
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            regex: '^(react|react-dom|next|knex|pg|node:|comlink|idb)(/|$)|^@/',
            message: 'The core knows no framework, database or Node module.',
          },
        ],
      },
    ],
    'no-restricted-globals': [
      'error',
      ...['window', 'document', 'process', 'fetch', 'performance', 'self', 'setTimeout', 'setInterval', 'crypto'].map(
        (name) => ({
          name,
          message: 'The core is pure: pass it in as an argument.',
        }),
      ),
    ],
    'no-restricted-properties': [
      'error',
      { object: 'Date', property: 'now', message: 'Time is an argument.' },
      { object: 'Math', property: 'random', message: 'Randomness is an argument: units/rng.ts.' },
    ],
    'no-restricted-syntax': [
      'error',
      { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Time is an argument.' },
    ],
  },
};

const config = [
  {
    ignores: [
      '.next/',
      '.build/',
      '.data/',
      'node_modules/',
      'next-env.d.ts',
      'src/core/openFormats/*alidators.js',
      'test-results/',
      'playwright-report/',
    ],
  },
  // React's rules where React is: its compiler's take half a minute over the core.
  ...next.map((c) => (c.ignores && !c.rules ? c : { ...c, files: ['src/{app,client,ui}/**/*.{ts,tsx}'] })),
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
    },
  },
  corePurity,
  {
    // Prettier sets the width; what it cannot break is a sentence or a pattern.
    files: ['**/*.{ts,tsx,mjs}'],
    rules: { 'max-len': ['error', { code: 140 }] },
  },
  {
    files: ['src/{core,server,cli,workers}/**/*.ts', 'db/**/*.ts'],
    // What a migration did is history: it is never edited.
    ignores: ['**/*.test.ts', 'db/migrations/**'],
    rules: {
      complexity: ['error', 20],
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['src/ui/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '(^|/)(server|client|app|workers|cli)/',
              message: 'Screens get everything through props and the bench.',
            },
            { regex: '^(knex|pg|comlink|idb)$', message: 'No data access in a component.' },
          ],
        },
      ],
      'no-restricted-globals': ['error', { name: 'fetch', message: 'No fetch in a component: src/client.' }],
    },
  },
];
export default config;
