import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensureModules } from './lib/modules.mjs'
import { ROOT } from './lib/root.mjs'
import { ask, gather, watch } from './lib/run.mjs'
import { ofPlaywright, ofVitest, slowest } from './lib/slowest.mjs'

const asked = process.argv.slice(2)
const ALL_SPECS = '*'
const PARTS = ['checks', 'unit', 'api', 'e2e', 'changed']
/** What the pages and the server are made of: a change of it can touch any browser test. */
const MADE_OF =
  /^(core|reckon|contract|server|web|demo|scripts)\/(src|lib|migrations|index\.html|vite)|^package-lock\.json$/
const changed = asked.includes('changed') ? changedFiles() : null
// Words that name no part pick the browser tests whose file they are in.
const picked = changed ? specsTouched(changed) : asked.filter((word) => !PARTS.includes(word))
const wanted = (part) => (changed ? part !== 'e2e' || picked.length > 0 : asked.length === 0 || asked.includes(part))
const bin = (name) => join(ROOT, 'node_modules', name)
const results = join(ROOT, 'test-results')
const ROOMS = ['core', 'reckon', 'contract', 'server', 'web', 'demo']
/** So many of the slowest tests are told, and how long each phase took. */
const SLOWEST = 20
const took = []
const tests = []
let passed = 0
let failed = 0
let stop = () => undefined

try {
  ensureModules()
  rmSync(results, { recursive: true, force: true })
  mkdirSync(results, { recursive: true })
  // The databases, pages and programs of the later tests are made while the checks and the unit tests run.
  const prepared = wanted('api') || wanted('e2e') ? phase('made ready meanwhile', prepare) : null
  // What it may be refused for is told where it is waited for.
  prepared?.catch(() => undefined)
  if (wanted('checks')) await phase('checks', checks)
  if (wanted('unit')) await phase('unit', () => vitest('unit', {}))
  if (prepared) {
    const { environment } = await prepared
    if (wanted('api')) await phase('api', () => vitest('api', environment))
    if (wanted('e2e')) await phase('e2e', () => endToEnd(environment))
  }
} catch (error) {
  console.error(error)
  failed++
} finally {
  stop()
}
process.exitCode = failed === 0 && (passed > 0 || changed) ? 0 : 1
if (tests.length > 0) console.log(`— the slowest\n${slowest(tests, SLOWEST).join('\n')}`)
console.log(`— ${took.map(({ name, seconds }) => `${name} ${seconds.toFixed(0)} s`).join(', ')}`)
console.log(`${passed} passed, ${failed} failed`)

async function phase(name, work) {
  const began = performance.now()
  try {
    return await work()
  } finally {
    took.push({ name, seconds: (performance.now() - began) / 1000 })
  }
}

/** Databases to copy, and, for the browser, the pages and the servers. */
async function prepare() {
  const { prepareTestDatabases } = await import('./lib/testDatabase.mjs')
  const prepared = await prepareTestDatabases({ demo: wanted('e2e') })
  stop = prepared.stop
  if (!wanted('e2e')) return prepared
  const { buildPages, buildServer } = await import('./lib/build.mjs')
  const { ensureChromium } = await import('./lib/chromium.mjs')
  ensureChromium()
  await buildPages()
  const programs = {
    TREADLE_SERVER: fileURLToPath(await buildServer('server/src/main.ts', 'server')),
    TREADLE_APP: await buildServer('server/src/index.ts', 'app'),
  }
  return { ...prepared, environment: { ...prepared.environment, ...programs } }
}

/** All checks side by side, the longest first; each says its piece once it is done. */
async function checks() {
  console.log('— format, lint, types, layers, unused code')
  const [types, lint, format, layers, unused] = [
    ['types', [bin('typescript-native/bin/tsc'), '--build']],
    ['lint', [bin('oxlint/bin/oxlint')]],
    ['format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']],
    ['layers', [bin('dependency-cruiser/bin/dependency-cruise.mjs'), '--config', '.dependency-cruiser.cjs', ...ROOMS]],
    ['unused code', [bin('knip/bin/knip.js')]],
  ]
  await Promise.all([inTurn(types, lint), inTurn(format, layers, unused)])
}

async function inTurn(...list) {
  for (const [name, args] of list) await check(name, args)
}

/** A check counts only when it fails: the closing line is of tests. */
async function check(name, args) {
  const { status, output } = await gather(process.execPath, args)
  if (status === 0) return
  console.error(`${output}\nThe check of ${name} failed.`)
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
      ...(changed ? ['--changed', 'HEAD', '--passWithNoTests'] : []),
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${report}`,
    ],
    { env: { ...process.env, TZ: 'UTC', ...environment } },
  )
  count(report, status, (r) => [r.numPassedTests, r.numFailedTests], ofVitest)
}

async function endToEnd(environment) {
  console.log('— end-to-end tests')
  const report = join(results, 'e2e.json')
  const { status } = await watch(
    process.execPath,
    [
      bin('@playwright/test/cli.js'),
      'test',
      '--config',
      'e2e/playwright.config.ts',
      ...picked.filter((word) => word !== ALL_SPECS),
      ...(picked.length > 0 && !picked.includes(ALL_SPECS) ? ['--no-deps'] : []),
    ],
    { env: { ...process.env, TZ: 'UTC', ...environment, PLAYWRIGHT_JSON_OUTPUT_NAME: report } },
  )
  count(report, status, (r) => [r.stats.expected, r.stats.unexpected + r.stats.flaky], ofPlaywright)
}

function count(report, status, read, times) {
  const told = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null
  const [good, bad] = told ? read(told) : [0, 0]
  if (told) tests.push(...times(told))
  passed += good
  failed += bad
  // A runner that failed without a failed test (a file that does not load) is a failure too.
  if (status !== 0 && bad === 0) failed++
}

/** What differs from the last commit, and what is not in it yet. */
function changedFiles() {
  const lines = [ask('git', ['diff', '--name-only', 'HEAD']), ask('git', ['ls-files', '-o', '--exclude-standard'])]
  return lines.flatMap((text) => (text ?? '').split('\n')).filter((file) => file !== '')
}

/** The browser tests that a change can touch: all where the program changed, else those that were changed themselves. */
function specsTouched(files) {
  if (files.some((file) => MADE_OF.test(file))) return [ALL_SPECS]
  return files.flatMap((file) => /^e2e\/(\w+)\.spec\.ts$/.exec(file)?.[1] ?? [])
}
