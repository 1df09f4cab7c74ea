import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildPages } from './lib/build.mjs'
import { bundle } from './lib/bundle.mjs'
import { installDebian } from './lib/debian.mjs'
import { findTimes } from './lib/findBench.mjs'
import { liveShare, watchTimes, weekFrames, workerTimes } from './lib/hearBench.mjs'
import { loadTimes, pageTimes, photoMemory } from './lib/loadBench.mjs'
import { slowness } from './lib/machine.mjs'
import { donorTimes, laboratoryFrames, palletFrames } from './lib/mendBench.mjs'
import { ensureModules } from './lib/modules.mjs'
import { plateInteraction } from './lib/plateBench.mjs'
import { pedalPresses } from './lib/pressBench.mjs'
import { ROOT } from './lib/root.mjs'

const RUNS = 5
const SECONDS = 600
const SHORT_S = 5
const SAMPLE_RATE = 48_000
const LISTEN_BUDGET = 1.4
/** Of a script beyond what the runtime itself takes. */
const STARTUP_BUDGET_MS = 200
/** A hundred times real time. */
const WATCH_BUDGET_PERCENT = 1
const WATCH_MEMORY_MB = 300
const LIVE_BUDGET_PERCENT = 5
/** Sixty frames a second. */
const SMOOTH_MS = 17
const FIND_BUDGET_MS = 50
const FIND_GROWTH = 1.5
const ASSIGN_BUDGET_MS = 200
const TOUCH_BUDGET_MS = 50
const FRAME_BUDGET_MS = 20
/** What is done at a press feels done at once. */
const PRESS_BUDGET_MS = 50
const DRAWN_BUDGET_MS = 50
const BENCH_BUDGET_MS = 50
const JOB_BUDGET_MS = 30
/** Against the health route under the same load, which asks the database one thing. */
const LOAD_BUDGET = 3
const MEMORY_BUDGET_MB = 500

ensureModules()
const folder = mkdtempSync(join(tmpdir(), 'treadle-bench-'))
try {
  await listening(join(folder, 'ten-minutes.wav'))
  await hearing()
  await buildPages()
  startUp()
  await finding()
  await loaded()
  await assigning()
  await served()
  await pressing()
  report('plates over a photo of 12 MP, longest interaction', await plateInteraction(), TOUCH_BUDGET_MS, ' ms')
  report('which of 5,000 donors fit, 95th percentile', await donorTimes(), FIND_BUDGET_MS, ' ms')
  report('pallets dragged, 98 of 100 frames', await palletFrames(), FRAME_BUDGET_MS, ' ms')
  report('laboratory dragged, 98 of 100 frames', await laboratoryFrames(), FRAME_BUDGET_MS, ' ms')
} finally {
  rmSync(folder, { recursive: true })
}

/**
 * Ten minutes of 48 kHz: how many times real time, and the ratio to a C tool that filters and measures the same file; less
 * what the program takes to start, which it takes for the shortest sound as well.
 */
async function listening(file) {
  if (!existsSync('/usr/bin/sox')) installDebian(['sox'], 'the tool that listening is measured against')
  const { PracticeSound, DEFAULT_PRACTICE_CLOCK, encodeWav } = await import(await bundle('core/src/index.ts', 'core'))
  writeFileSync(
    file,
    encodeWav(new PracticeSound(DEFAULT_PRACTICE_CLOCK, SAMPLE_RATE).next(SAMPLE_RATE * SECONDS), SAMPLE_RATE),
  )
  const short = join(folder, 'short.wav')
  writeFileSync(
    short,
    encodeWav(new PracticeSound(DEFAULT_PRACTICE_CLOCK, SAMPLE_RATE).next(SAMPLE_RATE * SHORT_S), SAMPLE_RATE),
  )
  const ours = []
  const theirs = []
  // In turn, so that a machine whose speed drifts is fair to both; the first round only warms up.
  for (let run = 0; run <= RUNS; run++) {
    const start = timed(process.execPath, [join(ROOT, 'scripts/listen.mjs'), short])
    const a = timed(process.execPath, [join(ROOT, 'scripts/listen.mjs'), file]) - start
    const b = timed('sox', [file, '-n', 'highpass', '1000', 'stats'])
    if (run === 0) continue
    ours.push(a)
    theirs.push(b)
  }
  const ratios = ours.map((a, i) => a / theirs[i])
  console.log(
    `listen: ten minutes of 48 kHz in ${middle(ours).toFixed(2)} s, ${(SECONDS / middle(ours)).toFixed(0)} times real time`,
  )
  report('listen / sox highpass stats', middle(ratios), LISTEN_BUDGET, '')
}

