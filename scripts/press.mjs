import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ROOT } from './lib/root.mjs'

// Presses at random over every surface of the demo, in each width, until something is wrong.
const USAGE = 'npm run press -- --seed N --steps N'

function wholeNumber(name, text, otherwise) {
  if (text === undefined) return otherwise
  if (/^\d{1,7}$/.test(text)) return text
  console.error(`press: --${name} must be a whole number below ten million, not “${text}”. ${USAGE}`)
  process.exit(2)
}

let asked
try {
  asked = parseArgs({ options: { seed: { type: 'string' }, steps: { type: 'string' } } }).values
} catch (error) {
  console.error(`press: ${error.message} ${USAGE}`)
  process.exit(2)
}
const seed = wholeNumber('seed', asked.seed, String(Date.now() % 1_000_000))
const steps = wholeNumber('steps', asked.steps, '500')
console.log(`Pressing ${steps} times in each width, seed ${seed}.`)
const { status } = spawnSync(process.execPath, [join(ROOT, 'scripts/test.mjs'), 'e2e', 'press.spec'], {
  stdio: 'inherit',
  env: { ...process.env, TREADLE_PRESS_SEED: seed, TREADLE_PRESS_STEPS: steps },
})
process.exitCode = status ?? 1
