/** Imports run downward only: web and server → contract → core; the demo stands on all, nothing on the demo. */

/** A floor of the pages: it may stand on those below it, and on nothing above. */
function floor(room, below) {
  const rooms = [room, ...below].join('|')
  return [
    {
      name: `${room}-stands-low`,
      comment: 'data ← parts ← pedal ← hear ← job ← surfaces, places ← app',
      severity: 'error',
      from: { path: `^web/src/${room}/` },
      to: { path: '^web/src/', pathNot: `^web/src/(${rooms})/` },
    },
  ]
}

module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      comment: 'The reckoning has no interface, no server, no Node: plain values in, plain values out.',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(reckon|contract|server|web|demo|e2e|scripts)/' },
    },
    {
      name: 'core-has-few-packages',
      comment:
        'Core may use the FFT, the statistics, exact decimals and the moon’s course, and nothing else from outside.',
      severity: 'error',
      from: { path: '^core/src' },
      to: { pathNot: ['^core/src', 'node_modules/(astronomy-engine|big\\.js|fft\\.js|simple-statistics)/'] },
    },
    {
      name: 'reckon-stands-on-core',
      severity: 'error',
      from: { path: '^reckon/src' },
      to: { path: '^(contract|server|web|demo|e2e|scripts)/' },
    },
    {
      name: 'contract-stands-on-core',
      severity: 'error',
      from: { path: '^contract/src' },
      to: { path: '^(reckon|server|web|demo|e2e|scripts)/' },
    },
    {
      name: 'contract-does-not-reckon',
      comment:
        'The contract has schemas, blank rows and types. Of the core it takes types, and the choices and defaults.',
      severity: 'error',
      from: { path: '^contract/src' },
      to: { path: '^core/src/', pathNot: '^core/src/choices\\.ts$', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'server-knows-no-pages',
      severity: 'error',
      from: { path: '^server/src' },
      to: { path: '^(web|demo|e2e|scripts)/' },
    },
    {
      name: 'pages-know-no-server',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^(server|demo|e2e|scripts)/' },
    },
    ...floor('data', []),
    ...floor('parts', ['data']),
    ...floor('pedal', ['data', 'parts']),
    ...floor('hear', ['data', 'parts', 'pedal']),
    ...floor('lab', ['data', 'parts']),
    ...floor('job', ['data', 'parts', 'pedal', 'hear']),
    {
      name: 'surfaces-stand-apart',
      comment: 'A surface stands on the floors below and on its own room; what two of them share belongs to a floor.',
      severity: 'error',
      from: { path: '^web/src/surfaces/([^/]+)/' },
      to: { path: '^web/src/(surfaces|places|app)/', pathNot: '^web/src/surfaces/$1/' },
    },
    {
      name: 'places-stand-beside-surfaces',
      comment: 'A place may ask the list of surfaces where something is done, and no more of them.',
      severity: 'error',
      from: { path: '^web/src/places/' },
      to: { path: '^web/src/(surfaces|app)/', pathNot: '^web/src/surfaces/index\\.ts$' },
    },
    {
      name: 'the-list-of-surfaces-stands-alone',
      severity: 'error',
      from: { path: '^web/src/surfaces/index\\.ts$' },
      to: { path: '^web/src/', pathNot: '^web/src/surfaces/' },
    },
    {
      name: 'analyser-and-practice-apart',
      comment: 'The analyser is tested against the practice clock, so they share no timing.',
      severity: 'error',
      from: { path: '^core/src/listen' },
      to: { path: '^core/src/practice' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|migrations)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
}