/** Hours of sound: how fast, in how much memory; what listening live costs; and whether a week's chart moves smoothly. */
async function hearing() {
  const { times, megabytes } = await watchTimes(folder)
  console.log(`watch: ${times.toFixed(0)} times real time at 48 kHz`)
  report('real time / watch, per cent', 100 / times, WATCH_BUDGET_PERCENT, ' %')
  report(
    'real time / listening in the browser’s worker, per cent',
    100 / (await workerTimes(folder, SECONDS)),
    WATCH_BUDGET_PERCENT,
    ' %',
  )
  report('memory of a watch at its most', megabytes, WATCH_MEMORY_MB, ' MB')
  report('listening live, of one core', await liveShare(true), LIVE_BUDGET_PERCENT, ' %')
  console.log(`with the swinging bob drawn without a graphics card: ${(await liveShare(false)).toFixed(1)} %`)
  const week = await weekFrames()
  report('a week’s watch zoomed, 95 of 100 frames', week.ms, SMOOTH_MS, ' ms', week.slow)
  report('a week’s watch drawn finely once it rests, one frame', week.restMs, DRAWN_BUDGET_MS, ' ms', week.slow)
}

/** What a script takes that has nothing to do, beyond what the runtime itself takes. */
function startUp() {
  const over = Array.from({ length: 2 * RUNS + 1 }, () => {
    const ours = timed(process.execPath, [join(ROOT, 'scripts/reckon.mjs'), 'pendulum.length', '{"beatsPerHour":7200}'])
    return 1000 * (ours - timed(process.execPath, ['-e', '0']))
  })
  report('start of a script', middle(over), STARTUP_BUDGET_MS, ' ms')
}

/** Asked for one after another: the Bench with 500 open jobs, and the page of a full one. */
async function served() {
  const { bench, job } = await pageTimes()
  report('the Bench with 500 open jobs, 95th percentile', bench.ms, BENCH_BUDGET_MS, ' ms', bench.slow)
  report('a full job’s page, 95th percentile', job.ms, JOB_BUDGET_MS, ' ms', job.slow)
}

/** The pedal on every surface that it leads through, with a full job. */
async function pressing() {
  for (const { surface, pressMs, pressSlow, frameMs, frameSlow } of await pedalPresses()) {
    if (pressMs === undefined) {
      console.log(`${surface}: nothing for the foot to press more than a few times`)
      continue
    }
    report(`${surface}, press to the next stop, 95th percentile`, pressMs, PRESS_BUDGET_MS, ' ms', pressSlow)
    report(`${surface}, longest frame while pressing`, frameMs, DRAWN_BUDGET_MS, ' ms', frameSlow)
  }
}

/** Lists and searches with 20,000 jobs on file, and against the same with 500. */
async function finding() {
  const [few, many] = await findTimes([500, 20_000])
  report('lists and searches at 20,000 jobs, 95th percentile', many, FIND_BUDGET_MS, ' ms')
  report('the same, against 500 jobs', many / few, FIND_GROWTH, '')
}

/** 500 requests at once with 40 full open jobs, against the health route under the same; and twelve large photos at once. */
async function loaded() {
  const { health, ...others } = await loadTimes()
  for (const [name, ms] of Object.entries(others))
    report(`500 at once, ${name} ${ms.toFixed(0)} ms / health ${health.toFixed(0)} ms`, ms / health, LOAD_BUDGET, '')
  report('memory at its most, twelve photos of 24 MB sent at once', await photoMemory(), MEMORY_BUDGET_MB, ' MB')
}

/** Bushes for 60 holes out of 400 rows of stock. */
async function assigning() {
  const { assignBushes } = await import(await bundle('core/src/index.ts', 'core'))
  const holes = Array.from({ length: 60 }, (_, i) => ({
    name: `h${i}`,
    finishedPivotMm: 0.8 + (i % 12) * 0.05,
    cutterMm: 2 + (i % 3) * 0.3,
    plateMm: 2.5,
  }))
  const stock = Array.from({ length: 400 }, (_, i) => ({
    id: `s${i}`,
    outsideMm: 2.02 + (i % 3) * 0.3,
    insideMm: 0.6 + (i % 37) * 0.02,
    lengthMm: 2.5 + (i % 4) * 0.5,
    count: 1,
  }))
  const times = Array.from({ length: 2 * RUNS + 1 }, () => {
    const began = process.hrtime.bigint()
    assignBushes(holes, stock)
    return Number(process.hrtime.bigint() - began) / 1e6
  })
  report('bushes for 60 holes out of 400 rows', middle(times), ASSIGN_BUDGET_MS, ' ms')
}

function timed(command, args) {
  const began = process.hrtime.bigint()
  const done = spawnSync(command, args, { stdio: 'ignore' })
  if (done.status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${done.status}`)
  return Number(process.hrtime.bigint() - began) / 1e9
}

function middle(values) {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
}

/**
 * Says a figure and whether it keeps its budget. What is a time is held against the machine as it was meanwhile, or is at
 * that moment, by a fixed reckoning: a slow hour is not taken for a fault. A ratio, or a size, is what it is.
 */
function report(name, value, budget, unit, slow = / ms|times|%/.test(unit) ? slowness() : 1) {
  const machine = slow > 1.05 ? ` (the machine is ${slow.toFixed(2)} times slower than it may be)` : ''
  const kept = value <= budget * slow
  console.log(`${name}: ${value.toFixed(2)}${unit}, budget ${budget}${unit}${machine}, ${kept ? 'kept' : 'BROKEN'}`)
  if (!kept) process.exitCode = 1
}
