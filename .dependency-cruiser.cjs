/** The house's arrows: app → ui → core, app → server → core, workers → core; inside the core only leftward. */
const ORDER = [
  'units',
  'circuit',
  'control',
  'parts',
  'rig',
  'compile',
  'operate',
  'probe',
  'simulate',
  'diagnose',
  'size',
  'rules',
  'plan',
  'prove',
  'formats',
];

const leftward = ORDER.map((name, i) => ({
  name: `core-${name}-only-leftward`,
  severity: 'error',
  comment: `core/${name} may use only what stands left of it`,
  from: { path: `^src/core/${name}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^src/core/(${ORDER.slice(i + 1).join('|') || 'none'})/` },
}));

module.exports = {
  forbidden: [
    ...leftward,
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-alone',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(?!core/)|^db/' },
    },
    {
      name: 'ui-knows-no-data',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(server|client|app|workers|cli)/' },
    },
    {
      name: 'only-server-knows-sql',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/(server|cli)/' },
      to: { path: 'node_modules/(knex|pg)/' },
    },
    {
      name: 'heavy-core-through-worker',
      severity: 'error',
      comment: 'pages ask the engine, they do not solve; tables of words are light',
      from: { path: '^src/(ui|app|client)/' },
      to: {
        path: '^src/core/(circuit|compile|simulate|diagnose|size|rules|plan|prove)/',
        pathNot:
          '^src/core/(size/bench/(index|calculator)|simulate/loadTable|plan/letters|plan/build/(graph|buildPace)|prove/check|diagnose/(complaints|intake|asDesigned|estimate|assumptionLimits|observations/grades|catalogue/nothingWrong))\\.ts$',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'client-not-server',
      severity: 'error',
      from: { path: '^src/client/' },
      to: { path: '^src/server/', dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: 'specify',
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
