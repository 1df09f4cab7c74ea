/** Imports run downward only: web and server → contract → core; the demo stands on all, nothing on the demo. */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      comment: 'The reckoning has no interface, no server, no Node: plain values in, plain values out.',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(contract|server|web|demo|e2e|scripts)/' },
    },
    {
      name: 'core-has-few-packages',
      comment: 'Core may use the FFT, the statistics and exact decimals, and nothing else from outside.',
      severity: 'error',
      from: { path: '^core/src' },
      to: { pathNot: ['^core/src', 'node_modules/(big\\.js|fft\\.js|simple-statistics)/'] },
    },
    {
      name: 'contract-stands-on-core',
      severity: 'error',
      from: { path: '^contract/src' },
      to: { path: '^(server|web|demo|e2e|scripts)/' },
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
