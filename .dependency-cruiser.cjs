/**
 * The house's arrows: app → ui → core, app → server → core, workers → core. Inside the core each room uses just the
 * rooms named here; docs/architecture.md draws them. An arrow that is not here is a decision to be made, not a slip.
 */
const ARROWS = {
  units: [],
  people: [],
  codes: ['units'],
  circuit: [],
  control: [],
  parts: ['control', 'units'],
  rig: ['parts', 'units'],
  price: ['parts', 'rig', 'units'],
  compile: ['circuit', 'control', 'parts', 'rig', 'units'],
  operate: ['circuit', 'compile', 'control', 'parts', 'rig', 'units'],
  probe: ['circuit', 'compile', 'operate', 'parts', 'rig', 'units'],
  simulate: ['circuit', 'compile', 'control', 'operate', 'parts', 'rig', 'units'],
  diagnose: ['compile', 'operate', 'parts', 'probe', 'rig', 'units'],
  size: ['circuit', 'codes', 'compile', 'control', 'operate', 'parts', 'probe', 'rig', 'simulate', 'units'],
  rules: ['codes', 'compile', 'diagnose', 'operate', 'parts', 'rig', 'size', 'units'],
  plan: ['compile', 'operate', 'parts', 'price', 'rig', 'rules', 'simulate', 'size', 'units'],
  prove: ['operate', 'parts', 'probe', 'rig', 'units'],
  recorderLog: ['parts', 'rig', 'units'],
  job: ['diagnose', 'operate', 'parts', 'people', 'probe', 'rig', 'simulate', 'units'],
  learn: ['compile', 'diagnose', 'job', 'parts', 'probe', 'prove', 'rig'],
  shop: ['diagnose', 'job', 'people', 'probe', 'recorderLog', 'units'],
  jobAnswers: [
    'codes',
    'compile',
    'diagnose',
    'job',
    'parts',
    'plan',
    'probe',
    'rig',
    'rules',
    'simulate',
    'size',
    'units',
  ],
  documents: [
    ...[
      'codes',
      'compile',
      'diagnose',
      'job',
      'jobAnswers',
      'operate',
      'parts',
      'plan',
      'price',
      'probe',
      'prove',
      'rig',
    ],
    ...['shop', 'simulate', 'size', 'units'],
  ],
  openFormats: [
    'compile',
    'job',
    'learn',
    'operate',
    'people',
    'plan',
    'recorderLog',
    'rig',
    'shop',
    'simulate',
    'units',
  ],
};
const ROOMS = Object.keys(ARROWS);

const arrows = ROOMS.map((room) => {
  const others = ROOMS.filter((r) => r !== room && !ARROWS[room].includes(r));
  return {
    name: `core-${room}-arrows`,
    severity: 'error',
    comment: `core/${room} uses ${ARROWS[room].join(', ') || 'no other room'}`,
    from: { path: `^src/core/${room}/`, pathNot: '\\.test\\.ts$' },
    to: { path: `^src/core/(${others.join('|')})/` },
  };
});

module.exports = {
  forbidden: [
    ...arrows,
    {
      name: 'no-unnamed-room',
      severity: 'error',
      comment: 'a folder of the core that is no room above',
      from: { path: `^src/core/(?!(${ROOMS.join('|')})/)` },
      to: {},
    },
    {
      name: 'no-circles',
      severity: 'error',
      comment: 'types may name each other, values may not',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
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
      from: { path: '^src/(ui|app|client)/', pathNot: '\\.test\\.tsx?$' },
      to: {
        path: '^src/core/(circuit|compile|simulate|diagnose|size|rules|plan|prove)/',
        pathNot:
          '^src/core/(size/calculators/(index|calculator)|simulate/loadTable|plan/letters|plan/usualScenarios|plan/build/(graph|buildPace)|prove/check|diagnose/(complaints|intake|asDesigned|estimate|assumptionLimits|observations/grades|calibration|catalogue/nothingWrong|catalogue/notOnList))\\.ts$',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'pages-take-no-schemas',
      severity: 'error',
      comment: 'a schema brings its library with it: pages take its types, and validate by compiled validators',
      from: { path: '^src/(ui|app|client)/', pathNot: '(\\.test\\.tsx?|/route\\.ts)$' },
      to: { path: '([sS]chema\\.ts|node_modules/typebox/.*)$', dependencyTypesNot: ['type-only'] },
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
