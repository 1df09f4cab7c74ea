import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './root.mjs'
import { must } from './run.mjs'

const STAMP = join(ROOT, 'node_modules', '.treadle-lock')

/** Installs the npm packages of the lock file, unless just these are installed already. */
export function ensureModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex')
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lock) return
  console.error('Installing npm packages…')
  must('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error'])
  writeFileSync(STAMP, lock)
}
