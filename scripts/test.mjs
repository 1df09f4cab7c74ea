import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensureModules } from './lib/modules.mjs'
import { ROOT } from './lib/root.mjs'
import { watch } from './lib/run.mjs'

const asked = process.argv.slice(2)
const PARTS = ['checks', 'unit', 'api', 'e2e']
// Words that name no part pick the browser tests whose file they are in.
const picked = asked.filter((word) => !PARTS.includes(word))
const wanted = (part) => asked.length === 0 || asked.includes(part)
const bin = (name) => join(ROOT, 'node_modules', name)
const results = join(ROOT, 'test-results')
let passed = 0
let failed = 0
let stop = () => undefined

try {
  ensureModules()
  rmSync(results, { recursive: true, force: true })
  mkdirSync(results, { recursive: true })
  if (wanted('checks')) await checks()
  if (wanted('unit')) await vitest('unit', {})
  if (wanted('api') || wanted('e2e')) {
    const { prepareTestDatabases } = await import('./lib/testDatabase.mjs')
    const prepared = await prepareTestDatabases({ demo: wanted('e2e') })
    stop = prepared.stop
    const { buildPages } = await import('./lib/build.mjs')
    buildPages()
    if (wanted('api')) await vitest('api', prepared.environment)
    if (wanted('e2e')) await endToEnd(prepared.environment)
  }
} catch (error) {
  console.error(error)
  failed++
} finally {
  stop()
}
process.exitCode = failed === 0 && passed > 0 ? 0 : 1
console.log(`${passed} passed, ${failed} failed`)

async function checks() {
  await check('format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.'])
  await check('lint', [bin('oxlint/bin/oxlint')])
  await check('types', [bin('typescript-native/bin/tsc'), '--build'])
  await check('layers', [
    bin('dependency-cruiser/bin/dependency-cruise.mjs'),
    '--config',
    '.dependency-cruiser.cjs',
    'core',
    'reckon',
    'contract',
    'server',
    'web',
    'demo',
  ])
  await check('unused code', [bin('knip/bin/knip.js')])
}

/** A check counts only when it fails: the closing line is of tests. */
async function check(name, args) {
  console.log(`— ${name}`)
  const { status } = await watch(process.execPath, args)
  if (status === 0) return
  console.error(`The check of ${name} failed.`)
  failed++
}

async function vitest(project, environment) {
  console.log(`— ${project} tests`)
  const report = join(results, `${project}.json`)
  const { status } = await watch(
    process.execPath,
    [
      bin('vitest/vitest.mjs'),
      'run',
      '--project',
      project,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${report}`,
    ],
    { env: { ...process.env, ...environment } },
  )
  count(report, status, (r) => [r.numPassedTests, r.numFailedTests])
}

async function endToEnd(environment) {
  console.log('— end-to-end tests')
  const { buildServer } = await import('./lib/build.mjs')
  const { ensureChromium } = await import('./lib/chromium.mjs')
  ensureChromium()
  const server = fileURLToPath(await buildServer('server/src/main.ts', 'server'))
  const report = join(results, 'e2e.json')
  const { status } = await watch(
    process.execPath,
    [
      bin('@playwright/test/cli.js'),
      'test',
      '--config',
      'e2e/playwright.config.ts',
      ...picked,
      ...(picked.length > 0 ? ['--no-deps'] : []),
    ],
    {
      env: { ...process.env, ...environment, TREADLE_SERVER: server, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
    },
  )
  count(report, status, (r) => [r.stats.expected, r.stats.unexpected + r.stats.flaky])
}

function count(report, status, read) {
  const [good, bad] = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : [0, 0]
  passed += good
  failed += bad
  // A runner that failed without a failed test (a file that does not load) is a failure too.
  if (status !== 0 && bad === 0) failed++
}
